import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import Papa from "papaparse";
import { convert, officeTest } from "../support/libreoffice";
import { compose, readDelimited, readHtml, writeDelimited, type Table } from "drawer";
import { readSource } from "drawer/files";

const bytes = (text: string) => new TextEncoder().encode(text);
const cells = (table: Table) => writeDelimited([table], "\t").text.trimEnd().split("\n");
const read = async (text: string, name = "costs.csv") => (await readSource(bytes(text), name)).at();

test.each<[says: string, text: string, rows: string[], separator: string | undefined]>([
  [
    "two columns and a decimal comma",
    "Name;Preis\nStuhl;79,00\n",
    ["Name\tPreis", "Stuhl\t79,00"],
    "semicolons",
  ],
  ["the same in quotes", '"Name";"Preis"\n"Stuhl";"79,00"\n', ["Name\tPreis", "Stuhl\t79,00"], "semicolons"],
  ["tabs", "Name\tPreis\nStuhl\t79,00", ["Name\tPreis", "Stuhl\t79,00"], "tabs"],
  ["bars", "Name|Preis\r\nStuhl|79,00\r\n", ["Name\tPreis", "Stuhl\t79,00"], "bars"],
  ["figures alone", "1,5;2,5\n3,5;4,5\n", ["1,5\t2,5", "3,5\t4,5"], "semicolons"],
  [
    "names with commas",
    "Kern, Anna;Hut\nHolm, Per;Quay\n",
    ["Kern, Anna\tHut", "Holm, Per\tQuay"],
    "semicolons",
  ],
  [
    "a title above",
    "Spring\n\nName;Cost\nNet;1,50\n",
    ["Spring\t", "\t", "Name\tCost", "Net\t1,50"],
    "semicolons",
  ],
  [
    "lines within a cell",
    'Name;Note\nNet;"one, two,\nthree"\n',
    ["Name\tNote", 'Net\t"one, two,', 'three"'],
    "semicolons",
  ],
  [
    "commas, and semicolons within cells",
    "Boat,Ports\nGannet,Hut;Quay\nTern,Spit\n",
    ["Boat\tPorts", "Gannet\tHut;Quay", "Tern\tSpit"],
    undefined,
  ],
  ["numbers with commas alone", "1,2\n3,4\n", ["1\t2", "3\t4"], undefined],
  ["one column", "Wren\nTern\n", ["Wren", "Tern"], undefined],
  ["rows of uneven length", "a,b,c\nd\ne,f\n", ["a\tb\tc", "d\t\t", "e\tf"], undefined],
])("what parts the columns is told from all rows: %s", async (_, text, rows, separator) => {
  const { content, notices } = await read(text);
  expect(cells(content[0] as Table)).toEqual(rows);
  const told =
    separator === undefined ? [] : [expect.stringContaining(`with ${separator} between the columns`)];
  expect(notices.map(({ message }) => message)).toEqual(told);
});

test("of any table that is written with any separator, the columns come back as they were parted", async () => {
  const word = fc.oneof(
    fc.constantFrom(
      "Wren",
      "North Quay 3, Spit",
      'a "ring"',
      "79,00",
      "1.234,50",
      "x;y",
      "two\nlines",
      "a|b",
      "-5",
    ),
    fc.stringMatching(/^[A-Za-z äöü]{1,12}$/),
  );
  const table = fc
    .integer({ min: 2, max: 5 })
    .chain((width) =>
      fc.array(fc.array(word, { minLength: width, maxLength: width }), { minLength: 3, maxLength: 8 }),
    );
  await fc.assert(
    fc.asyncProperty(table, fc.constantFrom(";", "\t", "|", ","), async (rows, delimiter) => {
      // Every other program quotes cells so: here the judge is that all cells are in quotes, so only one reading is right.
      const text = Papa.unparse(rows, { delimiter, quotes: true, newline: "\n" });
      const { content } = await readDelimited(text);
      const shown = (content[0] as Table).rows.map((row) =>
        row.map((cell) => writeDelimited(cell.flows, "\t", { guard: false }).text),
      );
      const wanted = rows.map((row) =>
        row.map(
          (cell) =>
            writeDelimited([{ type: "paragraph", runs: [{ type: "text", text: cell }] }], "\t", {
              guard: false,
            }).text,
        ),
      );
      expect(shown.map((row) => row.map((cell) => cell.trim()))).toEqual(
        wanted.map((row) => row.map((cell) => cell.trim())),
      );
    }),
  );
});

test.each<[says: string, text: string, values: (number | undefined)[]]>([
  ["decimal commas", "Preis\n79,00\n-5,50\n", [79, -5.5]],
  ["groups and decimals as the file has them", "Preis\n1.234,50\n1.234\n12\n", [1234.5, 1234, 12]],
  ["the same in English", 'Cost\n1.5\n"1,234"\n', [1.5, 1234]],
  ["currency and percent", "Wert\n79,00 €\n12,5%\n€ 3,10\n", [79, 0.125, 3.1]],
  ["a lone group is left open", "Preis;x\n1.234;a\n2.500;b\n", [undefined, undefined]],
  ["a file that says both", "Preis;x\n1,50;a\n1.50;b\n7;c\n", [undefined, undefined, 7]],
  ["post codes", "PLZ;x\n01067;a\n24103;b\n", [undefined, undefined]],
  ["telephone numbers", "Tel;x\n+49431;a\n431;b\n", [undefined, undefined]],
  ["account numbers", "Konto;x\n1234567890123456;a\n12;b\n", [undefined, undefined]],
  ["dates and times", "Tag;x\n03.04.2031;a\n05:50;b\n", [undefined, undefined]],
  ["a small fraction", "Teil;x\n0,125;a\n0,5;b\n", [0.125, 0.5]],
])("figures have their values by the habit of the file: %s", async (_, text, values) => {
  const table = (await readDelimited(text, { separator: ";", header: true })).content[0] as Table;
  expect(
    table.rows.slice(1).map(([cell]) => (cell!.value?.type === "number" ? cell!.value.number : undefined)),
  ).toEqual(values);
});

