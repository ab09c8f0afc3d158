import { encodeContent, hashBytes, type Hash } from "../../content/encode.js";
import { DrawerError } from "../../content/error.js";
import { notice } from "../../content/notice.js";
import type { Reading } from "../../content/notice.js";
import { isBlank, picturesOf } from "../../content/traverse.js";
import { actErrors, actNotices } from "../../messages/en/acts.js";
import { contentFacts, detection, secretName } from "../incoming.js";
import type { Entry } from "../model/entry.js";
import type { SnippetRef } from "../model/pick.js";
import type { Snippet } from "../snippets.js";
import type { Operation, Transaction } from "../transaction.js";
import type { Collected } from "./collect.js";

/**
 * Puts other words into a snippet, which stays where it is, with its label, its origin and its pieces.
 *
 * @param place the snippet
 * @param reading what it is to say
 * @param from what it said when it was read for this, by the name of its content; whatever it says now when it is left out
 * @throws DrawerError `no-position`, `nothing` when nothing is left of it, `conflict` when it says something else by now, `private`
 *   when it looks like a secret that it was not before, `full`
 */
export const rewrite: Operation<[place: SnippetRef, reading: Reading, from?: Hash], Collected> = {
  name: "rewrite",
  async plan(transaction, place, { content, pictures, notices }, from) {
    const { position, entry } = await transaction.at(place);
    if (isBlank(content)) throw new DrawerError(actErrors, "nothing/rewrite", { position });
    if (from !== undefined && from !== entry.content)
      throw new DrawerError(actErrors, "conflict/rewrite", { position });
    const before = await transaction.read([{ position, entry }]);
    if (hashBytes(encodeContent(content)) === hashBytes(encodeContent(before[0]!.content)))
      return {
        result: {
          collected: [{ position, entry }],
          notices: [...notices, notice(actNotices, "rewritten/same", { position })],
        },
      };
    const { after, contents } = await rewritten(transaction, before[0]!, { content, pictures });
    const room = await transaction.makeRoom({ count: 0, bytes: Math.max(0, after.bytes - entry.bytes) });
    if (room.leaving.some(({ id }) => id === entry.id))
      throw new DrawerError(actErrors, "full/rewrite", { position });
    const told = notice(actNotices, "rewritten", {
      position,
      snippet: after,
      isOfPieces: entry.parts !== undefined,
    });
    return {
      edits: [...room.leaving, { id: entry.id, before: entry, after }],
      contents,
      result: { collected: [{ position, entry: after }], notices: [...notices, told, ...room.notices] },
    };
  },
};

/**
 * A snippet that says something else, and what is stored for that.
 * @throws DrawerError `private` when it looks like a secret that it was not before
 */
export async function rewritten(
  transaction: Transaction,
  { position, entry, pictures: before }: Snippet,
  { content, pictures }: Pick<Reading, "content" | "pictures">,
): Promise<{ after: Entry; contents: Map<Hash, Uint8Array> }> {
  if (!entry.private && (await transaction.rules()).detect) {
    const looks = (await detection()).looksSecret(content);
    if (looks !== undefined) throw new DrawerError(actErrors, "private/rewrite", { position, looks });
  }
  const bytes = encodeContent(content);
  // What is private is stored under a name that tells nothing.
  const name = entry.private ? secretName() : hashBytes(bytes);
  const contents = new Map<Hash, Uint8Array>([[name, bytes]]);
  const held = new Set(entry.pictures);
  const kept = [...new Set(picturesOf(content).map(({ hash }) => hash))].filter(
    (hash) => held.has(hash) || pictures.has(hash),
  );
  for (const hash of kept) if (!held.has(hash)) contents.set(hash, pictures.get(hash)!);
  const { pictures: _, ...rest } = entry;
  // The pieces it can be split into again hold their own.
  const names = [...new Set([...kept, ...(entry.parts ?? []).flatMap((part) => part.pictures ?? [])])];
  const partBytes = (entry.parts ?? []).reduce((sum, part) => sum + part.bytes, 0);
  const pictureBytes = kept.reduce((sum, hash) => sum + (pictures.get(hash) ?? before.get(hash))!.length, 0);
  const after: Entry = {
    ...rest,
    ...contentFacts(content, name, entry.private),
    ...(names.length > 0 && { pictures: names }),
    bytes: bytes.length + pictureBytes + partBytes,
  };
  return { after, contents };
}
