import { asLines, type Format } from "../format.js";

/** Markdown: CommonMark with the GitHub extensions. */
export const markdown: Format = {
  extensions: ["md", "markdown"],
  mediaType: "text/markdown",
  isBinary: false,
  holds: "structure",
  async read(bytes) {
    const { readMarkdown } = await import("./read.js");
    const { decodeText } = await import("../text/decode.js");
    return readMarkdown(decodeText(bytes));
  },
  async write({ content }) {
    return asLines((await import("./write.js")).writeMarkdown(content));
  },
};
