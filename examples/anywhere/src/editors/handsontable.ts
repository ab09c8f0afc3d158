import Handsontable from "handsontable";
import { changesOf } from "./changes.js";
import { COLUMNS, ROWS } from "./rows.js";

export function show(holder: HTMLElement): void {
  new Handsontable(holder, {
    data: ROWS.map((row) => Object.values(row)),
    colHeaders: Object.values(COLUMNS),
    height: "auto",
    afterChange: changesOf(holder),
    licenseKey: "non-commercial-and-evaluation",
  });
}
