import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { unzipSync } from "fflate";
import Papa from "papaparse";
import { runs } from "../support/counts";
import { p, r, rawDocument, shape } from "../support/document";
import { convert, officeTest } from "../support/libreoffice";
import { writeOffice } from "../support/office";
import { rawWorkbook } from "../support/workbook";
import { compose, readHtml, readText, writeText, type Table } from "drawer";
import { putInto, readSource, takeOut } from "drawer/files";

const AT = new Date("2031-04-08T09:00:00Z");
const bodyOf = (bytes: Uint8Array) =>
  /<w:body>([\s\S]*)<\/w:body>/.exec(new TextDecoder().decode(unzipSync(bytes)["word/document.xml"]))![1]!;
const text = (words: string) => compose([readText(words)]);
const shown = async (bytes: Uint8Array, name = "a.docx") =>
  writeText((await readSource(bytes, name)).at().content).split("\n");
const refusal = (act: Promise<unknown>) =>
  act.then(
    () => "done",
    (error: { reason?: string; message: string }) => error.reason ?? error.message,
  );

const cell = (inner: string, props = "") => `<w:tc>${props}${inner}</w:tc>`;
const table = (...rows: string[][]) =>
  `<w:tbl><w:tblPr/><w:tblGrid/>${rows.map((cells) => `<w:tr>${cells.join("")}</w:tr>`).join("")}</w:tbl>`;
const field = (type: string) => `<w:r><w:fldChar w:fldCharType="${type}"/></w:r>`;

test("marks that stand in pairs stay whole when one side of them is taken out", async () => {
  const start = '<w:bookmarkStart w:id="4" w:name="Wind"/>';
  const end = '<w:bookmarkEnd w:id="4"/>';
  const bytes = rawDocument(p(start, r("one")) + p(r("two")) + p(r("three"), end) + p(r("four")));
  expect(bodyOf((await takeOut(bytes, "a.docx", ["p1"])).data)).toBe(
    start + p(r("two")) + p(r("three"), end) + p(r("four")),
  );
  expect(bodyOf((await takeOut(bytes, "a.docx", ["p2..p3"])).data)).toBe(
    p(start, r("one")) + end + p(r("four")),
  );
  // All of it goes with its marks.
  expect(bodyOf((await takeOut(bytes, "a.docx", ["p1..p3"])).data)).toBe(p(r("four")));
});

test("the bytes that are given stay as they are, also in a buffer of Node", async () => {
  const given = rawDocument(p(r("one")) + p(r("two")));
  const buffer = Buffer.concat([Buffer.alloc(100), given]).subarray(100);
  const { data } = await putInto(buffer, "a.docx", "p1", text("wren"));
  expect(Buffer.compare(buffer, given)).toBe(0);
  expect(await shown((await takeOut(Buffer.from(data), "a.docx", ["p1"])).data)).toEqual(["wren", "two"]);
});

test("a field over paragraphs is taken out whole, or not at all", async () => {
  const bytes = rawDocument(
    p(field("begin"), "<w:r><w:instrText> TOC </w:instrText></w:r>", field("separate"), r("one")) +
      p(r("two"), field("end")) +
      p(r("three")),
  );
  expect(await refusal(takeOut(bytes, "a.docx", ["p1"]))).toBe("cannot-edit/field");
  expect(await shown((await takeOut(bytes, "a.docx", ["p1..p2"])).data)).toEqual(["three"]);
});

test("what stands in one paragraph with something else is not taken out alone", async () => {
  const bytes = rawDocument(p(r("north"), '<w:r><w:br w:type="page"/></w:r>', r("south")) + p(r("east")));
  expect(await refusal(takeOut(bytes, "a.docx", ["p1"]))).toBe("cannot-edit/shared");
  expect(await shown((await takeOut(bytes, "a.docx", ["p1..p2"])).data)).toEqual(["east"]);
});

