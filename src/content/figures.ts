import { daysOf, isDateText } from "./date-text.js";
import type { Cell, CellValue, Table } from "./model.js";
import { decimalOf, isFigure } from "./number.js";
import { runsText } from "./runs.js";
import { fillGrid, mapRows } from "./spans.js";

/** The sign before the decimals of a file's figures. */
export type DecimalSign = "." | ",";

/** A figure: its currency, its sign, its digits in groups, its decimals, and its currency or percent sign. */
const FIGURE =
  /^(?<before>\p{Sc}?)\s?(?<minus>[-−]?)(?<whole>\d{1,3}(?:(?<group>[.,'’\u00A0\u202F])\d{3})(?:\k<group>\d{3})*|\d+)(?:(?<point>[.,])(?<decimals>\d+))?\s?(?<after>[%\p{Sc}]?)$/u;

/** The most digits that a number of a sheet holds exactly. */
const MOST_DIGITS = 15;

/**
 * The values of the cells that hold figures, by the file's own habit: which sign stands before decimals, and which between groups of
 * three. A figure that the habit leaves open, such as a lone `1,234`, is none. Nor is anything in a column where some cell begins with
 * a needless zero, or has more digits than a number holds: such are names, as post codes and account numbers are. A column of days that
 * are written alike, in an order of which they leave no doubt, holds days.
 *
 * @param rows the cells' texts
 * @param headerRows how many rows at the top name the columns
 */
export function valuesOf(
  rows: readonly (readonly string[])[],
  headerRows: number,
): (CellValue | undefined)[][] {
  const figures = rows.map((row) => row.map(figureIn));
  const habit = habitOf(figures);
  const names = new Set<number>();
  const days = new Map<number, ReadonlyMap<string, CellValue>>();
  const body = rows.slice(headerRows);
  for (const column of rows[0]?.keys() ?? []) {
    const ofColumn = daysOf(daysIn(body, column));
    if (ofColumn) days.set(column, ofColumn);
    else if (body.some((row) => isName(row[column] ?? ""))) names.add(column);
  }
  return figures.map((row, index) =>
    row.map((figure, column) =>
      index < headerRows || names.has(column)
        ? undefined
        : days.has(column)
          ? days.get(column)!.get(rows[index]![column]!.trim())
          : valueIn(figure, habit),
    ),
  );
}

/**
 * The texts of a column that may be days; none where a figure is none. Words among them, such as a name that no header knows of, or
 * “Total”, say nothing of how days are written.
 */
function daysIn(rows: readonly (readonly string[])[], column: number): ReadonlySet<string> {
  const days = new Set<string>();
  for (const row of rows) {
    const text = row[column]?.trim() ?? "";
    if (isDateText(text)) days.add(text);
    else if (isFigure(text)) return new Set();
  }
  return days;
}

/** The parts of a figure. */
type Figure = Readonly<Record<string, string | undefined>> | undefined;

/** The longest text that can be a figure, and how one begins; what is none is quickly seen. */
const LONGEST = 60;
const BEGINS = /^\s*(?:[-−\d]|[^\w\s]{1,2}\s?[-−]?\d)/;

function figureIn(text: string): Figure {
  return text.length <= LONGEST && BEGINS.test(text) ? FIGURE.exec(text.trim())?.groups : undefined;
}

function isName(text: string): boolean {
  return (
    /^\s*[+-]?0\d|^\s*\+\d/.test(text) ||
    (text.length > MOST_DIGITS && (text.match(/\d/g)?.length ?? 0) > MOST_DIGITS)
  );
}

/** Which sign stands before decimals; nothing where the figures do not say, or say both. */
function habitOf(figures: readonly (readonly Figure[])[]): DecimalSign | undefined {
  const seen = new Set<string>();
  for (const row of figures)
    for (const figure of row) {
      if (!figure) continue;
      const { whole, group, point, decimals } = figure;
      // After a group of three, or before fewer or more than three digits, it can be nothing else.
      if (point && (group !== undefined ? group !== point : decimals!.length !== 3)) seen.add(point);
      else if (group !== undefined && whole!.startsWith("0")) seen.add(group);
      // Two groups of three have the other sign before decimals.
      if ((group === "." || group === ",") && whole!.split(group).length > 2)
        seen.add(group === "." ? "," : ".");
    }
  return seen.size === 1 ? (seen.has(",") ? "," : ".") : undefined;
}

/** The value of a text, when it is a figure by the habit of its file. */
export function valueOf(text: string, habit: DecimalSign | undefined): CellValue | undefined {
  return valueIn(figureIn(text), habit);
}

function valueIn(groups: Figure, habit: DecimalSign | undefined): CellValue | undefined {
  if (!groups) return undefined;
  const { before = "", minus, after = "" } = groups;
  let {
    whole,
    group,
    point,
    decimals = "",
  } = groups as { whole: string } & Record<string, string | undefined>;
  const isOneGroup = point === undefined && group !== undefined && whole.split(group).length === 2;
  if (isOneGroup && (group === habit || whole.startsWith("0"))) {
    // What looks like a group of three is decimals by this habit.
    [whole, decimals] = whole.split(group!) as [string, string];
    [point, group] = [group, undefined];
  }
  const isOpen = (group === "." || group === ",") && (habit === undefined || group === habit);
  if (isOpen || (point !== undefined && point !== habit)) return undefined;
  const digits = group === undefined ? whole : whole.replaceAll(group, "");
  const number = Number(`${minus ? "-" : ""}${digits}${decimals ? `.${decimals}` : ""}`);
  const shape = (group === undefined ? "0" : "#,##0") + (decimals ? `.${"0".repeat(decimals.length)}` : "");
  if (after === "%")
    return { type: "number", number: Number((number / 100).toPrecision(15)), format: `${shape}%` };
  const format = before ? `"${before}"${shape}` : after ? `${shape} "${after}"` : shape;
  return { type: "number", number, ...(format !== "0" && { format }) };
}

/** What a cell of a number shows, with the signs of a language for decimals and groups; anything else as it is. */
export function inLocale(text: string, value: CellValue, locale: string | undefined): string {
  if (locale === undefined || value.type !== "number") return text;
  const decimal = decimalOf(locale);
  const other = decimal === "," ? "." : ",";
  const shown = valueOf(text, other);
  const isOther = shown?.type === "number" && shown.number === value.number;
  return isOther ? text.replace(/[.,]/g, (sign) => (sign === other ? decimal : other)) : text;
}

/**
 * A table with the values of its figures, where no cell of it has one: its source knew no types, as those of documents and pages do
 * not. In one whose source knew them, what looks like a figure and has no value was meant as text.
 */
export function withFigures(table: Table): Table {
  if (table.rows.some((row) => row.some(({ value }) => value !== undefined))) return table;
  const texts = fillGrid(table, "", textOf);
  const values = valuesOf(texts, table.headerRows);
  if (!values.some((row) => row.some((value) => value !== undefined))) return table;
  const rows = mapRows(table.rows, (row, columns, index) =>
    row.map((cell, at) => {
      const value = values[index]![columns[at]!];
      return value ? { ...cell, value } : cell;
    }),
  );
  return { ...table, rows };
}

/** The text of a cell that holds one line alone; nothing of any other. */
function textOf({ flows: [only, ...others] }: Cell): string {
  if (only?.type !== "paragraph" || others.length > 0) return "";
  return only.runs.every(({ type }) => type === "text") ? runsText(only.runs) : "";
}
