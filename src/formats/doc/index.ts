import type { Format } from "../format.js";

/** A word-processor document of before 2007 ([MS-DOC]). Its words are read; it is not written. */
export const doc: Format = {
  extensions: ["doc"],
  readExtensions: ["dot"],
  mediaType: "application/msword",
  isBinary: true,
  holds: "structure",
  async read(bytes, file) {
    const { readDoc } = await import("./read.js");
    return readDoc(bytes, file);
  },
};
