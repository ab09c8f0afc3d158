import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { convert, officeTest, shownBy } from "../support/libreoffice";
import { compose, readHtml } from "drawer";
import { offeredBlock } from "drawer/desktop";

const CELLS = 'application/x-openoffice-biff-8;windows_formatname="Biff8"';
const folder = mkdtempSync(join(tmpdir(), "drawer-cells-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** The cells that a block is offered as, in a file. */
async function cellsOf(html: string, name = "cells.xls"): Promise<string> {
  const cells = offeredBlock(compose([await readHtml(html)], {}), false).get(CELLS)!;
  writeFileSync(join(folder, name), cells);
  return name;
}

/** What LibreOffice shows of them. */
const shown = (name: string) => shownBy(folder, name).filter((row) => row.length > 1);

const escape = (text: string) => text.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/\n/g, "<br>");
const tableOf = (rows: readonly (readonly string[])[]) =>
  `<table>${rows.map((row) => `<tr>${row.map((text) => `<td>${escape(text)}</td>`).join("")}</tr>`).join("")}</table>`;

officeTest("cells that sheets take show what was collected: values, looks, links, merged cells", async () => {
  const name = await cellsOf(`<table><tr><th>Date</th><th>Count</th><th>Remarks</th></tr>
    <tr><td sdval="47946" sdnum="1033;0;YYYY-MM-DD">2031-04-08</td><td sdval="1400.5" sdnum="1033;0;#,##0.00">1,400.50</td><td>net 4<br>net 5</td></tr>
    <tr><td>007</td><td sdval="0.25" sdnum="1033;0;0%" style="background:#ffff00">25%</td><td rowspan=2><a href="https://merrow-spit.example/hut">the hut</a></td></tr>
    <tr><td style="color:#ff0000;text-align:right"><i>=SUM(B2:B3)</i></td><td sdval="1" sdnum="1033;0;BOOLEAN">TRUE</td></tr></table>
    <ul><li>Wren</li><li>Robin</li></ul>`);
  expect(shown(name)).toEqual([
    ["Date", "Count", "Remarks"],
    ["2031-04-08", "1,400.50", "net 4\nnet 5"],
    ["007", "25%", "the hut"],
    ["=SUM(B2:B3)", "TRUE", ""],
    ["Wren", "", ""],
    ["Robin", "", ""],
  ]);
  convert(folder, "html:HTML (StarCalc)", [name]);
  const html = readFileSync(join(folder, "cells.html"), "utf8");
  expect(html).toMatch(/<td[^>]*><b>Count<\/b>/);
  expect(html).toMatch(/bgcolor="#FFFF00" sdval="0.25" sdnum="1033;0;0%"/);
  expect(html).toMatch(/<td rowspan=2[^>]*><a href="https:\/\/merrow-spit.example\/hut">/);
  expect(html).toMatch(/align="right"[^>]*><i><font color="#FF0000">=SUM/);
});

officeTest("texts of any length and script are whole, also where they go on in another record", async () => {
  const random = fc.array(
    fc.array(
      fc
        .tuple(fc.string({ unit: "grapheme", maxLength: 12 }), fc.nat(700))
        .map(([text, times]) => `x${text.replace(/[\s\p{C}"']/gu, "")}`.repeat(times % 7 === 0 ? times : 1)),
      { minLength: 2, maxLength: 2 },
    ),
    { minLength: 60, maxLength: 60 },
  );
  const tables = fc.sample(random, { numRuns: 4, seed: 8 });
  for (const [at, rows] of tables.entries()) {
    const name = await cellsOf(tableOf(rows), `${at}.xls`);
    const cut = rows.map((row) => row.map((text) => text.slice(0, 32_767)));
    expect(shown(name)).toEqual(cut);
  }
});

test("a sheet that is too small for them is offered none", async () => {
  const wide = tableOf([Array.from({ length: 257 }, (_, at) => `c${at}`)]);
  expect(offeredBlock(compose([await readHtml(wide)], {}), false).has(CELLS)).toBe(false);
});
