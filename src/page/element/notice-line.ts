import { html, nothing } from "lit";
import type { ActionResult } from "../../drawer/collecting-session.js";
import { page } from "../../messages/core/page-sentences.js";
import type { DrawerHost } from "./drawer-host.js";

/** What was reported last, and what takes it back. */
export function noticeLine(
  host: Pick<DrawerHost, "undo" | "redo" | "viewModel">,
  result: ActionResult | undefined,
  progress: string | undefined,
) {
  // Where nothing is, and nothing was done, there is nothing to take back.
  const isBegun = host.viewModel?.count !== 0 || result !== undefined;
  return html`<p class="notice ${result?.error ? "refused" : ""}" part="notice">
    <span>${progress ?? lastOf(result)}</span>
    ${
      isBegun
        ? html`<span class="both">
            <button @click=${() => host.undo()}>${page.undo}</button>
            <button @click=${() => host.redo()}>${page.redo}</button>
          </span>`
        : nothing
    }
  </p>`;
}

/** So many sentences are shown beside the last. */
const MOST = 3;

/** The last sentence, and after it what else there is to know. Of what was collected the last is enough. */
function lastOf({ error, notices }: ActionResult = { notices: [] }): string {
  if (error) return error.message;
  const leaving = notices.find(({ code }) => code === "made-room" || code === "aged");
  const last = notices.findLast((notice) => notice !== leaving);
  const others = notices.filter((one) => one !== last && one !== leaving && one.code !== "collected");
  const told = [last, ...others.slice(-MOST), leaving].flatMap((one) => one?.message ?? []);
  return [...new Set(told)].join(" ");
}
