import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, truncateSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { some } from "../support/counts";
import { readHtml, readMarkdown, writeText } from "drawer";
import { readSource } from "drawer/files";

const folder = mkdtempSync(join(tmpdir(), "drawer-bounds-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

// As fast as it can be: what is packed here is large and says one thing.
const packed = (files: Record<string, Uint8Array>) => zipSync(files, { level: 1 });
const zip = (files: Record<string, string>) =>
  packed(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])));
const docx = (body: string) =>
  zip({
    "word/document.xml": `<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${body}</w:body></w:document>`,
  });
const relations = (type: string, target: string) =>
  `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/${type}" Target="${target}"/></Relationships>`;
const MAIN = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"';
const xlsx = (rows: string, before = "", after = "", sheets = '<sheet name="S" sheetId="1" r:id="r1"/>') =>
  zip({
    "[Content_Types].xml": `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/></Types>`,
    "_rels/.rels": relations("officeDocument", "xl/workbook.xml"),
    "xl/_rels/workbook.xml.rels": relations("worksheet", "worksheets/sheet1.xml"),
    "xl/workbook.xml": `<workbook ${MAIN} xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets>${sheets}</sheets></workbook>`,
    "xl/worksheets/sheet1.xml": `<worksheet ${MAIN}>${before}<sheetData>${rows}</sheetData>${after}</worksheet>`,
  });
/** Cells that all show one of the texts that they share. */
const shared = (cells: number, texts: string, text = 0) => {
  const files = unzipSync(xlsx(`<row><c t="s"><v>${text}</v></c></row>`.repeat(cells)));
  const types = strFromU8(files["[Content_Types].xml"]!);
  const links = strFromU8(files["xl/_rels/workbook.xml.rels"]!);
  const type = "application/vnd.openxmlformats-officedocument.spreadsheetml.sharedStrings+xml";
  return packed({
    ...files,
    "[Content_Types].xml": strToU8(
      types.replace("</Types>", `<Override PartName="/xl/sharedStrings.xml" ContentType="${type}"/></Types>`),
    ),
    "xl/_rels/workbook.xml.rels": strToU8(
      links.replace(
        "</Relationships>",
        '<Relationship Id="r2" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/sharedStrings" Target="sharedStrings.xml"/></Relationships>',
      ),
    ),
    "xl/sharedStrings.xml": strToU8(`<sst ${MAIN}>${texts}</sst>`),
  });
};
const odt = (body: string) =>
  zip({
    "content.xml": `<o:document-content xmlns:o="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:x="urn:oasis:names:tc:opendocument:xmlns:text:1.0"><o:body><o:text>${body}</o:text></o:body></o:document-content>`,
  });
/** A document that calls one long note again and again. */
const noted = () => {
  const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
  const note = `<w:p><w:r><w:t>${"a note ".repeat(5000)}</w:t></w:r></w:p>`;
  return zip({
    "word/document.xml": `<w:document ${W}><w:body>${'<w:p><w:r><w:footnoteReference w:id="2"/></w:r></w:p>'.repeat(2000)}</w:body></w:document>`,
    "word/footnotes.xml": `<w:footnotes ${W}><w:footnote w:id="2">${note}</w:footnote></w:footnotes>`,
  });
};
/** A document whose list has a long text before each of its items. */
const labelled = () => {
  const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
  const item =
    '<w:p><w:pPr><w:numPr><w:ilvl w:val="0"/><w:numId w:val="1"/></w:numPr></w:pPr><w:r><w:t>x</w:t></w:r></w:p>';
  return zip({
    "word/document.xml": `<w:document ${W}><w:body>${item.repeat(2000)}</w:body></w:document>`,
    "word/numbering.xml": `<w:numbering ${W}><w:abstractNum w:abstractNumId="1"><w:lvl w:ilvl="0"><w:numFmt w:val="decimal"/><w:lvlText w:val="${"long ".repeat(10_000)}%1"/></w:lvl></w:abstractNum><w:num w:numId="1"><w:abstractNumId w:val="1"/></w:num></w:numbering>`,
  });
};
const TOO_LONG = /comes to more than 33,554,432 characters\. Ask for a part of it/;
const ods = (rows: string) =>
  zip({
    "content.xml": `<o:document-content xmlns:o="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:t="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:x="urn:oasis:names:tc:opendocument:xmlns:text:1.0"><o:body><o:spreadsheet><t:table t:name="S">${rows}</t:table></o:spreadsheet></o:body></o:document-content>`,
  });
