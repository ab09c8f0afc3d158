import type { Format } from "../format.js";

/** A workbook of before 2007, or a binary one ([MS-XLS], [MS-XLSB]). It is read, and not written. */
export const xls: Format = {
  extensions: ["xls"],
  readExtensions: ["xlt", "xlsb"],
  mediaType: "application/vnd.ms-excel",
  isBinary: true,
  holds: "rows",
  async read(bytes, file, options) {
    const { readXls } = await import("./read.js");
    return { sheets: await readXls(bytes, file, options?.onProgress) };
  },
};
