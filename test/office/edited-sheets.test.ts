import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { readZipDirectory } from "../../dist/formats/office/zip-directory.js";
import { PYTHON } from "../../scripts/office.mjs";
import { convert, corpusTest, sayMissing } from "../support/libreoffice";
import { faultsOfOdf, faultsOfOoxml } from "../support/schemas";
import { compose, readHtml, readText } from "drawer";
import { putInto, readSource, takeOut, type PutOptions, type Source } from "drawer/files";

sayMissing();
const folder = mkdtempSync(join(tmpdir(), "drawer-edited-sheets-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const made = new Map<string, Uint8Array>();
type Kind = "xlsx" | "ods";

/** A master sheet as openpyxl writes it, and as LibreOffice does. */
function year(kind: Kind = "xlsx"): Uint8Array {
  const known = made.get(kind);
  if (known) return known;
  const file = join(folder, `year.${kind}`);
  if (kind === "ods") {
    year("xlsx");
    convert(folder, "ods", ["year.xlsx"]);
  } else {
    const { status, stderr } = spawnSync(PYTHON, [resolve("test/office/year.py"), file], {
      encoding: "utf8",
    });
    if (status !== 0) throw new Error(stderr);
  }
  const bytes = new Uint8Array(readFileSync(file));
  made.set(kind, bytes);
  return bytes;
}

/** A workbook as LibreOffice has it, which calculates it anew. */
function opened(data: Uint8Array, name: string, kind: Kind): Promise<Source> {
  writeFileSync(join(folder, `${name}.${kind}`), data);
  const theirs = kind === "xlsx" ? "ods" : "xlsx";
  convert(folder, theirs, [`${name}.${kind}`]);
  return readSource(new Uint8Array(readFileSync(join(folder, `${name}.${theirs}`))), `${name}.${theirs}`);
}

/** What LibreOffice shows of each sheet: its cells row by row. */
async function shown(
  data: Uint8Array,
  name: string,
  kind: Kind = "xlsx",
): Promise<Record<string, string[][]>> {
  const source = await opened(data, name, kind);
  return Object.fromEntries(
    source.sheets!.map((sheet) => [
      sheet.name,
      sheet.used ? sheet.texts({ ...sheet.used, top: 0, left: 0 }) : [],
    ]),
  );
}

const rows = async (html: string) => compose([await readHtml(html)]);
const KINDS: readonly Kind[] = ["xlsx", "ods"];
/** What schemas find wrong; LibreOffice writes elements of its own into an ods, which they do not know. */
const faults = (data: Uint8Array, name: string, kind: Kind) =>
  kind === "xlsx"
    ? faultsOfOoxml(data, `${name}.xlsx`)
    : faultsOfOdf(data)
        .filter((fault) => !/(?:calcext|loext|tableooo|drawooo):/.test(fault))
        .map((fault) => fault.replace(/^.*?: /, ""))
        .sort();
const refusal = (kind: Kind, spot: string, block: ReturnType<typeof compose>, options: PutOptions = {}) =>
  putInto(year(kind), `year.${kind}`, spot, block, options).then(
    () => "done",
    (error: { reason: string }) => error.reason,
  );
const MONTH = `<table><tr><th>species<th>New<th>Date<th>Retrap
  <tr><td>Robin<td sdval="5" sdnum="1033;">5<td sdval="47951" sdnum="1033;0;YYYY-MM-DD">2031-04-13<td sdval="2" sdnum="1033;">2
  <tr><td>Dunnock<td sdval="7" sdnum="1033;">7<td sdval="47952" sdnum="1033;0;YYYY-MM-DD">2031-04-14<td sdval="0" sdnum="1033;">0</table>`;

corpusTest.each(KINDS)(
  "%s: rows are appended by the names of columns: above the totals, which take them in, with formulas, charts and all",
  async (kind) => {
    const { data, notices } = await putInto(year(kind), `year.${kind}`, "Spring", await rows(MONTH));
    expect(notices.map(({ reason }) => reason)).toEqual(["appended/columns", "calculated-later"]);
    const now = await shown(data, "appended", kind);
    expect(now["Spring"]).toEqual([
      ["Ringing, Merrow Spit", "", "", "", ""],
      ["", "", "", "", ""],
      ["Date", "Species", "New", "Retrap", "All"],
      ["08/04/2031", "Chiffchaff", "14", "3", "17"],
      ["08/04/2031", "Goldcrest", "2", "11", "13"],
      ["09/04/2031", "Wren", "1", "4", "5"],
      ["13/04/2031", "Robin", "5", "2", "7"],
      ["14/04/2031", "Dunnock", "7", "0", "7"],
      ["", "Total", "29", "20", "49"],
      ["", "", "", "", ""],
      ["Checked by the warden", "", "", "", ""],
    ]);
    expect(now["Sum"]).toEqual([["29"], ["49"], ["216.6"]]);
    expect(now["Costs"]).toEqual((await shown(year(kind), "first", kind))["Costs"]);
    expect(faults(data, "appended", kind)).toEqual(faults(year(kind), "year", kind));
    if (kind === "ods") return;
    const text = (name: string) => new TextDecoder().decode(entry(data, name));
    expect(text("xl/worksheets/sheet1.xml")).toMatch(/sqref="C4:C8"[\s\S]*sqref="C4:D8"/);
    expect(text("xl/worksheets/sheet1.xml")).toContain('<mergeCell ref="A11:C11"');
    expect(text("xl/charts/chart1.xml")).toMatch(/Spring'?!\$C\$4:\$C\$8/);
  },
);

corpusTest.each(KINDS)(
  "%s: days that come as texts under days are days, in the order of those; what is not clear stays, and is told",
  async (kind) => {
    const block = await rows(
      "<table><tr><th>Date<th>Species<th>New<tr><td>12/04/2031<td>Robin<td>5<tr><td>2031-04-13<td>Wren<td>1,234<tr><td>31/04/2031<td>Knot<td>3<tr><td>2 May 2031<td>Ruff<td>n/a</table>",
    );
    const { data, notices } = await putInto(year(kind), `year.${kind}`, "Spring", block);
    expect(notices.map(({ data: facts }) => facts)).toMatchObject([
      {},
      { count: 1, names: ["Date"], order: "dmy" },
      { count: 1, names: ["Date"], order: "ymd" },
      { count: 3, names: ["New", "Date"] },
      {},
    ]);
    const spring = (await opened(data, "days", kind)).sheets![0]!;
    expect(spring.texts({ top: 6, bottom: 8, left: 0, right: 2 })).toEqual([
      ["12/04/2031", "Robin", "5"],
      ["13/04/2031", "Wren", "1,234"],
      ["31/04/2031", "Knot", "3"],
    ]);
    expect(
      spring.values({ top: 6, bottom: 8, left: 0, right: 2 }).map((row) => row.map((value) => value?.type)),
    ).toEqual([
      ["date", undefined, "number"],
      ["date", undefined, undefined],
      [undefined, undefined, "number"],
    ]);
  },
);

corpusTest.each(KINDS)(
  "%s: a table grows with what is appended to it, and its formula goes down",
  async (kind) => {
    const nails = await rows(
      '<table><tr><th>Item<th>Each<th>Quantity<tr><td>Nails<td sdval="0.05" sdnum="1033;">0.05<td sdval="200" sdnum="1033;">200</table>',
    );
    const { data } = await putInto(year(kind), `year.${kind}`, "Costs", nails, { put: "after" });
    const now = await shown(data, "table", kind);
    expect(now["Costs"]!.at(-1)).toEqual(["Nails", "200", "0.05", "10"]);
    if (kind === "ods") return;
    expect(new TextDecoder().decode(entry(data, "xl/tables/table1.xml"))).toContain('ref="A1:D4"');
    const { stored } = readZipDirectory(data).get("xl/worksheets/sheet1.xml")!;
    expect(Buffer.compare(stored, readZipDirectory(year(kind)).get("xl/worksheets/sheet1.xml")!.stored)).toBe(
      0,
    );
    expect(faults(data, "table", kind)).toEqual(faults(year(kind), "year", kind));
  },
);

corpusTest.each(KINDS)(
  "%s: cells go in where they are told to, and come out; what stands in the way is said by name",
  async (kind) => {
    const words = compose([readText("Seen by the warden")]);
    expect(await refusal(kind, "Spring!B4", words)).toBe("cannot-edit/filled");
    expect(await refusal(kind, "Spring!B9", words, { put: "instead" })).toBe("cannot-edit/merged");
    expect(
      await refusal(kind, "Spring", await rows("<table><tr><th>Ride<th>New<tr><td>x<td>1</table>")),
    ).toBe("cannot-edit/headers");
    expect(await refusal(kind, "Spring", words)).toBe("cannot-edit/cells");
    const figures = await rows(
      '<table><tr><td sdval="0.5" sdnum="1033;0;0%">50%<td sdval="47951" sdnum="1033;0;D MMM YYYY">13 Apr 2031<td>x</table>',
    );
    const { data } = await putInto(year(kind), `year.${kind}`, "Spring!G4", figures);
    const now = await shown(data, "cells", kind);
    expect(now["Spring"]![3]).toEqual([
      "08/04/2031",
      "Chiffchaff",
      "14",
      "3",
      "17",
      "",
      "50%",
      "13 Apr 2031",
      "x",
    ]);
    expect(faults(data, "cells", kind)).toEqual(faults(year(kind), "year", kind));
    const out = await takeOut(year(kind), `year.${kind}`, ["Spring!C4:D4"]);
    expect((await shown(out.data, "emptied", kind))["Spring"]![3]).toEqual([
      "08/04/2031",
      "Chiffchaff",
      "",
      "",
      "0",
    ]);
  },
);

corpusTest.each(KINDS)("%s: whole rows go, but where formulas speak of them", async (kind) => {
  const take = (spot: string) => takeOut(year(kind), `year.${kind}`, [spot]);
  await expect(take("Spring!5:5")).rejects.toMatchObject({ reason: "cannot-edit/formulas" });
  const { data } = await take("Spring!2:2");
  const [was, now] = [await shown(year(kind), "whole", kind), await shown(data, "rows", kind)];
  expect(now["Spring"]).toEqual(was["Spring"]!.filter((_, row) => row !== 1));
  expect(now["Sum"]).toEqual(was["Sum"]);
  expect(faults(data, "rows", kind)).toEqual(faults(year(kind), "year", kind));
});

function entry(data: Uint8Array, name: string): Uint8Array {
  writeFileSync(join(folder, "parts.xlsx"), data);
  const { stdout } = spawnSync("unzip", ["-p", join(folder, "parts.xlsx"), name], { encoding: "buffer" });
  return stdout;
}
