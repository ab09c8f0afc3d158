import { DrawerError } from "../content/error.js";
import type { Content, Table } from "../content/model.js";
import { columnsOf, fillGrid } from "../content/spans.js";
import { someFlow } from "../content/traverse.js";
import type { DocumentEditor, DocumentPlace, Edited, EditOptions, PutInput } from "../formats/edit.js";
import { cellText } from "../formats/text/write.js";
import { editErrors } from "../messages/en/edit.js";
import { matchColumns } from "./match-columns.js";
import { readSource } from "./source.js";

/**
 * Appends the rows of a block to a table of a document, below some of its cells, whose first row names the columns.
 * @throws DrawerError `cannot-edit`
 */
export async function appendToTable(
  append: NonNullable<DocumentEditor["append"]>,
  bytes: Uint8Array,
  file: string,
  place: DocumentPlace,
  input: PutInput,
  options: EditOptions,
): Promise<Edited> {
  const { spot } = place;
  const [table, ...others] = input.content;
  if (table?.type !== "table" || others.length > 0)
    throw new DrawerError(editErrors, "cannot-edit/cells", { file, spot });
  const { top, left, right } = place.cells!;
  const name = spot.slice(0, spot.indexOf("!"));
  const host = tableIn((await readSource(bytes, file)).at(name).content);
  if (!host) throw new Error(`${name} of ${file} is no table`);
  const texts = fillGrid(host, "", ({ flows }) => cellText(flows));
  const head = texts[top]!.slice(left, right + 1);
  const { columns, headerRows, notices } = matchColumns(table, { file, spot, name, texts: [head] });
  const rows = fillGrid<Content>(table, [], ({ flows }) => flows)
    .slice(headerRows)
    .map((cells) => {
      const row: (Content | undefined)[] = Array.from({ length: columnsOf(host) }, () => undefined);
      for (const [at, column] of columns.entries()) row[left + column] = cells[at];
      return row;
    });
  const edited = await append(bytes, file, place, rows, input, options);
  return { ...edited, notices: [...notices, ...edited.notices] };
}

/** The table that a part is; it may stand in a quote or an item. */
function tableIn(content: Content): Table | undefined {
  let table: Table | undefined;
  someFlow(content, (flow) => {
    if (flow.type === "table") table = flow;
    return table !== undefined;
  });
  return table;
}
