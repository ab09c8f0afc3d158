import { beginning } from "../content/beginning.js";
import { checkValue } from "../content/check.js";
import { withoutControls } from "../content/controls.js";
import { encodeContent, hashBytes, type Hash } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import { kindOf } from "../content/kind.js";
import { loadedOnce } from "../content/loaded-once.js";
import type { Content } from "../content/model.js";
import type { Reading } from "../content/notice.js";
import { picturesOf } from "../content/traverse.js";
import { actErrors } from "../messages/en/acts.js";
import { MASK } from "./mask.js";
import { TEXT_LENGTH, type Entry, type Origin } from "./model/entry.js";
import { newId } from "./model/ids.js";
import type { SecretKind } from "./secret.js";
import type { Store } from "./store.js";

/** Something to collect: what was read, where it came from, and what the user said of it. */
export interface Incoming extends Reading {
  readonly origin: Origin;
  readonly label?: string;
  /** Whether it is private, where the user or the source has said so; otherwise it is told from how it looks. */
  readonly private?: boolean;
  /**
   * Whether it stays when it is private, until a person says otherwise: since one has made it so, or since it was cut, and nothing but
   * the drawer holds it.
   */
  readonly stays?: boolean;
}

/**
 * Checks that these can be collected.
 * @throws DrawerError `bad-option` for what is no piece: a text, say, that was not read
 */
export function checkIncoming(incoming: readonly Incoming[]): void {
  const isText = (value: unknown) => value === undefined || typeof value === "string";
  const isPiece = (piece: Partial<Incoming> | null) =>
    Array.isArray(piece?.content) &&
    Array.isArray(piece.notices) &&
    isText(piece.label) &&
    typeof piece.origin === "object" &&
    piece.origin !== null &&
    Object.values(piece.origin).every(isText);
  const wrong = Array.isArray(incoming) ? incoming.find((piece) => !isPiece(piece)) : incoming;
  const isRight = Array.isArray(incoming) && incoming.every(isPiece);
  checkValue("incoming", wrong, isRight, "a list of what was read, each with its origin");
}

/** An entry before it has a place in a drawer, with the bytes of its content and pictures. */
export interface Prepared {
  readonly entry: Omit<Entry, "order">;
  readonly blobs: ReadonlyMap<Hash, Uint8Array>;
  /** The hash of its content, also when it is private and stored under another name. */
  readonly hash: Hash;
  /** What it looked like to be, when it was made private for that. */
  readonly looks?: SecretKind | typeof SAME_AS_PRIVATE;
}

/** Why a piece is made private that says what a private snippet says. */
export const SAME_AS_PRIVATE = "known";

/** What looks for secrets, loaded when it is needed. */
export const detection = loadedOnce(() => import("./secret.js"));

/** Prepares an entry of what comes in, for a drawer. `detect` says whether to look for secrets; what does is loaded then. */
export async function prepare(incoming: Incoming, drawer: string, detect: boolean): Promise<Prepared> {
  const { content, pictures } = incoming;
  const label = incoming.label === undefined ? "" : cleanLabel(incoming.label);
  const origin = cleanOrigin(incoming.origin);
  const bytes = encodeContent(content);
  const hash = hashBytes(bytes);
  const secret = incoming.private === undefined && detect ? await detection() : undefined;
  const looks = secret?.looksSecret(content);
  // What is a secret goes soon; what only holds one among other things is somebody's letter or table.
  const stays = incoming.stays ?? (looks !== undefined && !secret!.isSecretAlone(content, looks));
  const isPrivate = incoming.private ?? looks !== undefined;
  const hashes = [...new Set(picturesOf(content).map((picture) => picture.hash))].filter((each) =>
    pictures.has(each),
  );
  const name = isPrivate ? secretName() : hash;
  const blobs = new Map([[name, bytes]]);
  for (const each of hashes) blobs.set(each, pictures.get(each)!);
  const entry = {
    id: newId(),
    drawer,
    ...contentFacts(content, name, isPrivate),
    ...(hashes.length > 0 && { pictures: hashes }),
    bytes: [...blobs.values()].reduce((sum, blob) => sum + blob.length, 0),
    ...(label && { label }),
    kept: false,
    private: isPrivate,
    ...(isPrivate && stays && { privateAge: null }),
    origin,
    collectedAt: new Date().toISOString(),
  };
  return { entry, blobs, hash, ...(looks && { looks }) };
}

/** What an entry says of its content. Of a private one it says nothing that the content says. */
export function contentFacts(
  content: Content,
  name: Hash,
  isPrivate: boolean,
): Pick<Entry, "kind" | "text" | "content"> {
  return { kind: kindOf(content), text: isPrivate ? MASK : beginning(content, TEXT_LENGTH), content: name };
}

/**
 * A name under which the content of a private snippet is stored: a random one, because from the hash of something as
 * short as a code the code itself could be found by trying them all.
 */
export function secretName(): Hash {
  return hashBytes(crypto.getRandomValues(new Uint8Array(32)));
}

/** The hash of an entry's content; a private one is stored under another name. */
export async function contentHash(store: Store, entry: Entry): Promise<Hash> {
  if (!entry.private) return entry.content;
  const bytes = (await store.contents([entry.content])).get(entry.content);
  return bytes ? hashBytes(bytes) : entry.content;
}

/** How long a label may be, in characters. */
const LABEL_LENGTH = 200;

/**
 * A label on one line, without control characters.
 * @throws DrawerError `bad-option` when it is too long
 */
export function cleanLabel(label: string): string {
  const clean = withoutControls(label).replace(/\s+/g, " ").trim();
  if (clean.length > LABEL_LENGTH)
    throw new DrawerError(actErrors, "bad-option/label", { most: LABEL_LENGTH });
  return clean;
}

/** An origin whose words are on one line and without control characters, as titles and file names may have them. */
export function cleanOrigin(origin: Origin): Origin {
  const entries = Object.entries(origin) as [keyof Origin, string][];
  return Object.fromEntries(
    entries.map(([name, words]) => [name, withoutControls(words).replace(/[\t\n]+/g, " ")]),
  );
}
