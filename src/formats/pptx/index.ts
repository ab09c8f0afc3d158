import type { Format } from "../format.js";

/** Slides (ECMA-376): each is a section under its title. They are read, and not written. */
export const pptx: Format = {
  extensions: ["pptx"],
  readExtensions: ["pptm", "ppsx", "ppsm", "potx", "potm"],
  mediaType: "application/vnd.openxmlformats-officedocument.presentationml.presentation",
  isBinary: true,
  holds: "structure",
  async read(bytes, file, options) {
    const { readPptx } = await import("./read.js");
    const { zipOf } = await import("../office/compound-file.js");
    return readPptx(await zipOf(bytes, file), file, options);
  },
};
