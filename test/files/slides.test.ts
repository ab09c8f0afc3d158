import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { demoFile } from "../support/demo";
import { convert, corpusTest } from "../support/libreoffice";
import { compose } from "drawer";
import { readSource } from "drawer/files";

const folder = mkdtempSync(join(tmpdir(), "drawer-slides-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const shown = (source: { parts(): readonly { spot: string; what: string; text: string }[] }) =>
  source.parts().map(({ spot, what, text }) => `${spot} ${what}: ${text}`);

corpusTest(
  "slides that pandoc has made say what they were made of, each a section, with the speaker's notes apart",
  async () => {
    const markdown = `---
title: Spring on the spit
---

# First slide

- Wheatear **on** the *seawall*
- Terns over the bar
    - at low water

::: notes
Say that the tide was low.
:::

# Ringing

| Species | New |
|---|---|
| Knot | 3 |
| Dunlin | 4 |

# Steps

1. Open the nets
2. Ring and ~~rest~~ release

See [the tides](https://merrow-spit.example/tides), H~2~O.

# A sketch

![The bar](${resolve("demo/sketches/tide.png")})
`;
    const made = spawnSync("pandoc", ["-f", "markdown", "-o", "made.pptx"], {
      cwd: folder,
      input: markdown,
      encoding: "utf8",
    });
    expect(made.stderr).toBe("");
    const source = await readSource(new Uint8Array(readFileSync(join(folder, "made.pptx"))), "made.pptx");
    expect(source.title).toBe("Spring on the spit");
    expect(shown(source).filter((line) => !line.startsWith("i1"))).toEqual([
      "p1 heading 2, s1: Spring on the spit",
      "p2 heading 2, s2: First slide",
      "p3 item: Wheatear on the seawall",
      "p4 item: Terns over the bar",
      "p5 item: at low water",
      "p6 quote: Say that the tide was low.",
      "p7 heading 2, s3: Ringing",
      "t1 table 3 × 2: Species | New / Knot | 3 / Dunlin | 4",
      "p8 heading 2, s4: Steps",
      "p9 numbered item: Open the nets",
      "p10 numbered item: Ring and rest release",
      "p11 paragraph: See the tides, H2O.",
      "p12 heading 2, s5: A sketch",
      "p13 paragraph: The bar",
    ]);
    expect(compose([source.at("sl2"), source.at("sl4")]).markdown).toBe(
      "## First slide\n\n- Wheatear **on** the *seawall*\n- Terns over the bar\n  - at low water\n\n> Say that the tide was low.\n\n## Steps\n\n1. Open the nets\n2. Ring and ~~rest~~ release\n\nSee [the tides](https://merrow-spit.example/tides), H<sub>2</sub>O.",
    );
    expect(source.at("sl3..sl4").origin).toMatchObject({ document: "made.pptx", at: "sl3..sl4" });
    const [picture] = [...source.at("i1").pictures!.values()];
    expect(Buffer.compare(picture!, demoFile("sketches/tide.png"))).toBe(0);
    const NOTES = "The speaker's notes of one slide of “made.pptx” stand after it as quotes.";
    expect(source.at("sl2").notices.map(({ message }) => message)).toEqual([NOTES]);
    expect(source.at("sl3").notices).toEqual([]);
    expect(source.notices.map(({ message }) => message)).toEqual([NOTES]);
    expect(() => source.at("sl6")).toThrow("“made.pptx” has no sl6: it has 5 slides, sl1 to sl5");

    // The same slides as LibreOffice saves them; then with one that is hidden, and what stands at an edge.
    convert(folder, "odp", ["made.pptx"]);
    const bytes = new Uint8Array(readFileSync(join(folder, "made.odp")));
    const saved = await readSource(bytes, "made.odp");
    expect(shown(saved)).toEqual(shown(source));
    expect(compose([saved.at("sl2")]).markdown).toBe(compose([source.at("sl2")]).markdown);
    expect(Buffer.compare([...saved.at("i1").pictures!.values()][0]!, picture!)).toBe(0);
    const files = unzipSync(bytes);
    const changed = strFromU8(files["content.xml"]!)
      .replace(
        "<style:drawing-page-properties ",
        '<style:drawing-page-properties presentation:visibility="hidden" ',
      )
      .replace(
        /(<draw:page [^>]*>)/,
        '$1<draw:frame presentation:class="page-number"><draw:text-box><text:p>4</text:p></draw:text-box></draw:frame><draw:frame presentation:class="outline" presentation:placeholder="true"><draw:text-box><text:p>Click here</text:p></draw:text-box></draw:frame>',
      );
    const hidden = await readSource(zipSync({ ...files, "content.xml": strToU8(changed) }), "hidden.odp");
    expect(shown(hidden)).toEqual(shown(source));
    expect(hidden.notices.map(({ code, message }) => [code, message])).toEqual([
      [
        "hidden-parts",
        expect.stringMatching(
          /slides?. of “hidden\.odp” (?:is|are) hidden|One slide of “hidden\.odp” is hidden/,
        ),
      ],
      ["as-text", NOTES.replace("made.pptx", "hidden.odp")],
      [
        "left-out",
        "Left out of “hidden.odp”: one line at the edge of slides, their numbers, dates and feet.",
      ],
    ]);
  },
);

const A = 'xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main"';
const P = `${A} xmlns:p="http://schemas.openxmlformats.org/presentationml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"`;
const TYPE = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
type Link = readonly [id: string, type: string, target: string];
const relations = (...links: Link[]) =>
  `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${links.map(([id, type, target]) => `<Relationship Id="${id}" Type="${TYPE}/${type}" Target="${target}"/>`).join("")}</Relationships>`;
const r = (text: string, look = "") => `<a:r><a:rPr ${look}/><a:t>${text}</a:t></a:r>`;
const p = (inner: string, properties = "") => `<a:p>${properties}${inner}</a:p>`;
const shape = (placeholder: string, ...paragraphs: string[]) =>
  `<p:sp><p:nvSpPr><p:cNvPr id="2" name="x"/><p:cNvSpPr/><p:nvPr>${placeholder}</p:nvPr></p:nvSpPr><p:spPr/><p:txBody><a:bodyPr/><a:lstStyle/>${paragraphs.join("")}</p:txBody></p:sp>`;
const slide = (shapes: string, attributes = "") =>
  `<p:sld ${P}${attributes}><p:cSld><p:spTree>${shapes}</p:spTree></p:cSld></p:sld>`;
const frame = (inner: string) =>
  `<p:graphicFrame><a:graphic><a:graphicData>${inner}</a:graphicData></a:graphic></p:graphicFrame>`;

/** A presentation made by hand; its slides are named in another order than theirs. */
function presentation(
  slides: readonly string[],
  links: readonly Link[][] = [],
  more: Record<string, string> = {},
): Uint8Array {
  const named = slides.map((_, at) => `s${slides.length - at}.xml`);
  const files: Record<string, string> = {
    "_rels/.rels": relations(["r1", "officeDocument", "ppt/presentation.xml"]),
    "ppt/presentation.xml": `<p:presentation ${P}><p:sldIdLst>${named.map((_, at) => `<p:sldId r:id="r${at}" id="${256 + at}"/>`).join("")}</p:sldIdLst></p:presentation>`,
    "ppt/_rels/presentation.xml.rels": relations(
      ...named.map((name, at): Link => [`r${at}`, "slide", `slides/${name}`]),
    ),
    ...Object.fromEntries(slides.map((xml, at) => [`ppt/slides/${named[at]!}`, xml])),
    ...Object.fromEntries(
      links.map((each, at) => [`ppt/slides/_rels/${named[at]!}.rels`, relations(...each)]),
    ),
    ...more,
  };
  return zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])));
}
const TITLE = '<p:ph type="title"/>';

