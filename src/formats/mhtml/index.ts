import type { Format } from "../format.js";

/** A web page with all that it shows, in one file (MHTML, RFC 2557). It is read, and not written. */
export const mhtml: Format = {
  extensions: ["mhtml"],
  readExtensions: ["mht"],
  mediaType: "multipart/related",
  isBinary: false,
  holds: "structure",
  async read(bytes, file) {
    const { readMhtml } = await import("./read.js");
    return readMhtml(bytes, file);
  },
};
