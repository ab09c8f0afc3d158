import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { PYTHON } from "../../scripts/office.mjs";
import { notedContents, sheetTables } from "../support/contents";
import { isFull } from "../support/counts";
import { demoFile } from "../support/demo";
import { convert, corpusTest, sayMissing } from "../support/libreoffice";
import { writeOffice } from "../support/office";
import { faultsOfOdf, faultsOfOoxml } from "../support/schemas";
import { wordsIn } from "../support/words";
import { makeCorpus } from "./corpus";
import { readHtml, writeText, type Content } from "drawer";
import { readSource } from "drawer/files";

sayMissing();
const folder = mkdtempSync(join(tmpdir(), "drawer-written-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Everything that content can hold beside and inside each other, many times over. */
const many = (seed: number): Content => fc.sample(notedContents, { numRuns: 25, seed }).flat();
const SEEDS = isFull ? [1, 2, 3, 4, 5, 6] : [1];

corpusTest("documents keep to their schemas", async () => {
  const all = SEEDS.map((seed) => many(seed));
  for (const content of all)
    expect(faultsOfOoxml(await writeOffice({ content }, "docx"), "x.docx")).toEqual([]);
  const odt = await Promise.all(all.map((content) => writeOffice({ content }, "odt")));
  expect(faultsOfOdf(...odt)).toEqual([]);
});

corpusTest("workbooks keep to their schemas", async () => {
  const all = SEEDS.flatMap((seed) => [fc.sample(sheetTables, { numRuns: 10, seed }), many(seed)]);
  for (const content of all)
    expect(faultsOfOoxml(await writeOffice({ content }, "xlsx"), "x.xlsx")).toEqual([]);
  const ods = await Promise.all(all.map((content) => writeOffice({ content }, "ods")));
  expect(faultsOfOdf(...ods)).toEqual([]);
});

let isMade = false;
/** Makes the corpus once, for those tests that are not skipped. */
function made(): void {
  if (!isMade) makeCorpus(folder);
  isMade = true;
}

/** Words as often as they stand in a text, in no order: pages have notes and repeated rows where they like. */
function counted(words: readonly string[]): Record<string, number> {
  const counts: Record<string, number> = {};
  for (const word of [...words].sort()) counts[word] = (counts[word] ?? 0) + 1;
  return counts;
}

const FILES = [
  "diary.docx",
  "pandoc.docx",
  "pandoc.odt",
  "python-docx.docx",
  "list-numbers.docx",
  "odfpy.odt",
  "libreoffice.odt",
  "by-hand.docx",
];

corpusTest.each(["docx", "odt"] as const)(
  "what other programs wrote, written again as %s, keeps to its schema and shows every word in LibreOffice",
  async (format) => {
    made();
    writeFileSync(join(folder, "diary.docx"), demoFile("diary.docx"));
    const words: Record<string, number>[] = [];
    const all: Uint8Array[] = [];
    const names = FILES.map((_, at) => `again-${at}`);
    for (const [at, file] of FILES.entries()) {
      const read = await readSource(new Uint8Array(readFileSync(join(folder, file))), file);
      const { content, pictures } = read.at();
      const bytes = await writeOffice({ content, picture: (hash) => pictures.get(hash) }, format);
      if (format === "docx") expect(faultsOfOoxml(bytes, "x.docx")).toEqual([]);
      all.push(bytes);
      writeFileSync(join(folder, `${names[at]!}.${format}`), bytes);
      words.push(counted(wordsIn(writeText(content))));
    }
    if (format === "odt") expect(faultsOfOdf(...all)).toEqual([]);
    convert(
      folder,
      "pdf",
      names.map((name) => `${name}.${format}`),
    );
    const shown = names.map((name) => {
      const pages = spawnSync("pdftotext", [join(folder, `${name}.pdf`), "-"], { encoding: "utf8" });
      return counted(wordsIn(pages.stdout));
    });
    const byFile = (counts: Record<string, number>[]) =>
      FILES.map((file, at) => ({ file, words: counts[at] }));
    expect(byFile(shown)).toEqual(byFile(words));
  },
);

corpusTest("the header rows of a written sheet stay in sight", async () => {
  const html = "<table><thead><tr><th>Ride<th>Birds</thead><tr><td>North<td>4<tr><td>Middle<td>2</table>";
  const { content } = await readHtml(html);
  for (const format of ["ods", "xlsx"] as const)
    writeFileSync(join(folder, `header.${format}`), await writeOffice({ content }, format));
  writeFileSync(join(folder, "plain.ods"), await writeOffice({ content: [...content, ...content] }, "ods"));
  const names = ["header.ods", "header.xlsx", "plain.ods"];
  const { stdout } = spawnSync(PYTHON, ["test/office/frozen.py", folder, ...names], { encoding: "utf8" });
  expect(stdout.trim().split("\n")).toEqual(["header.ods 1", "header.xlsx 1", "plain.ods 0"]);
});

/** Items that begin with a table, a quote or code, or hold one; and lists in them that go on after it. */
const ITEMS = [
  '<ol start="3" type="a"><li>one</li><li>two<table><tr><td>a</td><td>b</td></tr></table></li>',
  "<li><table><tr><td>c</td></tr></table></li><li><blockquote>quoted</blockquote><p>more</p></li>",
  "<li><pre>x = 1\ny = 2</pre></li><li>nest<ol><li>n1</li><li>n2<table><tr><td>d</td></tr></table></li>",
  "<li>n3</li></ol></li><li>last</li></ol>",
].join("");

corpusTest.each(["docx", "odt"] as const)(
  "tables, quotes and code in items are kept in a %s, and numbers go on",
  async (format) => {
    const { content } = await readHtml(ITEMS);
    const bytes = await writeOffice({ content }, format);
    expect(format === "docx" ? faultsOfOoxml(bytes, "x.docx") : faultsOfOdf(bytes)).toEqual([]);
    writeFileSync(join(folder, `items.${format}`), bytes);
    convert(folder, "txt:Text", [`items.${format}`]);
    const lines = readFileSync(join(folder, "items.txt"), "utf8")
      .replace("\ufeff", "")
      .split("\n")
      .map((line) => line.trim());
    expect(lines.filter((line) => line !== "")).toEqual([
      ...["c. one", "d. two", "a", "b", "e.", "c", "f. quoted", "more", "g. x = 1", "y = 2"],
      ...["h. nest", "1. n1", "2. n2", "d", "3. n3", "i. last"],
    ]);
  },
);

corpusTest(
  "no figure of a wide table is broken on paper, and headers of figures stand above them",
  async () => {
    const table = (columns: number): string => {
      const row = (cell: (at: number) => string) =>
        `<tr>${Array.from({ length: columns }, (_, at) => `<td>${cell(at)}</td>`).join("")}</tr>`;
      const figure = (at: number) => (12345.75 + at * 1111.11).toFixed(2).replace(/(\d\d)(\d{3}\.)/, "$1,$2");
      return `<table><thead>${row((at) => `Week${at + 1}`)}</thead>${row(figure)}${row((at) => figure(at + 3))}</table>`;
    };
    const figuresIn = (text: string) => counted(text.match(/[\p{L}\d][\p{L}\d.,]*/gu) ?? []);
    const names: string[] = [];
    const wanted: Record<string, number>[] = [];
    for (const columns of [5, 9, 13, 18])
      for (const format of ["docx", "odt"] as const) {
        const { content } = await readHtml(`<p>Costs</p>${table(columns)}`);
        const bytes = await writeOffice({ content }, format);
        expect(format === "docx" ? faultsOfOoxml(bytes, "x.docx") : faultsOfOdf(bytes)).toEqual([]);
        const name = `wide-${columns}-${format}`;
        names.push(name);
        writeFileSync(join(folder, `${name}.${format}`), bytes);
        wanted.push(figuresIn(writeText(content)));
      }
    convert(
      folder,
      "pdf",
      names.map((name) => `${name}.${name.split("-")[2]!}`),
    );
    const shown = names.map((name) =>
      figuresIn(spawnSync("pdftotext", [join(folder, `${name}.pdf`), "-"], { encoding: "utf8" }).stdout),
    );
    expect(names.map((name, at) => [name, shown[at]])).toEqual(names.map((name, at) => [name, wanted[at]]));
  },
);

corpusTest("a cell of several lines shows them all in a workbook that a sheet program opens", async () => {
  const { content } = await readHtml(
    "<table><tr><td>Gannet</td><td>one<br>two<br>three<br>four</td></tr><tr><td>Wren</td><td>five</td></tr></table>",
  );
  for (const format of ["xlsx", "ods"] as const) {
    writeFileSync(join(folder, `lines.${format}`), await writeOffice({ content }, format));
    convert(folder, "pdf", [`lines.${format}`]);
    const { stdout } = spawnSync("pdftotext", [join(folder, "lines.pdf"), "-"], { encoding: "utf8" });
    const shown = wordsIn(stdout).filter((word) => !["Page", "Sheet"].includes(word));
    expect(shown.sort()).toEqual(wordsIn(writeText(content)).sort());
  }
});
