import { encodeContent, hashBytes, type Hash } from "../../content/encode.js";
import { DrawerError } from "../../content/error.js";
import type { Content } from "../../content/model.js";
import { actErrors } from "../../messages/en/acts.js";
import { contentFacts } from "../incoming.js";
import type { Entry } from "../model/entry.js";
import type { Positioned } from "../store.js";

/** What an entry says of a content that was made of several snippets, and the bytes of that content. */
export function madeOf(content: Content, parts: readonly Entry[]) {
  const bytes = encodeContent(content);
  const hash = hashBytes(bytes);
  const pictures = [...new Set(parts.flatMap((part) => part.pictures ?? []))];
  const facts = {
    ...contentFacts(content, hash, false),
    ...(pictures.length > 0 && { pictures }),
    bytes: bytes.length + parts.reduce((sum, part) => sum + part.bytes, 0),
    parts,
  };
  return { facts, contents: new Map<Hash, Uint8Array>([[hash, bytes]]) };
}

/**
 * Refuses to join private snippets: they go soon, and would take with them what they were joined to.
 * @throws DrawerError `private`
 */
export function refusePrivate(joining: readonly Positioned[], operation: "append" | "merge"): void {
  const found = joining.find(({ entry }) => entry.private);
  if (found) throw new DrawerError(actErrors, "private/join", { position: found.position, operation });
}
