import { type Notice } from "../../content/notice.js";
import type { Drawer } from "../../drawer/drawer.js";
import { rewriteEdited } from "../../drawer/rewrite-edited.js";
import type { Snippet } from "../../drawer/snippets.js";
import { readHtml } from "../../formats/html/read.js";
import { writeHtml } from "../../formats/html/write.js";
import { domAdapter } from "./dom-adapter.js";

/**
 * Puts what a person has made of a snippet's HTML in place of what it says; what nobody has touched is as it was. Returns what is told
 * of it. This is the door to rewriting: a page loads it when it is first needed.
 * @throws DrawerError as `drawer.rewrite` does
 */
export async function rewriteFromHtml(
  drawer: Drawer,
  snippet: Snippet,
  html: string,
): Promise<readonly Notice[]> {
  const read = (written: string) => readHtml(written, { adapter: domAdapter });
  const picture = (hash: string) => snippet.pictures.get(hash);
  const edited = await read(html);
  return rewriteEdited(
    drawer,
    snippet,
    edited,
    async (flow) => (await read(writeHtml([flow], { picture }))).content,
  );
}