test("a section's end, the last paragraph of a cell and the one between two tables stay", async () => {
  const section = '<w:sectPr><w:pgSz w:w="1000" w:h="2000"/></w:sectPr>';
  const sections = rawDocument(`<w:p><w:pPr>${section}</w:pPr>${r("one")}</w:p>` + p(r("two")));
  expect(bodyOf((await takeOut(sections, "a.docx", ["p1"])).data)).toBe(
    `<w:p><w:pPr>${section}</w:pPr></w:p>` + p(r("two")),
  );
  const two = table([cell(p(r("a")))]) + p(r("between")) + table([cell(p(r("b")))]);
  expect(bodyOf((await takeOut(rawDocument(two), "a.docx", ["p1"])).data)).toBe(
    two.replace(p(r("between")), "<w:p/>"),
  );
  const emptied = await takeOut(rawDocument(table([cell(p(r("a"))), cell(p(r("b")))])), "a.docx", ["t1!A1"]);
  expect(bodyOf(emptied.data)).toBe(table([cell("<w:p></w:p>"), cell(p(r("b")))]));
});

test("a block goes into an empty cell; into a filled one only when that is said; cell by cell into several", async () => {
  const grid = rawDocument(
    table([cell(p(r("a"))), cell("<w:p/>")], [cell("<w:p/>"), cell("<w:p/>")]) + p(r("end")),
  );
  expect(await refusal(putInto(grid, "a.docx", "t1!A1", text("wren")))).toBe("cannot-edit/filled");
  const rows = async (bytes: Uint8Array) =>
    ((await readSource(bytes, "a.docx")).at("t1").content[0] as Table).rows.map((row) =>
      row.map(({ flows }) => writeText(flows)),
    );
  expect(await rows((await putInto(grid, "a.docx", "t1!A1", text("wren"), { put: "instead" })).data)).toEqual(
    [
      ["wren", ""],
      ["", ""],
    ],
  );
  expect(await rows((await putInto(grid, "a.docx", "t1!B1", text("wren"))).data)).toEqual([
    ["a", "wren"],
    ["", ""],
  ]);
  expect(await rows((await putInto(grid, "a.docx", "t1!A1", text("wren"), { put: "after" })).data)).toEqual([
    ["a\nwren", ""],
    ["", ""],
  ]);
  const cells = compose([await readHtml("<table><tr><td>1<td>2</table>")]);
  expect(await rows((await putInto(grid, "a.docx", "t1!A2:B2", cells)).data)).toEqual([
    ["a", ""],
    ["1", "2"],
  ]);
  expect(await refusal(putInto(grid, "a.docx", "t1!A1:B2", cells, { put: "instead" }))).toBe(
    "cannot-edit/shape",
  );
  const merged = rawDocument(
    table(
      [cell(p(r("a")), '<w:tcPr><w:vMerge w:val="restart"/></w:tcPr>'), cell(p(r("b")))],
      [cell("<w:p/>", "<w:tcPr><w:vMerge/></w:tcPr>"), cell(p(r("c")))],
    ) + p(r("end")),
  );
  const after = (at: string) => putInto(merged, "a.docx", at, cells, { put: "after" });
  expect(await refusal(after("t1!A1:B1"))).toBe("cannot-edit/merged");
  expect(await rows((await after("t1!A1:B2")).data)).toEqual([["a", "b"], ["c"], ["1", "2"]]);
});

test("items put beside an item are items of its list", async () => {
  const item = (words: string) =>
    `<w:p><w:pPr><w:pStyle w:val="Rides"/><w:numPr><w:ilvl w:val="0"/><w:numId w:val="7"/></w:numPr></w:pPr>${r(words)}</w:p>`;
  const bytes = rawDocument(item("north") + item("south"));
  const { content } = await readHtml("<ol><li>middle<ul><li>deep</ul></ol>");
  const flat = await readHtml("<ol><li>middle<li>west</ol>");
  const made = bodyOf((await putInto(bytes, "a.docx", "p1", compose([flat]))).data);
  expect(made.match(/<w:numId w:val="(\d+)"/g)).toEqual(
    Array.from({ length: 4 }, () => '<w:numId w:val="7"'),
  );
  expect(made.match(/<w:pStyle w:val="(\w+)"/g)).toEqual(
    Array.from({ length: 4 }, () => '<w:pStyle w:val="Rides"'),
  );
  // A list within it has a numbering of its own.
  const nested = bodyOf((await putInto(bytes, "a.docx", "p1", compose([{ content }]))).data);
  expect(nested).toContain("deep");
});

