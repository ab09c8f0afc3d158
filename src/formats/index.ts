/**
 * For those who write a format: what a format is, and the toolkit that goes through content, makes tables of cells, and
 * reads what a page or a file brings.
 */
export { safeLink, type Address } from "../content/address.js";
export { decodeContent, encodeContent, hashBytes, type Hash } from "../content/encode.js";
export { beginning } from "../content/beginning.js";
export { fold } from "../content/fold.js";
export { makeCell, makeTable } from "../content/make-table.js";
export type { Notice, Reading } from "../content/notice.js";
export { readPictureBytes } from "../content/picture.js";
export { mergeRuns, runsText, sameMarks } from "../content/runs.js";
export { columnsOf, fillGrid, mapRows, placeCells, usedRange } from "../content/spans.js";
export {
  addressesOf,
  eachFlow,
  eachRun,
  isBlank,
  isLine,
  mapContent,
  ownLine,
  picturesOf,
  someFlow,
  type ContentMap,
} from "../content/traverse.js";
export { tellFormat, tellFormatOfBytes } from "./detect.js";
export type { Format, ReadDocument, ReadFile, WriteInput, WriteResult } from "./format.js";
export type { Declaration, HtmlTreeAdapter, StyleRule } from "./html/tree-adapter.js";
export {
  findReadFormat,
  findWrittenFormat,
  FORMATS,
  formatOf,
  formatOfName,
  READ_FORMATS,
  WRITTEN_FORMATS,
  type FormatName,
} from "./registry.js";
