import { dateOrderIn, readDate, type DateOrder } from "../content/date-text.js";
import { defined } from "../content/defined.js";
import { withFigures } from "../content/figures.js";
import type { Cell, CellValue, Table } from "../content/model.js";
import { notice, type Notice } from "../content/notice.js";
import { isFigure } from "../content/number.js";
import { fillGrid, mapRows } from "../content/spans.js";
import { cellText } from "../formats/text/write.js";
import { editNotices } from "../messages/en/edit.js";

/** What a column of a sheet holds below its name. */
interface ColumnKind {
  readonly name: string;
  readonly type: "date" | "number";
  /** The number format of its dates. */
  readonly format: string | undefined;
  readonly order: DateOrder | undefined;
}

/** Rows under which others are put, and what stands in them. */
export interface HostValues {
  /** The names of their columns. */
  readonly names: readonly string[];
  /** What their cells hold, row by row; nothing for a text or a blank one. */
  readonly values: readonly (readonly (CellValue | undefined)[])[];
}

/**
 * Makes dates of the texts that come under dates, as those are read: a text among them would be sorted and counted apart from them.
 * What is a figure and comes under numbers or dates as a text is told of.
 *
 * @param table the rows that come, of which the first `headerRows` name its columns
 * @param columns the column of the host for each of the table
 */
export function matchValues(
  table: Table,
  headerRows: number,
  columns: readonly number[],
  host: HostValues,
): { readonly table: Table; readonly notices: readonly Notice[] } {
  // The figures of a table whose source knew no types are told by their own habit, before any of it has one.
  const { rows: read } = withFigures({ ...table, headerRows });
  const grid = fillGrid({ ...table, rows: read }, "", plainText).slice(headerRows);
  const kinds = columns.map((column, at) =>
    kindOf(
      host,
      column,
      grid.map((row) => row[at]!),
    ),
  );
  const dates = new Map<DateOrder, { count: number; names: Set<string> }>();
  const texts = { count: 0, names: new Set<string>() };
  const matched = (cell: Cell, kind: ColumnKind | undefined): Cell => {
    const text = plainText(cell);
    // A day with its month by name is no figure.
    const isMeant = kind?.type === "date" ? /\d/.test(text) : isFigure(text);
    if (!kind || !isMeant) return cell;
    const day = kind.type === "date" ? readDate(text, kind.order) : undefined;
    const told = day ? (dates.get(day.order) ?? { count: 0, names: new Set<string>() }) : texts;
    told.count++;
    told.names.add(kind.name);
    if (!day) return cell;
    dates.set(day.order, told);
    return { ...cell, value: { type: "date", date: day.date, ...defined({ format: kind.format }) } };
  };
  const rows = mapRows(read, (row, at, index) =>
    index < headerRows ? row : row.map((cell, i) => matched(cell, kinds[at[i]!])),
  );
  const notices = [...dates].map(([order, { count, names }]) =>
    notice(editNotices, "appended/dates", { count, names: [...names], order }),
  );
  if (texts.count > 0)
    notices.push(notice(editNotices, "appended/texts", { count: texts.count, names: [...texts.names] }));
  return { table: { ...table, rows }, notices };
}

/** The text of a cell without a value. */
function plainText({ flows, value }: Cell): string {
  return value ? "" : cellText(flows).trim();
}

/**
 * What a column holds, where that is one thing.
 * @param texts what comes under it
 */
function kindOf(
  { names, values }: HostValues,
  column: number,
  texts: readonly string[],
): ColumnKind | undefined {
  const held = values.flatMap((row) => row[column] ?? []);
  const [first] = held;
  if (!first || first.type === "boolean" || held.some(({ type }) => type !== first.type)) return undefined;
  const { type, format } = first;
  const order = (format === undefined ? undefined : orderOf(format)) ?? dateOrderIn(texts);
  return { name: names[column] ?? "", type, format, order };
}

/** What files say for “as the reader's system writes dates”, which is read so (ECMA-376 part 1, 18.8.30: 14). */
const ANY_ORDER = "m/d/yyyy";

/** The order in which a number format shows day, month and year. */
function orderOf(format: string): DateOrder | undefined {
  if (format === ANY_ORDER) return undefined;
  const bare = format.replace(/"[^"]*"|\\.|_.|\*.|\[[^\]]*\]/g, "").split(";")[0]!;
  const letters = bare.toLowerCase().replace(/[^dmy]/g, "");
  const order = [...new Set(letters)].slice(0, 3).join("");
  return order === "dmy" || order === "mdy" || order === "ymd" ? order : undefined;
}
