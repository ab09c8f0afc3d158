import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { strToU8, unzipSync, zipSync } from "fflate";
import { p, r, rawDocument, shape } from "../support/document";
import { convert, officeTest, shownBy } from "../support/libreoffice";
import { faultsOfOoxml } from "../support/schemas";
import { rawWorkbook } from "../support/workbook";
import { compose, readHtml, readText } from "drawer";
import { fillPages, fillPlaces, placesIn, putInto, readSource } from "drawer/files";

const field = (type: string, inner = "") =>
  `<w:r><w:fldChar w:fldCharType="${type}">${inner}</w:fldChar></w:r>`;
const instruction = (words: string) =>
  `<w:r><w:instrText xml:space="preserve"> ${words} </w:instrText></w:r>`;
const control = (name: string, inner: string, hint = "") =>
  `<w:sdt><w:sdtPr><w:alias w:val="${name}"/><w:tag w:val="x"/>${hint}</w:sdtPr><w:sdtContent>${inner}</w:sdtContent></w:sdt>`;
const bold = (words: string) => `<w:r><w:rPr><w:b/></w:rPr><w:t>${words}</w:t></w:r>`;

/** A letter form with every sort of place that word processors have. */
const letter = rawDocument(
  [
    p(r("Dear {"), bold("{Na"), r("me}}, dear {{ name }}!")),
    p(control("Ride", bold("old ride"))),
    control("Report", p(r("Click here")), "<w:showingPlcHdr/>"),
    p(
      field("begin"),
      instruction("MERGEFIELD Wind \\* MERGEFORMAT"),
      field("separate"),
      bold("«Wind»"),
      field("end"),
      r("."),
    ),
    p(`<w:fldSimple w:instr=" MERGEFIELD &quot;High water&quot; ">${r("«High water»")}</w:fldSimple>`),
    p(
      r("Seen "),
      '<w:bookmarkStart w:id="3" w:name="Day"/>',
      r("never"),
      '<w:bookmarkEnd w:id="3"/>',
      r("."),
    ),
    p(
      field("begin", '<w:ffData><w:name w:val="Warden"/><w:textInput/></w:ffData>'),
      instruction("FORMTEXT"),
      field("separate"),
      r("     "),
      field("end"),
    ),
    p(r("{{Table}}")),
    p(r("{{Unknown}}")),
  ].join(""),
);
const value = (words: string) => readText(words);
const table = () => readHtml("<p>Seen: <b>two</b></p><table><tr><th>Bird<th>New<tr><td>Wren<td>3</table>");
const values = async () => ({
  NAME: value("Ada & Bo"),
  ride: value("North"),
  Report: await table(),
  Wind: value("south-east"),
  "High  Water": value("06:10\nand 18:40"),
  Day: value("8 April"),
  Warden: value("the warden"),
  Table: await table(),
  Extra: value("x"),
});
const lines = async (bytes: Uint8Array, name: string) =>
  compose([(await readSource(bytes, name)).at()])
    .text.split("\n")
    .filter(Boolean);

test("all named places of a docx are found and filled, in the look that they have", async () => {
  const places = await placesIn(letter, "letter.docx");
  expect(places.map(({ name, kind, text }) => [name, kind, text])).toEqual([
    ["Name", "braces", ""],
    ["name", "braces", ""],
    ["Ride", "control", "old ride"],
    ["Report", "control", ""],
    ["Wind", "field", "«Wind»"],
    ["High water", "field", "«High water»"],
    ["Day", "bookmark", "never"],
    ["Warden", "field", "     "],
    ["Table", "braces", ""],
    ["Unknown", "braces", ""],
  ]);
  const { data, empty, unused } = await fillPlaces(letter, "letter.docx", await values());
  expect([empty, unused]).toEqual([["Unknown"], ["Extra"]]);
  expect(await lines(data, "letter.docx")).toEqual([
    ...[
      "Dear Ada & Bo, dear Ada & Bo!",
      "North",
      "Seen: two",
      "Bird\tNew",
      "Wren\t3",
      "south-east.",
      "06:10",
      "and 18:40",
    ],
    ...["Seen 8 April.", "the warden", "Seen: two", "Bird\tNew", "Wren\t3", "{{Unknown}}"],
  ]);
  const xml = new TextDecoder().decode(unzipSync(data)["word/document.xml"]);
  expect(xml).not.toMatch(/MERGEFIELD|showingPlcHdr|Click here/);
  expect(xml).toMatch(/<w:b\/><\/w:rPr><w:t xml:space="preserve">North/);
  expect(xml).toMatch(/<w:b\/><\/w:rPr><w:t xml:space="preserve">south-east/);
  expect(faultsOfOoxml(data, "letter.docx").length).toBeLessThanOrEqual(
    faultsOfOoxml(letter, "letter.docx").length,
  );
});

