import { DrawerError } from "../../content/error.js";
import { valuesOf } from "../../content/figures.js";
import { checkLength } from "../../content/limits.js";
import { type Cell, paragraph, type Table } from "../../content/model.js";
import { notice, type Reading } from "../../content/notice.js";
import { isFigure } from "../../content/number.js";
import { contentErrors } from "../../messages/en/content.js";
import { formatNotices } from "../../messages/en/formats.js";
import { withoutByteOrderMark } from "../text/byte-order-mark.js";
import { unguardFormula } from "./formula.js";
import { SEPARATOR_NAMES, tellSeparator, type Separator } from "./separator.js";

/** How a delimited text is to be read. */
export interface DelimitedOptions {
  /** What parts the columns; when it is not given it is told from all rows of the text, and said when it is no comma. */
  readonly separator?: Separator;
  /** Whether the first row names the columns; `guess` (the default) looks whether it differs from those below it. */
  readonly header?: boolean | "guess";
}

/**
 * Reads CSV or TSV (RFC 4180; quoted cells may hold line ends and separators) as one table. A cell shows what the file says;
 * figures carry their value too, by the file's own signs for decimals and groups. Lines with fewer cells than the widest are
 * filled up with blank ones.
 *
 * @param text with line ends of any system
 * @param options what parts the columns
 * @example
 * ```js
 * import { readDelimited } from "drawer";
 *
 * const { content } = await readDelimited("Boat,Port\nGannet,West Quay\n", { separator: "," });
 * console.log(content[0].type, content[0].rows.length); // table 2
 * ```
 */
export async function readDelimited(text: string, options: DelimitedOptions = {}): Promise<Reading> {
  checkLength(text, "table");
  const { default: Papa } = await import("papaparse");
  // Some sheets write a first line that says what parts the columns.
  const unmarked = withoutByteOrderMark(text);
  const [said, saidSeparator] = /^sep=([,;|\t])(?:\r\n|\r|\n|$)/i.exec(unmarked) ?? ["", undefined];
  const clean = unmarked.slice(said.length);
  const given = saidSeparator ?? options.separator;
  const delimiter = (given as Separator | undefined) ?? tellSeparator(clean);
  const parsed = Papa.parse<string[]>(clean, { delimiter, skipEmptyLines: false });
  const broken = parsed.errors.find((error) => error.type === "Quotes");
  if (broken) {
    throw new DrawerError(contentErrors, "unreadable/quote", { row: (broken.row ?? 0) + 1 });
  }
  const lines = parsed.data;
  const last = lines.at(-1);
  if (last?.length === 1 && last[0] === "") lines.pop();
  const width = lines.reduce((widest, line) => Math.max(widest, line.length), 0);
  const texts = lines.map((line) =>
    Array.from({ length: width }, (_, column) => unguardFormula(line[column] ?? "").replace(/\r\n?/g, "\n")),
  );
  const header = options.header ?? "guess";
  const headerRows = header === "guess" ? headerRowsOf(lines) : header && lines.length > 0 ? 1 : 0;
  const values = valuesOf(texts, headerRows);
  const rows = texts.map((row, index) =>
    row.map((shown, column): Cell => {
      const value = values[index]![column];
      return { flows: shown === "" ? [] : [paragraph(shown)], ...(value && { value }) };
    }),
  );
  const table: Table = { type: "table", headerRows, rows };
  const isTold = given === undefined && delimiter !== "," && width > 1;
  return {
    content: rows.length === 0 ? [] : [table],
    pictures: new Map(),
    notices: isTold ? [notice(formatNotices, "separator", { separator: SEPARATOR_NAMES[delimiter] })] : [],
  };
}

/**
 * How many lines go as far as one that names the columns: all distinct words, while some column below it holds only
 * numbers or dates. Blank lines above it and blank columns at the edges do not count.
 */
function headerRowsOf(lines: readonly string[][]): number {
  const isFilled = (shown: string | undefined) => shown !== undefined && shown.trim() !== "";
  const top = lines.findIndex((line) => line.some(isFilled));
  if (top < 0) return 0;
  const [first, ...rest] = lines.slice(top) as [string[], ...string[][]];
  const left = lines.reduce((least, line) => {
    const at = line.findIndex(isFilled);
    return at < 0 ? least : Math.min(least, at);
  }, Infinity);
  const right = lines.reduce((most, line) => Math.max(most, line.findLastIndex(isFilled)), -1);
  const names = first.slice(left, right + 1).map((name) => name.trim());
  const isNamed = names.length === right - left + 1 && !names.some((name) => name === "" || isFigure(name));
  if (!isNamed || rest.length === 0 || new Set(names).size < names.length) return 0;
  const hasFigures = names.some((_, index) => {
    const below = rest.map((line) => line[left + index]?.trim() ?? "").filter((shown) => shown !== "");
    return below.length > 0 && below.every(isFigure);
  });
  return hasFigures ? top + 1 : 0;
}
