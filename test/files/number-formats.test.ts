import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { convert, officeTest, shownBy } from "../support/libreoffice";
import { writeOffice } from "../support/office";
import { rawWorkbook } from "../support/workbook";
import { runsText, type Cell, type Table } from "drawer";
import { readSource } from "drawer/files";

const folder = mkdtempSync(join(tmpdir(), "drawer-formats-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Format codes as people and programs write them. */
const FORMATS = [
  ...["General", "0", "0.0", "0.00", "#,##0", "#,##0.00", "#", "000", "00000", "0.0##", "#,##0.0#"],
  ...["0%", "0.00%", "0.0 %", "0.00E+00", "0E+0", "# ?/?", "# ??/??", "# ??/16", "?/?"],
  ...["0,", "0.0,", "#,##0,", "0.0,,", '0,"K"', '0.0,," M"', "0.0\\x", '"Nr. "0', '0" birds"'],
  ...["$#,##0.00", "$#,##0.00;-$#,##0.00", "$#,##0.00_);($#,##0.00)", "($#,##0);$#,##0", "(#,##0)"],
  ...["#,##0_);(#,##0)", "#,##0.00_);[Red](#,##0.00)", '_-* #,##0.00_-;-* #,##0.00_-;_-* "-"??_-;_-@_-'],
  ...['_($* #,##0.00_);_($* (#,##0.00);_($* "-"??_);_(@_)', "[$€-407] #,##0.00", "#,##0.00 [$€-407]"],
  ...["#,##0.00\\ [$€-1]", "[$£-809]#,##0.00", "£#,##0.00", "¥#,##0", "₹#,##0.00", '0.00" zł"'],
  ...["#,##0.00\\ [$zł-415]", "[$kr-414] #,##0.00", "0°", '0.0" °C"', "[$-409]#,##0.00", "[$-407]#,##0.00"],
  ...["[$-409]000", '0;-0;"nothing"', '0;-0;"nothing";@', '"up "0;"down "0;"flat"', "0;(0);-"],
  ...['#,##0;-#,##0;0;"text: "@', "[Red]0.0;[Blue]-0.0", "[<10]0.0;[<100]0;0,", '[>=1000]0.0,"k";0'],
  ...["yyyy-mm-dd", "dd.mm.yyyy", "d/m/yy", "m/d/yyyy", "dd/mm/yyyy hh:mm", "yyyy-mm-dd hh:mm:ss"],
  ...["d mmm yyyy", "d. mmmm yyyy", "[$-407]d. mmmm yyyy", "[$-40C]d mmmm yyyy", "[$-409]mmmm d, yyyy"],
  ...["dddd", "[$-407]dddd, d. mmmm", "mmm-yy", 'yyyy"年"m"月"d"日"', "h:mm", "hh:mm:ss", "h:mm AM/PM"],
  ...["[h]:mm", "[h]:mm:ss", "[mm]:ss", "[ss]", "mm:ss.0", "hh:mm:ss.000", "00-00", "000\\-00\\-0000"],
  ...["[$-407]d/\\ mmmm", "[$-407]d/m/yyyy", "[$-40C]d/m/yyyy", "[$-419]dd/mm/yyyy", "[$-413]d/m/yyyy"],
  ...["[$-41D]d/m/yyyy", "[$-804]yyyy/m/d", "[$-407]# ?/?", "[DBNum1]0", "[DBNum1][$-804]General"],
  ...['[DBNum1][$-804]yyyy"年"m"月"d"日"', "[DBNum2][$-804]0", "[DBNum3][$-804]0", "[DBNum1][$-404]General"],
] as const;
/** Figures, a day with a time, and times; of those before March 1900 sheets do not agree which day they are. */
const VALUES = [0, 1, -1, 2.5, -2.5, 0.125, 1234.5, -1234.567, 12345, 5_000_000, 45_000.75, 3.25];

const isDated = (code: string) => /[ydm](?![^"]*"[^"]*$)/.test(code.replace(/\[[^\]]*\]|"[^"]*"/g, ""));
const isElapsed = (code: string) => /\[(h|mm|ss)\]/.test(code);

/** Where LibreOffice shows something else than Excel, whose formats these are. */
function differs(code: string, value: number): boolean {
  if (isElapsed(code)) return value === 5_000_000;
  if (/[yd]|mmm/.test(code) && isDated(code)) return value < 61 || value === 5_000_000;
  // It leaves the sign out where a section with a condition is followed by one without.
  return code === '[>=1000]0.0,"k";0' && value < 0;
}

const textOf = (cell: Cell | undefined) => {
  const [only] = cell?.flows ?? [];
  return only?.type === "paragraph" ? runsText(only.runs).trim() : "";
};

/** The cells that are not as LibreOffice shows them. */
function wrong(shown: readonly string[][], found: (row: number, column: number) => string): string[] {
  return FORMATS.flatMap((code, row) =>
    VALUES.flatMap((value, column) => {
      const [right, own] = [shown[row]?.[column]?.trim(), found(row, column).trim()];
      return own === right || differs(code, value) ? [] : [`${code} of ${value}: ${own}, not ${right}`];
    }),
  );
}

officeTest(
  "figures, amounts, dates and times are what LibreOffice shows, read and written, in both sorts of sheets",
  async () => {
    const rows = FORMATS.map((format) => VALUES.map((value) => ({ xml: `<v>${value}</v>`, format })));
    writeFileSync(join(folder, "formats.xlsx"), rawWorkbook(rows));
    const shown = shownBy(folder, "formats.xlsx");
    expect(shown.length).toBeGreaterThanOrEqual(FORMATS.length);
    convert(folder, "ods", ["formats.xlsx"]);
    for (const read of ["xlsx", "ods"]) {
      const bytes = new Uint8Array(readFileSync(join(folder, `formats.${read}`)));
      const [table] = (await readSource(bytes, `formats.${read}`)).at("Sheet1").content as [Table];
      expect(wrong(shown, (row, column) => textOf(table.rows[row]?.[column]))).toEqual([]);
      for (const written of ["xlsx", "ods"] as const) {
        const name = `from-${read}.${written}`;
        writeFileSync(join(folder, name), await writeOffice({ content: [table] }, written));
        const again = shownBy(folder, name);
        expect([name, wrong(shown, (row, column) => again[row]?.[column] ?? "")]).toEqual([name, []]);
      }
    }
  },
);

test("a value is shown by its format, whatever the file says that it shows", async () => {
  const shownOf = async (xml: string, format: string, more = {}, attributes = "") => {
    const bytes = rawWorkbook([[{ xml, format, attributes }]], more);
    const [table] = (await readSource(bytes, "x.xlsx")).at().content as [Table];
    return textOf(table.rows[0]![0]);
  };
  expect([
    await shownOf("<v>1234.5</v>", "[$-409]#,##0.00"),
    await shownOf("<v>7</v>", "[$-409]000"),
    await shownOf("<is><t>north</t></is>", "[$-409]@", {}, ' t="inlineStr"'),
    await shownOf("<is><t>north</t></is>", '0;-0;0;"to the "@', {}, ' t="inlineStr"'),
    await shownOf("<v>-0.5</v>", "0"),
    await shownOf("<v>-2.5</v>", "[h]:mm"),
    await shownOf("<v>5</v>", '"broken'),
    await shownOf("<v>#N/A</v>", "0", {}, ' t="e"'),
  ]).toEqual(["1,234.50", "007", "north", "to the north", "-1", "-60:00", "5", "#N/A"]);
});
