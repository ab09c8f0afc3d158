import {
  type Cell,
  type Content,
  type Paragraph,
  paragraph,
  type Run,
  type Table,
} from "../content/model.js";
import { isLine } from "../content/traverse.js";

/**
 * A piece with text before and after it: on its first and last line, where these are lines of text.
 *
 * @param inTable whether it goes into a table: then text beside a table stands in its first and its last cell
 */
export function around(content: Content, before: string, after: string, inTable: boolean): Content {
  const flows = [...content];
  const [start, end] = [paragraph(before).runs, paragraph(after).runs];
  const first = flows[0];
  if (start.length > 0) {
    if (isLine(first)) flows[0] = { ...first, runs: [...start, ...first.runs] };
    else if (inTable && first?.type === "table") flows[0] = inCell(first, "first", start);
    else flows.unshift({ type: "paragraph", runs: start });
  }
  const last = flows.at(-1);
  if (end.length > 0) {
    if (isLine(last)) flows[flows.length - 1] = { ...last, runs: [...last.runs, ...end] };
    else if (inTable && last?.type === "table") flows[flows.length - 1] = inCell(last, "last", end);
    else flows.push({ type: "paragraph", runs: end });
  }
  return flows;
}

/** A table with text in the first or the last cell below its header; what was a figure there is text then. */
function inCell(table: Table, which: "first" | "last", runs: readonly Run[]): Table {
  const index = which === "first" ? table.headerRows : table.rows.length - 1;
  const row = table.rows[index];
  if (!row || row.length === 0 || index < table.headerRows) return table;
  const column = which === "first" ? 0 : row.length - 1;
  const cells = row.map((cell, at): Cell => {
    if (at !== column) return cell;
    const { value: _, ...rest } = cell;
    const text: Paragraph = { type: "paragraph", runs };
    const beside = which === "first" ? cell.flows[0] : cell.flows.at(-1);
    if (beside?.type !== "paragraph")
      return { ...rest, flows: which === "first" ? [text, ...cell.flows] : [...cell.flows, text] };
    const joined =
      which === "first"
        ? [{ ...beside, runs: [...runs, ...beside.runs] }, ...cell.flows.slice(1)]
        : [...cell.flows.slice(0, -1), { ...beside, runs: [...beside.runs, ...runs] }];
    return { ...rest, flows: joined };
  });
  return { ...table, rows: table.rows.with(index, cells) };
}
