import { asLines, asText, type Format } from "../format.js";
import { picturesInText } from "../left-out.js";

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
  async write({ content, inCells = false }) {
    if (!inCells) {
      const { writeText } = await import("./write.js");
      return asLines(writeText(content), picturesInText(content));
    }
    const { writeDelimited } = await import("../delimited/write.js");
    return asText(writeDelimited(content, "\t").text);
  },
};
