import type { Format } from "../format.js";

/** Mails one after another, as programs keep and export them (RFC 4155). They are read, and not written. */
export const mbox: Format = {
  extensions: ["mbox"],
  readExtensions: ["mbx"],
  mediaType: "application/mbox",
  isBinary: false,
  holds: "structure",
  async read(bytes, file) {
    const { readMbox } = await import("./read.js");
    return readMbox(bytes, file);
  },
};
