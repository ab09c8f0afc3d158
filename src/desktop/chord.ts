import { DrawerError } from "../content/error.js";
import { desktopErrors } from "../messages/en/desktop.js";

/** The keys that are held while another is pressed, in the order in which they are written. */
export const MODIFIERS = ["Ctrl", "Alt", "Shift", "Super"] as const;
export type Modifier = (typeof MODIFIERS)[number];

/** A key, and those that are held with it. */
export interface Chord {
  readonly modifiers: readonly Modifier[];
  /** A letter in lower case, a digit, or a name of a key. */
  readonly key: string;
}

/** Keys that type nothing, which may be taken alone. */
const QUIET = [
  ...Array.from({ length: 24 }, (_, at) => `F${at + 1}`),
  "Pause",
  "Print",
  "ScrollLock",
  "Menu",
];
/** Keys with a name that programs use for typing and moving. */
const NAMED = ["Space", "Tab", "Enter", "Insert", "Delete", "Home", "End", "PageUp", "PageDown"];
const ARROWS = ["Up", "Down", "Left", "Right"];
const NAMES = [...QUIET, ...NAMED, ...ARROWS];

/**
 * Reads a key as people write it: `Super+F9`, `ctrl+alt+b`.
 * @throws DrawerError `bad-key` when there is no such key, or it is one that people type with
 */
export function parseChord(typed: string): Chord {
  const words = typed.split("+").map((word) => word.trim());
  const last = words.pop()!;
  const named = (names: readonly string[], word: string) =>
    names.find((name) => name.toLowerCase() === word.toLowerCase());
  const modifiers = words.map((word) => named(MODIFIERS, word) as Modifier | undefined);
  const key = /^[\p{L}\p{N}]$/u.test(last) ? last.toLowerCase() : named(NAMES, last);
  if (key === undefined || modifiers.includes(undefined))
    throw new DrawerError(desktopErrors, "bad-key", { typed });
  const isTyping = !modifiers.some((modifier) => modifier !== "Shift");
  if (isTyping && !QUIET.includes(key)) throw new DrawerError(desktopErrors, "bad-key/typing", { typed });
  return { modifiers: MODIFIERS.filter((modifier) => modifiers.includes(modifier)), key };
}

/** A key as it is written. */
export function chordText({ modifiers, key }: Chord): string {
  return [...modifiers, key.length === 1 ? key.toUpperCase() : key].join("+");
}
