import { spawnSync } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import Papa from "papaparse";
import { findOdfSchema, OOXML_VALIDATOR } from "../../scripts/office.mjs";

const isThere = spawnSync("which", ["soffice"]).status === 0;
if (!isThere) console.log("Skipped: what LibreOffice shows, because it is not on this machine.");

/** A test that asks LibreOffice. Where there is none it is skipped; in CI nothing is. */
export const officeTest = isThere || process.env["CI"] ? test : test.skip;

const CORPUS_PROGRAMS = ["soffice", "pandoc", "pdftotext", "jing"];
const missing = [
  ...CORPUS_PROGRAMS.filter((program) => spawnSync("which", [program]).status !== 0),
  ...(findOdfSchema() ? [] : ["the schema of OpenDocument"]),
  ...(existsSync(OOXML_VALIDATOR.path) ? [] : ["the validator of Open XML"]),
];

/** A test that asks the programs of others, and the schemas. Where one of them is missing it is skipped; in CI nothing is. */
export const corpusTest = missing.length === 0 || process.env["CI"] ? test : test.skip;

/** Says why tests of the corpus are skipped, where they are. */
export function sayMissing(): void {
  if (missing.length > 0)
    console.log(`Skipped: what is not on this machine judges it (${missing.join(", ")}).`);
}

/** Has LibreOffice convert files of a folder into another format, beside them. */
export function convert(folder: string, to: string, names: readonly string[], filter?: string): void {
  const { status, stderr } = spawnSync("soffice", [
    `-env:UserInstallation=file://${folder}/profile`,
    "--headless",
    ...(filter === undefined ? [] : [`--infilter=${filter}`]),
    ...["--convert-to", to, "--outdir", folder],
    ...names.map((name) => join(folder, name)),
  ]);
  if (status !== 0) throw new Error(String(stderr));
}

/** CSV with each cell as it is shown. */
export const AS_SHOWN = "csv:Text - txt - csv (StarCalc):44,34,76,1,,0,false,true";

/** The cells of a workbook's first sheet, as LibreOffice shows them. */
export function shownBy(folder: string, name: string): string[][] {
  convert(folder, AS_SHOWN, [name]);
  const csv = readFileSync(join(folder, name.replace(/\.\w+$/, ".csv")), "utf8");
  return Papa.parse<string[]>(csv).data;
}
