import { makeCell } from "../../content/make-table.js";
import { paragraph, type Cell, type CellValue, type Table } from "../../content/model.js";
import { notice, type Notice } from "../../content/notice.js";
import { tableWords } from "../../messages/en/content.js";
import { formatNotices } from "../../messages/en/formats.js";
import { sheetOfTable, type ReadSheet } from "../office/sheet.js";

/** What stands in a cell: its lines, and the value behind them. */
export interface Entry {
  readonly lines: readonly string[];
  readonly value?: CellValue;
}
/** A row: what it has in each column, by the column's name. */
export type Entries = ReadonlyMap<string, Entry>;

/** How many facts without a column are named. */
const NAMED = 8;

/**
 * Rows as a sheet, with a column for each name that any row has something for, in the order of `columns`.
 * @param left the names of what has no column
 */
export function sheetOf(
  file: string,
  name: string,
  columns: readonly string[],
  rows: readonly Entries[],
  left: ReadonlySet<string>,
  others: readonly Notice[] = [],
): ReadSheet {
  const used = columns.filter((column) => rows.some((row) => (row.get(column)?.lines.length ?? 0) > 0));
  const cell = (entry: Entry | undefined): Cell => {
    const { lines = [], value } = entry ?? {};
    return makeCell(
      lines.map((line) => paragraph(line)),
      { ...(value && { value }) },
    );
  };
  const table: Table = {
    type: "table",
    headerRows: 1,
    rows: [
      used.map((column) => cell({ lines: [column] })),
      ...rows.map((row) => used.map((column) => cell(row.get(column)))),
    ],
  };
  const names = [...left].map((each) => tableWords.facts[each] ?? each);
  const notices = [
    ...others,
    ...(names.length > 0
      ? [
          notice(formatNotices, "left-out/facts", {
            ...{ file, names: names.slice(0, NAMED) },
            more: Math.max(0, names.length - NAMED),
          }),
        ]
      : []),
  ];
  return sheetOfTable(name, table, notices);
}
