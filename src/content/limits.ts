import { contentErrors } from "../messages/en/content.js";
import { checkText } from "./check.js";
import { defined } from "./defined.js";
import { DrawerError } from "./error.js";

/** How much a reader takes in before it refuses with a sentence instead of exhausting the machine. */
export const LIMITS = {
  /** Characters of text, HTML or Markdown. */
  characters: 32 * 1024 * 1024,
  /** How deep elements may stand in each other. Browsers stop at the same depth. */
  depth: 512,
  /** Rules of the style sheets in one payload; those after them are not read. */
  rules: 10_000,
  /** Cells of one table or sheet, spans counted as the cells they cover. */
  cells: 1_000_000,
  /** Bytes of a file, or of what is piped in. */
  bytes: 256 * 1024 * 1024,
  /** Elements of one part of a document. */
  elements: 3_000_000,
  /** Signs of emphasis and of links in one paragraph of Markdown, and the lines of a quote that do not say so. */
  signs: 1000,
  /** How deep quotes and lists of Markdown may stand in each other. */
  markers: 64,
} as const;

/** Refuses text longer than {@link LIMITS} allows. `what` names it in the message. */
export function checkLength(text: string, what: string): void {
  checkText(what, text);
  if (text.length > LIMITS.characters) {
    throw new DrawerError(contentErrors, "too-large/characters", {
      what,
      characters: text.length,
      most: LIMITS.characters,
    });
  }
}

/** Refuses more bytes than {@link LIMITS} allows. Without a file they are those of standard input. */
export function checkBytes(bytes: number, file?: string): void {
  if (bytes > LIMITS.bytes)
    throw new DrawerError(contentErrors, "too-large/bytes", { ...defined({ file }), most: LIMITS.bytes });
}
