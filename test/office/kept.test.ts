import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { basename, join } from "node:path";
import prettier from "prettier";
import { convert, corpusTest, sayMissing, shownBy } from "../support/libreoffice";
import { wordsIn } from "../support/words";
import { makeCorpus, PROBES } from "./corpus";
import { compose, writeText } from "drawer";
import { readSource } from "drawer/files";

sayMissing();
const folder = mkdtempSync(join(tmpdir(), "drawer-office-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const DOCUMENTS = [...new Set(PROBES.flatMap(({ files }) => Object.keys(files)))];
const read = async (name: string) =>
  (await readSource(new Uint8Array(readFileSync(join(folder, name))), name)).at();
const codesOf = (notices: readonly { reason: string }[]) => notices.map(({ reason }) => reason);

let isMade = false;
/** Makes the corpus once, for those tests that are not skipped. */
function made(): void {
  if (isMade) return;
  makeCorpus(folder);
  for (const form of ["txt:Text", "pdf"]) convert(folder, form, DOCUMENTS);
  isMade = true;
}

corpusTest.each(
  PROBES.flatMap(({ what, files, notice }) =>
    Object.entries(files).map(([file, lines]) => ({ what, file, lines, notice })),
  ),
)("$file: $what", async ({ file, lines, notice }) => {
  made();
  const { content, notices } = await read(file);
  expect(`\n${writeText(content)}\n`).toContain(`\n${lines.join("\n")}\n`);
  if (notice !== undefined) expect(codesOf(notices)).toContain(notice);
});

/** Whether all of some words stand in a text, in their order. */
function firstMissing(wanted: readonly string[], text: readonly string[]): string | undefined {
  let at = 0;
  for (const word of wanted) {
    at = text.indexOf(word, at) + 1;
    if (at === 0) return word;
  }
  return undefined;
}

corpusTest.each(DOCUMENTS)(
  "%s: every word that LibreOffice shows is there, in its order, and no other",
  async (file) => {
    made();
    const { content } = await read(file);
    const own = wordsIn(writeText(content));
    const stem = basename(file).replace(/\.\w+$/, "");
    const text = readFileSync(join(folder, `${stem}.txt`), "utf8");
    // Word has the upper numbers of legal numbers decimal too.
    const shown = wordsIn(text.replaceAll("II.a.", "2.1."));
    expect(firstMissing(shown, own)).toBeUndefined();
    const { stdout } = spawnSync("pdftotext", ["-layout", join(folder, `${stem}.pdf`), "-"], {
      encoding: "utf8",
    });
    const printed = wordsIn(stdout);
    // Words may be broken on the page, and text may not show what is drawn: what stands in neither is strange.
    const strange = own.filter((word) => !printed.includes(word) && !shown.includes(word));
    const lost = printed.filter((word) => !own.includes(word));
    expect({
      strange: strange.filter((word) => !DRAWN.has(word)),
      lost: lost.filter((word) => !JOINED.has(word)),
    }).toEqual({ strange: [], lost: [] });
  },
);

/** Words of a diagram whose drawing LibreOffice has no part for. */
const DRAWN = new Set(["Ring", "Release"]);
/** What the pages show and the text has otherwise: the comment's author's number, the rest of a word with a drop cap. */
const JOINED = new Set<string>(["he", "ii"]);

corpusTest.each(["openpyxl.xlsx", "openpyxl-1904.xlsx", "odfpy.ods"])(
  "%s: every figure is shown as LibreOffice shows it",
  async (file) => {
    made();
    const { content } = await read(file);
    const own = compose([{ content: [content[0]!] }], { tidy: [] }).delimited("\t", { guard: false });
    const rows = shownBy(folder, file).filter((row) => row.some((cell) => cell !== ""));
    // Excel writes powers of ten with two digits, and parts a fraction from no whole number.
    const shown = rows.map((row) => row.map((cell) => cell.trim().replace("E+021", "E+21")));
    const ownRows = own
      .split(/\n(?=(?:[^"]*"[^"]*")*[^"]*$)/)
      .map((row) => row.split("\t").map((cell) => cell.replace(/^"([\s\S]*)"$/, "$1")));
    expect(ownRows.filter((row) => row.some((cell) => cell !== ""))).toEqual(shown);
  },
);

corpusTest(
  "docs/formats.md says what of it is kept (`node scripts/formats.mjs` makes it again)",
  async () => {
    const lines = PROBES.map(({ what, files, notice }) => {
      const by = (ending: string) =>
        Object.keys(files)
          .filter((file) => file.endsWith(ending))
          .map((file) => WRITERS[file.replace(/\.\w+$/, "")]!);
      const cell = (ending: string) => [...new Set(by(ending))].join(", ") || "—";
      return `| ${what} | ${cell("docx")} | ${cell("odt")} | ${notice === undefined ? "kept" : `told by \`${notice}\``} |`;
    });
    const table = ["| in a document | docx of | odt of | |", "| --- | --- | --- | --- |", ...lines].join(
      "\n",
    );
    const formatted = (await prettier.format(table, { parser: "markdown" })).trim();
    const page = readFileSync("docs/formats.md", "utf8");
    const section = /(<!-- what is kept -->\n\n)[\s\S]*?(\n\n<!-- end -->)/;
    if (process.env["DRAWER_WRITE_DOCS"])
      writeFileSync("docs/formats.md", page.replace(section, `$1${formatted}$2`));
    else expect(section.exec(page)?.[0]).toContain(formatted);
  },
);

/** Who wrote the documents of the corpus. */
const WRITERS: Readonly<Record<string, string>> = {
  pandoc: "pandoc",
  libreoffice: "LibreOffice",
  odfpy: "odfpy",
  "python-docx": "python-docx",
  "numbered-headings": "python-docx",
  "list-numbers": "python-docx",
  "by-hand": "word processors (by hand)",
};
