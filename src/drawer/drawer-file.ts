import type { Hash } from "../content/encode.js";
import type { Content } from "../content/model.js";
import type { Origin } from "./model/entry.js";

/** What a drawer file says it is. */
export const FORMAT = "drawer-snippets";
/** The version of the form that this Drawer writes and reads. */
export const VERSION = 1;

/** How many snippets are read or written at once. */
export const PAGE = 250;

/** The first line. */
export interface Header {
  readonly format: typeof FORMAT;
  readonly version: number;
  readonly snippets: number;
}

/** What a line says of a snippet, or of one that it was merged from. */
export interface PartRecord {
  readonly label?: string;
  readonly kept?: true;
  readonly origin: Origin;
  readonly collectedAt: string;
  readonly content: Content;
  readonly parts?: readonly PartRecord[];
}

/** A line after the first: a snippet. */
export interface SnippetRecord extends PartRecord {
  readonly pictures?: Readonly<Record<Hash, string>>;
}

/** How a drawer file is read. */
export interface ImportOptions {
  /** What the file is called in messages. */
  readonly name?: string;
  /** Is told now and then how many of how many snippets have been read. */
  readonly progress?: (read: number, of: number) => void;
}

/** The lines of a drawer file, without their line ends. */
export type FileLines = AsyncIterable<string> | Iterable<string>;
