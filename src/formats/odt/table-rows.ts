import { mergedRow, type CellLike, type RowLike } from "../office/row-like.js";
import { attributeAt, childPlaces, type XmlPlace } from "../office/xml-text.js";
import { repeated, rowsIn } from "./table-places.js";
import { linesXml } from "./text-pieces.js";

/**
 * What rows below one of a table are made like: it. Below the head of a table they begin what follows it.
 * @param at which row, from 0
 * @throws DrawerError `cannot-edit` where cells of it are merged, and where it stands for several
 */
export function rowLike(
  text: string,
  table: XmlPlace,
  at: number,
  where: { readonly file: string; readonly spot: string },
): RowLike {
  let next = 0;
  const rows = rowsIn(text, table).map((place) => {
    next += repeated(text, place, "rows");
    return { place, to: next - 1 };
  });
  const index = rows.findIndex(({ to }) => to >= at);
  const { place, to } = rows[index]!;
  const cells = childPlaces(text, place);
  const spans = cells.some(
    (cell) => Number(attributeAt(text, cell, "table:number-columns-spanned") ?? 1) > 1,
  );
  const isMerged = spans || isCoveredFromAbove(text, rows[index + 1]?.place);
  if (isMerged || to !== at) throw mergedRow(where, at, cells.length);
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

function cellLike(text: string, cell: XmlPlace): CellLike {
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
