import { spawnSync } from "node:child_process";
import { copyFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { PYTHON } from "../../scripts/office.mjs";
import { p, r, rawDocument, shape } from "../support/document";
import { convert } from "../support/libreoffice";

/** Runs a program in the folder, and fails with what it said. */
function run(folder: string, program: string, ...words: string[]): void {
  const { status, stderr } = spawnSync(program, words, { cwd: folder, encoding: "utf8" });
  if (status !== 0) throw new Error(`${program}: ${stderr}`);
}

/** Makes documents and workbooks by the programs of others, in a folder. */
export function makeCorpus(folder: string): void {
  run(folder, PYTHON, join(process.cwd(), "test/office/make.py"), folder);
  for (const format of ["docx", "odt"])
    run(folder, "pandoc", join(process.cwd(), "test/office/bulletin.md"), "-o", `pandoc.${format}`);
  copyFileSync("test/office/hut.fodt", join(folder, "libreoffice.fodt"));
  for (const format of ["docx", "odt"]) convert(folder, format, ["libreoffice.fodt"]);
  writeFileSync(join(folder, "by-hand.docx"), documentByHand());
}

const NAMESPACES =
  'xmlns:c="http://schemas.openxmlformats.org/drawingml/2006/chart" xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:dgm="http://schemas.openxmlformats.org/drawingml/2006/diagram"';
const OFFICE = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
const relation = (id: string, type: string, target: string) =>
  `<Relationship Id="${id}" Type="${OFFICE}/${type}" Target="${target}"/>`;
const words = (text: string) =>
  `<c:tx><c:strRef><c:f>A1</c:f><c:strCache><c:ptCount val="1"/><c:pt idx="0"><c:v>${text}</c:v></c:pt></c:strCache></c:strRef></c:tx>`;
const drawing = (uri: string, inner: string) =>
  `<w:r><w:drawing><wp:inline distT="0" distB="0" distL="0" distR="0"><wp:extent cx="4000000" cy="2500000"/><wp:docPr id="9" name="Drawn"/><a:graphic><a:graphicData uri="http://schemas.openxmlformats.org/drawingml/2006/${uri}">${inner}</a:graphicData></a:graphic></wp:inline></w:drawing></w:r>`;
const field = (type: string, inner = "") =>
  `<w:r><w:fldChar w:fldCharType="${type}">${inner}</w:fldChar></w:r>`;
const cell = (text: string) => `<w:tc><w:tcPr><w:tcW w:w="2000" w:type="dxa"/></w:tcPr>${p(r(text))}</w:tc>`;

/** What word processors write and the programs of the corpus do not: a document made by hand. */
function documentByHand(): Uint8Array {
  const chart = `<c:chartSpace ${NAMESPACES}><c:chart><c:title><c:tx><c:rich><a:bodyPr/><a:p><a:r><a:t>Birds by ride</a:t></a:r></a:p></c:rich></c:tx></c:title><c:plotArea><c:layout/><c:barChart><c:barDir val="col"/><c:ser><c:idx val="0"/><c:order val="0"/>${words("Wheatears")}<c:cat><c:strRef><c:f>A2</c:f><c:strCache><c:ptCount val="2"/><c:pt idx="0"><c:v>North</c:v></c:pt><c:pt idx="1"><c:v>Middle</c:v></c:pt></c:strCache></c:strRef></c:cat><c:val><c:numRef><c:f>B2</c:f><c:numCache><c:ptCount val="2"/><c:pt idx="0"><c:v>12</c:v></c:pt><c:pt idx="1"><c:v>3</c:v></c:pt></c:numCache></c:numRef></c:val></c:ser><c:axId val="1"/><c:axId val="2"/></c:barChart><c:catAx><c:axId val="1"/><c:scaling/><c:axPos val="b"/><c:crossAx val="2"/></c:catAx><c:valAx><c:axId val="2"/><c:scaling/><c:axPos val="l"/><c:crossAx val="1"/></c:valAx></c:plotArea><c:legend><c:legendPos val="r"/></c:legend></c:chart></c:chartSpace>`;
  const diagram = `<dgm:dataModel ${NAMESPACES}><dgm:ptLst><dgm:pt modelId="1"><dgm:t><a:bodyPr/><a:p><a:r><a:t>Ring</a:t></a:r></a:p></dgm:t></dgm:pt><dgm:pt modelId="2"><dgm:t><a:bodyPr/><a:p><a:r><a:t>Re</a:t></a:r><a:r><a:t>lease</a:t></a:r></a:p></dgm:t></dgm:pt></dgm:ptLst></dgm:dataModel>`;
  const body = [
    `<w:p><w:pPr><w:framePr w:dropCap="drop" w:lines="3" w:wrap="around" w:vAnchor="text" w:hAnchor="text"/></w:pPr><w:r><w:rPr><w:sz w:val="100"/></w:rPr><w:t>T</w:t></w:r></w:p>`,
    p(r("he tide turned at noon.")),
    p(r("Before the box"), shape(p(r("In the box"))), r(" and after.")),
    p(
      r("Signs: "),
      '<w:r><w:sym w:font="Symbol" w:char="F0B3"/></w:r><w:r><w:sym w:font="Wingdings" w:char="F0FC"/></w:r>',
    ),
    p(r("north"), '<w:r><w:br w:type="page"/></w:r>', r("south")),
    `<w:p><w:pPr><w:rPr><w:del w:id="1" w:author="a"/></w:rPr></w:pPr>${r("The gate ")}</w:p>${p(r("was shut."))}`,
    p(
      r("Open "),
      field(
        "begin",
        '<w:ffData><w:name w:val="when"/><w:enabled/><w:ddList><w:result w:val="1"/><w:listEntry w:val="mornings"/><w:listEntry w:val="evenings"/></w:ddList></w:ffData>',
      ),
      "<w:r><w:instrText> FORMDROPDOWN </w:instrText></w:r>",
      field("separate"),
      field("end"),
      r(" only."),
    ),
    `<w:tbl><w:tblPr/><w:tblGrid><w:gridCol w:w="2000"/><w:gridCol w:w="2000"/><w:gridCol w:w="2000"/></w:tblGrid><w:tr><w:trPr><w:gridBefore w:val="1"/><w:wBefore w:w="2000" w:type="dxa"/></w:trPr>${cell("second")}${cell("third")}</w:tr><w:tr><w:trPr><w:gridAfter w:val="1"/><w:wAfter w:w="2000" w:type="dxa"/></w:trPr>${cell("one")}${cell("two")}</w:tr></w:tbl>`,
    p(r("Below the table."), drawing("chart", `<c:chart ${NAMESPACES} r:id="rIdC"/>`)),
    p(r("And a diagram."), drawing("diagram", `<dgm:relIds ${NAMESPACES} r:dm="rIdD"/>`)),
    p(r("The end.")),
  ].join("");
  const relations =
    relation("rIdC", "chart", "charts/chart1.xml") + relation("rIdD", "diagramData", "diagrams/data1.xml");
  return rawDocument(body, relations, {
    "word/charts/chart1.xml": chart,
    "word/diagrams/data1.xml": diagram,
  });
}

/** Something that documents show, the lines of text that it must come out as, and how it is told when its form is another. */
export interface Probe {
  readonly what: string;
  readonly files: Readonly<Record<string, readonly string[]>>;
  readonly notice?: string;
}

/** The same lines in several files. */
const all = (files: readonly string[], ...lines: string[]) =>
  Object.fromEntries(files.map((file) => [file, lines]));
const PANDOC = ["pandoc.docx", "pandoc.odt"];
const LIBREOFFICE = ["libreoffice.docx", "libreoffice.odt"];

/** What is looked for, in which document, and as which lines. */
export const PROBES: readonly Probe[] = [
  {
    what: "notes, as notes",
    files: {
      ...all(PANDOC, "1. Oenanthe, a bird.", "2. It has two paragraphs.", "   The other one, with code."),
      ...all(LIBREOFFICE, "1. Made of elm.", "2. 2 hooks down."),
      "odfpy.odt": ["1. What the note says."],
    },
  },
  {
    what: "numbers of headings, as text",
    files: {
      ...all(LIBREOFFICE, "I. The hut", "I.1 Its door"),
      "numbered-headings.docx": ["1.2.1 Showers", "About showers.", "2. Birds"],
    },
  },
  {
    what: "lists by letters and Roman numbers",
    files: all(
      PANDOC,
      "a) north ride",
      "b) middle ride",
      "   i. shut at nine",
      "   ii. open at noon",
      "c) south ride",
    ),
  },
  {
    what: "lists that begin, jump and go on at other numbers",
    files: {
      ...all(LIBREOFFICE, "9. nine", "10. ten", "Between.", "11. eleven"),
      "odfpy.odt": ["g) seventh", "h) eighth"],
      "list-numbers.docx": [
        "III) goes on, for the numbering is shared",
        "",
        "V) begins at five",
        "VI) goes on with six",
      ],
    },
  },
  {
    what: "numbers of several levels",
    files: {
      ...all(LIBREOFFICE, "   2.1. two one", "   2.2. two two"),
      "list-numbers.docx": ["        2.1.1 deep", "        2.1.2 deeper"],
    },
  },
  {
    what: "a second paragraph in an item",
    files: all(PANDOC, "6. sixth net", "   A second paragraph of it."),
  },
  { what: "lines across the page", files: { ...all(PANDOC, "———", "Rides"), ...all(LIBREOFFICE, "———") } },
  {
    what: "text in boxes, frames, shapes and groups",
    files: {
      ...all(
        LIBREOFFICE,
        "Beside the box goes this line.",
        "In the box",
        "two lines",
        "Shapes:  end.",
        "left shape",
        "right shape",
      ),
      "by-hand.docx": ["Before the box and after.", "In the box"],
    },
  },
  { what: "ruby, its reading in brackets", files: all(LIBREOFFICE, "A bird is 鳥(とり) there.") },
  { what: "symbols of symbol fonts", files: { "by-hand.docx": ["Signs: ≥✓"] } },
  {
    what: "drop caps",
    files: {
      "by-hand.docx": ["The tide turned at noon."],
      ...all(["libreoffice.odt"], "The door[1] is blue, and the key hangs on hook 2[2] inside."),
    },
  },
  {
    what: "chosen entries of drop-down fields",
    files: {
      "by-hand.docx": ["Open evenings only."],
      ...all(LIBREOFFICE, "Open by night, as the page says."),
    },
  },
  {
    what: "ends of pages within a paragraph",
    files: {
      "by-hand.docx": ["north", "south"],
      "python-docx.docx": ["The gate was shut at nine", "and open at noon."],
    },
  },
  { what: "paragraphs whose end was deleted", files: { "by-hand.docx": ["The gate was shut."] } },
  {
    what: "tables: merged cells, cells left out, tables in cells",
    files: {
      "python-docx.docx": ["two wide\t\tr0c2", "r1c0\tr1c1\ttwo high", "r2c0\tr2c1"],
      "by-hand.docx": ["\tsecond\tthird", "one\ttwo"],
    },
  },
  {
    what: "indexes with their titles",
    files: all(LIBREOFFICE, "What is in it", "I. The hut\t1", "Pictures", "The tide\t2"),
  },
  {
    what: "equations, as text",
    files: {
      ...all(PANDOC, "The mean is (a+b)/2=x^2, and"),
      ...all(LIBREOFFICE, "The mean is a/b=x^2 of them."),
    },
    notice: "as-text/equations",
  },
  {
    what: "charts and diagrams, their words",
    files: {
      "by-hand.docx": [
        "Below the table.",
        "Birds by ride",
        "Wheatears",
        "North",
        "Middle",
        "And a diagram.",
        "Ring",
        "Release",
      ],
    },
    notice: "as-text/diagrams",
  },
  { what: "comments", files: all(LIBREOFFICE, "The end."), notice: "left-out/comments" },
];
