import { DrawerError } from "./error.js";
import { grouped } from "./number.js";

/** How much a reader takes in before it refuses with a sentence instead of exhausting the machine. */
export const LIMITS = {
  /** Characters of text, HTML or Markdown. */
  characters: 32 * 1024 * 1024,
  /** How deep elements may stand in each other. Browsers stop at the same depth. */
  depth: 512,
  /** Rules of the style sheets in one payload; those after them are not read. */
  rules: 10_000,
  /** Cells of one table, spans counted as the cells they cover. */
  cells: 2_000_000,
} as const;

/** Refuses text longer than {@link LIMITS} allows. `what` names it in the message. */
export function checkLength(text: string, what: string): void {
  if (text.length > LIMITS.characters) {
    throw new DrawerError(
      "too-large",
      `This ${what} has ${grouped(text.length)} characters; Drawer takes at most ` +
        `${grouped(LIMITS.characters)} at once. Collect it in parts.`,
    );
  }
}
