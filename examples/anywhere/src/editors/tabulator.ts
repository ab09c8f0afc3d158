import { TabulatorFull } from "tabulator-tables";
import "tabulator-tables/dist/css/tabulator_simple.min.css";
import { changesOf } from "./changes.js";
import { COLUMNS, ROWS } from "./rows.js";

export async function show(holder: HTMLElement): Promise<void> {
  const table = new TabulatorFull(holder, {
    data: ROWS.map((row, id) => ({ id, ...row })),
    columns: Object.entries(COLUMNS).map(([field, title]) => ({ field, title, editor: "input" as const })),
    layout: "fitColumns",
    history: true,
  });
  table.on("cellEdited", changesOf(holder));
  await new Promise<void>((built) => table.on("tableBuilt", () => built()));
}
