import type { Hash } from "../../content/encode.js";
import { DrawerError } from "../../content/error.js";
import { notice, type Notice } from "../../content/notice.js";
import { actErrors, actNotices } from "../../messages/en/acts.js";
import { goneFrom, goneSnippetsOf } from "../gone.js";
import { privateTraces } from "../private-traces.js";
import { pickSome, unique } from "../snippets.js";
import { isTrace, maskedEntry } from "../traces.js";
import type { Operation } from "../transaction.js";
import { hidden } from "./set-private.js";

/**
 * Brings back what has left, to the end of the drawer; what says the same as a private snippet comes back private.
 *
 * @param pick of what {@link Drawer.gone} gives
 * @throws DrawerError `bad-pick`, `no-position`, `nothing`, `full`, `store` when a content is missing
 */
export const restore: Operation<[pick: string], Notice[]> = {
  name: "restore",
  async plan(transaction, pick) {
    const { store, drawer } = transaction;
    const gone = await goneFrom(store, drawer);
    const picked = unique(await pickSome(goneSnippetsOf(store, drawer), pick));
    const coming = picked.flatMap(({ position }) => gone[position - 1] ?? []);
    const contents = await store.contents(coming.map(({ entry }) => entry.content));
    const lost = coming.find(({ entry }) => !contents.has(entry.content));
    if (lost) throw new DrawerError(actErrors, "store/missing-gone", { snippet: lost.entry });
    const { leaving, notices, orders, first } = await transaction.roomAtEnd(coming);
    const traces = await privateTraces(store);
    const snippets = coming.map(({ entry }) => (traces ? maskedEntry(entry, traces) : entry));
    const hiding = new Map<Hash, Uint8Array>();
    const edits = coming.map(({ entry }, index) => {
      const bytes = contents.get(entry.content)!;
      // What says the same as a private snippet is private as well.
      const isHidden = traces !== undefined && !entry.private && isTrace(entry, traces);
      const back = isHidden ? hidden(entry, bytes, null) : entry;
      if (isHidden) hiding.set(back.content, bytes);
      return { id: entry.id, before: null, after: { ...back, order: orders[index]! } };
    });
    return {
      edits: [...leaving, ...edits],
      contents: hiding,
      result: [notice(actNotices, "restored", { snippets, first }), ...notices],
    };
  },
};
