import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import Papa from "papaparse";
import { readZipDirectory } from "../../dist/formats/office/zip-directory.js";
import { PYTHON } from "../../scripts/office.mjs";
import { isFull } from "../support/counts";
import { AS_SHOWN, convert, corpusTest, sayMissing } from "../support/libreoffice";
import { compose, readHtml } from "drawer";
import { putInto } from "drawer/files";

sayMissing();
const folder = mkdtempSync(join(tmpdir(), "drawer-many-sheets-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const BOOKS = isFull ? 50 : 2;

interface Facts {
  readonly names: readonly string[];
  /** The rows of the header and of the last bird, from 1. */
  readonly head: number;
  readonly last: number;
  readonly total: boolean;
  readonly both: boolean;
}
type Sheets = Record<"Spring" | "Sums", string[][]>;

/** What LibreOffice says in the cells of both sheets (all digits of a figure), without what is blank at the end. */
function shown(name: string): Sheets {
  convert(folder, `${AS_SHOWN},false,false,false,-1`, [name]);
  const read = (sheet: string) => {
    const csv = readFileSync(join(folder, name.replace(/\.\w+$/, `-${sheet}.csv`)), "utf8");
    return Papa.parse<string[]>(csv).data.filter((row) => row.some((cell) => cell !== ""));
  };
  return { Spring: read("Spring"), Sums: read("Sums") };
}

/** Two birds, under names of columns in an order of their own, and what stands in their rows of a sheet. */
const BLOCK =
  "<table><tr><th>Wing<th>New<th>Species<th>Ride<tr><td>71.5<td>3<td>hoopoe<td>heath<tr><td>80.25<td>4<td>bee-eater<td>north</table>";
const BIRDS = [
  { Species: "hoopoe", Ride: "heath", New: "3", Wing: "71.5", Remarks: "", Both: "74.5" },
  { Species: "bee-eater", Ride: "north", New: "4", Wing: "80.25", Remarks: "", Both: "84.25" },
] as const;

corpusTest(
  "rows are appended to workbooks of random structure under the names of their columns, and all else is what it was",
  async () => {
    const words = [resolve("test/office/many-sheets.py"), folder, String(BOOKS), "20310408"];
    expect(spawnSync(PYTHON, words, { encoding: "utf8" }).stderr).toBe("");
    const numbers = Array.from({ length: BOOKS }, (_, at) => String(at));
    convert(
      folder,
      "ods",
      numbers.map((number) => `${number}.xlsx`),
    );
    const block = compose([await readHtml(BLOCK)]);
    const failed: string[] = [];
    for (const number of numbers)
      for (const format of ["xlsx", "ods"])
        try {
          const name = `${number}.${format}`;
          const facts = JSON.parse(readFileSync(join(folder, `${number}.json`), "utf8")) as Facts;
          const bytes = new Uint8Array(readFileSync(join(folder, name)));
          const { data, notices } = await putInto(bytes, name, "Spring", block, { put: "after" });
          expect(notices.map(({ code }) => code)).toEqual(["appended", "calculated-later"]);
          writeFileSync(join(folder, `made-${name}`), data);
          const [was, now] = [shown(name), shown(`made-${name}`)];
          const old = was.Spring.slice(0, was.Spring.length - (facts.total ? 1 : 0));
          expect(now.Spring.slice(0, old.length)).toEqual(old);
          const added = now.Spring.slice(old.length, old.length + 2);
          expect(added).toEqual(
            BIRDS.map((bird) => facts.names.map((each) => bird[each as keyof typeof bird])),
          );
          // Totals take in what has come, in the sheet and from another.
          const figures = (row: string[]) => row.map((cell) => (/^[\d.]+$/.test(cell) ? Number(cell) : 0));
          if (facts.total) {
            const [before, after] = [was.Spring.at(-1)!, now.Spring.at(-1)!];
            const grown = figures(after).map((figure, at) =>
              Number((figure - figures(before)[at]!).toFixed(2)),
            );
            const [column] = facts.names.flatMap((each, at) => (grown[at] ? [[each, grown[at]]] : []));
            expect([
              ["New", 7],
              ["Wing", 151.75],
            ]).toContainEqual(column);
          }
          expect(now.Spring).toHaveLength(was.Spring.length + 2);
          expect(Number(now.Sums[0]![1])).toBe(Number(was.Sums[0]![1]) + 7);
          // Parts that have nothing to do with it are there as they were packed.
          const [first, made] = [readZipDirectory(bytes), readZipDirectory(data)];
          for (const [part, entry] of first)
            if (/theme|docProps|Thumbnails|settings\.xml|^meta\.xml$/.test(part))
              expect(Buffer.compare(made.get(part)!.stored, entry.stored)).toBe(0);
        } catch (error) {
          failed.push(`${number}.${format}: ${String((error as Error).message).slice(0, 1500)}`);
        }
    expect(failed).toEqual([]);
  },
);
