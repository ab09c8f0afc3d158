import { carryOver } from "../content/carry-over.js";
import type { Content, Flow } from "../content/model.js";
import { notice, type Notice, type Reading } from "../content/notice.js";
import { actNotices } from "../messages/en/acts.js";
import type { Drawer } from "./drawer.js";
import type { Snippet } from "./snippets.js";

/**
 * Puts what a person has made of a snippet in some form in place of what it says; what nobody has touched is as it was. Returns what is
 * told of it, also how much of what was changed the form had no place for.
 *
 * @param snippet as it was when the person began
 * @param edited what was read from the form afterwards
 * @param shownOf what one of its flows comes to, written in that form and read back
 * @throws DrawerError as `drawer.rewrite` does
 */
export async function rewriteEdited(
  drawer: Drawer,
  { entry, content, pictures }: Snippet,
  edited: Reading,
  shownOf: (flow: Flow) => Promise<Content>,
): Promise<readonly Notice[]> {
  const shown = await Promise.all(content.map(shownOf));
  const { content: whole, poorer } = carryOver(content, shown, edited.content);
  const reading = { ...edited, content: whole, pictures: new Map([...pictures, ...edited.pictures]) };
  const { notices } = await drawer.rewrite({ id: entry.id }, reading, entry.content);
  return poorer === 0 ? notices : [...notices, notice(actNotices, "rewritten/poorer", { count: poorer })];
}
