import { isUtf8 } from "node:buffer";
import { SCHEMA, type TableName } from "../schema.js";
import type { Dialect } from "../sql.js";
import { DamagedFile } from "./connection.js";

/**
 * A column as SQL selects it, whatever a damaged file holds there: text as its bytes, since the driver ends the whole process for text
 * that is no UTF-8.
 */
export function selectAs(column: string, type: "text" | "integer" | "bytes"): string {
  return `CAST(${column} AS ${type === "integer" ? "INTEGER" : "BLOB"})`;
}

/**
 * The text of a column that was selected as its bytes; nothing for none.
 * @throws DamagedFile for bytes that are no UTF-8, as a damaged file has them
 */
function textOf(bytes: ArrayBuffer | Uint8Array | null): string | null {
  if (bytes === null) return null;
  const buffer = Buffer.isBuffer(bytes) ? bytes : Buffer.from(bytes as ArrayBuffer);
  const text = buffer.toString("utf8");
  // What stands for bytes that are no UTF-8 may also have been written by somebody.
  if (text.includes("\ufffd") && !isUtf8(buffer)) throw new DamagedFile("text that is no UTF-8");
  return text;
}

/** SQL as SQLite speaks it. */
export const DIALECT: Dialect = {
  types: { text: "TEXT", integer: "INTEGER", bytes: "BLOB" },
  afterTable: (isNumbered) => (isNumbered ? " STRICT" : " STRICT, WITHOUT ROWID"),
  indexesHoldNumbers: true,
  selected: (column, type) => selectAs(column, type),
  holdsOneOf: (column) =>
    `EXISTS (SELECT 1 FROM json_each(?) AS word WHERE instr(${column}, word.value) > 0)`,
  noLimit: -1,
};

/** A row as it is kept: text is selected as its bytes, and bytes come in a form of the driver's own, which it does not take. */
export function readRow<Row>(table: TableName, row: Row): Row {
  const { columns } = SCHEMA[table];
  // The row is new, and nobody else's: it is filled in place, as there may be many.
  const read = row as Record<string, unknown>;
  for (const column in read) {
    const type = columns[column];
    if (type === "text") read[column] = textOf(read[column] as Uint8Array | null);
    else if (type === "bytes") read[column] = new Uint8Array(read[column] as ArrayBuffer);
  }
  return row;
}
