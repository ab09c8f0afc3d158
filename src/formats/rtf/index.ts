import type { Format } from "../format.js";

/** Rich Text Format (its specification 1.9.1). */
export const rtf: Format = {
  extensions: ["rtf"],
  mediaType: "application/rtf",
  isBinary: false,
  holds: "structure",
  async read(bytes, file) {
    const { readRtf } = await import("./read.js");
    return readRtf(bytes, file);
  },
  async write(input) {
    const { writeRtf } = await import("./write.js");
    return writeRtf(input);
  },
};
