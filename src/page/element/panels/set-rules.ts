import { notice, type Notice } from "../../../content/notice.js";
import type { Drawer } from "../../../drawer/drawer.js";
import type { Rules } from "../../../drawer/model/rules.js";
import { rulesPanel } from "../../../messages/core/panel-sentences.js";
import { pageNotices } from "../../../messages/en/page.js";

/** How many snippets may go by a change of rules without a question. */
const FEW = 3;

/** Changes rules; when many snippets would go by it, the user is asked first. */
export async function setRules(drawer: Drawer, changes: Partial<Rules>): Promise<readonly Notice[]> {
  const leaving = await drawer.wouldLeave(changes);
  if (leaving.length > FEW && !confirm(rulesPanel.askChange(leaving)))
    return [notice(pageNotices, "rule/unchanged", {})];
  return drawer.setRules(changes);
}
