import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import * as sheets from "@e965/xlsx";
import { demoFile } from "../support/demo";
import { convert, officeTest } from "../support/libreoffice";
import { rawWorkbook, type RawCell } from "../support/workbook";
import type { Table } from "drawer";
import { readSource, type Source } from "drawer/files";

const folder = mkdtempSync(join(tmpdir(), "drawer-old-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** What the cells of all sheets say, with the values behind them and how they span. */
const cellsOf = (source: Source) =>
  (source.at().content as Table[]).map(({ rows }) =>
    rows.map((row) =>
      row.map(({ flows, value, colspan = 1, rowspan = 1 }) => [
        flows
          .map((flow) =>
            flow.type === "paragraph" ? flow.runs.map((run) => ("text" in run ? run.text : "¶")) : [],
          )
          .flat()
          .join(""),
        value && { ...value, ...("format" in value && value.format === "General" ? { format: "" } : {}) },
        colspan * rowspan,
      ]),
    ),
  );

const figure = (number: number, format: string): RawCell => ({ xml: `<v>${number}</v>`, format });
const words = (text: string): RawCell => ({
  xml: `<is><t xml:space="preserve">${text}</t></is>`,
  attributes: ' t="inlineStr"',
});

/** Figures in forms that offices use, texts that look like figures, what is true, what has gone wrong, and formulas. */
const ROWS: readonly (readonly (RawCell | undefined)[])[] = [
  [words("Wing"), words("007"), words("Zwei\nZeilen"), words("  áß–€ 鳥"), figure(61.25, "0.0")],
  [
    figure(47945, "yyyy\\-mm\\-dd"),
    figure(47945.25, "dd.mm.yyyy\\ hh:mm"),
    figure(0.125, "0.0%"),
    figure(-1234.5, "#,##0.00"),
  ],
  [
    figure(1e21, "0.00E+00"),
    figure(0.5, "# ?/?"),
    figure(5.25, "[h]:mm"),
    figure(-3, "0;[RED]\\-0"),
    figure(12, '0" birds"'),
  ],
  [
    { xml: "<v>1</v>", attributes: ' t="b"' },
    { xml: "<v>#DIV/0!</v>", attributes: ' t="e"' },
    { xml: "<f>1+1</f><v>2</v>", format: "0.00" },
    undefined,
    words("after a gap"),
  ],
];

describe("workbooks of before 2007, and binary ones", () => {
  const made: Readonly<Record<string, () => Uint8Array>> = {
    "ringing.xlsx": () => demoFile("ringing.xlsx"),
    "forms.xlsx": () =>
      rawWorkbook(ROWS, { after: '<mergeCells count="1"><mergeCell ref="A5:B6"/></mergeCells>' }),
    "hidden.xlsx": () => rawWorkbook(ROWS, { rowAttributes: (row) => (row === 1 ? ' hidden="1"' : "") }),
  };

  officeTest.each(Object.keys(made))(
    "%s says as an xls of LibreOffice's what it says itself",
    async (name) => {
      const bytes = made[name]!();
      writeFileSync(join(folder, name), bytes);
      convert(folder, "xls:MS Excel 97", [name]);
      const old = `${name.replace(".xlsx", "")}.xls`;
      const [theirs, ours] = [
        await readSource(bytes, name),
        await readSource(new Uint8Array(readFileSync(join(folder, old))), old),
      ];
      expect(cellsOf(ours)).toEqual(cellsOf(theirs));
      expect(ours.notices.filter(({ code }) => code === "hidden-parts")).toEqual(
        theirs.notices.filter(({ code }) => code === "hidden-parts"),
      );
      expect(ours.notices.at(-1)!.message).toMatch(/colours, fonts, notes and pictures were not/);
      expect(ours.parts().map(({ spot }) => spot)).toEqual(theirs.parts().map(({ spot }) => spot));
    },
  );

  officeTest.each([
    ["binary", "xlsb", "xlsb"],
    ["that is one XML file", "xlml", "xml"],
  ] as const)("a workbook %s is read as LibreOffice shows it", async (_, bookType, ending) => {
    const book = sheets.read(demoFile("ringing.xlsx"), { cellNF: true });
    const bytes = new Uint8Array(sheets.write(book, { type: "array", bookType }) as ArrayBuffer);
    const [name, shownAs] = [`${bookType}.${ending}`, `${bookType}.ods`];
    writeFileSync(join(folder, name), bytes);
    convert(folder, "ods", [name]);
    const shown = await readSource(new Uint8Array(readFileSync(join(folder, shownAs))), shownAs);
    const read = await readSource(bytes, name);
    const texts = (source: Source) =>
      cellsOf(source).map((rows) => rows.map((row) => row.map(([text]) => text)));
    expect(texts(read)).toEqual(texts(shown));
  });

  test("what an .xls holds that is none is told from its bytes; a damaged one is refused", async () => {
    const named = async (text: string) =>
      (await readSource(new TextEncoder().encode(text), "export.xls")).parts().map(({ type }) => type);
    expect(await named("<html><body><table><tr><td>a<td>b</table></body></html>")).toEqual(["table"]);
    expect(await named("a;b\n1;2\n")).toEqual(["sheet"]);
    const whole = sheets.write(sheets.read(demoFile("ringing.xlsx")), { type: "array", bookType: "biff8" });
    const bytes = new Uint8Array(whole as ArrayBuffer);
    await expect(readSource(bytes.slice(0, 3000), "cut.xls")).rejects.toThrow(
      /“cut.xls” is damaged or cut short/,
    );
    expect((await readSource(bytes, "report.doc")).parts()).toHaveLength(2);
    const noise = bytes.map((byte, at) => (at > 600 && at % 7 === 0 ? byte ^ 0x5a : byte));
    await readSource(noise, "noise.xls").then(
      (source) => source.parts(),
      (error: { code: string }) => expect(error.code).toMatch(/^(?:unreadable|too-large|locked)$/),
    );
  });
});