test("what slides say in the ways of the standard: lists by layout and master, groups, tables, charts, what stands at the edge, hidden ones", async () => {
  const cell = (text: string, attributes = "") =>
    `<a:tc ${attributes}><a:txBody>${p(r(text))}</a:txBody></a:tc>`;
  const first = slide(
    [
      shape(
        '<p:ph idx="1"/>',
        p(r("by the master")),
        p(r("inner"), '<a:pPr lvl="1"/>'),
        p(r("no mark"), "<a:pPr><a:buNone/></a:pPr>"),
        p(""),
      ),
      shape(TITLE, p(`${r("Tides")}<a:br/>${r("and winds")}`)),
      `<p:grpSp>${shape("", p(r("loose words", 'b="1" u="sng"')), p(r("fourth"), '<a:pPr><a:buAutoNum type="arabicPeriod" startAt="4"/></a:pPr>'))}</p:grpSp>`,
      shape('<p:ph type="body" idx="7"/>', p(r("by the layout"))),
      shape('<p:ph type="sldNum" idx="9"/>', p('<a:fld type="slidenum"><a:t>1</a:t></a:fld>')),
    ].join(""),
  );
  const hidden = slide(
    [
      frame(
        `<a:tbl><a:tblPr firstRow="1"/><a:tr>${cell("wide", 'gridSpan="2"')}${cell("", 'hMerge="1"')}</a:tr><a:tr>${cell("tall", 'rowSpan="2"')}${cell("one")}</a:tr><a:tr>${cell("", 'vMerge="1"')}${cell("two")}</a:tr></a:tbl>`,
      ),
      frame('<c:chart xmlns:c="http://schemas.openxmlformats.org/drawingml/2006/chart" r:id="rC"/>'),
      `<mc:AlternateContent xmlns:mc="http://schemas.openxmlformats.org/markup-compatibility/2006"><mc:Choice Requires="a14">${shape("", p("chosen"))}</mc:Choice><mc:Fallback>${shape("", p(r("fallen back")))}</mc:Fallback></mc:AlternateContent>`,
      shape("", p(`<a:r><a:rPr><a:hlinkClick r:id="rJ"/></a:rPr><a:t>not a link</a:t></a:r>`)),
    ].join(""),
    ' show="0"',
  );
  const bytes = presentation(
    [first, hidden],
    [
      [["rL", "slideLayout", "../slideLayouts/l.xml"]],
      [
        ["rC", "chart", "../charts/c.xml"],
        ["rJ", "hyperlink", "javascript:alert(1)"],
      ],
    ],
    {
      "ppt/slideLayouts/l.xml": `<p:sldLayout ${P}><p:cSld><p:spTree>${shape('<p:ph type="body" idx="7"/>').replace("<a:lstStyle/>", '<a:lstStyle><a:lvl1pPr><a:buAutoNum type="arabicPeriod"/></a:lvl1pPr></a:lstStyle>')}</p:spTree></p:cSld></p:sldLayout>`,
      "ppt/slideLayouts/_rels/l.xml.rels": relations(["r1", "slideMaster", "../slideMasters/m.xml"]),
      "ppt/slideMasters/m.xml": `<p:sldMaster ${P}><p:cSld><p:spTree/></p:cSld><p:txStyles><p:bodyStyle><a:lvl1pPr><a:buChar char="•"/></a:lvl1pPr><a:lvl2pPr><a:buChar char="–"/></a:lvl2pPr></p:bodyStyle></p:txStyles></p:sldMaster>`,
      "ppt/charts/c.xml":
        '<c:chartSpace xmlns:c="http://schemas.openxmlformats.org/drawingml/2006/chart" xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main"><c:title><a:t>Birds by ride</a:t></c:title></c:chartSpace>',
    },
  );
  const source = await readSource(bytes, "made.pptx");
  expect(compose([source.at()]).markdown).toBe(
    "## Tides<br>and winds\n\n- by the master\n  - inner\n\nno mark\n\n**<u>loose words</u>**\n\n4. fourth\n\n1) by the layout\n\n## Slide 2\n\n" +
      `${compose([source.at("t1")]).markdown}\n\nBirds by ride\n\nfallen back\n\nnot a link`,
  );
  expect(compose([source.at("t1")]).html).toMatch(
    /<th[^>]*colspan="2"[^>]*>.*wide.*<td[^>]*rowspan="2"[^>]*>.*tall.*one.*<tr><td[^>]*>.*two/,
  );
  expect(source.notices.map(({ reason }) => reason).sort()).toEqual(
    ["as-text/diagrams", "as-text/titles", "hidden-parts/slides", "left-out/slide-furniture"].sort(),
  );
  // What is told of a slide is what stands on it.
  expect(source.at("sl1").notices).toEqual([]);
  expect(source.at("s2").notices.map(({ reason }) => reason)).toContain("hidden-parts/slides");
});

