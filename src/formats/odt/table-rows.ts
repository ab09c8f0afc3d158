import { columnLetters } from "../../content/cells.js";
import { DrawerError } from "../../content/error.js";
import { editErrors } from "../../messages/en/edit.js";
import { attributeAt, childPlaces, type XmlPlace } from "../office/xml-text.js";
import { repeated, rowsIn } from "./table-places.js";
import { linesXml } from "./text-pieces.js";

/** How rows are made that look like one that is there. */
export interface RowLike {
  /** Where others may stand below it. */
  readonly end: number;
  /** How its cells are made, from the first column on. */
  readonly cells: readonly {
    /** A cell with a line of text, or an empty one, in the look of the first line there. */
    readonly line: (text: string) => string;
    /** A cell with paragraphs. */
    readonly holding: (xml: string) => string;
  }[];
  /** A row of cells. */
  readonly row: (cells: readonly string[]) => string;
}

/**
 * What rows below one of a table are made like: it. Below the head of a table they begin what follows it.
 * @param at which row, from 0
 * @throws DrawerError `cannot-edit` where cells of it are merged, and where it stands for several
 */
export function rowLike(
  text: string,
  table: XmlPlace,
  at: number,
  { file, spot }: { readonly file: string; readonly spot: string },
): RowLike {
  let first = 0;
  const rows = rowsIn(text, table).map((place) => {
    const from = first;
    first += repeated(text, place, "rows");
    return { place, from, to: first - 1 };
  });
  const index = rows.findIndex(({ to }) => to >= at);
  const { place, to } = rows[index]!;
  const cells = childPlaces(text, place);
  const isCovered = (row: XmlPlace | undefined) =>
    row !== undefined && childPlaces(text, row).some(({ name }) => name === "covered-table-cell");
  const spans = cells.some(
    (cell) => Number(attributeAt(text, cell, "table:number-columns-spanned") ?? 1) > 1,
  );
  const isMerged = spans || isCoveredFromAbove(text, rows[index + 1]?.place) || (isCovered(place) && spans);
  if (isMerged || to !== at)
    throw new DrawerError(editErrors, "cannot-edit/merged", {
      ...{ file, spot },
      cells: `A${at + 1}:${columnLetters(cells.length - 1)}${at + 1}`,
    });
  const tag = text
    .slice(place.start, place.inner)
    .replace(/ (?:table:number-rows-repeated|xml:id)="[^"]*"/g, "");
  const head = place.parent?.name === "table-header-rows" ? place.parent : undefined;
  return {
    end: head ? head.end : place.end,
    cells: cells.flatMap((cell) => {
      const one = cellLike(text, cell);
      return Array.from({ length: repeated(text, cell, "columns") }, () => one);
    }),
    row: (made) => `${tag}${made.join("")}</table:table-row>`,
  };
}

/** Whether cells of a row are the lower parts of merged ones: those that no cell of its own spans. */
function isCoveredFromAbove(text: string, row: XmlPlace | undefined): boolean {
  if (!row) return false;
  let left = 0;
  for (const cell of childPlaces(text, row)) {
    const count = repeated(text, cell, "columns");
    if (cell.name === "table-cell")
      left = Number(attributeAt(text, cell, "table:number-columns-spanned") ?? 1) - 1;
    else if (left >= count) left -= count;
    else return true;
  }
  return false;
}

function cellLike(text: string, cell: XmlPlace): RowLike["cells"][number] {
  const inner = text.slice(cell.inner, cell.innerEnd);
  const style = attributeAt(text, cell, "table:style-name");
  const open = `<table:table-cell${style === undefined ? "" : ` table:style-name="${style}"`} office:value-type="string">`;
  const paragraph = /<text:p\b[^>]*?( text:style-name="[^"]*")/.exec(inner)?.[1] ?? "";
  const holding = (xml: string) => `${open}${xml}</table:table-cell>`;
  return {
    holding,
    line: (line) =>
      holding(line === "" ? `<text:p${paragraph}/>` : `<text:p${paragraph}>${linesXml(line)}</text:p>`),
  };
}
