import { checkLength } from "../limits.js";
import type { Reading } from "../notice.js";
import { readHtml, type HtmlReadOptions } from "./html.js";
import { withoutMarks } from "./clean.js";

/**
 * Reads Markdown (CommonMark with the GitHub extensions: tables, strikethrough, task lists, bare addresses). Front matter is
 * left out, with a notice. It is
 * compiled to HTML and read through the one door for HTML, so that HTML inside it is as safe as any other.
 */
export async function readMarkdown<Node>(
  markdown: string,
  options: HtmlReadOptions<Node> = {},
): Promise<Reading> {
  checkLength(markdown, "Markdown");
  const { micromark } = await import("micromark");
  const { gfm, gfmHtml } = await import("micromark-extension-gfm");
  const { frontmatter, frontmatterHtml } = await import("micromark-extension-frontmatter");
  const clean = withoutMarks(markdown);
  const html = micromark(clean, {
    allowDangerousHtml: true,
    allowDangerousProtocol: true,
    extensions: [gfm(), frontmatter(["yaml", "toml"])],
    htmlExtensions: [gfmHtml(), frontmatterHtml(["yaml", "toml"])],
  });
  const reading = await readHtml(html, options);
  if (!FRONT_MATTER.test(clean)) return reading;
  const message = "Left out: the facts about the document that stand before its text (front matter).";
  return { ...reading, notices: [...reading.notices, { code: "left-out", message }] };
}

/** Facts about a document between two lines of dashes or plus signs at its very beginning. */
const FRONT_MATTER = /^(---|\+\+\+)[ \t]*\r?\n(?:[\s\S]*?\r?\n)?\1[ \t]*(?:\r?\n|$)/;
