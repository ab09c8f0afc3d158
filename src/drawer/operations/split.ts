import { generateNKeysBetween } from "fractional-indexing";
import { DrawerError } from "../../content/error.js";
import { notice } from "../../content/notice.js";
import { actErrors, actNotices } from "../../messages/en/acts.js";
import type { Entry } from "../model/entry.js";
import type { SnippetRef } from "../model/pick.js";
import type { Operation } from "../transaction.js";
import type { Collected } from "./collect.js";
/**
 * Parts a snippet that was merged or appended to into the snippets it was made of, where it stands.
 * @throws DrawerError `no-position`, `nothing` when it was made of one piece
 */
export const split: Operation<[place: SnippetRef], Collected> = {
  name: "split",
  async plan(transaction, place) {
    const { store, drawer } = transaction;
    const { position, entry } = await transaction.at(place);
    if (!entry.parts) throw new DrawerError(actErrors, "nothing/split", { position, snippet: entry });
    const near = await store.entries({ drawer, offset: Math.max(0, position - 2), limit: 3 });
    const orderAt = (at: number) => near.find((one) => one.position === at)?.entry.order ?? null;
    const orders = generateNKeysBetween(orderAt(position - 1), orderAt(position + 1), entry.parts.length);
    // Who kept the whole wants the pieces kept; who kept a piece has said which.
    const keepAll = entry.kept && !entry.parts.some((part) => part.kept);
    const parts = entry.parts.map((part, index): Entry => ({
      ...part,
      drawer,
      kept: part.kept || keepAll,
      order: orders[index]!,
    }));
    const collected = parts.map((part, index) => ({ position: position + index, entry: part }));
    const same = parts.find(({ id }) => id === entry.id);
    const others = parts
      .filter((part) => part !== same)
      .map((part) => ({ id: part.id, before: null, after: part }));
    return {
      edits: [{ id: entry.id, before: entry, after: same ?? null }, ...others],
      result: { collected, notices: [notice(actNotices, "split", { snippets: collected })] },
    };
  },
};
