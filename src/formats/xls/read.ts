import { DrawerError } from "../../content/error.js";
import { notice } from "../../content/notice.js";
import { formatErrors, formatNotices } from "../../messages/en/formats.js";
import type { OnProgress } from "../format.js";
import type { ReadSheet } from "../office/sheet.js";
import { locked } from "../office/zip.js";
import { readXlsx } from "../xlsx/read.js";
import { MOST_BYTES, toXlsx } from "./convert.js";
import { convertInThread, isNode } from "./node/thread.js";

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
  if (bytes.length > MOST_BYTES) throw new DrawerError(formatErrors, "too-large/old-workbook", { file });
  const made = await convert(bytes, file);
  return readXlsx(made, file, onProgress).map((sheet) => ({
    name: sheet.name,
    get used() {
      return sheet.used;
    },
    table: (rectangle) => sheet.table(rectangle),
    notices: (rectangle) => [
      ...sheet.notices(rectangle),
      notice(formatNotices, "left-out/old-looks", { file }),
    ],
  }));
}

async function convert(bytes: Uint8Array, file: string): Promise<Uint8Array> {
  try {
    return await (isNode ? convertInThread(bytes) : toXlsx(bytes));
  } catch (cause) {
    const { name, message, code } = cause as Error & { code?: string };
    if (/password|encrypt/i.test(message)) throw locked(file);
    if (/ERR_MODULE_NOT_FOUND/.test(`${code} ${name}`))
      throw new DrawerError(formatErrors, "unknown-format/old-workbook", { file }, { cause });
    if (/Timeout|ERR_WORKER_OUT_OF_MEMORY/.test(`${name} ${code}`))
      throw new DrawerError(formatErrors, "too-large/old-workbook", { file }, { cause });
    throw new DrawerError(formatErrors, "unreadable/damaged", { file }, { cause });
  }
}
