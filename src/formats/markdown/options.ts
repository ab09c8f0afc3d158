import type { NoteNumbers } from "../../content/notes.js";

/** How Markdown is to be written. */
export interface MarkdownOptions {
  /** Returns the address under which a picture can be reached. Without it the alternative text stands for the picture. */
  readonly pictureAddress?: (hash: string) => string | undefined;
}

/** @internal How a line is to be written: notes are numbered from its beginning on. */
export interface LineOptions extends MarkdownOptions {
  readonly notes: NoteNumbers;
}
