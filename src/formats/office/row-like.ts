import { columnLetters } from "../../content/cells.js";
import { DrawerError } from "../../content/error.js";
import { editErrors } from "../../messages/en/edit.js";

/** How cells are made that look like one that is there. */
export interface CellLike {
  /** A cell with a line of text, or an empty one, in the look of the first line there. */
  readonly line: (text: string) => string;
  /** A cell with paragraphs. */
  readonly holding: (xml: string) => string;
}

/** How rows are made that look like one that is there. */
export interface RowLike<Cell extends CellLike = CellLike> {
  /** Where others may stand below it. */
  readonly end: number;
  /** How its cells are made, from the first column on. */
  readonly cells: readonly Cell[];
  /** A row of cells. */
  readonly row: (cells: readonly string[]) => string;
}

/** That cells of a row, which counts from 0, are merged, so that none like it are made. */
export function mergedRow(
  where: { readonly file: string; readonly spot: string },
  at: number,
  width: number,
) {
  const { file, spot } = where;
  const cells = `A${at + 1}:${columnLetters(width - 1)}${at + 1}`;
  return new DrawerError(editErrors, "cannot-edit/merged", { file, spot, cells });
}
