import { asLines, asText, type Format } from "../format.js";

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
    if (!inCells) return asLines((await import("./write.js")).writeText(content));
    const { writeDelimited } = await import("../delimited/write.js");
    return asText(writeDelimited(content, "\t").text);
  },
};
