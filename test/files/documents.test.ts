import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { strFromU8, unzipSync } from "fflate";
import { paragraph, writeMarkdown, writeText, type List, type Picture } from "drawer";
import { readSource } from "drawer/files";
import { convert, officeTest } from "../support/libreoffice";
import { demoFile } from "../support/demo";
import { writeOffice } from "../support/office";
import { p, r, rawDocument, shape } from "../support/document";

const folder = mkdtempSync(join(tmpdir(), "drawer-documents-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const readDocx = async (body: string, relations?: string) =>
  (await readSource(rawDocument(body, relations), "x.docx")).at();
const linesOf = async (body: string, relations?: string) =>
  writeText((await readDocx(body, relations)).content).split("\n");

officeTest("text in boxes stands once, on lines of its own, after the paragraph that holds it", async () => {
  const boxed = p(r("Beside")) + p(r("it"));
  const body = p(r("The hut"), shape(boxed), r(" is open.")) + p(r("After"));
  expect(await linesOf(body)).toEqual(["The hut is open.", "Beside", "it", "After"]);
  writeFileSync(join(folder, "boxes.docx"), rawDocument(body));
  convert(folder, "odt", ["boxes.docx"]);
  const odt = (await readSource(new Uint8Array(readFileSync(join(folder, "boxes.odt"))), "boxes.odt")).at();
  expect(writeText(odt.content).split("\n")).toEqual(["The hut is open.", "Beside", "it", "After"]);
});

test.each<[what: string, body: string, lines: string[]]>([
  [
    "a reading in small letters stands in brackets after what it is the reading of",
    p(
      "<w:r><w:ruby><w:rubyPr/><w:rt><w:r><w:t>とり</w:t></w:r></w:rt><w:rubyBase><w:r><w:t>鳥</w:t></w:r></w:rubyBase></w:ruby></w:r>",
      r("が来た"),
    ),
    ["鳥(とり)が来た"],
  ],
  [
    "symbols are what their fonts show",
    p(
      '<w:r><w:sym w:font="Symbol" w:char="F0B3"/><w:sym w:font="Symbol" w:char="F061"/></w:r>',
      '<w:r><w:sym w:font="Wingdings" w:char="F0FC"/><w:sym w:font="Wingdings" w:char="F0E0"/></w:r>',
    ),
    ["≥α✓→"],
  ],
  [
    "the end of a page parts a paragraph",
    p(r("north"), '<w:r><w:br w:type="page"/></w:r>', r("south"), '<w:r><w:br w:type="column"/></w:r>'),
    ["north", "south"],
  ],
  [
    "a paragraph whose end was deleted goes on in the next",
    `<w:p><w:pPr><w:rPr><w:del w:id="1" w:author="a"/></w:rPr></w:pPr>${r("The gate ")}</w:p>${p(r("was shut."))}`,
    ["The gate was shut."],
  ],
  [
    "equations are text on one line",
    p(
      r("So "),
      "<m:oMath><m:f><m:num><m:r><m:t>a+b</m:t></m:r></m:num><m:den><m:r><m:t>2</m:t></m:r></m:den></m:f><m:r><m:t>=</m:t></m:r><m:sSup><m:e><m:r><m:t>x</m:t></m:r></m:e><m:sup><m:r><m:t>2</m:t></m:r></m:sup></m:sSup><m:rad><m:e><m:r><m:t>y</m:t></m:r></m:e></m:rad></m:oMath>",
      r("."),
    ),
    ["So (a+b)/2=x^2√(y)."],
  ],
])("%s", async (_, body, lines) => {
  expect(await linesOf(body)).toEqual(lines);
});

test("a link keeps the place in the page that it goes to, in each of its forms", async () => {
  const relation =
    '<Relationship Id="rIdL" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/hyperlink" Target="https://merrow.example/tides" TargetMode="External"/>';
  const field = (type: string) => `<w:r><w:fldChar w:fldCharType="${type}"/></w:r>`;
  const { content } = await readDocx(
    p(`<w:hyperlink r:id="rIdL" w:anchor="spring">${r("one")}</w:hyperlink>`) +
      p(
        field("begin"),
        '<w:r><w:instrText>HYPERLINK "https://merrow.example/tides" \\l "spring"</w:instrText></w:r>',
        ...[field("separate"), r("two"), field("end")],
      ),
    relation,
  );
  expect(writeMarkdown(content)).toBe(
    "[one](https://merrow.example/tides#spring)\n\n[two](https://merrow.example/tides#spring)",
  );
});

test("comments and equations are counted", async () => {
  const { notices } = await readDocx(
    p(r("a"), '<w:r><w:commentReference w:id="1"/></w:r>', "<m:oMath><m:r><m:t>x</m:t></m:r></m:oMath>"),
  );
  expect(notices.map(({ message }) => message)).toEqual([
    "Left out of “x.docx”: one comment beside the text.",
    "One equation of “x.docx” is there as plain text on one line.",
  ]);
});

test("each picture of a written document has a number of its own, and lists keep to the schema", async () => {
  const { content, pictures } = (await readSource(demoFile("sketches/tide.png"), "tide.png")).at();
  const [picture] = content as [Picture];
  const list: List = { type: "list", ordered: true, items: [{ flows: [paragraph("one")] }] };
  const bytes = await writeOffice(
    { content: [picture, list, picture], picture: (hash) => pictures.get(hash) },
    "docx",
  );
  const parts = unzipSync(bytes);
  const ids = [...strFromU8(parts["word/document.xml"]!).matchAll(/<wp:docPr\b[^>]*?\bid="([^"]*)"/g)];
  expect(ids.map(([, id]) => id)).toEqual(["1", "2"]);
  expect(strFromU8(parts["word/numbering.xml"]!)).not.toContain('w:val="start"');
});
