import type { Format } from "../format.js";

/** A book (EPUB 2 and 3). It is read, and not written. */
export const epub: Format = {
  extensions: ["epub"],
  mediaType: "application/epub+zip",
  isBinary: true,
  holds: "structure",
  async read(bytes, file, options) {
    const { readEpub } = await import("./read.js");
    return readEpub(bytes, file, options);
  },
};
