import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { convert, officeTest } from "../support/libreoffice";
import { compose, readHtml, type Table } from "drawer";

const cells = async (html: string) => ((await readHtml(html)).content[0] as Table).rows.flat();
const escape = (text: string) => text.replaceAll('"', "&quot;");

/** What LibreOffice 7.4 writes into HTML of one sheet, in its languages: the language, the number 47941.24…, and its formats. */
const LANGUAGES = readFileSync("test/files/number-formats.tsv", "utf8")
  .trimEnd()
  .split("\n")
  .map((line) => line.split("\t"));

test.each(LANGUAGES)(
  "numbers and formats that LibreOffice writes in %s are read",
  async (_, sdval, ...all) => {
    const rows = all.map((sdnum) => `<tr><td sdval="${sdval}" sdnum="${escape(sdnum)}">shown</td></tr>`);
    const read = await cells(`<table>${rows.join("")}</table>`);
    const days = read.slice(0, 3).map(({ value }) => value);
    const others = read.slice(3).map(({ value }) => value);
    expect(days.map((value) => value?.type === "date" && value.date)).toEqual(
      Array.from({ length: 3 }, () => "2031-04-03T05:50:00"),
    );
    expect(days.map((value) => value && "format" in value && value.format)).toEqual([
      expect.stringMatching(/^DD[./-]MM[./-]YYYY$/),
      "D MMM YY",
      "DDDD, D MMMM YYYY",
    ]);
    expect(
      others.map((value) => (value?.type === "number" ? [value.number, value.format] : undefined)),
    ).toEqual(
      [
        "HH:MM:SS",
        "[H]:MM",
        // One language has it otherwise.
        expect.stringMatching(/^#?,?##0\.00$/),
        "0.0%",
        "[RED]-#,##0.00",
        "0.00E+00",
        expect.stringMatching(/^HH?:MM AM\/PM$/),
        '"m" 0',
      ].map((format) => [47941.2430555556, format]),
    );
  },
);

test("a format in another language than the rest keeps that, and one of text or of truth is none of numbers", async () => {
  const [day, text, truth, whole] = await cells(
    `<table><tr><td sdval="47941" sdnum="1033;1031;T. MMMM JJJJ">3. April 2031<td sdnum="1031;0;@">1,5<td sdval="1" sdnum="1031;0;LOGISCH">WAHR<td sdval="5" sdnum="1036;">5</table>`,
  );
  expect(day!.value).toEqual({ type: "date", date: "2031-04-03", format: "[$-407]D. MMMM YYYY" });
  expect(text!.value).toBeUndefined();
  expect(truth!.value).toEqual({ type: "boolean", boolean: true });
  expect(whole!.value).toEqual({ type: "number", number: 5 });
});

/** Formats of days and times, and what LibreOffice shows of 3 April 2031, 05:50 in them out of HTML. */
const SHOWN: readonly (readonly [format: string, shown: string, from?: string])[] = [
  ["yyyy-mm-dd", "2031-04-03"],
  ["dd/mm/yyyy", "03/04/2031"],
  ["dd\\/mm\\/yyyy", "03/04/2031"],
  ["d/m/yyyy", "03/04/2031"],
  ["dd/mm/yy", "03/04/31"],
  ["dd.mm.yyyy", "03.04.2031"],
  ["d.m.yyyy", "3.4.2031"],
  ["dd.mm.yy", "03.04.31"],
  ["mm/dd/yyyy", "04/03/2031"],
  ["m/d/yy", "4/3/31"],
  ["yyyy/mm/dd", "2031/04/03"],
  ["dd-mm-yyyy", "03-04-2031"],
  ["d mmm yyyy", "3 Apr 2031"],
  ["dd mmmm yyyy", "3 April 2031"],
  ["mmm d, yyyy", "Apr 3, 2031"],
  ["d. mmmm yyyy", "3. April 2031"],
  ["ddd d mmm", "2031-04-03"],
  ["[$-407]d. mmmm yyyy", "3. April 2031"],
  ["dd/mm/yyyy hh:mm", "03/04/2031 05:50"],
  ["d mmm, hh:mm", "2031-04-03 05:50:00"],
];

officeTest(
  "a day in a format that no language of LibreOffice has is a day in another one there, and no number; read again it has its own",
  async () => {
    const folder = mkdtempSync(join(tmpdir(), "drawer-numbers-"));
    try {
      const rows = SHOWN.map(([format]) => {
        const number = format.includes("hh") ? 47941 + 350 / 1440 : 47941;
        return `<tr><td sdval="${number}" style="mso-number-format: '${format.replace(/[\\]/g, "\\\\")}'">day</td></tr>`;
      });
      const { html } = compose([await readHtml(`<table>${rows.join("")}</table>`)]);
      writeFileSync(join(folder, "days.html"), html);
      convert(folder, "ods:calc8", ["days.html"], "HTML (StarCalc)");
      convert(folder, "fods", ["days.ods"]);
      const fods = readFileSync(join(folder, "days.fods"), "utf8");
      const found = [...fods.matchAll(/office:date-value="([^"]*)"[^>]*>\s*<text:p>([^<]*)/g)];
      expect(found.map(([, , shown]) => shown)).toEqual(SHOWN.map(([, shown]) => shown));
      expect(new Set(found.map(([, date]) => date!.slice(0, 10)))).toEqual(new Set(["2031-04-03"]));
      const again = await cells(html);
      expect(again.map(({ value }) => value && "format" in value && value.format)).toEqual(
        SHOWN.map(([format]) => format),
      );
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  },
  120_000,
);