test("a block goes into a place by its name, and what no place is called is said", async () => {
  const { data } = await putInto(letter, "letter.docx", "name:day", compose([value("9 April")]));
  expect(await lines(data, "letter.docx")).toContain("Seen 9 April.");
  await expect(putInto(letter, "letter.docx", "name:Moon", compose([value("new")]))).rejects.toThrow(
    /has no place “Moon”\. Its places are: Name, name, Ride/,
  );
});

describe("in LibreOffice", () => {
  const folder = mkdtempSync(join(tmpdir(), "drawer-fill-"));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  const shown = (name: string, data: Uint8Array) => {
    writeFileSync(join(folder, name), data);
    convert(folder, "txt:Text (encoded):UTF8", [name]);
    return readFileSync(join(folder, name.replace(/\.\w+$/, ".txt")), "utf8")
      .replace(/^\ufeff/, "")
      .split("\n")
      .map((line) => line.trim())
      .filter(Boolean);
  };

  /** The lines of each page, as LibreOffice draws them. */
  const pagesDrawn = (name: string, data: Uint8Array) => {
    writeFileSync(join(folder, name), data);
    convert(folder, "pdf", [name]);
    const { stdout } = spawnSync(
      "pdftotext",
      ["-layout", join(folder, name.replace(/\.\w+$/, ".pdf")), "-"],
      {
        encoding: "utf8",
        env: { ...process.env },
      },
    );
    return stdout
      .split("\f")
      .map((page) =>
        page
          .split("\n")
          .map((line) => line.trim().replace(/\s+/g, " "))
          .filter(Boolean),
      )
      .filter((page) => page.length > 0);
  };

  officeTest("pages for each row in one file are what a file for each row would be", async () => {
    const html =
      "<h1>Dear {{Name}}</h1><ol><li>first</li><li>second<ol><li>inner {{Ride}}</li></ol></li></ol><p>{{Report}}</p><ul><li>one</li></ul>";
    const plain = (await compose([await readHtml(html)]).to("docx")).data as Uint8Array;
    // Its last paragraph holds others; a section within goes on on the same page.
    const boxed = rawDocument(
      p(r("{{Name}}")) +
        "<w:p><w:pPr><w:sectPr/></w:pPr></w:p>" +
        p(shape(p(r("box of {{Name}}"))), r("end of {{Name}}")) +
        '<w:sectPr><w:type w:val="continuous"/></w:sectPr>',
    );
    const numbered = rawDocument(
      p(r("{{Name}}")) +
        '<w:sectPr><w:headerReference w:type="default" r:id="rId9"/><w:cols w:space="720"/></w:sectPr>',
      '<Relationship Id="rId9" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/header" Target="header1.xml"/>',
      {
        "word/header1.xml": `<w:hdr xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main">${p(r("Page "), '<w:fldSimple w:instr=" PAGE ">', r("9"), "</w:fldSimple>", r(" of "), '<w:fldSimple w:instr=" NUMPAGES ">', r("9"), "</w:fldSimple>")}</w:hdr>`,
      },
    );
    const rows = await Promise.all(
      ["Ada", "Bo & Co", "Cy"].map(async (name) => ({
        ...(await values()),
        NAME: value(name),
        Report: await table(),
      })),
    );
    for (const [name, form] of [
      ["letter.docx", letter],
      ["plain.docx", plain],
      ["boxed.docx", boxed],
      ["numbered.docx", numbered],
    ] as const) {
      const { data, empty, notices } = await fillPages(form, name, rows);
      const apart = await Promise.all(rows.map(async (row) => fillPlaces(form, name, row)));
      expect(empty).toEqual(apart[0]!.empty);
      // How many pages there are is that of all, which is told.
      const drawn = (bytes: Uint8Array, file: string) =>
        pagesDrawn(file, bytes).map((page) => page.map((line) => line.replace(/ of \d+$/, "")));
      expect(drawn(data, "together.docx")).toEqual(
        apart.map((each, at) => drawn(each.data, `apart${at}.docx`)[0]),
      );
      expect(notices.some(({ message }) => message.includes("how many pages there are"))).toBe(
        form === numbered,
      );
      const faults = (bytes: Uint8Array) => faultsOfOoxml(bytes, name).length;
      if (form === letter) expect(faults(data)).toBeLessThanOrEqual(rows.length * faults(form));
      const xml = new TextDecoder().decode(unzipSync(data)["word/document.xml"]);
      const marks = [...xml.matchAll(/<w:bookmarkStart\b[^>]*>/g)].map(([tag]) => tag);
      for (const fact of [/w:id="[^"]*"/, /w:name="[^"]*"/])
        expect(new Set(marks.map((tag) => fact.exec(tag)![0])).size).toBe(marks.length);
    }
  });

  officeTest(
    "the same of an odt, with all that is in one: boxes, sections, numbered headings and lists, pages with numbers",
    async () => {
      const hut = readFileSync("test/office/hut.fodt", "utf8")
        .replace(/<text:note .*?<\/text:note>/g, "")
        .replaceAll("The hut", "The hut of {{Name}}");
      const bodied = (before: string) =>
        hut
          .replace("<office:text>", `<office:text>${before}`)
          .replace("<text:p>In the box", "<text:p>In the box of {{Name}}")
          .replace(
            "<text:p>The end.</text:p>",
            "<text:p>{{Report}}</text:p><text:p>{{Table}}</text:p><text:p>The end.</text:p>",
          );
      const pages = (inHeader: string) =>
        `<office:master-styles><style:master-page style:name="Standard" style:page-layout-name="L1"><style:header><text:p>${inHeader}</text:p></style:header></style:master-page></office:master-styles>`;
      const layout =
        '<style:page-layout style:name="L1"><style:page-layout-properties fo:page-width="21cm" fo:page-height="12cm" fo:margin="2cm"/></style:page-layout></office:automatic-styles>';
      const paged = (text: string, inHeader: string) =>
        text
          .replace("</office:automatic-styles>", layout)
          .replace("<office:body>", `${pages(inHeader)}<office:body>`);
      const atFirst =
        '<table:table table:name="T"><table:table-column/><table:table-row><table:table-cell><text:p>{{Name}}, first</text:p></table:table-cell></table:table-row></table:table>';
      const sources = {
        paged: paged(
          bodied(""),
          'Page <text:page-number text:select-page="current">1</text:page-number>, {{Name}}',
        ),
        table: bodied(atFirst),
        section: bodied(
          '<text:section text:name="First"><text:list text:style-name="L"><text:list-item><text:p>in a list in a section</text:p></text:list-item></text:list></text:section>',
        ),
      };
      const ours = (
        await compose([await readHtml("<h1>Dear {{Name}}</h1><p>{{Report}}</p><p>{{Table}}</p>")]).to("odt")
      ).data;
      const forms: [string, Uint8Array][] = [["ours.odt", ours as Uint8Array]];
      for (const [name, xml] of Object.entries(sources)) {
        writeFileSync(join(folder, `${name}.fodt`), xml);
        convert(folder, "odt", [`${name}.fodt`]);
        forms.push([`${name}.odt`, new Uint8Array(readFileSync(join(folder, `${name}.odt`)))]);
      }
      const rows = await Promise.all(
        ["Ada", "Bo & Co", "Cy"].map(async (name) => ({
          Name: value(name),
          Report: await table(),
          Table: await readHtml(`<p><u>${name}</u></p><ol><li>of its own</li></ol>`),
        })),
      );
      for (const [name, form] of forms) {
        const { data, notices } = await fillPages(form, name, rows);
        expect(notices.filter(({ code }) => code === "not-kept").length).toBe(name === "paged.odt" ? 1 : 0);
        const edge = (page: string[]) => page.filter((line) => !line.startsWith("Page"));
        const apart = await Promise.all(rows.map(async (row) => fillPlaces(form, name, row)));
        const drawn = pagesDrawn("together.odt", data);
        const each = apart.flatMap((one, at) => pagesDrawn(`apart${at}.odt`, one.data));
        expect(drawn.map(edge)).toEqual(each.map(edge));
        const numbers = (all: string[][]) => all.map((page) => /^Page \d+/.exec(page[0]!)?.[0]);
        expect(numbers(drawn)).toEqual(numbers(each));
        const xml = new TextDecoder().decode(unzipSync(data)["content.xml"]);
        for (const fact of [
          /<style:style style:name="[^"]*"/g,
          /<table:table [^>]*table:name="[^"]*"/g,
          /<text:section [^>]*text:name="[^"]*"/g,
        ]) {
          const names = [...xml.matchAll(fact)].map(([tag]) => / \w+:name="[^"]*"/.exec(tag)![0]);
          expect(names.filter((one, at) => names.indexOf(one) !== at)).toEqual([]);
        }
      }
    },
  );

  test("what is at the edges of pages takes what all rows say alike; notes cannot be there for each; other formats are refused", async () => {
    const relation = (id: number, type: string, target: string) =>
      `<Relationship Id="rId${id}" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/${type}" Target="${target}"/>`;
    const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
    const edged = rawDocument(p(r("{{Name}}")), relation(9, "header", "header1.xml"), {
      "word/header1.xml": `<w:hdr ${W}>${p(r("{{Name}}, {{Day}}"))}</w:hdr>`,
    });
    const rows = ["Ada", "Bo"].map((name) => ({ Name: value(name), Day: value("8 April") }));
    const { data, notices } = await fillPages(edged, "edged.docx", rows);
    expect(notices.map(({ message }) => message)).toEqual([
      expect.stringMatching(/edged\.docx” is there once, so Name stays as it is in it/),
    ]);
    expect(new TextDecoder().decode(unzipSync(data)["word/header1.xml"])).toContain("{{Name}}, 8 April");
    const noted = rawDocument(p(r("{{Name}}"), '<w:r><w:footnoteReference w:id="2"/></w:r>'));
    await expect(fillPages(noted, "noted.docx", rows)).rejects.toThrow("has notes or comments");
    const odt = (await compose([value("{{Name}}")]).to("odt")).data as Uint8Array;
    for (const [inner, why] of [
      ['<text:note text:id="a" text:note-class="footnote"/>', "has notes or comments"],
      ['<text:change text:change-id="a"/>', "has tracked changes"],
      ['<draw:frame text:anchor-type="page"/>', "bound to a page"],
    ] as const) {
      const parts = unzipSync(odt);
      const xml = new TextDecoder().decode(parts["content.xml"]).replace("{{Name}}", `$&${inner}`);
      const made = zipSync({ ...parts, "content.xml": strToU8(xml) });
      await expect(fillPages(made, "made.odt", rows)).rejects.toThrow(why);
    }
    await expect(fillPages(new TextEncoder().encode("{{Name}}"), "a.txt", rows)).rejects.toThrow(
      "is made of docx and odt files",
    );
  });

  officeTest("cells of an ods are filled by their names, and by names in braces", async () => {
    const made = await readHtml(
      "<table><tr><td>Dear {{Name}}, {{ wind }}</td><td>old</td></tr><tr><td>{{<b>Name</b>}}</td><td>3</td></tr></table>",
    );
    const parts = unzipSync((await compose([made]).to("ods")).data as Uint8Array);
    const sheet = "Year’s & the boat's";
    const named = (name: string, cells: string) =>
      `<table:named-range table:name="${name}" table:cell-range-address="$'${sheet.replace("&", "&amp;").replace("'", "''")}'.${cells}"/>`;
    const xml = new TextDecoder()
      .decode(parts["content.xml"])
      .replace(/(<table:table table:name=")[^"]*"/, `$1${sheet.replace("&", "&amp;")}"`)
      .replace(
        "</office:spreadsheet>",
        () =>
          `<table:named-expressions>${named("Wind", "$B$1")}${named("Count", "$B$2:.$B$3")}${named("Gone", "#REF!")}</table:named-expressions></office:spreadsheet>`,
      );
    const form = zipSync({ ...parts, "content.xml": strToU8(xml) });
    expect((await placesIn(form, "a.ods")).map(({ name, kind, spot }) => [name, kind, spot])).toEqual([
      ["Wind", "name", `'${sheet.replace("'", "''")}'!B1`],
      ["Count", "name", `'${sheet.replace("'", "''")}'!B2:B3`],
      ["Name", "braces", undefined],
      ["wind", "braces", undefined],
    ]);
    const source = await readSource(form, "a.ods");
    await source.open("name:Wind");
    expect(compose([source.at("name:Wind")]).text).toBe("old");
    const { data, empty } = await fillPlaces(form, "a.ods", await values());
    expect(empty).toEqual(["Count"]);
    writeFileSync(join(folder, "filled.ods"), data);
    expect(shownBy(folder, "filled.ods").slice(0, 2)).toEqual([
      ["Dear Ada & Bo, south-east", "south-east"],
      ["Ada & Bo", "3"],
    ]);
  });

  officeTest("a filled docx, and the odt that it makes of the form, say what was put there", async () => {
    const { data } = await fillPlaces(letter, "letter.docx", await values());
    const wanted = [
      ...[
        "Dear Ada & Bo, dear Ada & Bo!",
        "North",
        "Seen: two",
        "Bird",
        "New",
        "Wren",
        "3",
        "south-east.",
        "06:10",
        "and 18:40",
      ],
      ...["Seen 8 April.", "the warden", "Seen: two", "Bird", "New", "Wren", "3", "{{Unknown}}"],
    ];
    expect(shown("letter.docx", data)).toEqual(wanted);
    writeFileSync(join(folder, "form.docx"), letter);
    convert(folder, "odt", ["form.docx"]);
    const form = new Uint8Array(readFileSync(join(folder, "form.odt")));
    const places = (await placesIn(form, "form.odt")).map(({ name }) => name);
    expect(places).toEqual(expect.arrayContaining(["Name", "name", "Day", "Table", "Unknown"]));
    const filled = await fillPlaces(form, "form.odt", await values());
    const said = shown("filled.odt", filled.data);
    expect(said).toEqual(
      expect.arrayContaining([
        "Dear Ada & Bo, dear Ada & Bo!",
        "Seen 8 April.",
        "Seen: two",
        "Bird",
        "Wren",
        "{{Unknown}}",
      ]),
    );
  });
});

