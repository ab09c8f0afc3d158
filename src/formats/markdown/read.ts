import { checkLength, LIMITS } from "../../content/limits.js";
import { notice, type Reading } from "../../content/notice.js";
import { contentNotices } from "../../messages/en/content.js";
import type { ReadDocument } from "../format.js";
import { readHtmlDocument, type HtmlReadOptions } from "../html/read.js";
import { withoutByteOrderMark } from "../text/byte-order-mark.js";
import { readText } from "../text/read.js";

/**
 * Reads Markdown (CommonMark with the GitHub extensions: tables, strikethrough, task lists, footnotes, bare addresses). Front matter is
 * left out, with a notice. It is
 * compiled to HTML and read through the one door for HTML, so that HTML inside it is as safe as any other.
 *
 * @param markdown CommonMark with the tables and notes of GitHub
 * @param options where pictures come from
 * @example
 * ```js
 * import { readMarkdown, writeHtml } from "drawer";
 *
 * console.log(writeHtml((await readMarkdown("- *net*")).content)); // <ul><li><em>net</em></li></ul>
 * ```
 */
export async function readMarkdown<Node>(
  markdown: string,
  options: HtmlReadOptions<Node> = {},
): Promise<Reading> {
  const { content, pictures, notices } = await readMarkdownDocument(markdown, options);
  return { content, pictures, notices };
}

/** @internal Reads Markdown as {@link readMarkdown} does, and says which flows its notices are about. */
export async function readMarkdownDocument<Node>(
  markdown: string,
  options: HtmlReadOptions<Node> = {},
): Promise<ReadDocument> {
  checkLength(markdown, "Markdown");
  const beyond = beyondBounds(markdown);
  if (beyond !== undefined)
    return {
      ...readText(markdown),
      notices: [notice(contentNotices, "left-out/markdown", { beyond, most: LIMITS[beyond] })],
    };
  const { micromark } = await import("micromark");
  const { gfm, gfmHtml } = await import("micromark-extension-gfm");
  const { frontmatter, frontmatterHtml } = await import("micromark-extension-frontmatter");
  const clean = withoutByteOrderMark(markdown);
  const html = micromark(clean, {
    allowDangerousHtml: true,
    allowDangerousProtocol: true,
    extensions: [gfm(), frontmatter(["yaml", "toml"])],
    htmlExtensions: [gfmHtml(), frontmatterHtml(["yaml", "toml"])],
  });
  const reading = await readHtmlDocument(html, options);
  if (!FRONT_MATTER.test(clean)) return reading;
  return { ...reading, notices: [...reading.notices, notice(contentNotices, "left-out/front-matter", {})] };
}

/** Facts about a document between two lines of dashes or plus signs at its very beginning. */
const FRONT_MATTER = /^(---|\+\+\+)[ \t]*\r?\n(?:[\s\S]*?\r?\n)?\1[ \t]*(?:\r?\n|$)/;

/**
 * What of a Markdown text would take the parser far longer than its length: signs of emphasis or links without number in
 * one paragraph, or quotes and lists nested without number; nothing for what people write.
 */
function beyondBounds(markdown: string): "markers" | "signs" | undefined {
  let signs = 0;
  let lazy = 0;
  let fence: string | undefined;
  let isTable = false;
  let wasQuote = false;
  for (const line of markdown.split("\n")) {
    const opens = /^ {0,3}(```|~~~)/.exec(line)?.[1];
    if (opens !== undefined && (fence === undefined || fence === opens)) {
      fence = fence === undefined ? opens : undefined;
      signs = 0;
    }
    if (fence !== undefined) continue;
    const markers = MARKERS.exec(line)?.[0].match(/[>+*.)-]/g)?.length ?? 0;
    if (markers > LIMITS.markers) return "markers";
    const isQuote = /^ {0,3}>/.test(line);
    if (line.trim() === "") [signs, lazy, isTable] = [0, 0, false];
    else if (wasQuote && !isQuote) lazy++;
    wasQuote = isQuote;
    // An item, a heading and the cells of a table are paragraphs of their own.
    if (/^[ \t]*(?:[-+*][ \t]|\d{1,9}[.)][ \t]|#)/.test(line)) signs = 0;
    if (/^[ |:-]*-[ |:-]*$/.test(line) && line.includes("|")) isTable = true;
    const here = line.match(/\*+|~+|\[|www\./gi)?.length ?? 0;
    signs = isTable ? here : signs + here;
    if (signs > LIMITS.signs || lazy > LIMITS.signs) return "signs";
  }
  return undefined;
}

/** The signs of quotes and lists that a line begins with. */
const MARKERS = /^(?:[ \t]*(?:>|[-+*](?=[ \t])|\d{1,9}[.)](?=[ \t])))+/;
