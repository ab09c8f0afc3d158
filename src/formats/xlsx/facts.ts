import { columnNumber } from "../../content/cells.js";
import type { SheetFacts } from "../office/sheet.js";

/** Tags that a sheet's XML is looked through for (ECMA-376 part 1, 18.3.1): columns, rows, cells and what stands in them. */
const TAG = /<(\/?)(?:\w+:)?(col|row|c|f|v|is)(?=[\s/>])((?:[^>"']|"[^"]*"|'[^']*')*?)(\/?)>/g;
const PLACE = /(?:^|\s)r=["']\$?([A-Za-z]+)\$?(\d+)["']/;
const ROW = /(?:^|\s)r=["'](\d+)["']/;
const LOOK = /(?:^|\s)s=["'](\d+)["']/;
const HIDDEN = /(?:^|\s)hidden=["'](?:1|true)["']/;
const SPAN = { min: /(?:^|\s)min=["'](\d+)["']/, max: /(?:^|\s)max=["'](\d+)["']/ };

/** What a sheet's file says besides what its cells hold. */
export interface XlsxFacts extends SheetFacts {
  /** The numbers of the looks of cells, by {@link placeKey}. */
  readonly looks: ReadonlyMap<number, number>;
}

/** A place as one number; a sheet has 16,384 columns at most. */
export function placeKey(row: number, column: number): number {
  return row * 16_384 + column;
}

/**
 * What a sheet's file says besides what its cells hold: their looks, what is hidden, and which formulas have no result. Where a row or
 * a cell does not say its place, it follows the one before it (18.3.1.73, 18.3.1.4).
 */
export function sheetFacts(xml: string, isHidden: boolean): XlsxFacts {
  const looks = new Map<number, number>();
  const hiddenRows = new Set<number>();
  const hiddenColumns = new Set<number>();
  const unresolved: { row: number; column: number }[] = [];
  let row = -1;
  let column = -1;
  /** Whether the cell that is open has a formula, and a result. */
  let [hasFormula, hasResult] = [false, false];
  const endCell = () => {
    if (hasFormula && !hasResult) unresolved.push({ row, column });
    hasFormula = hasResult = false;
  };
  for (const match of xml.matchAll(TAG)) {
    const [tag, isEnd, name = "", attributes = "", isWhole] = match;
    if (isEnd) {
      if (name === "c") endCell();
      continue;
    }
    switch (name) {
      case "row":
        row = numberIn(ROW, attributes, row + 2) - 1;
        column = -1;
        if (HIDDEN.test(attributes)) hiddenRows.add(row);
        break;
      case "c": {
        const place = PLACE.exec(attributes);
        if (place) [row, column] = [Number(place[2]) - 1, columnNumber(place[1]!.toUpperCase())];
        else column++;
        const look = numberIn(LOOK, attributes, 0);
        if (look > 0) looks.set(placeKey(row, column), look);
        if (isWhole) endCell();
        break;
      }
      case "f":
        hasFormula = true;
        break;
      case "v":
        hasResult ||= !isWhole && xml[match.index + tag.length] !== "<";
        break;
      case "is":
        hasResult = true;
        break;
      case "col": {
        if (!HIDDEN.test(attributes)) break;
        const from = numberIn(SPAN.min, attributes, 1);
        // To the end of the sheet, there is nothing to hide.
        const to = Math.min(numberIn(SPAN.max, attributes, from), from + 1000);
        for (let hidden = from; hidden <= to; hidden++) hiddenColumns.add(hidden - 1);
      }
    }
  }
  return { isHidden, hiddenRows, hiddenColumns, unresolved, looks };
}

/** A number among attributes; another where it is not there. */
function numberIn(attribute: RegExp, attributes: string, other: number): number {
  const said = attribute.exec(attributes)?.[1];
  return said === undefined ? other : Number(said);
}
