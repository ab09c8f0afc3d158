import { hkdf } from "@noble/hashes/hkdf.js";
import { sha256 } from "@noble/hashes/sha2.js";
import { randomBytes, utf8ToBytes } from "@noble/hashes/utils.js";
import { DrawerError } from "../content/error.js";
import { MINUTE } from "../messages/core/units.js";
import { syncErrors } from "../messages/en/sync.js";
import { isWord, wordsLike, wordsOf } from "./devices.js";
import { primitives } from "./primitives.js";
import { encodeBytes, signingPair, type KeyPair } from "./sealing.js";

/** How many words an invitation has: 110 bits. */
const WORDS = 10;

/** For how long an invitation is good, in milliseconds. */
export const INVITATION_LIFE = 10 * MINUTE;

/** An invitation: where the hub is, and a secret of words that can be read aloud. */
export interface Invitation {
  readonly hub: string;
  readonly words: readonly string[];
}

/** What the words of an invitation are good for. */
export interface InvitationKeys {
  /** The name under which it lies at the hub. */
  readonly id: string;
  /** What it is sealed under. */
  readonly sealing: Uint8Array;
  /** Who has this pair was invited. */
  readonly signing: KeyPair;
}

/** A new invitation to a hub. */
export function newInvitation(hub: string): Invitation {
  return { hub, words: wordsOf(randomBytes(14), WORDS) };
}

/** An invitation as it is handed on: the address of the hub, and the words. */
export function writeInvitation({ hub, words }: Invitation): string {
  return `${hub} ${words.join(" ")}`;
}

/** The address of the hub's page at which a browser joins by this invitation. What stands after `#` is sent to nobody. */
export function invitationLink(invitation: string): string {
  const [hub] = invitation.split(" ", 1);
  return `${hub}/#${encodeURIComponent(invitation)}`;
}

/**
 * Reads an invitation, as it was handed on or as somebody typed it who heard it.
 * @param hub the address of the hub where the invitation does not say it
 * @throws DrawerError `invitation` when it is none
 */
export function readInvitation(text: string, hub?: string): Invitation {
  const parts = text.trim().split(/[\s,]+/);
  const address = parts.find((part) => part.includes("://")) ?? hub;
  const words = parts.filter((part) => !part.includes("://")).map((word) => word.toLowerCase());
  const wrong = words.find((word) => !isWord(word));
  if (wrong !== undefined && words.length > 1)
    throw new DrawerError(syncErrors, "invitation/word", { word: wrong, like: wordsLike(wrong) });
  if (words.length !== WORDS)
    throw new DrawerError(syncErrors, "invitation/words", { count: words.length, of: WORDS });
  if (address === undefined) throw new DrawerError(syncErrors, "invitation/hub", {});
  return { hub: checkHub(address), words };
}

/**
 * The address of a hub, without a slash at its end.
 * @throws DrawerError `bad-option` when it is none
 */
export function checkHub(address: string): string {
  const url = URL.canParse(address) ? new URL(address) : undefined;
  const isWeb = url?.protocol === "http:" || url?.protocol === "https:";
  if (!isWeb || url.username !== "" || url.search !== "" || url.hash !== "")
    throw new DrawerError(syncErrors, "bad-option/hub", { address });
  return url.href.replace(/\/+$/, "");
}

/** The cost of trying words: 32 MB and a tenth of a second each (RFC 7914). */
const COST = { N: 2 ** 15, r: 8, p: 1 };

/** What the words of an invitation are good for. */
export async function keysOf({ words }: Invitation): Promise<InvitationKeys> {
  const secret = await primitives.scrypt(words.join(" "), "drawer invitation", COST);
  const derived = (what: string, length: number) =>
    hkdf(sha256, secret, undefined, utf8ToBytes(`drawer invitation ${what}`), length);
  return {
    id: encodeBytes(derived("name", 16)),
    sealing: derived("sealing", 32),
    signing: signingPair(derived("signing", 32)),
  };
}
