import Handsontable from "handsontable";
import { COLUMNS, ROWS } from "./rows.js";
import { changesOf } from "./changes.js";

export function show(holder: HTMLElement): void {
  new Handsontable(holder, {
    data: ROWS.map((row) => Object.values(row)),
    colHeaders: Object.values(COLUMNS),
    height: "auto",
    afterChange: changesOf(holder),
    licenseKey: "non-commercial-and-evaluation",
  });
}
