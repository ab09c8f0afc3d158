import type { Rectangle } from "../../content/cells.js";
import type { Notice } from "../../content/notice.js";
import type { SheetEditor } from "../edit.js";
import { plainName, type Values } from "../fill.js";
import type { WriteInput } from "../write-input.js";

/** Cells of a workbook that have a name. */
export interface NamedCells {
  readonly name: string;
  /** The sheet's index in the workbook, from 0. */
  readonly sheet: number;
  readonly cells: Rectangle;
  /** As they are written, for messages. */
  readonly spot: string;
}

/** A workbook with values in those of its named cells that have one, from the first of them on; notes their names as filled. */
export async function fillNamedCells(
  bytes: Uint8Array,
  file: string,
  named: readonly NamedCells[],
  { put }: SheetEditor,
  { values, filled, picture }: { values: Values; filled: Set<string>; picture: WriteInput["picture"] },
): Promise<{ data: Uint8Array; notices: Notice[] }> {
  let data = bytes;
  const notices: Notice[] = [];
  for (const { name, sheet, cells, spot } of named) {
    const content = values.get(plainName(name));
    if (content === undefined) continue;
    const first = { ...cells, bottom: cells.top, right: cells.left };
    const input = { content, ...(picture && { picture }) };
    const done = await put(data, file, { spot, sheet, cells: first }, input, true);
    data = done.data;
    notices.push(...done.notices);
    filled.add(plainName(name));
  }
  return { data, notices };
}
