import type { Rectangle } from "../../content/cells.js";
import { DrawerError } from "../../content/error.js";
import type { Content, Table } from "../../content/model.js";
import { notice, type Notice } from "../../content/notice.js";
import { someRun } from "../../content/traverse.js";
import { editErrors, editNotices } from "../../messages/en/edit.js";
import { isEmphasised } from "./cell-text.js";
import type { GridCell } from "./grid.js";

/**
 * What goes into each of several cells: the cells of the one table that is put there.
 * @throws DrawerError `cannot-edit` when there is no table, or one of another shape
 */
export function cellContents(
  content: readonly Table[],
  { file, spot }: { file: string; spot: string },
  count: number,
  cells: Rectangle,
): Content[] {
  const [table, ...others] = content;
  const width = cells.right - cells.left + 1;
  const rows = table?.type === "table" && others.length === 0 ? table.rows : [];
  const isSpanned = rows.some((row) =>
    row.some(({ rowspan, colspan }) => (rowspan ?? colspan) !== undefined),
  );
  if (isSpanned || rows.length * width !== count || rows.some((row) => row.length !== width))
    throw new DrawerError(editErrors, "cannot-edit/shape", { file, spot });
  return rows.flatMap((row) => row.map(({ flows }) => flows));
}

/** What cells of a sheet that is there are not made. */
export function plainCells(rows: readonly (readonly GridCell[])[]): Notice[] {
  const all = rows.flat();
  const notCells = all.filter(
    ({ link, cell: { colspan, rowspan } }) => link !== undefined || (colspan ?? rowspan ?? 1) > 1,
  ).length;
  const emphasised = all.filter(({ value, cell }) => !value && someRun(cell.flows, isEmphasised)).length;
  return [
    ...(notCells === 0 ? [] : [notice(editNotices, "not-kept/in-cells", { count: notCells })]),
    ...(emphasised === 0 ? [] : [notice(editNotices, "not-kept/emphasis-in-cells", { count: emphasised })]),
  ];
}