officeTest(
  "an item by its style alone has items beside it, a numbered heading has none, as LibreOffice numbers them",
  async () => {
    const space = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
    const level = (text: string) =>
      `<w:lvl w:ilvl="0"><w:start w:val="1"/><w:numFmt w:val="decimal"/><w:lvlText w:val="${text}"/></w:lvl>`;
    const style = (id: string, name: string, list: number, more = "") =>
      `<w:style w:type="paragraph" w:styleId="${id}"><w:name w:val="${name}"/><w:pPr><w:numPr><w:numId w:val="${list}"/></w:numPr>${more}</w:pPr></w:style>`;
    const numbering = [1, 2]
      .map(
        (id) => `<w:abstractNum w:abstractNumId="${id}">${level(id === 1 ? "%1." : "§ %1")}</w:abstractNum>`,
      )
      .concat([1, 2].map((id) => `<w:num w:numId="${id}"><w:abstractNumId w:val="${id}"/></w:num>`));
    const relation = (type: string, at: number) =>
      `<Relationship Id="rId${at}" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/${type}" Target="${type}.xml"/>`;
    const styled = (id: string, words: string) =>
      `<w:p><w:pPr><w:pStyle w:val="${id}"/></w:pPr>${r(words)}</w:p>`;
    const bytes = rawDocument(
      styled("Head", "Rides") + ["north", "middle", "south"].map((words) => styled("Item", words)).join(""),
      relation("styles", 5) + relation("numbering", 6),
      {
        "word/styles.xml": `<w:styles ${space}>${style("Head", "heading 1", 2, '<w:outlineLvl w:val="0"/>')}<w:style w:type="paragraph" w:styleId="Item"><w:name w:val="Ride"/><w:basedOn w:val="List"/></w:style>${style("List", "List Number", 1)}</w:styles>`,
        "word/numbering.xml": `<w:numbering ${space}>${numbering.join("")}</w:numbering>`,
      },
    );
    const block = compose([
      await readHtml("<ol><li>heath</ol>"),
      await readHtml('<ol start="2"><li>dunes</ol>'),
    ]);
    const folder = mkdtempSync(join(tmpdir(), "drawer-items-"));
    try {
      for (const at of ["p1", "p2"])
        writeFileSync(join(folder, `${at}.docx`), (await putInto(bytes, "a.docx", at, block)).data);
      convert(folder, "txt:Text", ["p1.docx", "p2.docx"]);
      const said = (name: string) =>
        readFileSync(join(folder, `${name}.txt`), "utf8").match(
          /(?:§ )?\d?\.? ?(?:Rides|north|middle|south|heath|dunes)/g,
        );
      expect(said("p2")).toEqual(["§ 1 Rides", "1. north", "2. heath", "3. dunes", "4. middle", "5. south"]);
      expect(said("p1")).toEqual(["§ 1 Rides", "1. heath", "2. dunes", "1. north", "2. middle", "3. south"]);
    } finally {
      rmSync(folder, { recursive: true });
    }
  },
);

