import { DrawerError } from "../../content/error.js";
import { notice } from "../../content/notice.js";
import { formatErrors, formatNotices } from "../../messages/en/formats.js";
import type { OnProgress } from "../format.js";
import type { ReadSheet } from "../office/sheet.js";
import { failureOf } from "../thread/failure.js";
import { inThread, isNode } from "../thread/node/thread.js";
import { readXlsx } from "../xlsx/read.js";
import { MOST_BYTES, toXlsx } from "./convert.js";

/**
 * Reads a workbook of before 2007, or a binary one: as an xlsx that is made of it. In Node that is made in a thread of its own, which is
 * ended when it takes too long or too much.
 *
 * @throws DrawerError `unreadable`, `locked`, `too-large`, `unknown-format` where the package that reads it is not installed
 */
export async function readXls(
  bytes: Uint8Array,
  file: string,
  onProgress?: OnProgress,
): Promise<ReadSheet[]> {
  if (bytes.length > MOST_BYTES)
    throw new DrawerError(formatErrors, "too-large/old-form", { file, what: "xls" });
  const made = await convert(bytes, file);
  return readXlsx(made, file, onProgress).map((sheet) => ({
    name: sheet.name,
    get used() {
      return sheet.used;
    },
    head: (rows) => sheet.head(rows),
    table: (rectangle) => sheet.table(rectangle),
    notices: (rectangle) => [
      ...sheet.notices(rectangle),
      notice(formatNotices, "left-out/old-looks", { file }),
    ],
  }));
}

async function convert(bytes: Uint8Array, file: string): Promise<Uint8Array> {
  try {
    return await (isNode ? inThread("xls", bytes) : toXlsx(bytes));
  } catch (cause) {
    throw failureOf(cause, file, "xls");
  }
}
