import { spawn, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import Papa from "papaparse";
import { findOdfSchema, OOXML_VALIDATOR, PYTHON } from "../../scripts/office.mjs";

const isThere = spawnSync("which", ["soffice"]).status === 0;
if (!isThere) console.log("Skipped: what LibreOffice shows, because it is not on this machine.");

/** A test that asks LibreOffice. Where there is none it is skipped; in CI nothing is. */
export const officeTest = isThere || process.env["CI"] ? test : test.skip;

const CORPUS_PROGRAMS = [
  "soffice",
  "pandoc",
  "pdftotext",
  "jing",
  "weasyprint",
  "gropdf",
  "qpdf",
  "msgconvert",
];
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

/** Where the LibreOffice of this run listens: one for all its suites. */
const SERVER = join(tmpdir(), `drawer-office-${process.ppid}`);

/** Asks it for one conversion, and prints what it answers. */
const ASK = `import socket, sys
s = socket.socket(socket.AF_UNIX)
s.connect(sys.argv[1])
s.sendall(sys.argv[2].encode() + b"\\n")
print(s.makefile().readline().strip())`;

/** Starts LibreOffice, unless one is there or is just being started. */
function start(): void {
  mkdirSync(SERVER, { recursive: true });
  try {
    mkdirSync(join(SERVER, "begun"));
  } catch {
    return; // by another suite
  }
  const words = [resolve("test/support/office-server.py"), SERVER];
  const server = spawn(PYTHON, words, { detached: true, stdio: "ignore" });
  server.once("exit", () => undefined).unref();
}

/** Takes away what a server that was killed has left: under another name first, since others may be doing the same. */
function clearKilled(): void {
  const aside = `${SERVER}-killed-${process.pid}`;
  try {
    renameSync(SERVER, aside);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ENOENT") return; // by another suite
    throw error;
  }
  rmSync(aside, { recursive: true, force: true });
}

/** Has LibreOffice convert files of a folder into another format, beside them. */
export function convert(folder: string, to: string, names: readonly string[], filter?: string): void {
  const asked = JSON.stringify([to, filter ?? "", folder, names.map((name) => join(folder, name))]);
  for (const end = Date.now() + 90_000; ;) {
    start();
    const { status, stdout, stderr } = spawnSync(PYTHON, ["-c", ASK, join(SERVER, "socket"), asked], {
      encoding: "utf8",
    });
    const answer = stdout.trim();
    if (answer === "done") return;
    if (answer !== "") throw new Error(`LibreOffice: ${answer}`);
    if (Date.now() > end) throw new Error(stderr || `LibreOffice gave no answer (${status})`);
    // It is being started, or is ending since nobody asked for a while, and clears up itself; or it was killed.
    if (stderr.includes("ConnectionRefusedError")) clearKilled();
    spawnSync("sleep", ["0.2"]);
  }
}

/** CSV with each cell as it is shown. */
export const AS_SHOWN = "csv:Text - txt - csv (StarCalc):44,34,76,1,,0,false,true";

/** The cells of a workbook's first sheet, as LibreOffice shows them. */
export function shownBy(folder: string, name: string): string[][] {
  convert(folder, AS_SHOWN, [name]);
  const csv = readFileSync(join(folder, name.replace(/\.\w+$/, ".csv")), "utf8");
  return Papa.parse<string[]>(csv).data;
}
