import { decodeContent, hashBytes, type Hash } from "../../content/encode.js";
import { contentFacts, secretName } from "../incoming.js";
import type { Edit } from "../model/change.js";
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
    const name = isPrivate ? secretName() : hashBytes(bytes);
    contents.set(name, bytes);
    for (const [hash, picture] of pictures) contents.set(hash, picture);
    // The pieces of a merged snippet would show what it says.
    const { parts: _, ...whole } = entry;
    const { privateAge: __, ...open } = entry;
    const facts = contentFacts(decodeContent(bytes), name, isPrivate);
    const after = isPrivate
      ? { ...whole, ...facts, private: true, privateAge: age }
      : { ...open, ...facts, private: false };
    return { id: entry.id, before: entry, after };
  });
  return { edits, contents, result: changing.map(({ position }) => position) };
}
