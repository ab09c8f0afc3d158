import type { Format } from "../format.js";

/** Pages that are fixed (ISO 32000). They are read, and not written. */
export const pdf: Format = {
  extensions: ["pdf"],
  mediaType: "application/pdf",
  isBinary: true,
  holds: "structure",
  async read(bytes, file, options) {
    const { readPdf } = await import("./read.js");
    return readPdf(bytes, file, options);
  },
};
