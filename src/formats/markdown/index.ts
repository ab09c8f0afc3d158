import { asLines, type Format } from "../format.js";
import { picturesInText, plainNumbers } from "../left-out.js";

/** Markdown: CommonMark with the GitHub extensions. */
export const markdown: Format = {
  extensions: ["md", "markdown"],
  mediaType: "text/markdown",
  isBinary: false,
  holds: "structure",
  async read(bytes) {
    const { readMarkdownDocument } = await import("./read.js");
    const { decodeText } = await import("../text/decode.js");
    return readMarkdownDocument(decodeText(bytes));
  },
  edit: async () => (await import("./edit.js")).markdownEditor,
  fill: async () => (await import("./fill.js")).markdownTemplate,
  async write({ content }) {
    const { writeMarkdown } = await import("./write.js");
    return asLines(writeMarkdown(content), [...picturesInText(content), ...plainNumbers(content)]);
  },
};
