import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { notedContents } from "../support/contents";
import { runs } from "../support/counts";
import { convert, officeTest } from "../support/libreoffice";
import { compose, formatOf, type Content, type Flow } from "drawer";
import { readSource } from "drawer/files";

const folder = mkdtempSync(join(tmpdir(), "drawer-rtf-written-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** LibreOffice forgets how deep the last line of an RTF file stands, of its own files too; so here is none that matters. */
const END: Flow = { type: "paragraph", runs: [{ type: "text", text: "End." }] };

async function write(name: string, content: Content): Promise<void> {
  const format = name.endsWith(".rtf") ? "rtf" : "odt";
  writeFileSync(join(folder, name), (await formatOf(format).write!({ content: [...content, END] })).data);
}
/** The lines of what it shows, with the marks of lists. */
function shown(name: string): string[] {
  const text = readFileSync(join(folder, name), "utf8").replace(/^\uFEFF/, "");
  return text
    .split("\n")
    .map((line) => line.trim())
    .filter((line) => line !== "");
}

/** Headings, lists, tables, links and notes of a document that it has saved. */
async function structure(name: string): Promise<string> {
  const source = await readSource(new Uint8Array(readFileSync(join(folder, name))), name);
  // Whether a link is underlined by being one goes by the program.
  return compose([source.at()], { style: "host", header: "no" }).markdown.replace(/<\/?u>/g, "");
}

officeTest("LibreOffice shows content that was written as RTF as it shows it written as odt", async () => {
  const contents = fc.sample(notedContents, { numRuns: runs(30, 600).numRuns, seed: 20_310_408 });
  for (const [at, content] of contents.entries())
    for (const format of ["rtf", "odt"]) await write(`${format}-${at}.${format}`, content);
  const names = contents.flatMap((_, at) => [`rtf-${at}.rtf`, `odt-${at}.odt`]);
  convert(folder, "txt:Text (encoded):UTF8", names);
  convert(folder, "docx:MS Word 2007 XML", names);
  for (const [at, content] of contents.entries())
    expect([JSON.stringify(content), shown(`rtf-${at}.txt`)]).toEqual([
      JSON.stringify(content),
      shown(`odt-${at}.txt`),
    ]);
  // The style of code is none of those that it keeps of an odt.
  const isCode = (content: Content) => JSON.stringify(content).includes('"type":"code"');
  for (const [at, content] of contents.entries())
    if (!isCode(content)) expect(await structure(`rtf-${at}.docx`)).toBe(await structure(`odt-${at}.docx`));
});
