import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { someFlow, someRun } from "../../dist/content/traverse.js";
import { PYTHON } from "../../scripts/office.mjs";
import { expectRows } from "../support/doc-table";
import { convert, corpusTest } from "../support/libreoffice";
import { makeMsg } from "../support/msg";
import { writeText, type Content, type Flow, type Marks, type Run } from "drawer";
import { readSource } from "drawer/files";

const folder = mkdtempSync(join(tmpdir(), "drawer-kept-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const put = (name: string, bytes: string | Uint8Array) => writeFileSync(join(folder, name), bytes);
const bytesOf = (name: string) => new Uint8Array(readFileSync(join(folder, name)));

/** One text with something of each kind. */
const TEXT = `# Spring on the spit

Seen **boldly**, *slanted*, ~~struck~~, H~2~O, at [the hut](https://merrow-spit.example/hut).[^1]

## The nets

- Mist nets

    - Mended

1. First round
2. Second round

> As the log says.

| Bird      | Count | Ringed |
|-----------|------:|-------:|
| Wren      |    12 |      9 |
| Robin     |     7 |      5 |
| Wheatear  |   104 |     11 |

![The tide](tide.png)

[^1]: By the warden.
`;

const hasRun = (content: Content, is: (run: Run) => boolean) => someRun(content, is);
const marked = (mark: keyof Marks, text: string) => (content: Content) =>
  hasRun(content, (run) => run.type === "text" && run.text.includes(text) && run.marks?.[mark] !== undefined);
const hasFlow = (is: (flow: Flow) => boolean) => (content: Content) => someFlow(content, is);
const says = (flows: Content, words: string) => writeText(flows).includes(words);

/** What can be kept: the words that show it, and whether it is kept. */
const KINDS: Readonly<Record<string, readonly [words: string, isKept: (content: Content) => boolean]>> = {
  headings: ["The nets", hasFlow((flow) => flow.type === "heading" && says([flow], "The nets"))],
  bold: ["boldly", marked("bold", "boldly")],
  italics: ["slanted", marked("italic", "slanted")],
  "what is struck": ["struck", marked("strike", "struck")],
  "lowered letters": ["2", marked("sub", "2")],
  links: ["the hut", marked("link", "the hut")],
  notes: [
    "By the warden",
    (content) => hasRun(content, (run) => run.type === "note" && says(run.flows, "By the warden")),
  ],
  "lists in lists": [
    "Mended",
    hasFlow(
      (flow) =>
        flow.type === "list" &&
        flow.items.some(({ flows }) => flows.some((each) => each.type === "list" && says([each], "Mended"))),
    ),
  ],
  "numbered lists": [
    "Second round",
    hasFlow((flow) => flow.type === "list" && flow.ordered && flow.items.length === 2),
  ],
  quotes: ["As the log says", hasFlow((flow) => flow.type === "quote" && says([flow], "As the log says"))],
  tables: [
    "Wren",
    hasFlow(
      (flow) =>
        flow.type === "table" &&
        flow.rows.some((row) => row.map(({ flows }) => writeText(flows).trim()).join() === "Wren,12,9"),
    ),
  ],
  pictures: [
    "",
    (content) =>
      hasRun(content, ({ type }) => type === "picture") ||
      someFlow(content, ({ type }) => type === "picture"),
  ],
};

/** The formats, with who made the file, and how. */
const MADE: Readonly<Record<string, readonly [maker: string, file: string]>> = {
  docx: ["pandoc", "text.docx"],
  odt: ["pandoc", "text.odt"],
  RTF: ["LibreOffice", "text.rtf"],
  doc: ["LibreOffice", "text.doc"],
  "PDF with tags": ["LibreOffice", "text.pdf"],
  "PDF without": ["WeasyPrint", "plain.pdf"],
  HTML: ["pandoc", "text.html"],
  EPUB: ["pandoc", "text.epub"],
  eml: ["Python", "text.eml"],
  MHTML: ["Python", "text.mhtml"],
  msg: ["by hand", "text.msg"],
  pptx: ["pandoc", "text.pptx"],
  odp: ["LibreOffice", "text.odp"],
};

corpusTest(
  "the table in docs/formats.md of what is kept of each kind of file is as it is here",
  async () => {
    const run = (program: string, ...words: string[]) => {
      const { status, stderr } = spawnSync(program, words, { cwd: folder, encoding: "utf8" });
      if (status !== 0) throw new Error(`${program}: ${stderr}`);
    };
    put("tide.png", readFileSync(resolve("demo/sketches/tide.png")));
    put("text.md", TEXT);
    for (const to of ["docx", "odt", "epub", "pptx"]) run("pandoc", "text.md", "-o", `text.${to}`);
    run("pandoc", "text.md", "-s", "--self-contained", "--metadata", "title=Spring", "-o", "text.html");
    run("weasyprint", "text.html", "plain.pdf");
    convert(folder, "rtf:Rich Text Format", ["text.docx"]);
    convert(folder, "doc:MS Word 97", ["text.docx"]);
    convert(folder, 'pdf:writer_pdf_Export:{"UseTaggedPDF":true}', ["text.docx"]);
    convert(folder, "odp", ["text.pptx"]);
    run("pandoc", "text.md", "-t", "html", "-o", "part.html");
    const part = readFileSync(join(folder, "part.html"), "utf8").replace(
      'src="tide.png"',
      'src="cid:tide@spit"',
    );
    put("part.html", part);
    run(
      PYTHON,
      "-c",
      `from email.message import EmailMessage
from email import policy
page = open("part.html", encoding="utf-8").read()
tide = open("tide.png", "rb").read()
for name in ("text.eml", "text.mhtml"):
    mail = EmailMessage(policy=policy.SMTP)
    mail["From"] = "<Saved by a browser>" if name == "text.mhtml" else "ada@merrow-spit.example"
    mail["Subject"] = "Spring"
    mail.set_content(page, subtype="html")
    mail.add_related(tide, "image", "png", cid="<tide@spit>")
    open(name, "wb").write(mail.as_bytes())`,
    );
    const person = { name: "Ada Wren", address: "ada@merrow-spit.example" };
    put(
      "text.msg",
      makeMsg({
        ...{ subject: "Spring", from: person, to: [person], sent: new Date(0), html: part },
        attachments: [{ name: "tide.png", bytes: bytesOf("tide.png"), contentId: "tide@spit" }],
      }),
    );
    const columns: string[][] = [];
    for (const [, file] of Object.values(MADE)) {
      const piece = (await readSource(bytesOf(file), file)).at();
      const text = writeText(piece.content);
      columns.push(
        Object.values(KINDS).map(([words, isKept]) =>
          isKept(piece.content) ? "kept" : words !== "" && text.includes(words) ? "as text" : "left out",
        ),
      );
    }
    const rows = Object.keys(KINDS).map(
      (kind, at) => `| ${kind} | ${columns.map((column) => column[at]).join(" | ")} |`,
    );
    expectRows("docs/formats.md", "kept of each", [
      `| made by | ${Object.values(MADE)
        .map(([maker]) => maker)
        .join(" | ")} |`,
      ...rows,
    ]);
  },
  180_000,
);
