import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { unzipSync } from "fflate";
import { SaxesParser } from "saxes";
import { formatOf } from "../dist/formats/index.js";
import { readSource } from "../dist/files/index.js";
import { paragraph } from "../dist/index.js";
import { compare, head } from "./measure.mjs";

/** How many rows and columns the sheet has. */
const ROWS = 50_000;
const COLUMNS = 20;
export const PARTS = {
  xlsx: "xl/worksheets/sheet1.xml",
  ods: "content.xml",
  docx: "word/document.xml",
  odt: "content.xml",
};

/** A sheet of words, notes, figures and blank places. */
export function sheet() {
  const names = ["Wheatear", "Sandwich tern", "Knot", "Dunlin & co", "Curlew"];
  const cell = (row, column) => {
    if (column % 5 === 4) return { flows: [] };
    const text = column % 5 === 0 ? names[(row + column) % 5] : `note ${row}-${column}`;
    if (column % 5 < 2) return { flows: [paragraph(text)] };
    const number = column % 5 === 2 ? (row * column) / 7 : row + column;
    return { flows: [paragraph(String(number))], value: { type: "number", number } };
  };
  const line = (row) => Array.from({ length: COLUMNS }, (_, column) => cell(row, column));
  const names1 = Array.from({ length: COLUMNS }, (_, column) => ({ flows: [paragraph(`Column ${column}`)] }));
  return [
    {
      type: "table",
      headerRows: 1,
      rows: [names1, ...Array.from({ length: ROWS - 1 }, (_, row) => line(row))],
    },
  ];
}

/** A document of 50,000 paragraphs, a heading to each fifty. */
export const document = () =>
  Array.from({ length: 50_000 }, (_, at) =>
    at % 50 === 0
      ? { type: "heading", level: 2, runs: [{ type: "text", text: `Section ${at / 50}` }] }
      : {
          type: "paragraph",
          runs: [
            { type: "text", text: `On day ${at} the wind blew from the north-west, and ` },
            { type: "text", text: "two wheatears", marks: { bold: true } },
            { type: "text", text: " were ringed on the seawall before noon." },
          ],
        },
  );

/** Unpacks a part, and passes it through the XML parser with empty handlers, to its end or to a number of its elements of a name. */
function passThrough(bytes, part, until) {
  const xml = unzipSync(bytes, { filter: ({ name }) => name === part })[part];
  const parser = new SaxesParser();
  const decoder = new TextDecoder();
  let left = until?.count ?? Infinity;
  parser.on("opentag", ({ name }) => {
    if (name === until?.name) left--;
  });
  parser.on("text", () => undefined);
  parser.on("closetag", () => undefined);
  for (let at = 0; at < xml.length && left > 0; at += 65_536)
    parser.write(decoder.decode(xml.subarray(at, at + 65_536), { stream: true }));
}

export const few = { runs: 5, warmup: 1 };

/** Files: reading what is asked for, against the same part unpacked and passed through the XML parser; and the memory it takes. */
export async function run() {
  const folder = mkdtempSync(join(tmpdir(), "drawer-files-"));
  const file = (name) => new Uint8Array(readFileSync(join(folder, name)));
  const write = async (name, content) => {
    const { data } = await formatOf(name.split(".").at(-1)).write({ content });
    writeFileSync(join(folder, name), data);
  };
  const table = sheet();
  for (const format of ["xlsx", "ods"]) await write(`sheet.${format}`, table);
  for (const format of ["docx", "odt"]) await write(`document.${format}`, document());
  const ask = async (name, deed) => deed(await readSource(file(name), name));

  head(`A sheet of ${ROWS} × ${COLUMNS}, against its part unpacked and passed through the XML parser as far`);
  for (const format of ["xlsx", "ods"]) {
    const [name, part] = [`sheet.${format}`, PARTS[format]];
    const row = { name: format === "xlsx" ? "row" : "table:table-row", count: 4 };
    const all = () => passThrough(file(name), part);
    await compare(
      `${format}: A1:T3`,
      () => ask(name, (source) => source.at("A1:T3")),
      () => passThrough(file(name), part, row),
      few,
    );
    await compare(
      `${format}: the last ten rows`,
      () => ask(name, (source) => source.at(`A${ROWS - 9}:T${ROWS}`)),
      all,
      few,
    );
    await compare(`${format}: its parts`, () => ask(name, (source) => source.parts()), all, few);
    await compare(`${format}: all of it`, () => ask(name, (source) => source.at()), all, few);
  }
  head("A document of 50,000 paragraphs, against the same");
  for (const format of ["docx", "odt"]) {
    const [name, part] = [`document.${format}`, PARTS[format]];
    const line = { name: format === "docx" ? "w:p" : "text:p", count: 4 };
    await compare(
      `${format}: p3`,
      () => ask(name, (source) => source.at("p3")),
      () => passThrough(file(name), part, line),
      few,
    );
    await compare(
      `${format}: its parts`,
      () => ask(name, (source) => source.parts()),
      () => passThrough(file(name), part),
      few,
    );
  }
  console.log("\nMemory of a process that reads all of the sheet, and that writes it, in MB");
  for (const format of ["xlsx", "ods"]) {
    const read = `const { readSource } = await import("./dist/files/index.js"); const { readFileSync } = await import("node:fs");
      const { content } = (await readSource(readFileSync(process.argv[1]), ${JSON.stringify(`sheet.${format}`)})).at();`;
    const written = `const { formatOf } = await import("./dist/formats/index.js"); await formatOf("${format}").write({ content });`;
    const most = "console.log(Math.round(process.resourceUsage().maxRSS / 1000));";
    for (const [what, code] of [
      ["read", read + most],
      ["read and written", read + written + most],
    ]) {
      const words = ["--input-type=module", "-e", code, join(folder, `sheet.${format}`)];
      const { stdout, stderr } = spawnSync(process.execPath, words, { encoding: "utf8" });
      console.log(
        `${`${format}: ${what}`.padEnd(60)} ${stdout.trim().padStart(8)}${stderr.trim().slice(0, 200)}`,
      );
    }
  }
  console.log(
    `(node alone: ${spawnSync(process.execPath, ["-e", "console.log(Math.round(process.resourceUsage().maxRSS / 1000))"], { encoding: "utf8" }).stdout.trim()})`,
  );
  rmSync(folder, { recursive: true, force: true });
}
