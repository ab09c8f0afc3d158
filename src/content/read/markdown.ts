import { checkLength } from "../limits.js";
import type { Reading } from "../notice.js";
import { readHtml, type HtmlReadOptions } from "./html.js";
import { withoutMarks } from "./clean.js";

/**
 * Reads Markdown (CommonMark with the GitHub extensions: tables, strikethrough, task lists, bare addresses). It is
 * compiled to HTML and read through the one door for HTML, so that HTML inside it is as safe as any other.
 */
export async function readMarkdown<Node>(
  markdown: string,
  options: HtmlReadOptions<Node> = {},
): Promise<Reading> {
  checkLength(markdown, "Markdown");
  const { micromark } = await import("micromark");
  const { gfm, gfmHtml } = await import("micromark-extension-gfm");
  const clean = withoutMarks(markdown);
  const html = micromark(clean, {
    allowDangerousHtml: true,
    allowDangerousProtocol: true,
    extensions: [gfm()],
    htmlExtensions: [gfmHtml()],
  });
  return readHtml(html, options);
}