const FAR = '<row r="1"><c r="A1"><v>1</v></c></row><row r="1048576"><c r="XFD1048576"><v>2</v></c></row>';
const repeated = (times: number) =>
  `<t:table-row t:number-rows-repeated="${times}"><t:table-cell t:number-columns-repeated="${times}"><x:p>x</x:p></t:table-cell></t:table-row>`;

/** Runs the command on a file, or with a program's output piped in; with a heap of 500 MB. */
function collect(words: string, before = ""): { code: number | null; err: string } {
  // Without bounds these take minutes, or all memory. What counts is what the processor does, not how busy the machine is.
  const command = `ulimit -t 60; ${before}node --max-old-space-size=500 ${resolve("dist/bin/main.js")} ${words}`;
  const { status, stderr } = spawnSync("sh", ["-c", command], {
    cwd: folder,
    encoding: "utf8",
    timeout: 290_000,
    env: { ...process.env, DRAWER_HOME: join(folder, "home") },
  });
  return { code: status, err: stderr };
}

const CELL = "<row><c><v>1</v></c></row>";
/** Cells of ten thousand rows. */
const TALL = CELL.repeat(10_000);

/** Those of a file's parts that take longest are made in full only: others go over the same bounds. */
const isEnough = ([name]: readonly [string, ...unknown[]]) =>
  !["formulas.xlsx", "sheets.xlsx", "rows.ods", "columns.ods", "empty.docx", "long-string.xlsx"].includes(
    name,
  );

/** What a small file may say a great many times, and is read all the same, in time and in little memory. */
test.each(
  some<[string, () => Uint8Array]>(
    [
      [
        "columns.xlsx",
        () => xlsx(CELL, `<cols>${'<col min="1" max="16384" hidden="1"/>'.repeat(200_000)}</cols>`),
      ],
      [
        "merges.xlsx",
        () => xlsx(TALL, "", `<mergeCells>${'<mergeCell ref="A1:CV10000"/>'.repeat(100_000)}</mergeCells>`),
      ],
      [
        "links.xlsx",
        () => xlsx(TALL, "", `<hyperlinks>${'<hyperlink ref="A1:A9"/>'.repeat(100_000)}</hyperlinks>`),
      ],
      ["formulas.xlsx", () => xlsx(`<row>${"<c><f>1</f></c>".repeat(16_000)}</row>`.repeat(100) + CELL)],
      ["rows.xlsx", () => xlsx('<row r="1"/>'.repeat(1_000_000) + CELL)],
      ["sheets.xlsx", () => xlsx(CELL, "", "", '<sheet name="S" r:id="r1"/>'.repeat(20_000))],
      ["phonetic.xlsx", () => shared(1, `<si>${"<rPh><t>x</t></rPh>".repeat(300_000)}<t>x</t></si>`)],
      [
        "columns.ods",
        () =>
          ods(
            `${'<t:table-column t:number-columns-repeated="1000" t:visibility="collapse"/>'.repeat(100_000)}<t:table-row>${"<t:table-cell><x:p>x</x:p></t:table-cell>".repeat(10_000)}</t:table-row>`,
          ),
      ],
      [
        "rows.ods",
        () =>
          ods(
            `${"<t:table-row/>".repeat(1_100_000)}<t:table-row><t:table-cell><x:p>x</x:p></t:table-cell></t:table-row>`,
          ),
      ],
      [
        "styles.odt",
        () =>
          zip({
            "content.xml": `<o:document-content xmlns:o="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:x="urn:oasis:names:tc:opendocument:xmlns:text:1.0"><o:automatic-styles>${'<s:style s:name="a" s:family="paragraph" s:parent-style-name="a"/>'.repeat(100_000)}</o:automatic-styles><o:body><o:text><x:p>x</x:p></o:text></o:body></o:document-content>`,
          }),
      ],
    ],
    isEnough,
  ),
)("%s is read in time and in little memory", (name, make) => {
  writeFileSync(join(folder, name), make());
  const { code, err } = collect(`collect ${name}`);
  expect([code, err]).toEqual([0, ""]);
});

