import stringWidth from "fast-string-width";
import { print, visible } from "./terminal.js";

/** How wide the terminal is; what is not a terminal gets room enough. */
export function terminalWidth(): number {
  return process.stdout.columns || 110;
}

/** A time as people here write it: `2031-04-08 05:50`. */
export function localTime(iso: string): string {
  return new Date(iso).toLocaleString("sv-SE", { dateStyle: "short", timeStyle: "short" });
}

/** How long it is until a time: `1 min 40 s`, `3 h 5 min`. */
export function timeLeft(until: number): string {
  const seconds = Math.max(0, Math.ceil((until - Date.now()) / 1000));
  const [minutes, hours] = [Math.floor(seconds / 60), Math.floor(seconds / 3600)];
  if (hours > 0) return `${hours} h ${minutes % 60} min`;
  return minutes > 0 ? `${minutes} min ${seconds % 60} s` : `${seconds} s`;
}

/** Text in which every unit is a letter or sign of one column: Latin, and the usual dashes and quotation marks. */
const SINGLE = /^[\u0020-\u007e\u00a0-\u00ac\u00ae-\u02ff\u2010-\u2026]*$/;

/** A text cut to a width in terminal columns, with `…` where something was cut. */
export function fit(text: string, width: number): string {
  if (stringWidth(text) <= width) return text;
  if (SINGLE.test(text)) return text.slice(0, width - 1).trimEnd() + "…";
  let cut = "";
  let used = 1;
  for (const { segment } of new Intl.Segmenter().segment(text)) {
    used += stringWidth(segment);
    if (used > width) break;
    cut += segment;
  }
  return cut.trimEnd() + "…";
}

/** A text filled up with spaces to a width in terminal columns. */
export function pad(text: string, width: number): string {
  return text + " ".repeat(Math.max(0, width - stringWidth(text)));
}

/** The greatest width of some texts. */
export function widest(texts: readonly string[]): number {
  return texts.reduce((most, text) => Math.max(most, stringWidth(text)), 0);
}

/**
 * Rows of cells as aligned lines. The column `flexible` is cut so that the lines fit the terminal; the others keep
 * their width. What could steer the terminal becomes signs that can be seen.
 */
export function columns(cells: readonly (readonly string[])[], flexible: number): string[] {
  const rows = cells.map((row) => row.map((cell) => visible(cell).replace(/[\t\n]+/g, " ")));
  const count = rows[0]?.length ?? 0;
  const widths = Array.from({ length: count }, (_, column) => widest(rows.map((row) => row[column]!)));
  const others = widths.reduce((sum, width, column) => sum + (column === flexible ? 0 : width), 0);
  const room = terminalWidth() - others - 2 * (count - 1);
  widths[flexible] = Math.max(12, Math.min(widths[flexible]!, room));
  return rows.map((row) =>
    row
      .map((cell, column) => pad(fit(cell, widths[column]!), widths[column]!))
      .join("  ")
      .trimEnd(),
  );
}

/** Prints rows of cells as aligned lines. */
export function printColumns(cells: readonly (readonly string[])[], flexible: number): void {
  for (const line of columns(cells, flexible)) print(`${line}\n`);
}
