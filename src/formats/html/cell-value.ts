import type { CellValue } from "../../content/model.js";
import { isDateFormat, serialToDate } from "../../content/serial.js";
import { readNumber, readNumberFormat } from "./sheet-numbers.js";
import type { Declaration, HtmlTreeAdapter } from "./tree-adapter.js";

/** The attributes of a cell that say more than how it looks, by their names. */
export type CellAttributes = Readonly<Partial<Record<CellAttribute, string>>>;
type CellAttribute = (typeof NAMES)[number];

const NAMES = [
  ...(["colspan", "rowspan", "bgcolor", "sdval", "sdnum", "x:num"] as const),
  ...(["data-sheets-value", "data-sheets-numberformat"] as const),
] as const;
const ATTRIBUTES: ReadonlySet<string> = new Set(NAMES);

/** The attributes of a cell. */
export function cellAttributes<Node>(adapter: HtmlTreeAdapter<Node>, cell: Node): CellAttributes {
  const found: Partial<Record<string, string>> = {};
  const attributes = adapter.attributes(cell);
  for (let i = 0; i < attributes.length; i++) {
    const { name, value } = attributes[i]!;
    if (ATTRIBUTES.has(name)) found[name] = value;
  }
  return found;
}

/**
 * The typed value that sheets write beside what they show, with its number format.
 * @param declarations the styles that hold for the cell, the weakest first
 * @param text gives what the cell shows
 */
export function cellValue(
  attributes: CellAttributes,
  declarations: readonly Declaration[],
  text: () => string,
): CellValue | undefined {
  const number = numberOf(attributes, text);
  if (number === undefined || !Number.isFinite(number)) return undefined;
  const format = formatOf(attributes, declarations) ?? "";
  if (format === "") return { type: "number", number };
  if (format === "@") return undefined;
  if (/^BOOLEAN$/i.test(format)) return { type: "boolean", boolean: number !== 0 };
  if (number >= 1 && number < 2_958_466 && isDateFormat(format)) {
    return { type: "date", date: serialToDate(number), format };
  }
  return /^general$/i.test(format) ? { type: "number", number } : { type: "number", number, format };
}

/**
 * The number behind a cell: `sdval`; `x:num`, which is blank when the cell shows the number itself; or the number in
 * `data-sheets-value`, whose member 3 it is.
 */
function numberOf(attributes: CellAttributes, text: () => string): number | undefined {
  const { sdval } = attributes;
  if (sdval !== undefined && sdval.trim() !== "") return readNumber(sdval);
  const raw = sdval ?? attributes["x:num"];
  if (raw !== undefined) {
    const number = raw.trim() === "" ? text().replace(/[\s\u00a0]/g, "") : raw.trim();
    return /^[-+]?(\d|\.\d)/.test(number) ? Number(number) : undefined;
  }
  const sheets = attributes["data-sheets-value"];
  const member = sheets === undefined ? undefined : /"3"\s*:\s*(-?\d[\d.eE+-]*)/.exec(sheets)?.[1];
  return member === undefined ? undefined : Number(member);
}

function formatOf(attributes: CellAttributes, declarations: readonly Declaration[]): string | undefined {
  const sheets = attributes["data-sheets-numberformat"];
  let format =
    sheets === undefined
      ? undefined
      : /"2"\s*:\s*"((?:[^"\\]|\\.)*)"/.exec(sheets)?.[1]?.replace(/\\(.)/g, "$1");
  for (const { property, value } of declarations) {
    if (property === "mso-number-format") format = value.replace(/^["']|["']$/g, "").replace(/\\(.)/g, "$1");
  }
  if (format !== undefined) return format;
  const { sdnum, sdval = "" } = attributes;
  return sdnum === undefined ? undefined : readNumberFormat(sdnum, sdval);
}
