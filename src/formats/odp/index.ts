import type { Format } from "../format.js";

/** Slides (OpenDocument 1.3): each is a section under its title. They are read, and not written. */
export const odp: Format = {
  extensions: ["odp"],
  readExtensions: ["otp", "fodp"],
  mediaType: "application/vnd.oasis.opendocument.presentation",
  isBinary: true,
  holds: "structure",
  async read(bytes, file, options) {
    const { readOdp } = await import("./read.js");
    return readOdp(bytes, file, options);
  },
};
