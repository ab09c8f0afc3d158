import { mergedRow, type CellLike, type RowLike } from "../office/row-like.js";
import { childPlaces, type XmlPlace } from "../office/xml-text.js";
import { lookOf, runXml } from "./run-text.js";
import { unwrapped } from "./table-places.js";

/**
 * What rows below one of a table are made like: it.
 * @param at which row, from 0
 * @throws DrawerError `cannot-edit` where cells of it are merged
 */
export function rowLike(
  text: string,
  table: XmlPlace,
  at: number,
  where: { readonly file: string; readonly spot: string },
): RowLike<CellLike & { readonly place: XmlPlace }> {
  const rows = unwrapped(text, table, "tr");
  const place = rows[at]!;
  const propsOf = (cell: XmlPlace) =>
    /^\s*(?:<w:tcPr\b[^>]*\/>|<w:tcPr\b[\s\S]*?<\/w:tcPr>)/.exec(
      text.slice(cell.inner, cell.innerEnd),
    )?.[0] ?? "";
  const cells = unwrapped(text, place, "tc");
  const below = rows[at + 1];
  const isMerged =
    cells.some((cell) => /<w:gridSpan\b/.test(propsOf(cell))) ||
    (below &&
      unwrapped(text, below, "tc").some((cell) =>
        /<w:vMerge(?:\s+w:val="continue")?\s*\/>/.test(propsOf(cell)),
      ));
  if (isMerged) throw mergedRow(where, at, cells.length);
  const own = childPlaces(text, place).filter(({ name }) => name === "trPr" || name === "tblPrEx");
  const rowProps = own
    .map(({ start, end }) => text.slice(start, end))
    .join("")
    .replace(/<w:(?:tblHeader|ins|del|cnfStyle)\b[^>]*\/>/g, "");
  return {
    end: place.end,
    cells: cells.map((cell) => {
      const props = propsOf(cell).replace(/<w:(?:vMerge|cellIns|cellDel)\b[^>]*\/>/g, "");
      const inner = text.slice(cell.inner, cell.innerEnd);
      const paragraph = /<w:p(?:\s[^>]*)?>\s*(<w:pPr>[\s\S]*?<\/w:pPr>)?/.exec(inner)?.[1] ?? "";
      const holding = (xml: string) => `<w:tc>${props}${xml === "" ? "<w:p/>" : xml}</w:tc>`;
      return {
        place: cell,
        holding,
        line: (line) => holding(`<w:p>${paragraph}${runXml(line, lookOf(inner))}</w:p>`),
      };
    }),
    row: (made) => `<w:tr>${rowProps}${made.join("")}</w:tr>`,
  };
}
