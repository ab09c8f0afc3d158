import { generateNKeysBetween } from "fractional-indexing";
import { notice, type Notice } from "../../content/notice.js";
import { actNotices } from "../../messages/en/acts.js";
import type { SnippetRef } from "../model/pick.js";
import type { Operation } from "../transaction.js";

/**
 * Moves the snippets of a pick, in the pick's order, to stand before another one, or after the last when `before` is
 * `end`.
 * @throws DrawerError `bad-pick`, `no-position`, `nothing`
 */
export const move: Operation<[pick: string, before: SnippetRef | "end"], Notice[]> = {
  name: "move",
  async plan(transaction, pick, before) {
    const { store, drawer } = transaction;
    const moving = await transaction.pick(pick);
    const target =
      before === "end" ? (await transaction.size()).count + 1 : (await transaction.at(before)).position;
    const ids = new Set(moving.map(({ entry }) => entry.id));
    const offset = Math.max(0, target - 2 - moving.length);
    const near = await store.entries({ drawer, offset, limit: 2 * moving.length + 3 });
    const others = near.filter(({ entry }) => !ids.has(entry.id));
    const left = others.filter(({ position }) => position < target).at(-1);
    const right = others.find(({ position }) => position >= target);
    const orders = generateNKeysBetween(left?.entry.order ?? null, right?.entry.order ?? null, moving.length);
    const first = target - moving.filter(({ position }) => position < target).length;
    const moved = moving.map(({ entry }, index) => ({
      position: first + index,
      entry: { ...entry, order: orders[index]! },
    }));
    return {
      edits: moving.map(({ entry }, index) => ({ id: entry.id, before: entry, after: moved[index]!.entry })),
      result: [notice(actNotices, "moved", { snippets: moved })],
    };
  },
};
