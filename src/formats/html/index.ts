import { asLines, type Format } from "../format.js";
import { picturesNotDrawn, plainNumbers } from "../left-out.js";

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
  edit: async () => (await import("./edit.js")).htmlEditor,
  fill: async () => (await import("./fill.js")).htmlTemplate,
  async write({ content, picture, title }) {
    const { writeHtml, saysNumbers } = await import("./write.js");
    const fragment = writeHtml(content, picture ? { picture } : {});
    const notices = [...plainNumbers(content, saysNumbers), ...picturesNotDrawn(content)];
    if (title === undefined) return asLines(fragment, notices);
    return { data: (await import("./whole-page.js")).wholePage(fragment, title), notices };
  },
};
