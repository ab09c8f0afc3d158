import { carryOver } from "../../content/carry-over.js";
import { notice, type Notice } from "../../content/notice.js";
import type { Drawer } from "../../drawer/drawer.js";
import type { Snippet } from "../../drawer/snippets.js";
import { readHtml } from "../../formats/html/read.js";
import { writeHtml } from "../../formats/html/write.js";
import { drawerNotices } from "../../messages/en/drawer.js";
import { domAdapter } from "./dom-adapter.js";

/**
 * Puts what a person has made of a snippet's HTML in place of what it says; what nobody has touched is as it was. Returns what is told
 * of it. This is the door to rewriting: a page loads it when it is first needed.
 * @throws DrawerError as `drawer.rewrite` does
 */
export async function rewriteFromHtml(
  drawer: Drawer,
  { entry, content, pictures }: Snippet,
  html: string,
): Promise<readonly Notice[]> {
  const read = (written: string) => readHtml(written, { adapter: domAdapter });
  const picture = (hash: string) => pictures.get(hash);
  const shown = await Promise.all(
    content.map(async (flow) => (await read(writeHtml([flow], { picture }))).content),
  );
  const edited = await read(html);
  const { content: whole, poorer } = carryOver(content, shown, edited.content);
  const { notices } = await drawer.rewrite(
    { id: entry.id },
    { content: whole, pictures: new Map([...pictures, ...edited.pictures]), notices: edited.notices },
    entry.content,
  );
  return poorer === 0 ? notices : [...notices, notice(drawerNotices, "rewritten/poorer", { count: poorer })];
}
