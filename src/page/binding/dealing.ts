import { notice, type Notice } from "../../content/notice.js";
import { actNotices } from "../../messages/en/acts.js";

/** What hands out a deal on a page, and what is told of it: loaded when the first is begun. */

export { stepDeal } from "../../drawer/deal-step.js";

/** That a deal of so many has begun on the clipboard. */
export function begunOnClipboard(of: number): Notice {
  return notice(actNotices, "dealing/clipboard", { of });
}

/** That all were handed out. */
export function allDealt(): Notice {
  return notice(actNotices, "done", {});
}
