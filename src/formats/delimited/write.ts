import { inLocale } from "../../content/figures.js";
import { type Cell, type Content, type Table } from "../../content/model.js";
import { withNotesAtEnd } from "../../content/notes.js";
import { notice, type Notice } from "../../content/notice.js";
import { runsText } from "../../content/runs.js";
import { linkOf, withAddressesShown } from "../../content/shown-addresses.js";
import { columnsOf, mapRows } from "../../content/spans.js";
import { someRun } from "../../content/traverse.js";
import { formatNotices } from "../../messages/en/formats.js";
import { flowsInRows } from "../flows-in-rows.js";
import { addressesLeftOut } from "../left-out.js";
import { cellText, writeText } from "../text/write.js";
import { guardFormula } from "./formula.js";
import type { Separator } from "./separator.js";

/** Delimited text, and what it could not say. */
export interface Delimited {
  readonly text: string;
  readonly notices: readonly Notice[];
}

/** How delimited text is to be written. */
export interface DelimitedWriteOptions {
  /**
   * Whether what a sheet would run as a formula gets an apostrophe before it, by which sheets know text; on when it is
   * left out. Reading takes it off again.
   */
  readonly guard?: boolean;
  /** The language (BCP 47) with whose signs the numbers of cells are written; as they are shown when it is left out. */
  readonly locale?: string;
}

/**
 * Writes content as rows: each table's rows as they are, below its caption; each item of a list, and each other flow, as
 * a row of one cell. Cells that hold the
 * separator, a quotation mark or a line end are quoted. Rows end with `\n`, the last one too. A cell that spans gives
 * its text once, in its first place; the other places stay blank. What a sheet would run as a formula is guarded (see
 * {@link DelimitedWriteOptions}).
 * @param content what is written
 * @param separator the sign between the cells
 * @param options whether it is guarded, and the language of its figures
 */
export function writeDelimited(
  content: Content,
  separator: Separator,
  options: DelimitedWriteOptions = {},
): Delimited {
  const rows: string[] = [];
  const { guard = true, locale } = options;
  let guarded = 0;
  const quote = (text: string) => {
    if (!SPECIAL.test(text)) return text;
    const safe = guard ? guardFormula(text) : text;
    if (safe !== text) guarded++;
    return quoted(safe, separator);
  };
  // One look for both: content with neither is gone through once only.
  const isPlain = !someRun(content, (run) => run.type === "note" || linkOf(run) !== undefined);
  for (const flow of flowsInRows(isPlain ? content : withAddressesShown(withNotesAtEnd(content)))) {
    if (flow.type === "table") tableRows(flow, separator, quote, rows, locale);
    else rows.push(quote(writeText([flow])));
  }
  const notices = [
    ...(guarded > 0 ? [notice(formatNotices, "guarded", { count: guarded })] : []),
    ...(isPlain ? [] : addressesLeftOut(content)),
  ];
  return { text: rows.length === 0 ? "" : `${rows.join("\n")}\n`, notices };
}

function tableRows(
  table: Table,
  separator: Separator,
  quote: (text: string) => string,
  rows: string[],
  locale: string | undefined,
): void {
  if (table.caption && table.caption.length > 0) rows.push(quote(runsText(table.caption)));
  const show = (cell: Cell) =>
    cell.value
      ? quoted(inLocale(cellText(cell.flows), cell.value, locale), separator)
      : quote(cellText(cell.flows));
  const width = columnsOf(table);
  const written = mapRows(table.rows, (cells, columns) => {
    let line = "";
    let column = 0;
    for (let at = 0; at < cells.length; at++) {
      for (; column < columns[at]!; column++) line += separator;
      line += show(cells[at]!);
    }
    for (; column < width - 1; column++) line += separator;
    return line;
  });
  for (const line of written) rows.push(line);
}

/** What is guarded begins with one of these, or what is quoted has one in it; most cells have none, which is quickly seen. */
const SPECIAL = /[=@+\-"\n\r\t,;|]/;

function quoted(text: string, separator: Separator): string {
  return text.includes(separator) || /["\n\r]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
