import type { Format } from "../format.js";

/** An OpenDocument spreadsheet (ODF 1.3). */
export const ods: Format = {
  extensions: ["ods"],
  readExtensions: ["ots", "fods"],
  mediaType: "application/vnd.oasis.opendocument.spreadsheet",
  isBinary: true,
  holds: "rows",
  async read(bytes, file, options) {
    const { readOds } = await import("./read.js");
    return { sheets: readOds(bytes, file, options?.onProgress) };
  },
  edit: async () => (await import("./edit.js")).odsEditor,
  fill: async () => (await import("./fill.js")).odsTemplate,
  async write(input) {
    const { writeOds } = await import("./write.js");
    const { cleanForXml } = await import("../office/clean.js");
    return writeOds(cleanForXml(input));
  },
};
