import type { Format } from "../format.js";

/** An address book (vCard, RFC 6350, RFC 2426, vCard 2.1): its cards are rows. It is read, and not written. */
export const vcf: Format = {
  extensions: ["vcf"],
  readExtensions: ["vcard"],
  mediaType: "text/vcard",
  isBinary: false,
  holds: "structure",
  async read(bytes, file) {
    const { readVcf } = await import("./read.js");
    return { sheets: await readVcf(bytes, file) };
  },
};