test.each(
  some<[string, () => Uint8Array | number, RegExp]>(
    [
      [
        "far.xlsx",
        () => xlsx(FAR),
        /The sheet “S” reaches over 17,179,869,184 cells; .* Name a smaller range/,
      ],
      [
        "many.xlsx",
        () => xlsx(`<row>${"<c><v>1</v></c>".repeat(1001)}</row>`.repeat(1000)),
        /The sheet “S” reaches over 1,001,000 cells; .* Name a smaller range/,
      ],
      ["repeats.ods", () => ods(repeated(10_000)), /repeats rows and cells to more than 2,000,000 cells/],
      ["empty.docx", () => docx("<w:p/>".repeat(3_100_000)), /more than 3,000,000 elements/],
      [
        "nested.docx",
        () => docx("<w:sdt><w:sdtContent>".repeat(5000) + "</w:sdtContent></w:sdt>".repeat(5000)),
        /nested more than 256 deep/,
      ],
      [
        "parts.xlsx",
        () => shared(100_000, `<si>${"<r><rPr><b/></rPr><t>a</t></r><r><t>b</t></r>".repeat(500)}</si>`),
        TOO_LONG,
      ],
      ["shared.xlsx", () => shared(20_000, `<si><t>${"word ".repeat(6000)}</t></si>`), TOO_LONG],
      [
        "strings.xlsx",
        () => shared(1, `<si><t>${"x".repeat(1000)}</t></si>`.repeat(140_000), 139_999),
        /comes to more than 134,217,728 characters/,
      ],
      ["long-string.xlsx", () => shared(1, `<si><t>${"x".repeat(100_000_000)}</t></si>`), TOO_LONG],
      ["repeated.ods", () => ods(repeated(900).replace("<x:p>x", `<x:p>${"long ".repeat(100)}`)), TOO_LONG],
      ["spaces.odt", () => odt(`<x:p>${'<x:s x:c="10000"/>'.repeat(10_000)}</x:p>`), TOO_LONG],
      ["notes.docx", noted, TOO_LONG],
      ["labels.docx", labelled, TOO_LONG],
      ["large.txt", () => 1024 ** 3, /“large.txt” has more than 256 MB/],
    ],
    isEnough,
  ),
)("%s is refused in one sentence, in time and in little memory", (name, make, message) => {
  const made = make();
  writeFileSync(join(folder, name), typeof made === "number" ? "" : made);
  if (typeof made === "number") truncateSync(join(folder, name), made);
  const { code, err } = collect(`collect ${name}`);
  expect([code, err]).toEqual([1, expect.stringMatching(message)]);
  expect(err).toMatch(/^drawer: [^\n]+\n$/);
});

test.each([
  ["collect /dev/zero", "", "“/dev/zero” is no file but a device or a pipe."],
  ["import /dev/zero", "", "“/dev/zero” is no file but a device or a pipe."],
  ["collect", "cat /dev/zero | ", "Standard input has more than 256 MB"],
  ["collect", "yes | ", "Standard input has more than 256 MB"],
])("what never ends is refused: %s %s", (words, before, message) => {
  expect(collect(words, before)).toMatchObject({ code: 1, err: expect.stringContaining(message) });
});

test("a drawer file of 5 GB, and one with an endless line, are refused", () => {
  writeFileSync(join(folder, "large.jsonl"), '{"format":"drawer-snippets","version":1,"snippets":1}\n');
  truncateSync(join(folder, "large.jsonl"), 5 * 1024 ** 3);
  expect(collect("import large.jsonl").err).toContain("more than 2 GB");
  truncateSync(join(folder, "large.jsonl"), 1024 ** 3);
  expect(collect("import large.jsonl").err).toContain("has a line of more than 256 MB");
});

