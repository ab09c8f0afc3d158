import { asLines, asText, type Format } from "../format.js";

/** HTML: with a title a whole page, otherwise a fragment with inline styles only. */
export const html: Format = {
  extensions: ["html", "htm"],
  readExtensions: ["xhtml"],
  mediaType: "text/html",
  isBinary: false,
  holds: "structure",
  async read(bytes) {
    const { readHtmlDocument } = await import("./read.js");
    const { decodeText } = await import("../text/decode.js");
    return readHtmlDocument(decodeText(bytes, "html"));
  },
  async write({ content, picture, title }) {
    const { writeHtml } = await import("./write.js");
    const fragment = writeHtml(content, picture ? { picture } : {});
    if (title === undefined) return asLines(fragment);
    return asText((await import("./whole-page.js")).wholePage(fragment, title));
  },
};
