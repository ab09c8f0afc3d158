import type { Format } from "../format.js";

/** A mail as one mail program keeps it ([MS-OXMSG]). It is read, and not written. */
export const msg: Format = {
  extensions: ["msg"],
  readExtensions: ["oft"],
  mediaType: "application/vnd.ms-outlook",
  isBinary: true,
  holds: "structure",
  async read(bytes, file) {
    const { readMsg } = await import("./read.js");
    return readMsg(bytes, file);
  },
};
