import type { Format } from "../format.js";

/** A mail as programs save it (RFC 5322, MIME). It is read, and not written. */
export const mail: Format = {
  extensions: ["eml"],
  mediaType: "message/rfc822",
  isBinary: false,
  holds: "structure",
  async read(bytes, file) {
    const { readMail } = await import("./read.js");
    return readMail(bytes, file);
  },
};