test("a part of a sheet that reaches far, and repeats within bounds, are read", async () => {
  const far = await readSource(xlsx(FAR), "far.xlsx");
  expect(writeText(far.at("S!A1:B2").content)).toBe("1\t\n\t");
  const many = await readSource(ods(repeated(300)), "many.ods");
  expect(many.parts()[0]!.text).toMatch(/^300 rows, 300 columns: x \| x/);
});

/** Shapes whose parsing could take far longer than their length. */
const SHAPES = [
  ...[
    "**x*",
    "~~a",
    "[a](b",
    ">",
    "*a",
    "a*",
    "_a ",
    "`a``b",
    "[",
    "![",
    "[a]((",
    "<a ",
    "<!--x",
    "&a",
    "- ",
    "1) ",
  ],
  ...["http://a.b ", "www.a_ ", "a@b.c ", "*a**b ", "[x] ", "![a][b", '[a](b "c ', "**x*|\n", "a\n> b\n"],
];

test.each(SHAPES)("Markdown of many “%s” takes no longer than its length", async (shape) => {
  // The time of this process alone, and the best of some: other programs have the processors too.
  const milliseconds = async (length: number) => {
    const begun = process.cpuUsage();
    await readMarkdown(shape.repeat(Math.ceil(length / shape.length)));
    const { user, system } = process.cpuUsage(begun);
    return (user + system) / 1000;
  };
  await milliseconds(1000);
  let isLinear = false;
  for (let tried = 0; tried < 4 && !isLinear; tried++) {
    const [small, large] = [await milliseconds(25_000), await milliseconds(100_000)];
    // Four times the length: linear is 4, quadratic 16; what takes no time at all is no matter.
    isLinear = large < 500 || large / small < 10;
  }
  expect(isLinear).toBe(true);
});

test("a large part that is damaged, or is not as long as its file says, is refused as damaged wherever that shows", async () => {
  const line = (at: number) =>
    `<w:p><w:r><w:t>${((at * 2654435761) % 4294967296).toString(36)} north-west</w:t></w:r></w:p>`;
  const whole = docx(Array.from({ length: 60_000 }, (_, at) => line(at)).join(""));
  const length = unzipSync(whole)["word/document.xml"]!.length;
  const directory = whole.lastIndexOf(0x50, whole.length - 23);
  const read = async (bytes: Uint8Array) => (await readSource(bytes, "long.docx")).at().content.length;
  await expect(read(whole)).resolves.toBe(60_000);
  for (const said of [length - 1, 2_000_000, 100]) {
    const lying = whole.slice();
    const entry = lying.findIndex(
      (_, at) => at >= directory - 100 && lying[at] === 0x50 && lying[at + 2] === 1,
    );
    new DataView(lying.buffer).setUint32(entry + 24, said, true);
    await expect(read(lying)).rejects.toThrow("“long.docx” is damaged");
  }
  for (const part of [0.1, 0.5, 0.9]) {
    const broken = whole.slice();
    broken.fill(0xff, Math.round(part * broken.length), Math.round(part * broken.length) + 500);
    await expect(read(broken)).rejects.toThrow("“long.docx” is damaged");
  }
});

test("what is beyond the bounds of Markdown is plain text, and that is said; what people write is not", async () => {
  const beyond = await readMarkdown("**x*".repeat(2000));
  expect([writeText(beyond.content), beyond.notices.length]).toEqual(["**x*".repeat(2000), 1]);
  const item = "- **Wren**, *Troglodytes*: [seen](https://merrow-spit.example/)\n";
  const table = `| a | b |\n| - | - |\n${"| **x** | *y* |\n".repeat(2000)}`;
  const code = `\`\`\`c\n${"char **argv = *list;\n".repeat(2000)}\`\`\`\n`;
  for (const usual of [item.repeat(2000), table, code])
    expect((await readMarkdown(usual)).notices).toEqual([]);
});

test("a hundred thousand lines of preformatted text are read", async () => {
  const { content } = await readHtml(`<pre>${"line\n".repeat(100_000)}</pre>`);
  expect(writeText(content).length).toBeGreaterThan(499_000);
});
