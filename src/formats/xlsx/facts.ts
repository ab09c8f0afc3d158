import { columnNumber } from "../../content/cells.js";
import type { SheetFacts } from "../office/sheet.js";

/** Elements that a sheet's XML is looked through for (ECMA-376 part 1, 18.3.1): columns, rows and cells. */
const ELEMENT = /<(?:\w+:)?(col|row|c)\s([^>]*)>/g;
const PLACE = /\br="([A-Z]+)(\d+)"/;
const LOOK = /\bs="(\d+)"/;

/** What a sheet's file says besides what its cells hold. */
export interface XlsxFacts extends SheetFacts {
  /** The numbers of the looks of cells, by {@link placeKey}. */
  readonly looks: ReadonlyMap<number, number>;
}

/** A place as one number; a sheet has 16,384 columns at most. */
export function placeKey(row: number, column: number): number {
  return row * 16_384 + column;
}

/** What a sheet's file says besides what its cells hold: their looks, what is hidden, and which formulas have no result. */
export function sheetFacts(xml: string, isHidden: boolean): XlsxFacts {
  const looks = new Map<number, number>();
  const hiddenRows = new Set<number>();
  const hiddenColumns = new Set<number>();
  const unresolved: { row: number; column: number }[] = [];
  for (const match of xml.matchAll(ELEMENT)) {
    const [element, name, attributes] = match as unknown as [string, string, string];
    if (name === "c") {
      const place = PLACE.exec(attributes);
      if (!place) continue;
      const [row, column] = [Number(place[2]) - 1, columnNumber(place[1]!)];
      const look = LOOK.exec(attributes)?.[1];
      if (look !== undefined) looks.set(placeKey(row, column), Number(look));
      if (element.endsWith("/>")) continue;
      const start = match.index + element.length;
      // A formula is the first thing in a cell, and its result follows it.
      if (xml[start + 1] === "f" && isWithoutResult(xml, start, xml.indexOf("</", start)))
        unresolved.push({ row, column });
    } else if (/\bhidden="(?:1|true)"/.test(attributes)) {
      if (name === "row") hiddenRows.add(Number(/\br="(\d+)"/.exec(attributes)?.[1]) - 1);
      else {
        const [from, to] = ["min", "max"].map((end) =>
          Number(new RegExp(`\\b${end}="(\\d+)"`).exec(attributes)?.[1]),
        );
        // To the end of the sheet, there is nothing to hide.
        for (let column = from!; column <= Math.min(to!, from! + 1000); column++)
          hiddenColumns.add(column - 1);
      }
    }
  }
  return { isHidden, hiddenRows, hiddenColumns, unresolved, looks };
}

function isWithoutResult(xml: string, start: number, end: number): boolean {
  const cell = xml.slice(start, xml.indexOf("</c>", end));
  return !/<(?:v|is)[\s>]/.test(cell) || /<v\s*\/>|<v><\/v>/.test(cell);
}
