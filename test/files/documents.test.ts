import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { demoFile } from "../support/demo";
import { p, r, rawDocument, shape } from "../support/document";
import { convert, officeTest } from "../support/libreoffice";
import { writeOffice } from "../support/office";
import { wordsIn } from "../support/words";
import {
  compose,
  paragraph,
  picturesOf,
  readHtml,
  readPicture,
  safeLink,
  writeHtml,
  writeMarkdown,
  writeText,
  type Content,
  type List,
  type Picture,
} from "drawer";
import { readSource } from "drawer/files";

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
    "a reading that is drawn by a field stands in brackets too",
    p(
      '<w:r><w:fldChar w:fldCharType="begin"/></w:r><w:r><w:instrText>EQ \\* jc2 \\* "Font:MS Mincho" \\* hps10 \\o\\ad(\\s\\up 9(</w:instrText></w:r><w:r><w:instrText>とり</w:instrText></w:r><w:r><w:instrText>),鳥)</w:instrText></w:r><w:r><w:fldChar w:fldCharType="end"/></w:r>',
      r("が来た"),
    ),
    ["鳥(とり)が来た"],
  ],
  [
    "text in a font of symbols is what that font shows",
    p(
      '<w:r><w:rPr><w:rFonts w:ascii="Symbol" w:hAnsi="Symbol"/></w:rPr><w:t>a\uf0b3</w:t></w:r>',
      '<w:r><w:rPr><w:rFonts w:ascii="Wingdings" w:hAnsi="Wingdings"/></w:rPr><w:t>\uf0fc</w:t></w:r>',
      r(" and b"),
    ),
    ["α≥✓ and b"],
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
    "a sign that only newer programs know is itself, and not the sign that stands for it",
    p(
      r("gone "),
      '<w:r><mc:AlternateContent><mc:Choice Requires="w16se"><w16se:symEx w16se:font="Segoe UI Emoji" w16se:char="1F426" xmlns:w16se="http://schemas.microsoft.com/office/word/2015/wordml/symex"/></mc:Choice><mc:Fallback><w:t>?</w:t></mc:Fallback></mc:AlternateContent></w:r>',
    ),
    ["gone 🐦"],
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

test("what is told of a document is told of the spots that it stands in, and of no others", async () => {
  const equation = "<m:oMath><m:r><m:t>x</m:t></m:r></m:oMath>";
  const comment = '<w:r><w:commentReference w:id="1"/></w:r>';
  const cell = `<w:tc><w:tcPr/>${p(r("in a cell"), equation)}</w:tc>`;
  const body = [
    p(r("plain")),
    p(r("said"), comment),
    `<w:tbl><w:tblPr/><w:tr>${cell}</w:tr></w:tbl>`,
    p(r("end")),
  ];
  const source = await readSource(rawDocument(body.join("")), "x.docx");
  const reasons = (spot?: string) => source.at(spot).notices.map(({ reason }) => reason);
  expect(reasons()).toEqual(["left-out/comments", "as-text/equations"]);
  expect(reasons("p1")).toEqual([]);
  expect(reasons("p2")).toEqual(["left-out/comments"]);
  expect(reasons("p1..p2")).toEqual(["left-out/comments"]);
  expect(reasons("p3")).toEqual([]);
  expect(reasons("t1")).toEqual(["as-text/equations"]);
  expect(reasons("t1!A1")).toEqual(["as-text/equations"]);
});

test("what is told of a page is told of the spots that it stands in", async () => {
  const html =
    "<p>one<p>two <img src='https://merrow.example/a.png' alt='hut'><p>three <math><mi>x</mi></math>";
  const source = await readSource(new TextEncoder().encode(html), "x.html");
  const reasons = (spot?: string) => source.at(spot).notices.map(({ reason }) => reason);
  expect(reasons("p1")).toEqual([]);
  expect(reasons("p2")).toEqual(["left-out/picture"]);
  expect(reasons("p3")).toEqual(["as-text/equations"]);
  expect(reasons()).toEqual(["left-out/picture", "as-text/equations"]);
});

officeTest("sources as notes are footnotes of a written document, at the end of each piece", async () => {
  const pieces = ["diary.docx", "tides.html", "diary.docx"].map((document, index) => ({
    content: [paragraph(`piece ${index + 1}`)],
    origin: { document, at: `p${index === 1 ? 2 : 1}` },
  }));
  const block = compose(pieces, { cite: "notes" });
  expect(block.text).toBe("piece 1[1]\npiece 2[2]\npiece 3[1]\n1. diary.docx, p1\n2. tides.html, p2");
  for (const [from, to] of [
    ["docx", "odt"],
    ["odt", "docx"],
  ] as const) {
    writeFileSync(join(folder, `cited.${from}`), (await block.to(from)).data);
    convert(folder, to, [`cited.${from}`]);
    const bytes = new Uint8Array(readFileSync(join(folder, `cited.${to}`)));
    const { content } = (await readSource(bytes, `cited.${to}`)).at();
    const notes = content.map((flow) =>
      flow.type === "paragraph" ? flow.runs.find(({ type }) => type === "note") : undefined,
    );
    expect(notes.map((note) => note?.type === "note" && writeText(note.flows))).toEqual([
      "diary.docx, p1",
      "tides.html, p2",
      "diary.docx, p1",
    ]);
  }
});

officeTest("a link on a picture, and its description, go through documents", async () => {
  const { content, pictures } = (await readSource(demoFile("sketches/tide.png"), "tide.png")).at();
  const link = safeLink("https://merrow-spit.example/tides#noon")!;
  const picture: Picture = { ...(content[0] as Picture), alt: "the tide", link };
  const line: Content = [
    { type: "paragraph", runs: [{ type: "text", text: "See " }, picture, { type: "text", text: "." }] },
  ];
  const bytesOf = (hash: string) => pictures.get(hash);
  for (const [from, to] of [
    ["docx", "odt"],
    ["odt", "docx"],
  ] as const) {
    writeFileSync(
      join(folder, `linked.${from}`),
      await writeOffice({ content: line, picture: bytesOf }, from),
    );
    convert(folder, to, [`linked.${from}`]);
    const bytes = new Uint8Array(readFileSync(join(folder, `linked.${to}`)));
    const found = picturesOf((await readSource(bytes, `linked.${to}`)).at().content);
    expect(found.map(({ alt, link: address }) => [alt, address])).toEqual([["the tide", link]]);
  }
  expect((await readHtml(writeHtml(line, { picture: bytesOf }))).content).toEqual(line);
});

test("a picture within a line leaves its description set apart in text, and a notice", async () => {
  const { content, pictures } = (await readSource(demoFile("sketches/tide.png"), "tide.png")).at();
  const picture: Picture = { ...(content[0] as Picture), alt: "the tide" };
  const line: Content = [
    { type: "paragraph", runs: [{ type: "text", text: "See" }, picture, { type: "text", text: "here" }] },
  ];
  const block = compose([{ content: line, pictures }]);
  expect(block.text).toBe("See[the tide]here");
  expect(block.markdown).toBe("See\\[the tide\\]here");
  for (const format of ["text", "markdown"] as const)
    expect((await block.to(format)).notices.map(({ reason }) => reason)).toEqual([
      "not-shown/pictures-in-text",
    ]);
});

officeTest("templates, and documents that hold macros, are read as what they are", async () => {
  const others = {
    "diary.docx": {
      docm: "MS Word 2007 XML VBA",
      dotx: "MS Word 2007 XML Template",
      ott: "writer8_template",
    },
    "ringing.xlsx": {
      xlsm: "Calc MS Excel 2007 VBA XML",
      xltx: "Calc MS Excel 2007 XML Template",
      ots: "calc8_template",
    },
  };
  for (const [name, filters] of Object.entries(others)) {
    writeFileSync(join(folder, name), demoFile(name));
    const as = async (file: string) => {
      const source = await readSource(new Uint8Array(readFileSync(join(folder, file))), file);
      return writeText(source.at().content);
    };
    for (const [ending, filter] of Object.entries(filters)) {
      convert(folder, `${ending}:${filter}`, [name]);
      expect([ending, await as(name.replace(/\w+$/, ending))]).toEqual([ending, await as(name)]);
    }
  }
});

/** A complex field: its instruction, and what stands in it after the separator, if there is one. */
const complexField = (instruction: string, result?: string) =>
  ["begin", undefined, ...(result === undefined ? [] : ["separate"])]
    .map((type) =>
      type === undefined
        ? `<w:r><w:instrText xml:space="preserve"> ${instruction} </w:instrText></w:r>`
        : `<w:r><w:fldChar w:fldCharType="${type}"/></w:r>`,
    )
    .join("") + `${result === undefined ? "" : r(result)}<w:r><w:fldChar w:fldCharType="end"/></w:r>`;

test("a field without a text in the file is told; one that shows nothing is not; a second body is read too", async () => {
  const body = `${p(r("Page "), complexField("PAGE"), r(" of "), complexField("NUMPAGES", "7"), complexField('XE "wheatear"'))}</w:body><w:body>${p(r("After the first body."))}`;
  const { content, notices } = (await readSource(rawDocument(body), "x.docx")).at();
  expect(writeText(content)).toBe("Page  of 7\nAfter the first body.");
  expect(notices.map(({ message }) => message)).toEqual([
    "One field of “x.docx” has no text in the file, so nothing stands for it. Opening the document in a word processor, updating its fields and saving it fills them.",
  ]);
});

const floating = (id: string, anchor: "anchor" | "inline", descr: string) =>
  `<w:r><w:drawing><wp:${anchor} distT="0" distB="0" distL="0" distR="0" simplePos="0" relativeHeight="2" behindDoc="0" locked="0" layoutInCell="1" allowOverlap="1">${anchor === "anchor" ? '<wp:simplePos x="0" y="0"/><wp:positionH relativeFrom="page"><wp:posOffset>0</wp:posOffset></wp:positionH><wp:positionV relativeFrom="page"><wp:posOffset>0</wp:posOffset></wp:positionV>' : ""}<wp:extent cx="900000" cy="900000"/>${anchor === "anchor" ? "<wp:wrapNone/>" : ""}<wp:docPr id="1" name="Picture" descr="${descr}"/><a:graphic xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main"><a:graphicData uri="http://schemas.openxmlformats.org/drawingml/2006/picture"><pic:pic xmlns:pic="http://schemas.openxmlformats.org/drawingml/2006/picture"><pic:nvPicPr><pic:cNvPr id="1" name="x"/><pic:cNvPicPr/></pic:nvPicPr><pic:blipFill><a:blip r:embed="${id}"/><a:stretch><a:fillRect/></a:stretch></pic:blipFill><pic:spPr><a:xfrm><a:off x="0" y="0"/><a:ext cx="900000" cy="900000"/></a:xfrm><a:prstGeom prst="rect"><a:avLst/></a:prstGeom></pic:spPr></pic:pic></a:graphicData></a:graphic></wp:${anchor}></w:drawing></w:r>`;

officeTest(
  "a picture that floats beside a heading is no part of it; one that cannot be read stands in brackets, in docx and odt",
  async () => {
    const image = "http://schemas.openxmlformats.org/officeDocument/2006/relationships/image";
    const relations = [
      `<Relationship Id="rId7" Type="${image}" Target="media/tide.png"/>`,
      `<Relationship Id="rId8" Type="${image}" Target="media/tide.wmf"/>`,
    ].join("");
    const heading = `<w:p><w:pPr><w:outlineLvl w:val="0"/></w:pPr>${floating("rId7", "anchor", "the tide")}${r("High water")}</w:p>`;
    const line = p(r("Before "), floating("rId8", "inline", "a curve"), r(" and after."));
    const parts = unzipSync(rawDocument(heading + line, relations));
    const types = strFromU8(parts["[Content_Types].xml"]!);
    parts["[Content_Types].xml"] = strToU8(
      types.replace(
        "<Default",
        '<Default Extension="png" ContentType="image/png"/><Default Extension="wmf" ContentType="image/x-wmf"/><Default',
      ),
    );
    parts["word/media/tide.png"] = readFileSync("demo/sketches/tide.png");
    parts["word/media/tide.wmf"] = strToU8("no picture that anybody reads");
    const docx = zipSync(parts);
    writeFileSync(join(folder, "floating.docx"), docx);
    convert(folder, "odt", ["floating.docx"]);
    const odt = new Uint8Array(readFileSync(join(folder, "floating.odt")));
    for (const [name, bytes] of [
      ["x.docx", docx],
      ["x.odt", odt],
    ] as const) {
      const { content, notices } = (await readSource(bytes, name)).at();
      expect(content.map(({ type }) => type)).toEqual(["heading", "picture", "paragraph"]);
      expect(writeText(content.slice(0, 1))).toBe("High water");
      if (name === "x.odt") continue;
      expect(writeText(content.slice(2))).toBe("Before [a curve] and after.");
      expect(notices.map(({ code }) => code)).toEqual(["left-out"]);
    }
  },
);

test("in an odt, too, a picture that cannot be read stands in brackets", async () => {
  const { content, pictures } = readPicture(
    new Uint8Array(readFileSync("demo/sketches/tide.png")),
    "a curve",
  );
  const written = await writeOffice(
    { content: [paragraph("here"), ...content], picture: (hash) => pictures.get(hash) },
    "odt",
  );
  const parts = unzipSync(written);
  for (const name of Object.keys(parts))
    if (name.startsWith("Pictures/")) parts[name] = strToU8("no picture that anybody reads");
  const read = (await readSource(zipSync(parts), "x.odt")).at();
  expect(writeText(read.content)).toBe("here\n[a curve]");
  expect(read.notices.map(({ code }) => code)).toEqual(["left-out"]);
});

test("fields of an odt show their texts, whatever they are of", async () => {
  const names = [
    "title",
    "subject",
    "author-name",
    "chapter",
    "page-count",
    "keywords",
    "description",
    "creator",
    "file-name",
  ];
  const fields = names.map((name) => `<text:p><text:${name}>the ${name}</text:${name}></text:p>`).join("");
  const parts = unzipSync(await writeOffice({ content: [paragraph("here")] }, "odt"));
  const xml = strFromU8(parts["content.xml"]!).replace(/<text:p[^>]*>here<\/text:p>/, fields);
  const odt = zipSync({ ...parts, "content.xml": strToU8(xml) });
  const { content } = (await readSource(odt, "x.odt")).at();
  expect(writeText(content)).toBe(names.map((name) => `the ${name}`).join("\n"));
});

/** A docx in which a file stands whole, twice, between other paragraphs. */
function withInserted(name: string, bytes: Uint8Array): Uint8Array {
  const chunk = '<w:altChunk r:id="chunk"/>';
  const relation = `<Relationship Id="chunk" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/aFChunk" Target="${name}"/>`;
  const parts = unzipSync(
    rawDocument(p(r("before")) + chunk + p(r("between")) + chunk + p(r("after")), relation),
  );
  const type = `<Default Extension="${name.split(".").pop()!}" ContentType="${name.endsWith("docx") ? "application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml" : "text/html"}"/>`;
  const types = strFromU8(parts["[Content_Types].xml"]!).replace(/<Types[^>]*>/, (tag) => tag + type);
  return zipSync({ ...parts, "[Content_Types].xml": strToU8(types), [`word/${name}`]: bytes });
}

officeTest(
  "a document that stands whole in a docx is part of its text, as LibreOffice shows it",
  async () => {
    const inner = demoFile("diary.docx");
    const bytes = withInserted("inner.docx", inner);
    writeFileSync(join(folder, "merged.docx"), bytes);
    convert(folder, "txt:Text (encoded):UTF8", ["merged.docx"]);
    const { content, notices } = (await readSource(bytes, "merged.docx")).at();
    const theirs = readFileSync(join(folder, "merged.txt"), "utf8");
    expect(wordsIn(writeText(content))).toEqual(wordsIn(theirs));
    expect(notices).toEqual([]);
    // One that is itself in itself is read once.
    const again = (await readSource(withInserted("inner.docx", bytes), "again.docx")).at();
    expect(wordsIn(writeText(again.content)).filter((word) => word === "between")).toHaveLength(3);
  },
);

test("a page that stands whole in a docx comes with its pictures; what is not read of one is told", async () => {
  const picture = `data:image/png;base64,${Buffer.from(demoFile("sketches/tide.png")).toString("base64")}`;
  const page = `<p>Réti <b>bold</b></p><table><tr><td>a</td><td>b</td></tr></table><p><img alt="hide" src="${picture}"></p>`;
  const source = await readSource(withInserted("inner.html", strToU8(page)), "page.docx");
  const { content } = await readHtml(page);
  expect(source.at().content).toEqual([
    ...[paragraph("before"), ...content, paragraph("between"), ...content, paragraph("after")],
  ]);
  const [spot] = source.parts().filter(({ type }) => type === "picture");
  expect([...source.at(spot!.spot).pictures!.values()]).toEqual([demoFile("sketches/tide.png")]);
  const odd = (await readSource(withInserted("inner.odd", strToU8("x")), "odd.docx")).at();
  expect(odd.notices.map(({ message }) => message)).toEqual([
    expect.stringContaining("Left out of “odd.docx”: 2 documents that stand in it as files of their own."),
  ]);
  const long = strToU8("a long word ".repeat(1_500_000));
  const asked = async () => (await readSource(withInserted("inner.txt", long), "long.docx")).at();
  await expect(asked()).rejects.toThrow("more than 33,554,432 characters");
});
