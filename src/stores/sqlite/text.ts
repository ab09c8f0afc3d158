import { isUtf8 } from "node:buffer";
import { DamagedFile } from "./connection.js";

/**
 * A column as SQL selects it, whatever a damaged file holds there: text as its bytes, since the driver ends the whole process for text
 * that is no UTF-8.
 */
export function selectAs(column: string, type: "text" | "integer" | "bytes", name = column): string {
  return `CAST(${column} AS ${type === "integer" ? "INTEGER" : "BLOB"}) AS ${name}`;
}

/**
 * The text of a column that was selected as its bytes; nothing for none.
 * @throws DamagedFile for bytes that are no UTF-8, as a damaged file has them
 */
export function textOf(bytes: ArrayBuffer | Uint8Array | null): string | null {
  if (bytes === null) return null;
  const buffer = Buffer.isBuffer(bytes) ? bytes : Buffer.from(bytes as ArrayBuffer);
  const text = buffer.toString("utf8");
  // What stands for bytes that are no UTF-8 may also have been written by somebody.
  if (text.includes("\ufffd") && !isUtf8(buffer)) throw new DamagedFile("text that is no UTF-8");
  return text;
}
