import { checkText } from "../../content/check.js";
import { plainName } from "../../content/controls.js";
import { canonicalJson, type Hash } from "../../content/encode.js";
import { DrawerError } from "../../content/error.js";
import type { Kind } from "../../content/kind.js";
import type { Origin } from "../../content/origin.js";
import { drawerErrors } from "../../messages/en/drawer.js";

export type { Origin } from "../../content/origin.js";

/**
 * A snippet as its drawer keeps it: all but the content itself, which is stored once, under its hash. A drawer's whole
 * state is a set of entries.
 */
export interface Entry {
  /** UUID version 7. */
  readonly id: string;
  /** The name of the drawer it lies in. */
  readonly drawer: string;
  /** A fractional key: entries stand in the order of these strings, compared by code unit. No two are equal in one drawer. */
  readonly order: string;
  readonly kind: Kind;
  /** The beginning of what it says, on one line: at most 280 characters. */
  readonly text: string;
  readonly content: Hash;
  /** The hashes of the pictures in the content. */
  readonly pictures?: readonly Hash[];
  /** Bytes of the content and its pictures. */
  readonly bytes: number;
  readonly label?: string;
  readonly kept: boolean;
  readonly private: boolean;
  /** For a private one that does not go by the drawer's rule: how long it stays, in milliseconds; `null` until a person says. */
  readonly privateAge?: number | null;
  readonly origin: Origin;
  /** ISO 8601, in UTC. */
  readonly collectedAt: string;
  /** For a snippet made of several: these, as they were, so that it can be split into them again. */
  readonly parts?: readonly Entry[];
}

/** The hashes of all contents that an entry needs, those of its parts included. */
export function hashesOf({ content, pictures = [], parts = [] }: Entry): Hash[] {
  return [content, ...pictures, ...parts.flatMap(hashesOf)];
}

/** An entry and the entries it was made of, and what those were made of. */
export function piecesOf(entry: Entry): Entry[] {
  return [entry, ...(entry.parts ?? []).flatMap(piecesOf)];
}

/** How many characters the name of a drawer has at most. */
const NAME_LENGTH = 200;

/**
 * The name of a drawer, without spaces around it.
 * @throws DrawerError `bad-option` for a name that is blank, too long, or has control characters in it
 */
export function checkDrawerName(name: string): string {
  checkText("name", name);
  const plain = plainName(name, NAME_LENGTH);
  if (plain === undefined) throw new DrawerError(drawerErrors, "bad-option/drawer-name", {});
  return plain;
}

/** How many characters of a snippet its entry carries. */
export const TEXT_LENGTH = 280;

/** An entry as canonical JSON: two entries are the same when these are. Null for no entry. */
export function encodeEntry(entry: Entry | null): string | null {
  return entry && canonicalJson(entry);
}
