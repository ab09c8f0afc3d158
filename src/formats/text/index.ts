import { asLines, type Format } from "../format.js";
import { notShownInText } from "../left-out.js";

/** Plain text: a line is a paragraph. */
export const text: Format = {
  extensions: ["txt", "text"],
  readExtensions: ["log"],
  mediaType: "text/plain",
  isBinary: false,
  holds: "lines",
  async read(bytes) {
    const { readText } = await import("./read.js");
    const { decodeText } = await import("./decode.js");
    return readText(decodeText(bytes));
  },
  edit: async () => (await import("./edit.js")).textEditor,
  fill: async () => (await import("./fill.js")).plainTemplate,
  async write({ content, inCells = false }) {
    if (!inCells) {
      const { writeText } = await import("./write.js");
      const { withAddressesShown } = await import("../../content/shown-addresses.js");
      return asLines(writeText(withAddressesShown(content)), notShownInText(content));
    }
    const { writeDelimited } = await import("../delimited/write.js");
    const { text, notices } = writeDelimited(content, "\t");
    return { data: text, notices };
  },
};
