import type { Align, Cell, CellValue, Content } from "../../content/model.js";

/** How a cell of a sheet looks beside its text, and what it holds. */
interface CellFacts {
  readonly align: Align | undefined;
  readonly background: string | undefined;
  readonly value: CellValue | undefined;
}

/** A cell of a sheet. Numbers and days stand on the right where nothing says otherwise; white is no colour. */
export function sheetCell(flows: Content, { align: own, background: color, value }: CellFacts): Cell {
  const background = color === "#ffffff" ? undefined : color;
  if (flows.length === 0) return background ? { flows, background } : { flows };
  const align = own ?? (value && value.type !== "boolean" ? "right" : "left");
  // Most cells of a large sheet are one of these: written out, they take half the room.
  if (!background && !value && align === "left") return { flows };
  if (!background && value && align === "right") return { flows, align, value };
  return {
    flows,
    ...(align !== "left" && { align }),
    ...(background && { background }),
    ...(value && { value }),
  };
}
