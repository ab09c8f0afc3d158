import type { Hash } from "../../content/encode.js";
import { DrawerError } from "../../content/error.js";
import { notice, type Notice, type Reading } from "../../content/notice.js";
import { isBlank } from "../../content/traverse.js";
import { actErrors, actNotices } from "../../messages/en/acts.js";
import type { Edit } from "../model/change.js";
import type { SnippetRef } from "../model/pick.js";
import type { Positioned } from "../store.js";
import type { Operation } from "../transaction.js";
import type { Collected } from "./collect.js";
import { rewritten } from "./rewrite.js";

/** A snippet, what its document says now where it came from, and the spot of that, where it is another. */
export interface Refreshed {
  readonly place: SnippetRef;
  readonly reading: Reading;
  /** What the snippet said when its document was looked at, by the name of its content. */
  readonly from: Hash;
  readonly at?: string;
}

/**
 * Takes snippets anew from where they came from, all as one act; they stay where they are, with their labels and pieces.
 *
 * @param refreshed the snippets, and what they are to say
 * @throws DrawerError `no-position`, `nothing` when nothing is left of one, `conflict` when one says something else by now, `private`
 *   when one looks like a secret that it was not before, `full`
 */
export const refresh: Operation<[refreshed: readonly Refreshed[]], Collected> = {
  name: "refresh",
  async plan(transaction, refreshed) {
    const edits: Edit[] = [];
    const contents = new Map<Hash, Uint8Array>();
    const collected: Positioned[] = [];
    const notices: Notice[] = [];
    let more = 0;
    for (const { place, reading, from, at } of refreshed) {
      const { position, entry } = await transaction.at(place);
      if (isBlank(reading.content)) throw new DrawerError(actErrors, "nothing/rewrite", { position });
      if (from !== entry.content) throw new DrawerError(actErrors, "conflict/rewrite", { position });
      const [before] = await transaction.read([{ position, entry }]);
      const made = await rewritten(transaction, before!, reading);
      const after = at === undefined ? made.after : { ...made.after, origin: { ...entry.origin, at } };
      for (const [name, bytes] of made.contents) contents.set(name, bytes);
      more += after.bytes - entry.bytes;
      edits.push({ id: entry.id, before: entry, after });
      collected.push({ position, entry: after });
      const isOfPieces = entry.parts !== undefined;
      const told =
        after.content === entry.content && at !== undefined
          ? notice(actNotices, "refreshed/moved", { position, at })
          : notice(actNotices, "rewritten", { position, snippet: after, isOfPieces });
      notices.push(...reading.notices, told);
    }
    const ids = new Set(edits.map(({ id }) => id));
    const room = await transaction.makeRoom({ count: 0, bytes: Math.max(0, more) }, ids);
    return {
      edits: [...room.leaving, ...edits],
      contents,
      result: { collected, notices: [...notices, ...room.notices] },
    };
  },
};
