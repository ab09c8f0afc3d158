import type { Rectangle } from "../content/cells.js";
import type { CellValue } from "../content/model.js";
import type { Notice } from "../content/notice.js";
import type { Incoming } from "../drawer/incoming.js";
import type { FormatName } from "../formats/registry.js";
import type { Part } from "./parts.js";
import type { Unit, Units } from "./units.js";

/**
 * A document or workbook: what it holds, part by part and spot by spot. Documents and workbooks of office programs are read as far as
 * what is asked of them needs, when it is asked: what is wrong with a file may show only then.
 */
export interface Source {
  readonly name: string;
  readonly format: FormatName;
  /** The document's title, where it says one. */
  readonly title?: string;
  /** What could not be read of it. */
  readonly notices: readonly Notice[];
  /** Its sheets, where it is a workbook or a table of its own. */
  readonly sheets?: readonly SourceSheet[];
  /**
   * Its parts, each with its spot.
   * @throws DrawerError `unreadable`, `too-large`
   */
  parts(): Part[];
  /**
   * What stands at a spot, or all of it, as it can be collected: with where it comes from.
   * @throws DrawerError `bad-spot`, `no-spot`, `unreadable`, `too-large`
   */
  at(spot?: string): Incoming;
  /**
   * Reads the attached file that a spot stands in (`a1`, `a1!p3`), or finds the file's named places (`name:Wind`), so that the spot can
   * be asked for; any other spot needs nothing.
   * @throws DrawerError `no-spot`; all that `readSource` throws of the attached file
   */
  open(spot: string): Promise<void>;
  /**
   * The spots that are written, each as this source calls it: several ranges of a sheet may be parted by commas, the
   * name of a sheet may be in any case.
   * @throws DrawerError `bad-spot`, `no-spot`
   */
  spots(written: string): string[];
  /**
   * The spots of each row, cell, paragraph, item or line at a spot, or in all of it, in their order; what is blank has none.
   * Who takes a document by its paragraphs is told of the tables and pictures that are none.
   * @throws DrawerError `no-spot` when there is none of them; `bad-spot`, `unreadable`, `too-large`
   */
  each(unit: Unit, spot?: string): Units;
}

/** A sheet of a source, for those who choose cells of it. */
export interface SourceSheet {
  readonly name: string;
  /** The rectangle that holds everything on it; nothing for an empty one. */
  readonly used: Rectangle | undefined;
  /** The rectangle that its first rows take, from the first that holds something on, for which no more is read; nothing for an empty one. */
  head(rows: number): Rectangle | undefined;
  /** What the cells of a rectangle say, row by row. Where a merged cell goes on, it says nothing. */
  texts(cells: Rectangle): string[][];
  /** The typed values that the cells of a rectangle hold, row by row; nothing for a text or a blank one. */
  values(cells: Rectangle): (CellValue | undefined)[][];
  /** The spot of a rectangle of it. */
  spot(cells: Rectangle): string;
}