test("with the document's look, plain paragraphs have the style of its text, and tables that of its tables", async () => {
  const styles = `<w:styles xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:style w:type="paragraph" w:styleId="Text1"><w:name w:val="Body Text"/></w:style><w:style w:type="paragraph" w:styleId="berschrift2"><w:name w:val="heading 2"/></w:style></w:styles>`;
  const own = `<w:p><w:pPr><w:pStyle w:val="Text1"/></w:pPr>${r("one")}</w:p>`;
  const grid = table([cell(p(r("a")))]).replace(
    "<w:tblPr/>",
    '<w:tblPr><w:tblStyle w:val="Birds"/></w:tblPr>',
  );
  const bytes = rawDocument(
    own + grid + p(r("end")),
    '<Relationship Id="rId5" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/styles" Target="styles.xml"/>',
    { "word/styles.xml": styles },
  );
  const block = compose([await readHtml("<h2>H</h2><p>plain</p><table><tr><td>x</table>")], {
    style: "host",
  });
  const put = bodyOf((await putInto(bytes, "a.docx", "p1", block, { style: "host" })).data);
  expect(put).toContain('<w:pStyle w:val="berschrift2"/>');
  expect(put).toMatch(/<w:p><w:pPr><w:pStyle w:val="Text1"\/><\/w:pPr><w:r><w:t xml:space="preserve">plain/);
  expect(put.match(/<w:tblStyle w:val="Birds"\/>/g)).toHaveLength(2);
  const brought = bodyOf((await putInto(bytes, "a.docx", "p1", block)).data);
  expect(brought).toMatch(/<w:p><w:r><w:t xml:space="preserve">plain/);
});

test("a cell whose formula others share goes, and they keep theirs", async () => {
  const shared = { xml: '<f t="shared" ref="B1:B3" si="0">A1*2</f><v>2</v>' };
  const child = { xml: '<f t="shared" si="0"/><v>4</v>' };
  const number = (value: number) => ({ xml: `<v>${value}</v>` });
  const book = rawWorkbook([
    [number(1), shared],
    [number(2), child],
    [number(3), child],
  ]);
  const { data } = await putInto(book, "a.xlsx", "B1", text("gone"), { put: "instead" });
  const sheet = new TextDecoder().decode(unzipSync(data)["xl/worksheets/sheet1.xml"]);
  expect(sheet.match(/<f>[^<]*<\/f>/g)).toEqual(["<f>A2*2</f>", "<f>A3*2</f>"]);
  expect(sheet).not.toContain("shared");
});

test("where changes are tracked, what comes and goes is marked and not done", async () => {
  const tracked = rawDocument(
    p(r("one")) + p(shape(p(r("boxed"))), r("two")) + table([cell(p(r("a")))]) + p(r("end")),
    '<Relationship Id="rId5" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/settings" Target="settings.xml"/>',
    {
      "word/settings.xml":
        '<w:settings xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:trackRevisions/></w:settings>',
    },
  );
  const put = await putInto(tracked, "a.docx", "p1", text("wren\ntern"), { at: AT });
  expect(bodyOf(put.data)).toContain('<w:ins w:id="1" w:author="Drawer" w:date="2031-04-08T09:00:00Z"/>');
  expect(bodyOf(put.data).match(/<w:ins [^>]*><w:r>/g)).toHaveLength(2);
  expect((await shown(put.data)).slice(0, 3)).toEqual(["one", "wren", "tern"]);
  const out = await takeOut(tracked, "a.docx", ["p1", "t1"], { at: AT });
  expect(bodyOf(out.data)).toContain('<w:delText xml:space="preserve">one</w:delText>');
  expect((await shown(out.data)).filter(Boolean)).toEqual(["two", "boxed", "end"]);
  // One who says so does it at once.
  expect(bodyOf((await takeOut(tracked, "a.docx", ["p1"], { track: false })).data)).not.toContain("one");
});

test("a document whose prefixes are others takes what is put into it", async () => {
  const other = rawDocument(p(r("one")));
  const parts = unzipSync(other);
  const xml = new TextDecoder().decode(parts["word/document.xml"]).replace(/ xmlns:(r|wp|a)="[^"]*"/g, "");
  const { zipSync, strToU8 } = await import("fflate");
  const bytes = zipSync({ ...parts, "word/document.xml": strToU8(xml) });
  const block = compose([await readHtml('<p><a href="https://merrow-spit.example/">link</a></p>')]);
  const { data } = await putInto(bytes, "a.docx", "p1", block);
  expect((await readSource(data, "a.docx")).at("p2").content).toEqual(block.content);
});

