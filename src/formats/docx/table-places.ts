import type { Rectangle } from "../../content/cells.js";
import { childPlaces, type XmlPlace } from "../office/xml-text.js";

/** The cells of a table that lie in a rectangle and begin in it, row by row; those that a merged cell goes on in are no cells of their own. */
export function cellsIn(text: string, table: XmlPlace, { top, bottom, left, right }: Rectangle): XmlPlace[] {
  return unwrapped(text, table, "tr")
    .slice(top, bottom + 1)
    .flatMap((row) => {
      const inner = text.slice(row.inner, row.innerEnd);
      let column = Number(
        /^\s*<w:trPr>(?:(?!<\/w:trPr>)[\s\S])*?<w:gridBefore\b[^>]*w:val="(\d+)"/.exec(inner)?.[1] ?? 0,
      );
      return unwrapped(text, row, "tc").filter((cell) => {
        const props = /^\s*<w:tcPr>[\s\S]*?<\/w:tcPr>/.exec(text.slice(cell.inner, cell.innerEnd))?.[0] ?? "";
        const at = column;
        column += Math.max(1, Number(/<w:gridSpan\b[^>]*w:val="(\d+)"/.exec(props)?.[1] ?? 1));
        const isContinued = /<w:vMerge(?:\s+w:val="continue")?\s*\/>/.test(props);
        return !isContinued && at >= left && at <= right;
      });
    });
}

/** Elements of a name in another, those inside content controls and insertions too. */
export function unwrapped(text: string, parent: XmlPlace, name: string): XmlPlace[] {
  return childPlaces(text, parent).flatMap((child) => {
    if (child.name === name) return [child];
    return /^(sdt|sdtContent|ins|customXml)$/.test(child.name) ? unwrapped(text, child, name) : [];
  });
}
