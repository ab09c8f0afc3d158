import type { Rectangle } from "../content/cells.js";
import type { Content } from "../content/model.js";
import type { WriteInput, WriteResult } from "./write-input.js";

/** Where a block goes: behind what stands at a spot, before it, or in its place. */
export const PUTS = ["after", "before", "instead"] as const;
/** Where a block goes. */
export type Put = (typeof PUTS)[number];

/** A file with something put in or taken out. */
export interface Edited extends WriteResult {
  readonly data: Uint8Array;
}

/** A place in a document: the elements that its parts were made of, or cells of a table. */
export interface DocumentPlace {
  /** As it is written, for messages. */
  readonly spot: string;
  /**
   * The numbers of the elements in the document's main part, in their order; in a document that is text, those of its parts, from 1.
   */
  readonly elements: readonly number[];
  /** The kinds of all parts of a document that is text, in their order: `p` for what says something, `t` for tables, `i` for pictures. */
  readonly kinds?: string;
  /** Of a table, the cells that are meant, counting from 0. */
  readonly cells?: Rectangle;
}

/** What is put into a document: content, and what stands around it in the file. */
export interface PutInput extends WriteInput {
  /** Whether it has the looks of the document: its styles of tables too. */
  readonly isHost: boolean;
}

/** What the cells of a row hold that is appended to a table. */
export type AppendedRow = readonly (Content | undefined)[];

/** How a document is changed. */
export interface EditOptions {
  /** Whether changes are marked as such, for somebody to accept; as the document says when it is left out. */
  readonly track?: boolean;
  /** When the change is made, for what is marked. */
  readonly at: Date;
}

/** Changes documents of a format where they are told to, and nothing else of them. */
export interface DocumentEditor {
  readonly type: "document";
  /**
   * Puts content into a document.
   * @throws DrawerError `unreadable`, `cannot-edit`
   */
  put(
    bytes: Uint8Array,
    file: string,
    place: DocumentPlace,
    put: Put | undefined,
    input: PutInput,
    options: EditOptions,
  ): Promise<Edited>;
  /**
   * Appends rows to a table below some of its cells, in the looks of the last row of those; where a format has it.
   * @param place the cells
   * @param rows what their cells hold, from the first column of the table on; nothing for one that stays empty
   * @throws DrawerError `unreadable`, `cannot-edit` where cells are merged there
   */
  append?(
    bytes: Uint8Array,
    file: string,
    place: DocumentPlace,
    rows: readonly AppendedRow[],
    input: PutInput,
    options: EditOptions,
  ): Promise<Edited>;
  /**
   * Takes what stands at places out of a document.
   * @throws DrawerError `unreadable`, `cannot-edit`
   */
  takeOut(
    bytes: Uint8Array,
    file: string,
    places: readonly DocumentPlace[],
    options: EditOptions,
  ): Promise<Edited>;
}

/** Cells of a sheet. */
export interface SheetPlace {
  /** As they are written, for messages. */
  readonly spot: string;
  /** The sheet's index in the workbook, from 0. */
  readonly sheet: number;
  readonly cells: Rectangle;
  /** Whether whole rows are meant. */
  readonly isRows?: boolean;
}

/** Which columns of a sheet rows are for that are appended. */
export interface AppendedColumns {
  /** Whether the rows end where a blank one stands, however many there are; they end where the place does otherwise. */
  readonly untilBlank: boolean;
  /** How many rows of the content name its columns: they are not appended. */
  readonly headerRows: number;
  /** The column of the sheet for each of the content, counting from 0. */
  readonly columns: readonly number[];
}

/** Changes workbooks of a format where they are told to, and nothing else of them. */
export interface SheetEditor {
  readonly type: "sheet";
  /**
   * Puts the rows of content right and down from the first cell of a place.
   * @param isInstead whether what stands there goes
   * @throws DrawerError `unreadable`, `cannot-edit`
   */
  put(
    bytes: Uint8Array,
    file: string,
    place: SheetPlace,
    input: WriteInput,
    isInstead: boolean,
  ): Promise<Edited>;
  /**
   * Appends rows below those of a place, whose first row names the columns: above its totals, where it has a row of them.
   * @throws DrawerError `unreadable`, `cannot-edit`
   */
  append(
    bytes: Uint8Array,
    file: string,
    place: SheetPlace,
    input: WriteInput,
    columns: AppendedColumns,
  ): Promise<Edited>;
  /**
   * Empties cells, or takes whole rows out.
   * @throws DrawerError `unreadable`, `cannot-edit`
   */
  takeOut(bytes: Uint8Array, file: string, places: readonly SheetPlace[]): Promise<Edited>;
}

/** Lines of plain text, from the first to the last, counting from 1. */
export interface LinesPlace {
  readonly spot: string;
  readonly from: number;
  readonly to: number;
}

/** Changes files of text where they are told to, and nothing else of them. */
export interface TextEditor {
  readonly type: "text";
  /** Puts content after, before or in the place of lines. */
  put(
    bytes: Uint8Array,
    file: string,
    place: LinesPlace,
    put: Put | undefined,
    input: WriteInput,
  ): Promise<Edited>;
  /** Takes lines out. */
  takeOut(bytes: Uint8Array, file: string, places: readonly LinesPlace[]): Promise<Edited>;
}
