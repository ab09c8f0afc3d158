import { makeCell, makeTable } from "../../content/make-table.js";
import type { Cell, Content, Row, Table } from "../../content/model.js";

/** Edges of cells as near as this are the same, in twentieths of a point. */
const SAME = 40;

/** Paper's own colour, which says nothing of a cell. */
const WHITE = "#ffffff";

/** What a row says of a cell before its text. */
interface Definition {
  right: number;
  /** Whether it goes on from the cell above, or from the one to its left. */
  isBelow: boolean;
  isBeside: boolean;
  /** The number of its colour. */
  background?: number;
}

interface ReadCell extends Definition {
  readonly left: number;
  readonly flows: Content;
}

/** Builds a table out of the words of its rows (RTF 1.9.1, Table Definitions). */
export class RowBuilder {
  #rows: { cells: ReadCell[]; isHeader: boolean }[] = [];
  #left = 0;
  #isHeader = false;
  #definitions: Definition[] = [];
  #next: Omit<Definition, "right"> = { isBelow: false, isBeside: false };
  #cells: Content[] = [];

  /** Takes a word that says something of a row; returns whether it does. */
  word(name: string, number = 0): boolean {
    switch (name) {
      case "trowd":
        [this.#definitions, this.#left, this.#isHeader] = [[], 0, false];
        this.#next = { isBelow: false, isBeside: false };
        return true;
      case "trleft":
        this.#left = number;
        return true;
      case "trhdr":
        this.#isHeader = true;
        return true;
      case "clmrg":
        this.#next.isBeside = true;
        return true;
      case "clvmrg":
        this.#next.isBelow = true;
        return true;
      case "clcbpat":
        this.#next.background = number;
        return true;
      case "cellx":
        this.#definitions.push({ ...this.#next, right: number });
        this.#next = { isBelow: false, isBeside: false };
        return true;
      default:
        return false;
    }
  }

  cell(flows: Content): void {
    this.#cells.push(flows);
  }

  endRow(): void {
    let left = this.#left;
    const cells = this.#cells.splice(0).map((flows, at): ReadCell => {
      const definition = this.#definitions[at] ?? { right: left + 1000, isBelow: false, isBeside: false };
      const cell = { ...definition, left, flows };
      left = definition.right;
      return cell;
    });
    if (cells.length > 0) this.#rows.push({ cells, isHeader: this.#isHeader });
  }

  /**
   * The table that has been read; nothing when there is none.
   * @param colors the colours of the file
   */
  take(colors: readonly (string | undefined)[]): Table | undefined {
    if (this.#cells.length > 0) this.endRow();
    const rows = this.#rows;
    if (rows.length === 0) return undefined;
    this.#rows = [];
    const edges: number[] = [];
    for (const edge of rows
      .flatMap(({ cells }) => cells.flatMap(({ left, right }) => [left, right]))
      .sort((a, b) => a - b))
      if (edges.length === 0 || edge - edges.at(-1)! > SAME) edges.push(edge);
    const columnAt = (edge: number) => edges.findLastIndex((each) => each <= edge + SAME / 2);
    /** The cells that may go on below, by the column that they begin in. */
    const open = new Map<number, { -readonly [Name in keyof Cell]: Cell[Name] }>();
    const made = rows.map(({ cells }): Row => {
      const row: { -readonly [Name in keyof Cell]: Cell[Name] }[] = [];
      for (const { left, right, flows, isBelow, isBeside, background } of cells) {
        const [from, to] = [columnAt(left), columnAt(right)];
        const above = isBelow ? open.get(from) : undefined;
        if (above) {
          above.rowspan = (above.rowspan ?? 1) + 1;
          continue;
        }
        const last = row.at(-1);
        if (isBeside && last) {
          last.colspan = (last.colspan ?? 1) + Math.max(1, to - from);
          continue;
        }
        const color = background === undefined ? undefined : colors[background];
        const cell = {
          ...makeCell(flows, {}),
          ...(to - from > 1 && { colspan: to - from }),
          ...(color !== undefined && color !== WHITE && { background: color }),
        };
        row.push(cell);
        open.set(from, cell);
      }
      return row;
    });
    const headers = rows.findIndex(({ isHeader }) => !isHeader);
    return makeTable(made, headers < 0 ? 0 : headers);
  }
}
