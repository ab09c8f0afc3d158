import type { Content, Flow } from "../content/model.js";
import type { Notice, Reading } from "../content/notice.js";
import type { Separator } from "./delimited/separator.js";
import type { DocumentEditor, SheetEditor, TextEditor } from "./edit.js";
import type { Template } from "./fill.js";
import type { ReadSheet } from "./office/sheet.js";
import type { WriteInput, WriteResult } from "./write-input.js";

/** What a file holds that was read: a document, or the sheets of a workbook. */
export type ReadFile = ReadDocument | { readonly sheets: readonly ReadSheet[] };

/** A document that was read, or that is read as far as it is asked for. */
export interface ReadDocument extends Reading {
  /** Its title, where it says one. */
  readonly title?: string;
  /** Those of its notices that are about these of its flows; nothing where it has none of any. */
  readonly noticesOf?: (flows: readonly Flow[]) => Notice[];
  /** Its flows while it is read; left out where it was read whole. */
  readonly open?: OpenFlows;
  /** Its pages, where they are fixed. */
  readonly pages?: DocumentPages;
  /** The files that are attached to it. */
  readonly attached?: readonly AttachedFile[];
}

/** A file that is attached to another. */
export interface AttachedFile {
  readonly name: string;
  readonly bytes: Uint8Array;
  /** The name of a format that it is of, or an ending of its files, where its own name does not say it. */
  readonly type?: string;
}

/** The pages of a document whose pages are fixed. */
export interface DocumentPages {
  readonly count: number;
  /**
   * The flows of some pages, counting from 1, whatever else has been read.
   * @throws DrawerError `unreadable`, `too-large`
   */
  flowsOf(from: number, to: number): readonly Flow[];
  /** The page that a flow begins on. */
  pageOf(flow: Flow): number | undefined;
}

/** The flows of a document that is read piece by piece. */
export interface OpenFlows {
  /** Those that have been read, to which others are added. */
  readonly flows: readonly Flow[];
  /** How many of them, from the first, will not change any more. */
  readonly settled: number;
  /** Whether all of the document has been read. */
  readonly isRead: boolean;
  /**
   * Reads on by a piece.
   * @throws DrawerError `unreadable`, `too-large`
   */
  readOn(): void;
  /** The numbers of the elements of the document's main part that a flow was made of, in their order. */
  elementsOf(flow: Flow): readonly number[];
  /** Content made of these flows as it is given to others: with the bytes of its pictures, by their hashes. */
  giveOut(content: Content): { content: Content; pictures: ReadonlyMap<string, Uint8Array> };
}

/** Hears how far a file has been read: how many bytes of the part that is being read, and of how many. What it throws ends the reading. */
export type OnProgress = (read: number, of: number) => void;

/** What is known of a file that its bytes do not say, and who hears of its reading. */
export interface ReadOptions {
  /** What parts the columns of delimited text. */
  readonly separator?: Separator;
  readonly onProgress?: OnProgress;
  /** What opens a file that is locked. */
  readonly password?: string;
  /** Whether it is to be known of which elements of the file each flow was made, as it must be to change the file. */
  readonly places?: boolean;
  /** Whether it stands in another file: what stands in it in the same way is left out, since it may be itself. */
  readonly isInserted?: boolean;
}

export type { WriteInput, WriteResult } from "./write-input.js";

/** A format that files, clipboards and terminals hold content in. Its reader and its writer are loaded when first used. */
export interface Format {
  /** The endings of its files, the usual one first. */
  readonly extensions: readonly string[];
  /** Endings of files that are read as this format, and not written as it. */
  readonly readExtensions?: readonly string[];
  readonly mediaType: string;
  /** Whether its files are bytes, which nobody wants on a terminal. */
  readonly isBinary: boolean;
  /** What it can hold: everything, only rows, only lines of text, or one picture. */
  readonly holds: "structure" | "rows" | "lines" | "picture";
  /**
   * Reads a file.
   * @param bytes the whole file
   * @param file its name, for messages
   * @param options what is known of it that its bytes do not say
   * @throws DrawerError `unreadable`, `locked`, `too-large`, `unknown-format`
   */
  readonly read?: (bytes: Uint8Array, file: string, options?: ReadOptions) => Promise<ReadFile>;
  /** Writes content. What the format cannot hold is told in notices. */
  readonly write?: (input: WriteInput) => Promise<WriteResult>;
  /** Gives what changes files of it where they are told to. */
  readonly edit?: () => Promise<DocumentEditor | SheetEditor | TextEditor>;
  /** Gives what finds and fills named places in files of it. */
  readonly fill?: () => Promise<Template>;
}

/** Text whose last line is to be ended; an empty text stays empty. */
export function asLines(text: string, notices: readonly Notice[] = []): WriteResult {
  return { data: text === "" ? "" : `${text}\n`, notices };
}
