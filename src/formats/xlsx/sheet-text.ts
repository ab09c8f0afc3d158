import { columnLetters, columnNumber } from "../../content/cells.js";
import type { TextEdit } from "../office/xml-text.js";

/** A row as its sheet's text has it: where it begins, what stands in it, and where it ends. Rows and columns count from 0. */
export interface RowPlace {
  readonly row: number;
  readonly start: number;
  readonly inner: number;
  readonly innerEnd: number;
  readonly end: number;
}

/** A cell as its row's text has it. */
export interface CellPlace {
  readonly column: number;
  readonly start: number;
  readonly end: number;
  /** Its whole text. */
  readonly xml: string;
}

/** The text of a sheet (ECMA-376 part 1, 18.3.1) in which cells are written. */
export class SheetText {
  /** What stands before the names of its elements: `x:`, or nothing. */
  readonly prefix: string;

  constructor(readonly text: string) {
    this.prefix = /<([\w.-]+:)?worksheet[\s>]/.exec(text)?.[1] ?? "";
  }

  /** The rows that it has, from the first to the last that is wanted. */
  *rows(to = Infinity): Generator<RowPlace, void> {
    const tags = new RegExp(`<${this.prefix}row\\b([^>]*?)(/?)>`, "g");
    const ending = `</${this.prefix}row>`;
    let row = -1;
    for (let match = tags.exec(this.text); match; match = tags.exec(this.text)) {
      const [tag, facts, isAlone] = match;
      const named = /\sr="(\d+)"/.exec(facts!)?.[1];
      row = named === undefined ? row + 1 : Number(named) - 1;
      if (row > to) return;
      const inner = match.index + tag.length;
      const innerEnd = isAlone ? inner : this.text.indexOf(ending, inner);
      const end = isAlone ? inner : innerEnd + ending.length;
      yield { row, start: match.index, inner, innerEnd, end };
      tags.lastIndex = end;
    }
  }

  /** The cells of a row. */
  cells({ inner, innerEnd }: RowPlace): CellPlace[] {
    const { prefix } = this;
    const cells = new RegExp(`<${prefix}c(?=[\\s/>])([^>]*?)(?:/>|>[\\s\\S]*?</${prefix}c>)`, "g");
    const found: CellPlace[] = [];
    let column = -1;
    const text = this.text.slice(inner, innerEnd);
    for (const match of text.matchAll(cells)) {
      const named = /\sr="([A-Z]+)\d+"/.exec(match[1]!)?.[1];
      column = named === undefined ? column + 1 : columnNumber(named);
      const start = inner + match.index;
      found.push({ column, start, end: start + match[0].length, xml: match[0] });
    }
    return found;
  }

  /**
   * The edits that write cells, by their rows and columns; an empty text takes a cell out. Rows and cells that are not there are added
   * in their places.
   */
  writing(cells: ReadonlyMap<number, ReadonlyMap<number, string>>): TextEdit[] {
    const last = Math.max(...cells.keys());
    const left = new Map(cells);
    const edits: TextEdit[] = [];
    const newRows = (before: number, at: number) => {
      const added = [...left].filter(([row]) => row < before).sort(([one], [other]) => one - other);
      for (const [row] of added) left.delete(row);
      const text = added.map(([row, inRow]) => this.#rowXml(row, inRow)).join("");
      if (text !== "") edits.push({ from: at, to: at, text });
    };
    let after: number | undefined;
    for (const place of this.rows()) {
      newRows(place.row, place.start);
      after = place.end;
      const inRow = left.get(place.row);
      if (inRow) {
        left.delete(place.row);
        edits.push(...this.#rowEdits(place, inRow));
      }
      if (place.row > last) break;
    }
    if (left.size > 0) {
      const data = new RegExp(`<${this.prefix}sheetData\\s*(/?)>`).exec(this.text)!;
      const isBare = data[1] === "/";
      if (!isBare) newRows(Infinity, after ?? data.index + data[0].length);
      else {
        const rows = [...left]
          .sort(([one], [other]) => one - other)
          .map(([row, inRow]) => this.#rowXml(row, inRow));
        const text = `<${this.prefix}sheetData>${rows.join("")}</${this.prefix}sheetData>`;
        edits.push({ from: data.index, to: data.index + data[0].length, text });
      }
    }
    return edits;
  }

  #rowXml(row: number, cells: ReadonlyMap<number, string>): string {
    const inOrder = [...cells].sort(([one], [other]) => one - other).map(([, xml]) => xml);
    return `<${this.prefix}row r="${row + 1}">${inOrder.join("")}</${this.prefix}row>`;
  }

  #rowEdits(place: RowPlace, cells: ReadonlyMap<number, string>): TextEdit[] {
    const known = this.cells(place);
    const isAlone = place.inner === place.end;
    const edits: TextEdit[] = [];
    let added = "";
    for (const [column, xml] of [...cells].sort(([one], [other]) => one - other)) {
      const cell = known.find((each) => each.column === column);
      const next = known.find((each) => each.column > column);
      if (cell) edits.push({ from: cell.start, to: cell.end, text: xml });
      else if (next) edits.push({ from: next.start, to: next.start, text: xml });
      else added += xml;
    }
    // Columns that a row says it has are a hint, which holds no longer.
    const tag = this.text.slice(place.start, place.inner);
    const open = tag.replace(/\sspans="[^"]*"/, "").replace(/\s*\/>$/, ">");
    if (isAlone) return [{ from: place.start, to: place.end, text: `${open}${added}</${this.prefix}row>` }];
    if (open !== tag) edits.push({ from: place.start, to: place.inner, text: open });
    if (added !== "") edits.push({ from: place.innerEnd, to: place.innerEnd, text: added });
    return edits;
  }
}

/** A text of a sheet in which its size reaches as far as some cells. */
export function withSize(text: string, bottom: number, right: number): string {
  return text.replace(
    /(<(?:[\w.-]+:)?dimension\s+ref=")([A-Z]+)(\d+)(?::([A-Z]+)(\d+))?"/,
    (_, begin: string, left: string, top: string, toColumn = left, toRow = top) => {
      const column = columnLetters(Math.max(columnNumber(toColumn as string), right));
      return `${begin}${left}${top}:${column}${Math.max(Number(toRow), bottom + 1)}"`;
    },
  );
}
