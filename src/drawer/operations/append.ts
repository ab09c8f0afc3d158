import { checkText } from "../../content/check.js";
import { DrawerError } from "../../content/error.js";
import { notice, type Notice } from "../../content/notice.js";
import { originText } from "../../content/origin.js";
import { isBlank } from "../../content/traverse.js";
import { actErrors, actNotices } from "../../messages/en/acts.js";
import { checkIncoming, prepare, SAME_AS_PRIVATE, type Incoming } from "../incoming.js";
import type { Entry } from "../model/entry.js";
import type { SnippetRef } from "../model/pick.js";
import type { Store } from "../store.js";
import type { Operation } from "../transaction.js";
import { paused, type Collected } from "./collect.js";
import { madeOf, refusePrivate } from "./made-of.js";
/**
 * Adds one piece or several to the end of a snippet, all or none of them. It can be split again into what it was and
 * what was added.
 *
 * @param to the snippet; the latest when it is left out
 * @param between what stands between the two, as in a recipe
 * @throws DrawerError `no-position`, `nothing` when there is nothing to add, `private`, `paused`, `full`
 */
export const append: Operation<
  [incoming: Incoming | readonly Incoming[], to?: SnippetRef, between?: string],
  Collected
> = {
  name: "append",
  async plan(transaction, incoming, to = { beforeLast: 0 }, between = "newline") {
    checkText("between", between);
    const { drawer, store } = transaction;
    const pieces = [incoming].flat() as Incoming[];
    checkIncoming(pieces);
    const blank = pieces.find(({ content }) => isBlank(content));
    if (pieces.length === 0 || blank)
      throw new DrawerError(actErrors, "nothing/append", blank ? { place: originText(blank.origin) } : {});
    const rules = await transaction.rules();
    if (!rules.collecting) throw paused(drawer);
    const added = await Promise.all(pieces.map((piece) => prepare(piece, drawer, rules.detect)));
    const secret = added.find((one) => one.entry.private);
    if (secret) {
      const { looks } = secret;
      throw new DrawerError(
        actErrors,
        "private/append",
        looks === undefined || looks === SAME_AS_PRIVATE ? {} : { looks },
      );
    }
    const [target] = await transaction.read([await transaction.at(to)]);
    refusePrivate([target!], "append");
    const { entry, position } = target!;
    // A page loads composing when it is first needed.
    const { appended } = await import("../../compose/append.js");
    let { content } = target!;
    const told: Notice[] = [];
    for (const piece of pieces) {
      const longer = appended(content, piece.content, between);
      content = longer.content;
      told.push(...piece.notices, ...longer.notices);
    }
    const parts = [
      ...(entry.parts ?? [entry]),
      ...added.map((one) => ({ ...one.entry, order: entry.order })),
    ];
    const made = madeOf(content, parts);
    const after: Entry = { ...entry, ...made.facts };
    const room = await transaction.makeRoom({ count: 0, bytes: after.bytes - entry.bytes });
    if (room.leaving.some(({ id }) => id === entry.id))
      throw new DrawerError(actErrors, "full/append", { snippet: entry });
    const leaving = room.leaving.map(({ before }) => before!);
    const now = position - (await countBefore(store, leaving, position));
    const appendedNotice = notice(actNotices, "appended", {
      position: now,
      added: added.map((one) => one.entry),
      snippet: after,
      pieces: parts.length,
    });
    return {
      edits: [...room.leaving, { id: entry.id, before: entry, after }],
      contents: new Map([...added.flatMap((one) => [...one.blobs]), ...made.contents]),
      result: {
        collected: [{ position: now, entry: after }],
        notices: [...told, appendedNotice, ...room.notices],
      },
    };
  },
};

/** How many of these stand before a position. */
async function countBefore(store: Store, entries: readonly Entry[], position: number): Promise<number> {
  if (entries.length === 0) return 0;
  return [...(await store.positions(entries)).values()].filter((each) => each < position).length;
}
