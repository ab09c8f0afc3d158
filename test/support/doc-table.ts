import { readFileSync, writeFileSync } from "node:fs";

/**
 * Rows of a table of a guide, made by the run of a test. The table stands between two marks, `<!-- NAME -->` and
 * `<!-- end of NAME -->`. With `WRITE_TABLES=1` they are written there, in place of those with the same first cell.
 */
export function expectRows(file: string, name: string, rows: readonly string[]): void {
  const marked = new RegExp(`(<!-- ${name} -->\n)([\\s\\S]*?)(\n<!-- end of ${name} -->)`);
  const first = (row: string) => row.split(/(?<!\\)\|/)[1]?.trim();
  const firsts = new Set(rows.map(first));
  if (process.env["WRITE_TABLES"]) {
    const written = (stands: string) => {
      const others = stands.split("\n").filter((row) => row.trim() !== "");
      const at = others.findIndex((row) => firsts.has(first(row)));
      const rest = others.filter((row) => !firsts.has(first(row)));
      rest.splice(at === -1 ? rest.length : at, 0, ...rows);
      return `\n${rest.join("\n")}\n`;
    };
    const text = readFileSync(file, "utf8");
    writeFileSync(
      file,
      text.replace(marked, (_, begin: string, stands: string, end: string) => begin + written(stands) + end),
    );
  }
  expect(rowsIn(file, name).filter((row) => firsts.has(first(row)))).toEqual(rows.map(bare));
}

/** Whether such a row stands in the table; always while it is being written. */
export function standsInTable(file: string, name: string, row: string): boolean {
  return process.env["WRITE_TABLES"] !== undefined || rowsIn(file, name).includes(bare(row));
}

function rowsIn(file: string, name: string): string[] {
  const marked = new RegExp(`<!-- ${name} -->\n([\\s\\S]*?)\n<!-- end of ${name} -->`);
  return (marked.exec(readFileSync(file, "utf8"))?.[1] ?? "").split("\n").map(bare);
}

/** A row without the padding of its columns. */
function bare(row: string): string {
  return row.replace(/ +/g, " ").replace(/-+/g, "-").trim();
}
