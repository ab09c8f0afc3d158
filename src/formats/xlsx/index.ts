import type { Format } from "../format.js";

/** A workbook (ECMA-376). */
export const xlsx: Format = {
  extensions: ["xlsx"],
  readExtensions: ["xlsm", "xltx", "xltm"],
  mediaType: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
  isBinary: true,
  holds: "rows",
  async read(bytes, file, options) {
    const { readXlsx } = await import("./read.js");
    const { zipOf } = await import("../office/compound-file.js");
    return { sheets: readXlsx(await zipOf(bytes, file), file, options?.onProgress) };
  },
  edit: async () => (await import("./edit.js")).xlsxEditor,
  fill: async () => (await import("./fill.js")).xlsxTemplate,
  async write(input) {
    const { writeXlsx } = await import("./write.js");
    const { cleanForXml } = await import("../office/clean.js");
    return writeXlsx(cleanForXml(input));
  },
};