test("CSV is written in a language's signs when one is said, and with a byte order mark", async () => {
  const block = compose([await read('Item,Cost,Note\nNet,"1,234.50",1.5 m\nRope,2.25,\n', "c.csv")]);
  const csv = async (options: object) => (await block.to("csv", options)).data;
  expect(await csv({ locale: "de" })).toBe("Item;Cost;Note\nNet;1.234,50;1.5 m\nRope;2,25;\n");
  expect(await csv({ locale: "en", bom: true })).toBe(
    '\uFEFFItem,Cost,Note\nNet,"1,234.50",1.5 m\nRope,2.25,\n',
  );
  expect(await csv({})).toBe('Item,Cost,Note\nNet,"1,234.50",1.5 m\nRope,2.25,\n');
});

const folder = mkdtempSync(join(tmpdir(), "drawer-delimited-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** The cells of a file with something in them, as LibreOffice has them: their values, or that they are text; and what it shows. */
function cellsIn(name: string): [value: string, shown: string][] {
  convert(folder, "fods", [name]);
  const fods = readFileSync(join(folder, name.replace(/\.\w+$/, ".fods")), "utf8");
  const found = fods.matchAll(/<table:table-cell([^>]*)>\s*<text:p>([^<]*)/g);
  return [...found].map(([, attributes, said]) => [
    /office:(?:date-)?value="([^"]*)"/.exec(attributes!)?.[1] ?? "text",
    said!,
  ]);
}

officeTest(
  "LibreOffice counts with the figures of a CSV file that was written as a sheet, and leaves names alone",
  async () => {
    const text = "PLZ;Preis;Summe;Anteil\n01067;79,00 €;1.234,50;12,5%\n24103;-5,50 €;7;0%\n";
    for (const format of ["xlsx", "ods"] as const) {
      const { data } = await compose([await read(text)]).to(format);
      writeFileSync(join(folder, `costs.${format}`), data);
      const shown = cellsIn(`costs.${format}`);
      expect(shown.slice(4)).toEqual([
        ["text", "01067"],
        ["79", expect.stringMatching(/^79[.,]00 €$/)],
        ["1234.5", expect.stringMatching(/^1[.,]234[.,]50$/)],
        ["0.125", expect.stringMatching(/^12[.,]5%$/)],
        ["text", "24103"],
        ["-5.5", expect.stringMatching(/^-5[.,]50 €$/)],
        ["7", "7"],
        ["0", "0%"],
      ]);
    }
  },
  120_000,
);

officeTest(
  "days that a CSV file writes alike, and in an order without doubt, are days in LibreOffice, shown as they were",
  async () => {
    const text =
      "Iso;Here;There;Short;Open;Mixed;Wrong;Part;Words;Old\n2031-04-03;03/04/2031;4/21/2031;1.4.2031;03/04/2031;1/04/2031;30/02/2031;3/4;later;14/10/1066\n2031-04-21;21/04/2031;4/3/2031;21.4.2031;04/05/2031;21/4/2031;21/02/2031;4/4;21/04/2031;15/10/1066\n";
    for (const format of ["xlsx", "ods", "html"] as const) {
      writeFileSync(join(folder, `days.${format}`), (await compose([await read(text)]).to(format)).data);
      if (format === "html") convert(folder, "ods:calc8", ["days.html"], "HTML (StarCalc)");
      const shown = cellsIn(format === "html" ? "days.ods" : `days.${format}`);
      // Out of HTML it takes no other formats than its languages have.
      const there = (day: string) => (format === "html" ? day.replace(/\b\d\//g, "0$&") : day);
      expect(shown.slice(10)).toEqual([
        ["2031-04-03", "2031-04-03"],
        ["2031-04-03", "03/04/2031"],
        ["2031-04-21", there("4/21/2031")],
        ["2031-04-01", "1.4.2031"],
        ["text", "03/04/2031"],
        ["text", "1/04/2031"],
        ["text", "30/02/2031"],
        ["text", "3/4"],
        ["text", "later"],
        ["text", "14/10/1066"],
        ["2031-04-21", "2031-04-21"],
        ["2031-04-21", "21/04/2031"],
        ["2031-04-03", there("4/3/2031")],
        ["2031-04-21", "21.4.2031"],
        ["text", "04/05/2031"],
        ["text", "21/4/2031"],
        ["text", "21/02/2031"],
        ["text", "4/4"],
        ["2031-04-21", "21/04/2031"],
        ["text", "15/10/1066"],
      ]);
    }
  },
  120_000,
);

officeTest(
  "figures of a document's table are numbers in LibreOffice, and what it would misread is text",
  async () => {
    const table =
      "<table><tr><th>Item<th>Cost<th>Code<tr><td>Net<td>15.75<td>007<tr><td>1-2<td>1,020.50<td>12</table>";
    const block = compose([await readHtml(table)]);
    for (const format of ["xlsx", "html"] as const) {
      writeFileSync(join(folder, `typed.${format}`), (await block.to(format, { title: "Costs" })).data);
      if (format === "html") convert(folder, "ods:calc8", ["typed.html"], "HTML (StarCalc)");
      const shown = cellsIn(format === "html" ? "typed.ods" : "typed.xlsx");
      expect(shown.slice(3).map(([value, said]) => (value === "text" ? said : Number(value)))).toEqual([
        "Net",
        15.75,
        "007",
        "1-2",
        1020.5,
        "12",
      ]);
    }
  },
  120_000,
);