describe("rows as text", () => {
  const word = fc.stringMatching(/^[a-zé"',; ]{0,6}$/);
  const row = fc.array(word, { minLength: 3, maxLength: 3 });
  const style = fc.record({
    separator: fc.constantFrom(",", ";", "\t"),
    quotes: fc.boolean(),
    newline: fc.constantFrom("\n", "\r\n"),
    bom: fc.constantFrom("", "\uFEFF"),
    isEnded: fc.boolean(),
  });
  const parse = (csv: string, delimiter: string) =>
    Papa.parse<string[]>(csv.replace(/^\uFEFF/, ""), { delimiter }).data.filter((cells) => cells.length > 1);

  test("rows that are appended, put and taken out leave all others as they are written", async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(row, { minLength: 2, maxLength: 5 }),
        row,
        style,
        async (body, added, { separator, quotes, newline, bom, isEnded }) => {
          const names = ["Ride", "Bird", "Note"];
          const written = Papa.unparse([names, ...body.map(([first, ...rest]) => [`x${first}`, ...rest])], {
            delimiter: separator,
            quotes,
            newline,
          });
          const file = bom + written + (isEnded ? newline : "");
          const bytes = new TextEncoder().encode(file);
          const name = separator === "\t" ? "a.tsv" : "a.csv";
          const plain = added.map((cell) => `y${cell}`);
          const block = compose([
            { content: [tableOf(["bird", "Ride", "note"], [plain[1]!, plain[0]!, plain[2]!])] },
          ]);
          const options = { separator: separator as "," };
          const sheet = (await readSource(bytes, name, options)).sheets![0]!.name;
          const { data } = await putInto(bytes, name, sheet, block);
          const made = new TextDecoder("utf-8", { ignoreBOM: true }).decode(data);
          expect(made.startsWith(bom + written)).toBe(true);
          expect(parse(made, separator).at(-1)).toEqual(plain);
          expect(made.endsWith(newline)).toBe(isEnded);
          const { data: again } = await takeOut(data, name, [`${body.length + 2}:${body.length + 2}`]);
          expect(new TextDecoder("utf-8", { ignoreBOM: true }).decode(again)).toBe(
            isEnded ? file : file + newline,
          );
          const { data: changed } = await putInto(bytes, name, "B2", text("wren"), { put: "instead" });
          const wanted = parse(file, separator).map((cells, at) =>
            at === 1 ? [cells[0], "wren", cells[2]] : cells,
          );
          expect(parse(new TextDecoder().decode(changed), separator)).toEqual(wanted);
        },
      ),
      runs(60, 1000),
    );
  });

  const tableOf = (...rows: string[][]): Table => ({
    ...{ type: "table", headerRows: 1 },
    rows: rows.map((cells) =>
      cells.map((words) => ({
        flows: words === "" ? [] : [{ type: "paragraph", runs: [{ type: "text", text: words }] }],
      })),
    ),
  });
});

test("lines go into plain text with its own ends, and come out of it; an old encoding stays one", async () => {
  const old = Uint8Array.from([..."caf\u00e9\r\nmole\r\n\r\nend"].map((sign) => sign.charCodeAt(0)));
  const put = await putInto(old, "a.txt", "p1", text("wren\ntern"));
  expect(Buffer.from(put.data).toString("latin1")).toBe("caf\u00e9\r\nwren\r\ntern\r\nmole\r\n\r\nend");
  const last = await putInto(old, "a.txt", "l4", text("wren"));
  expect(Buffer.from(last.data).toString("latin1")).toBe("caf\u00e9\r\nmole\r\n\r\nend\r\nwren");
  expect(Buffer.from((await takeOut(last.data, "a.txt", ["l2..l3"])).data).toString("latin1")).toBe(
    "caf\u00e9\r\nend\r\nwren",
  );
  expect(await refusal(putInto(old, "a.txt", "p1", text("ř")))).toBe("cannot-edit/encoding");
});

