import type { Format } from "../format.js";

/** A word processor's document (ECMA-376). */
export const docx: Format = {
  extensions: ["docx"],
  readExtensions: ["docm", "dotx", "dotm"],
  mediaType: "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
  isBinary: true,
  holds: "structure",
  async read(bytes, file, options) {
    const { readDocx } = await import("./read.js");
    const { zipOf } = await import("../office/compound-file.js");
    return readDocx(await zipOf(bytes, file), file, options);
  },
  edit: async () => (await import("./edit.js")).docxEditor,
  fill: async () => (await import("./fill.js")).docxTemplate,
  async write(input) {
    const { writeDocx } = await import("./write.js");
    const { cleanForXml } = await import("../office/clean.js");
    return writeDocx(cleanForXml(input));
  },
};
