import { notice } from "../../../content/notice.js";
import type { Rules } from "../../../drawer/model/rules.js";
import { page } from "../../../messages/core/page-sentences.js";
import { pageNotices } from "../../../messages/en/page.js";
import type { DrawerHost } from "../drawer-host.js";

/** How many snippets may go by a change of rules without a question. */
const FEW = 3;

/** Changes rules; when many snippets would go by it, the user is asked first. */
export function setRules(host: DrawerHost, changes: Partial<Rules>): void {
  host.act(async (drawer) => {
    const leaving = await drawer.wouldLeave(changes);
    if (leaving.length > FEW && !confirm(page.askChange(leaving)))
      return [notice(pageNotices, "rule/unchanged", {})];
    return drawer.setRules(changes);
  });
}
