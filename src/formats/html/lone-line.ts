import type { Content } from "../../content/model.js";

/**
 * The HTML of a block that is a lone line, without the paragraph around it, as a browser copies words out of a line: it joins the line
 * in which it is pasted. Nothing for any other block.
 * @param html what {@link writeHtml} has made of the content
 */
export function loneLineHtml(content: Content, html: string): string | undefined {
  return content.length === 1 && content[0]!.type === "paragraph"
    ? /^<p[^>]*>([\s\S]*)<\/p>$/.exec(html)?.[1]
    : undefined;
}
