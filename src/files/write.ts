import type { ToWrite, Written } from "./write/written.js";
import { writable } from "./write/writable.js";

export type { ToWrite, Written } from "./write/written.js";

/** The formats of documents and workbooks that content is written in. */
export const WRITTEN_FORMATS = ["docx", "odt", "xlsx", "ods"] as const;

/** The name of a format that files are written in. */
export type WrittenFormat = (typeof WRITTEN_FORMATS)[number];

/**
 * Writes content as a document or workbook. Documents keep structure and look; workbooks keep rows, typed values and
 * their formats, on one sheet. Each writer is loaded when it is first needed.
 */
export async function writeFile(toWrite: ToWrite, format: WrittenFormat): Promise<Written> {
  const source = writable(toWrite);
  switch (format) {
    case "docx":
      return (await import("./write/docx.js")).writeDocx(source);
    case "odt":
      return (await import("./write/odt.js")).writeOdt(source);
    case "xlsx":
      return (await import("./write/xlsx.js")).writeXlsx(source);
    case "ods":
      return (await import("./write/ods.js")).writeOds(source);
  }
}