test("a slide alone is read alone; what is damaged, locked up in itself or none is refused in a sentence", async () => {
  const good = slide(shape(TITLE, p(r("Good"))));
  const source = await readSource(presentation([good, good, good, "<p:sld"]), "made.pptx");
  expect(compose([source.at("sl1")]).text).toBe("Good");
  expect(() => source.at("sl4")).toThrow("is damaged: a part of it is not whole");
  const empty = await readSource(presentation([]), "none.pptx");
  expect(empty.parts()).toEqual([]);
  const other = zipSync({ "ppt/presentation.xml": strToU8("<other/>") });
  await expect(readSource(other, "other.pptx")).rejects.toThrow(
    "is not a presentation: it has no list of slides",
  );
  const deep = slide("<p:grpSp>".repeat(2000) + shape("", p(r("deep"))) + "</p:grpSp>".repeat(2000));
  await expect(
    (async () => (await readSource(presentation([deep]), "deep.pptx")).parts())(),
  ).rejects.toMatchObject({ code: "too-large" });
  await expect(
    readSource(new Uint8Array(readFileSync("demo/diary.docx")), "diary.docx").then((docx) => docx.at("sl1")),
  ).rejects.toMatchObject({ code: "bad-spot" });

  // Changed at random, and cut short, it is read or refused, and nothing else.
  const whole = presentation([
    good,
    good,
    slide(
      shape(TITLE, p(r("Third"))) +
        shape('<p:ph idx="1"/>', p(r("item"), '<a:pPr lvl="3"><a:buChar char="x"/></a:pPr>')),
    ),
  ]);
  let state = 20310408;
  const random = (below: number) => (state = (state * 48271) % 0x7fffffff) % below;
  for (let round = 0; round < 300; round++) {
    const bytes = round % 3 === 0 ? whole.slice(0, random(whole.length)) : whole.slice();
    if (round % 3 > 0) for (let at = 0; at < 5; at++) bytes[random(bytes.length)] = random(256);
    const outcome = await readSource(bytes, "damaged.pptx").then(
      (read) => {
        try {
          return read.parts() && read.notices ? "read" : "";
        } catch (error) {
          return (error as { code: string }).code;
        }
      },
      (error: { code: string }) => error.code,
    );
    expect(["read", "unreadable", "locked", "too-large", "unknown-format"]).toContain(outcome);
  }
  writeFileSync(join(folder, "whole.pptx"), whole);
  const looked = spawnSync(process.execPath, [resolve("dist/bin/main.js"), "look", "whole.pptx"], {
    cwd: folder,
    encoding: "utf8",
  });
  expect(looked.stdout).toContain("Third");
});