describe("odt", () => {
  const odt = async (html: string) =>
    new Uint8Array((await compose([await readHtml(html)]).to("odt")).data as Uint8Array);
  const lines = async (bytes: Uint8Array) =>
    (await shown(bytes, "a.odt")).map((line) => line.trim()).filter(Boolean);
  const LIST = "<ol><li>one<ul><li>inner a<li>inner b</ul><li>two<li>three</ol><p>end</p>";

  test("what tracks changes lists what is marked; what is not marked is told", async () => {
    const parts = unzipSync(
      await odt("<h1>Head</h1><p>one</p><p>two</p><ul><li>item</li></ul><table><tr><td>a</td></tr></table>"),
    );
    const { zipSync, strToU8 } = await import("fflate");
    const content = (list: string) =>
      zipSync({
        ...parts,
        "content.xml": strToU8(
          new TextDecoder().decode(parts["content.xml"]).replace(/<office:text\b[^>]*>/, (tag) => tag + list),
        ),
      });
    const xmlOf = ({ data }: { data: Uint8Array }) =>
      new TextDecoder().decode(unzipSync(data)["content.xml"]);
    const tracked = content("<text:tracked-changes/>");
    const put = await putInto(tracked, "a.odt", "p2", text("wren"), { at: AT });
    const again = await takeOut(put.data, "a.odt", ["p4"], { at: AT });
    expect([put.notices, again.notices]).toEqual([[], []]);
    // Both are in the one list, and are told apart.
    expect(xmlOf(again).match(/<text:changed-region xml:id="[^"]*"/g)).toEqual([
      '<text:changed-region xml:id="drawer-change-2"',
      '<text:changed-region xml:id="drawer-change-1"',
    ]);
    expect(xmlOf(again)).toContain("<dc:date");
    expect(await lines(again.data)).toEqual(["Head", "one", "wren", "- item", "a"]);
    const off = content('<text:tracked-changes text:track-changes="false"/>');
    expect(xmlOf(await putInto(off, "a.odt", "p2", text("wren"), { at: AT }))).not.toContain(
      "changed-region",
    );
    // What is marked there by a word does not have the document mark what its user does next.
    expect(xmlOf(await putInto(content(""), "a.odt", "p2", text("wren"), { track: true }))).toContain(
      '<text:tracked-changes text:track-changes="false"><text:changed-region',
    );
    for (const spot of ["p1", "p4", "t1"])
      expect((await takeOut(tracked, "a.odt", [spot])).notices).toMatchObject([{ code: "not-kept" }]);
    expect((await putInto(tracked, "a.odt", "p4", text("wren"))).notices).toMatchObject([
      { code: "not-kept" },
    ]);
    const broken = new TextDecoder()
      .decode(unzipSync(tracked)["content.xml"])
      .replace("one", 'o<text:bookmark-start text:name="B"/>ne')
      .replace("two", 't<text:bookmark-end text:name="B"/>wo');
    const bytes = zipSync({ ...parts, "content.xml": strToU8(broken) });
    await expect(takeOut(bytes, "a.odt", ["p2"])).rejects.toThrow("B");
  });

  test("a block between items parts their list, which goes on counting; items join it", async () => {
    const bytes = await odt(LIST);
    const put = async (spot: string, options = {}) =>
      lines((await putInto(bytes, "a.odt", spot, text("wren"), options)).data);
    expect(await put("p1")).toEqual([
      "1. one",
      "wren",
      "- inner a",
      "- inner b",
      "2. two",
      "3. three",
      "end",
    ]);
    expect(await put("p2")).toEqual([
      "1. one",
      "- inner a",
      "wren",
      "- inner b",
      "2. two",
      "3. three",
      "end",
    ]);
    expect(await put("p4")).toEqual([
      "1. one",
      "- inner a",
      "- inner b",
      "2. two",
      "wren",
      "3. three",
      "end",
    ]);
    expect(await put("p5")).toEqual([
      "1. one",
      "- inner a",
      "- inner b",
      "2. two",
      "3. three",
      "wren",
      "end",
    ]);
    expect(await put("p1", { put: "before" })).toEqual([
      "wren",
      "1. one",
      "- inner a",
      "- inner b",
      "2. two",
      "3. three",
      "end",
    ]);
    const items = compose([await readHtml("<ol><li>more<li>and more</ol>")]);
    expect(await lines((await putInto(bytes, "a.odt", "p4", items)).data)).toEqual([
      ...["1. one", "- inner a", "- inner b", "2. two", "3. more", "4. and more", "5. three", "end"],
    ]);
    expect(
      await lines((await putInto(bytes, "a.odt", "p1..p5", text("wren"), { put: "instead" })).data),
    ).toEqual(["wren", "end"]);
  });

  test("items that are taken out leave no empty ones, and lists none", async () => {
    const bytes = await odt(LIST);
    const out = async (...spots: string[]) => lines((await takeOut(bytes, "a.odt", spots)).data);
    expect(await out("p4")).toEqual(["1. one", "- inner a", "- inner b", "2. three", "end"]);
    expect(await out("p2..p3")).toEqual(["1. one", "2. two", "3. three", "end"]);
    expect(await out("p1..p5")).toEqual(["end"]);
    expect(
      new TextDecoder().decode(unzipSync((await takeOut(bytes, "a.odt", ["p1..p5"])).data)["content.xml"]),
    ).not.toContain("<text:list ");
  });

  test("cells take what is put into them, and keep a paragraph when they are emptied", async () => {
    const bytes = await odt("<table><tr><td>a<td></td><tr><td>c<td>d</table><p>end</p>");
    const rows = async (data: Uint8Array) =>
      ((await readSource(data, "a.odt")).at("t1").content[0] as Table).rows.map((row) =>
        row.map(({ flows }) => writeText(flows)),
      );
    expect(await rows((await putInto(bytes, "a.odt", "t1!B1", text("wren"))).data)).toEqual([
      ["a", "wren"],
      ["c", "d"],
    ]);
    expect(await refusal(putInto(bytes, "a.odt", "t1!B2", text("wren")))).toBe("cannot-edit/filled");
    const emptied = await takeOut(bytes, "a.odt", ["t1!A2:B2"]);
    expect(await rows(emptied.data)).toEqual([
      ["a", ""],
      ["", ""],
    ]);
  });

  test("a bookmark is not torn apart", async () => {
    const bytes = await odt("<p>one</p><p>two</p><p>three</p>");
    const parts = unzipSync(bytes);
    const xml = new TextDecoder()
      .decode(parts["content.xml"])
      .replace(">one<", '><text:bookmark-start text:name="Wind"/>one<')
      .replace(">two<", '>two<text:bookmark-end text:name="Wind"/><');
    const { zipSync, strToU8 } = await import("fflate");
    const marked = zipSync({ ...parts, "content.xml": strToU8(xml) });
    expect(await refusal(takeOut(marked, "a.odt", ["p1"]))).toBe("cannot-edit/pair");
    expect(await lines((await takeOut(marked, "a.odt", ["p1..p2"])).data)).toEqual(["three"]);
  });
});

test.each(["xlsx", "ods"] as const)(
  "what is bold in a cell of a block is told, where it is put into an %s that is there",
  async (format) => {
    const [plain, block] = [
      await readHtml("<table><tr><td>a</td><td>b</td></tr></table>"),
      await readHtml("<table><tr><td>seen <b>twice</b></td><td><i>all</i></td><td>none</td></tr></table>"),
    ];
    const data = await writeOffice(plain, format);
    const told = async (given: typeof block) =>
      (await putInto(data, `a.${format}`, "A3", compose([given]))).notices.map(({ message }) => message);
    expect(await told(block)).toEqual([
      "What is bold, slanted, underlined, struck, raised or lowered in 2 cells of the block looks there as the cells around do: set it in the sheet's own program.",
    ]);
    expect(await told(plain)).toEqual([]);
  },
);
