import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { convert, officeTest, shownBy } from "../support/libreoffice";
import { writeOffice } from "../support/office";
import { rawWorkbook, type RawCell } from "../support/workbook";
import { Drawer, formatOf, MemoryStore, paragraph, readHtml, runsText, type Cell, type Table } from "drawer";
import { readSource } from "drawer/files";

const folder = mkdtempSync(join(tmpdir(), "drawer-sheets-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const file = (name: string) => new Uint8Array(readFileSync(join(folder, name)));
const textOf = ({ flows: [only] }: Cell) => (only?.type === "paragraph" ? runsText(only.runs) : "");
const figure = (number: number, format = "0"): RawCell => ({ xml: `<v>${number}</v>`, format });
const words = (text: string): RawCell => ({ xml: `<is><t>${text}</t></is>`, attributes: ' t="inlineStr"' });

/** The same workbook as its xlsx, and as the ods that LibreOffice makes of it. */
async function both(name: string, workbook: Uint8Array) {
  writeFileSync(join(folder, `${name}.xlsx`), workbook);
  convert(folder, "ods", [`${name}.xlsx`]);
  const [xlsx, ods] = [`${name}.xlsx`, `${name}.ods`];
  // One after the other: Jest does not load a module well that two ask for at once for the first time.
  return [await readSource(file(xlsx), xlsx), await readSource(file(ods), ods)];
}

officeTest("what is hidden is read, and said, for a whole file and for a spot of it", async () => {
  const rows = [1, 2, 3, 4].map((n) => [words(`north ${n}`), figure(n), figure(n * 10)]);
  const workbook = rawWorkbook(rows, {
    rowAttributes: (row) => (row === 1 || row === 2 ? ' hidden="1"' : ""),
    columns: '<col min="2" max="2" width="10" hidden="1"/>',
  });
  for (const source of await both("hidden", workbook)) {
    const whole =
      "2 rows and 1 column of the sheet “Sheet1” are hidden in its file; they were read all the same.";
    expect(source.at().notices.map(({ message }) => message)).toEqual([whole]);
    expect(source.notices.map(({ code }) => code)).toEqual(["hidden-parts"]);
    const part = source.at("A2:A2");
    expect([textOf((part.content[0] as Table).rows[0]![0]!), part.notices[0]!.message]).toEqual([
      "north 2",
      "1 row of the sheet “Sheet1” is hidden in its file; it was read all the same.",
    ]);
    expect(source.at("A4:A4").notices).toEqual([]);
    // Of pieces that come together it is said once.
    const { spots } = source.each("row", "B2:B3");
    const { notices } = await new Drawer(new MemoryStore()).collect(spots.map((spot) => source.at(spot)));
    expect(notices.map(({ code }) => code)).toEqual(["hidden-parts", "collected", "collected"]);
  }
});

test("a hidden sheet says so", async () => {
  const source = await readSource(rawWorkbook([[figure(1)]], { state: ' state="hidden"' }), "x.xlsx");
  expect(source.at("A1").notices.map(({ message }) => message)).toEqual([
    "The sheet “Sheet1” is hidden in its file; it was read all the same.",
  ]);
});

test("formulas without a result are counted, and those with one are what they came to", async () => {
  const formula = (result: string): RawCell => ({ xml: `<f>1+1</f>${result}`, format: "0.0" });
  const rows = [[words("sum"), formula("<v>2</v>"), formula(""), formula("<v></v>")]];
  const source = await readSource(rawWorkbook(rows), "x.xlsx");
  const { content, notices } = source.at();
  expect((content[0] as Table).rows[0]!.map(textOf)).toEqual(["sum", "2.0"]);
  expect(notices.map(({ message }) => message)).toEqual([
    "2 formulas on the sheet “Sheet1” have no result in the file: their cells are blank. Opening and saving it in a sheet program fills them.",
  ]);
  expect(source.at("A1:B1").notices).toEqual([]);
});

officeTest("days of a workbook that counts from 1904 are the days that LibreOffice shows", async () => {
  const rows = [[figure(43_563, "yyyy-mm-dd"), figure(43_563.25, "yyyy-mm-dd hh:mm"), figure(1.5, "[h]:mm")]];
  for (const source of await both(
    "from-1904",
    rawWorkbook(rows, { workbook: '<workbookPr date1904="1"/>' }),
  )) {
    const [row] = (source.at("A1:C1").content[0] as Table).rows as [Cell[]];
    expect(row.map(textOf)).toEqual(["2023-04-09", "2023-04-09 06:00", "36:00"]);
    expect(row.slice(0, 2).map(({ value }) => value?.type === "date" && value.date)).toEqual([
      "2023-04-09",
      "2023-04-09T06:00:00",
    ]);
  }
});

officeTest("links of cells are read, and written so that LibreOffice has them", async () => {
  const address = "https://merrow.example/tides?day=1&hut=2";
  const source = await both(
    "links",
    rawWorkbook([[words("Tides"), words("plain")]], {
      after: '<hyperlinks><hyperlink ref="A1" r:id="rIdLink"/></hyperlinks>',
      relations: `<Relationship Id="rIdLink" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/hyperlink" Target="${address.replace("&", "&amp;")}" TargetMode="External"/>`,
    }),
  );
  for (const one of source) {
    const [[tides, plain]] = (one.at("A1:B1").content[0] as Table).rows as [[Cell, Cell]];
    expect(JSON.stringify([tides, plain]).match(/"link":"[^"]*"/g)).toEqual([`"link":"${address}"`]);
  }
  const { content } = await readHtml(
    `<table><tr><th colspan=2>Where<tr><td><a href="${address}">Tides</a><td>plain</table>`,
  );
  for (const format of ["xlsx", "ods"] as const) {
    writeFileSync(join(folder, `written.${format}`), await writeOffice({ content }, format));
    convert(folder, "fods", [`written.${format}`]);
    const links = readFileSync(join(folder, "written.fods"), "utf8").match(/<text:a [^>]*>[^<]*/g) ?? [];
    expect([format, links.length, links[0]]).toEqual([
      format,
      1,
      expect.stringMatching(/xlink:href="https:\/\/merrow\.example\/tides\?day=1&amp;hut=2"[^>]*>Tides$/),
    ]);
  }
});

test("a written workbook keeps to the schema: fonts in order, own formats by own numbers, the header in sight", async () => {
  const { content } = await readHtml(
    "<table><tr><th>Ride<th>New<tr><td>North<td sdval=3 sdnum='1033;0;0.0'>3.0</table>",
  );
  const parts = unzipSync(await writeOffice({ content }, "xlsx"));
  const styles = strFromU8(parts["xl/styles.xml"]!);
  const fonts = [...styles.matchAll(/<font>(.*?)<\/font>/g)].map(([, inner]) => inner!.match(/(?<=<)\w+/g));
  expect(fonts).toContainEqual(["b", "sz", "name", "family"]);
  const ids = [...styles.matchAll(/numFmtId="(\d+)"/g)].map(([, id]) => Number(id));
  expect(ids.filter((id) => id > 49 && id < 164)).toEqual([]);
  expect(ids.some((id) => id >= 164)).toBe(true);
  expect(strFromU8(parts["xl/worksheets/sheet1.xml"]!)).toContain('ySplit="1"');
});

test("a cell that is longer than a workbook can hold is cut, and said; in a workbook that can hold it, it is whole", async () => {
  const content = [paragraph("x".repeat(32_766) + "\u{1F426}" + "y".repeat(10))];
  const { data, notices } = await formatOf("xlsx").write!({ content });
  const [table] = (await readSource(data as Uint8Array, "x.xlsx")).at().content as [Table];
  expect(textOf(table.rows[0]![0]!)).toBe("x".repeat(32_766));
  expect(notices.map(({ message }) => message)).toEqual([
    "One cell holds more than the 32,767 characters that a cell of this format can; what is beyond them is not in the file.",
  ]);
  expect((await formatOf("ods").write!({ content })).notices).toEqual([]);
});

/** A workbook with parts of it changed. */
function changed(
  workbook: Uint8Array,
  changes: Readonly<Record<string, (xml: string) => string>>,
): Uint8Array {
  const parts = unzipSync(workbook);
  for (const [name, change] of Object.entries(changes))
    parts[name] = strToU8(change(strFromU8(parts[name]!)));
  return zipSync(parts);
}

officeTest(
  "cells and rows that do not say their places follow those before: formats, formulas and what is hidden too",
  async () => {
    const rows = [
      [words("ride"), figure(33, "0.00"), figure(45383, "d/m/yyyy")],
      [words("north"), figure(0.5, "0%"), { xml: "<f>1+1</f>", format: "0.0" }],
      [words("south"), figure(7, "000"), figure(2)],
    ];
    const said = rawWorkbook(rows, { rowAttributes: (row) => (row === 1 ? ' hidden="1"' : "") });
    const unsaid = changed(said, {
      "xl/worksheets/sheet1.xml": (xml) => xml.replace(/(<(?:row|c)\b[^>]*?) r="[^"]*"/g, "$1"),
    });
    const [one, other] = [await readSource(said, "x.xlsx"), await readSource(unsaid, "x.xlsx")];
    expect(other.at()).toEqual(one.at());
    const [table] = other.at().content as readonly [Table];
    expect(table.rows.map((row) => row.map(textOf))).toEqual([
      ["ride", "33.00", "1/4/2024"],
      ["north", "50%", ""],
      ["south", "007", "2"],
    ]);
    // Some rows say theirs, some cells do.
    const some = changed(said, {
      "xl/worksheets/sheet1.xml": (xml) => xml.replace(/ r="(?:2|A1|B2|C2|C3)"/g, ""),
    });
    expect((await readSource(some, "x.xlsx")).at()).toEqual(one.at());
    writeFileSync(join(folder, "unsaid.xlsx"), unsaid);
    convert(folder, "ods", ["unsaid.xlsx"]);
    const [theirs] = (await readSource(file("unsaid.ods"), "unsaid.ods")).at().content as readonly [Table];
    expect(theirs.rows.map((row) => row.slice(0, 2).map(textOf))).toEqual(
      table.rows.map((row) => row.slice(0, 2).map(textOf)),
    );
  },
);

test("a sheet that the workbook names and its file does not have is told; the others are read", async () => {
  for (const attributes of [' r:id=""', "", ' r:id="rId77"']) {
    const workbook = changed(rawWorkbook([[figure(33, "0.00")]]), {
      "xl/workbook.xml": (xml) =>
        xml.replace("</sheets>", `<sheet name="Gone" sheetId="9"${attributes}/></sheets>`),
    });
    const source = await readSource(workbook, "x.xlsx");
    const [table] = source.at("Sheet1").content as readonly [Table];
    expect(textOf(table.rows[0]![0]!)).toBe("33.00");
    expect(source.notices.map(({ message }) => message)).toEqual([
      "The sheet “Gone” is named in its file, which has nothing of it: no cell was read. Opening and saving the file in a sheet program may bring it back.",
    ]);
  }
});

officeTest(
  "cells that are coloured and hold nothing keep their colour among those that hold something",
  async () => {
    const fill = '<fill><patternFill patternType="solid"><fgColor rgb="FFFFE08A"/></patternFill></fill>';
    const workbook = changed(rawWorkbook([[figure(1), { xml: "", format: "0.00" }, figure(3)]]), {
      "xl/styles.xml": (xml) =>
        xml
          .replace('<fills count="2">', '<fills count="3">')
          .replace("</fills>", `${fill}</fills>`)
          .replace('numFmtId="201" fontId="0" fillId="0"', 'numFmtId="201" fontId="0" fillId="2"'),
    });
    for (const source of await both("coloured", workbook)) {
      const [table] = source.at().content as readonly [Table];
      expect(table.rows[0]!.map(({ background }) => background)).toEqual([undefined, "#ffe08a", undefined]);
    }
  },
);

officeTest("text that a style of an ods hides is shown in cells, as sheet programs show it", async () => {
  const { content } = await readHtml(
    "<table><tr><td>ringed</td><td>seen <b>twice</b></td><td>5</td></tr></table>",
  );
  const parts = unzipSync(await writeOffice({ content }, "ods"));
  const hides = '<style:text-properties text:display="none"/>';
  const styles = `<style:style style:name="no" style:family="table-cell">${hides}</style:style><style:style style:name="non" style:family="text">${hides}</style:style>`;
  const xml = strFromU8(parts["content.xml"]!)
    .replace(/<office:automatic-styles\/?>/, (tag) =>
      tag.endsWith("/>") ? `${tag.slice(0, -2)}>${styles}</office:automatic-styles>` : tag + styles,
    )
    .replace(/<table:table-cell( table:style-name="[^"]*")?/g, '<table:table-cell table:style-name="no"')
    .replace(/<text:span text:style-name="[^"]*"/g, '<text:span text:style-name="non"');
  expect(xml.match(/"non?"/g)!.length).toBeGreaterThan(5);
  writeFileSync(join(folder, "styled.ods"), zipSync({ ...parts, "content.xml": strToU8(xml) }));
  const [read] = (await readSource(file("styled.ods"), "styled.ods")).at().content as readonly [Table];
  // The CSV ends with a line end.
  expect([...read.rows.map((row) => row.map(textOf)), [""]]).toEqual(shownBy(folder, "styled.ods"));
});

officeTest("white space in a cell of an ods is what sheet programs show: it does not fold", async () => {
  const { content } = await readHtml("<table><tr><td>1</td><td>2</td><td>3</td><td>4</td></tr></table>");
  const parts = unzipSync(await writeOffice({ content }, "ods"));
  const texts = ["a   b", " a  ", "a\n  b", 'c<text:s text:c="2"/> d <text:span> e</text:span>'];
  const xml = strFromU8(parts["content.xml"]!).replace(
    /<table:table-cell[^>]*><text:p>(\d)<\/text:p>/g,
    (_, number: string) =>
      `<table:table-cell office:value-type="string"><text:p>${texts[Number(number) - 1]}</text:p>`,
  );
  writeFileSync(join(folder, "spaces.ods"), zipSync({ ...parts, "content.xml": strToU8(xml) }));
  const [read] = (await readSource(file("spaces.ods"), "spaces.ods")).at().content as readonly [Table];
  expect([...read.rows.map((row) => row.map(textOf)), [""]]).toEqual(shownBy(folder, "spaces.ods"));
});
