import type { Format } from "../format.js";

/** An OpenDocument text (ODF 1.3). */
export const odt: Format = {
  extensions: ["odt"],
  readExtensions: ["ott", "fodt"],
  mediaType: "application/vnd.oasis.opendocument.text",
  isBinary: true,
  holds: "structure",
  async read(bytes, file, options) {
    const { readOdt } = await import("./read.js");
    return readOdt(bytes, file, options);
  },
  edit: async () => (await import("./edit.js")).odtEditor,
  fill: async () => (await import("./fill.js")).odtTemplate,
  async write(input) {
    const { writeOdt } = await import("./write.js");
    const { cleanForXml } = await import("../office/clean.js");
    return writeOdt(cleanForXml(input));
  },
};
