import { decodeContent, hashBytes, type Hash } from "../../content/encode.js";
import { contentFacts, secretName } from "../incoming.js";
import type { Edit } from "../model/change.js";
import type { Entry } from "../model/entry.js";
import type { Plan, Transaction } from "../transaction.js";

/**
 * Plans to store the contents of the snippets of a pick under other names: random ones for private snippets, their
 * hashes for others. Returns the positions of those that change.
 * @param age how long those that become private stay, in milliseconds; null until a person says
 */
export async function setPrivate(
  transaction: Transaction,
  pick: string,
  isPrivate: boolean,
  age: number | null = null,
): Promise<Plan<number[]>> {
  const picked = await transaction.pick(pick);
  const changing = picked.filter(({ entry }) => entry.private !== isPrivate);
  // Reads each, so that one whose content is missing is refused rather than lost.
  const snippets = await transaction.read(changing);
  const blobs = await transaction.store.contents(changing.map(({ entry }) => entry.content));
  const contents = new Map<Hash, Uint8Array>();
  const edits = snippets.map(({ entry, pictures }): Edit => {
    const bytes = blobs.get(entry.content)!;
    for (const [hash, picture] of pictures) contents.set(hash, picture);
    const after = isPrivate ? hidden(entry, bytes, age) : shown(entry, bytes);
    contents.set(after.content, bytes);
    return { id: entry.id, before: entry, after };
  });
  return { edits, contents, result: changing.map(({ position }) => position) };
}

/**
 * An entry as a private one, whose content is stored under a name of chance.
 * @param bytes its content
 * @param age how long it stays, in milliseconds; null until a person says
 */
export function hidden(entry: Entry, bytes: Uint8Array, age: number | null): Entry {
  // The pieces of a merged snippet would show what it says.
  const { parts: _, ...whole } = entry;
  const facts = contentFacts(decodeContent(bytes), secretName(), true);
  return { ...whole, ...facts, private: true, privateAge: age };
}

function shown(entry: Entry, bytes: Uint8Array): Entry {
  const { privateAge: _, ...open } = entry;
  return { ...open, ...contentFacts(decodeContent(bytes), hashBytes(bytes), false), private: false };
}