test("names in braces in text, Markdown and HTML take what each can hold", async () => {
  const fill = async (name: string, text: string) => {
    const { data } = await fillPlaces(strToU8(text), name, await values());
    return new TextDecoder().decode(data);
  };
  expect(await fill("a.txt", "Dear {{Name}},\r\n{{High water}}\r\n{{x}}")).toBe(
    "Dear Ada & Bo,\r\n06:10\r\nand 18:40\r\n{{x}}",
  );
  expect(await fill("a.md", "Dear {{name}},\n\n{{Table}}\n")).toBe(
    "Dear Ada & Bo,\n\nSeen: **two**\n\n| Bird | New |\n| --- | --- |\n| Wren | 3 |\n",
  );
  expect(await fill("a.html", "<p>Dear {{Name}}</p>")).toBe("<p>Dear Ada &amp; Bo</p>");
});

test("a named place is a spot: what stands there is collected, typed where it is cells; a wrong name tells the right ones", async () => {
  const source = await readSource(letter, "letter.docx");
  expect(() => source.at("name:Ride")).toThrow('`await source.open("name:Ride")` looks for them');
  await source.open("name:ride");
  const piece = source.at("name:ride");
  expect([compose([piece]).text.trim(), piece.origin.at, source.spots("name: Ride ")]).toEqual([
    ...["old ride", "name:ride", ["name:Ride"]],
  ]);
  expect(piece.notices![0]!.message).toContain("came in as text, without its look");
  expect(() => source.at("name:Tide")).toThrow("has no place “Tide”. Its places are: Name, name, Ride,");
  const book = unzipSync(rawWorkbook([[{ xml: "<v>7</v>" }, { xml: "<v>12</v>" }]]));
  const xml = new TextDecoder()
    .decode(book["xl/workbook.xml"])
    .replace(
      "</sheets>",
      '</sheets><definedNames><definedName name="Row">Sheet1!$A$1:$B$1</definedName></definedNames>',
    );
  const sheet = await readSource(zipSync({ ...book, "xl/workbook.xml": strToU8(xml) }), "a.xlsx");
  await sheet.open("name:row");
  expect(sheet.at("name:row").content).toEqual(sheet.at("Sheet1!A1:B1").content);
  expect(sheet.each("cell", "name:row").spots).toEqual(["Sheet1!A1", "Sheet1!B1"]);
  expect(sheet.sheets).toHaveLength(1);
});

test("cells of a workbook are filled by their names, and by names in braces", async () => {
  const text = (words: string) => ({ xml: `<is><t>${words}</t></is>`, attributes: ' t="inlineStr"' });
  const book = rawWorkbook([[text("Dear {{Name}}"), text("old")]]);
  const parts = unzipSync(book);
  const xml = new TextDecoder()
    .decode(parts["xl/workbook.xml"])
    .replace(
      "</sheets>",
      '</sheets><definedNames><definedName name="Wind">Sheet1!$B$1</definedName></definedNames>',
    );
  const named = zipSync({ ...parts, "xl/workbook.xml": strToU8(xml) });
  expect((await placesIn(named, "a.xlsx")).map(({ name, kind }) => [name, kind])).toEqual([
    ["Wind", "name"],
    ["Name", "braces"],
  ]);
  const { data, empty } = await fillPlaces(named, "a.xlsx", await values());
  expect(empty).toEqual([]);
  expect(
    (await readSource(data, "a.xlsx")).sheets![0]!.texts({ top: 0, left: 0, bottom: 0, right: 1 }),
  ).toEqual([["Dear Ada & Bo", "south-east"]]);
});
