import { DrawerError } from "../../content/error.js";
import { inLocale } from "../../content/figures.js";
import { notice } from "../../content/notice.js";
import { editErrors } from "../../messages/en/edit.js";
import { formatNotices } from "../../messages/en/formats.js";
import type { Edited, SheetEditor } from "../edit.js";
import { sheetToWrite, type GridCell } from "../office/grid.js";
import { decodeText } from "../text/decode.js";
import { encodedLike } from "../text/edit.js";
import { guardFormula } from "./formula.js";
import { tellSeparator, type Separator } from "./separator.js";

/** A row as the file has it: its cells with their quotes, and what ends it. */
interface RawRow {
  cells: string[];
  end: string;
}

/** Puts cells and rows into CSV or TSV and takes them out: what stays, stays as it is written, its quotes too. */
export const delimitedEditor: SheetEditor = {
  type: "sheet",
  put(bytes, file, { cells: { top, left, bottom, right }, spot }, input, isInstead) {
    const sheet = new RawSheet(bytes, file);
    const written = sheetToWrite(input.content);
    const rows = [...written.rows()];
    const width = Math.max(0, ...rows.flatMap((row) => row.map(({ column }) => column + 1)));
    const isOne = top === bottom && left === right;
    if (!isOne && (rows.length !== bottom - top + 1 || width !== right - left + 1))
      throw new DrawerError(editErrors, "cannot-edit/shape", { file, spot });
    rows.forEach((row, index) => {
      for (const cell of row) {
        const [at, column] = [top + index, left + cell.column];
        if (!isInstead && !isBlank(sheet.rows[at]?.cells[column]))
          throw new DrawerError(editErrors, "cannot-edit/filled", { file, spot });
        sheet.set(at, column, sheet.written(cell));
      }
    });
    return Promise.resolve(sheet.done(written.notices));
  },
  append(bytes, file, { cells, spot }, input, { headerRows, columns, untilBlank }) {
    const sheet = new RawSheet(bytes, file);
    const written = sheetToWrite(input.content);
    const rows = [...written.rows()].slice(headerRows);
    if (rows.length === 0) throw new DrawerError(editErrors, "cannot-edit/cells", { file, spot });
    const last = untilBlank
      ? sheet.rows.findLastIndex((row) => row.cells.some((cell) => !isBlank(cell)))
      : cells.bottom;
    const width = sheet.rows[last]?.cells.length ?? columns.length;
    const added = rows.map((row) => {
      const made = Array.from({ length: width }, () => "");
      for (const cell of row) {
        const column = columns[cell.column];
        if (column !== undefined) made[column] = sheet.written(cell);
      }
      return Array.from(made, (cell) => cell);
    });
    sheet.insert(last + 1, added);
    return Promise.resolve(sheet.done(written.notices));
  },
  takeOut(bytes, file, places) {
    const sheet = new RawSheet(bytes, file);
    const gone = new Set<number>();
    for (const { cells, isRows } of places)
      for (let row = cells.top; row <= Math.min(cells.bottom, sheet.rows.length - 1); row++) {
        if (isRows) gone.add(row);
        else
          for (let column = cells.left; column <= cells.right; column++)
            if (column < sheet.rows[row]!.cells.length) sheet.set(row, column, "");
      }
    sheet.rows = sheet.rows.filter((_, row) => !gone.has(row));
    return Promise.resolve(sheet.done([]));
  },
};

function isBlank(cell: string | undefined): boolean {
  return cell === undefined || cell.trim() === "" || cell === '""';
}

class RawSheet {
  rows: RawRow[];
  /** A first line that says what parts the columns. */
  readonly #said: string;
  readonly #separator: Separator;
  readonly #isQuoted: boolean;
  readonly #locale: string | undefined;
  #guarded = 0;

  constructor(
    readonly bytes: Uint8Array,
    readonly file: string,
  ) {
    const text = decodeText(bytes);
    const [said, named] = /^sep=([,;|\t])(?:\r\n|\r|\n|$)/i.exec(text) ?? ["", undefined];
    this.#said = said;
    const rest = text.slice(said.length);
    this.#separator =
      (named as Separator | undefined) ?? (/\.tsv$|\.tab$/i.test(file) ? "\t" : tellSeparator(rest));
    this.rows = rawRows(rest, this.#separator);
    const filled = this.rows.flatMap(({ cells }) => cells.filter((cell) => cell !== ""));
    this.#isQuoted =
      filled.length > 0 && filled.filter((cell) => cell.startsWith('"')).length > filled.length * 0.9;
    // A file whose columns no comma parts may have one for its decimals.
    const isComma = this.#separator !== "," && filled.some((cell) => /^"?-?\d+,\d+"?$/.test(cell));
    this.#locale = isComma ? "de" : undefined;
  }

  /** A cell as this file writes it. */
  written({ text, value }: GridCell): string {
    const shown = value ? inLocale(text, value, this.#locale) : text;
    const safe = value ? shown : guardFormula(shown);
    if (safe !== shown) this.#guarded++;
    const needsQuotes = safe.includes(this.#separator) || /["\n\r]/.test(safe);
    return needsQuotes || (this.#isQuoted && safe !== "") ? `"${safe.replaceAll('"', '""')}"` : safe;
  }

  set(row: number, column: number, cell: string): void {
    if (row >= this.rows.length)
      this.insert(
        this.rows.length,
        Array.from({ length: row - this.rows.length + 1 }, () => []),
      );
    const { cells } = this.rows[row]!;
    while (cells.length <= column) cells.push("");
    cells[column] = cell;
  }

  insert(at: number, rows: readonly string[][]): void {
    const end = this.#usualEnd();
    const isLast = at >= this.rows.length;
    const last = this.rows.at(-1);
    const hadEnd = last === undefined || last.end !== "";
    if (isLast && last) last.end ||= end;
    const added = rows.map((cells) => ({ cells, end }));
    if (isLast && !hadEnd) added.at(-1)!.end = "";
    this.rows.splice(at, 0, ...added);
  }

  #usualEnd(): string {
    return this.rows.find(({ end }) => end !== "")?.end ?? "\n";
  }

  done(notices: Edited["notices"]): Edited {
    const text = this.rows.map(({ cells, end }) => cells.join(this.#separator) + end).join("");
    const guarded = this.#guarded > 0 ? [notice(formatNotices, "guarded", { count: this.#guarded })] : [];
    return { data: encodedLike(this.bytes, this.#said + text, this.file), notices: [...notices, ...guarded] };
  }
}

/** The rows of delimited text (RFC 4180), each cell as it is written. */
function rawRows(text: string, separator: Separator): RawRow[] {
  const rows: RawRow[] = [];
  const cell = new RegExp(
    `("(?:[^"]|"")*"[^${separator}\\r\\n]*|[^${separator}\\r\\n]*)(${separator === "|" ? "\\|" : separator}|\\r\\n|\\r|\\n|$)`,
    "y",
  );
  let cells: string[] = [];
  while (cell.lastIndex < text.length) {
    const [, raw, end] = cell.exec(text)!;
    cells.push(raw!);
    if (end === separator) {
      if (cell.lastIndex === text.length) rows.push({ cells: [...cells, ""], end: "" });
      continue;
    }
    rows.push({ cells, end: end! });
    cells = [];
  }
  return rows;
}
