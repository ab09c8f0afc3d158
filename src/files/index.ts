/** Documents and sheets in and out, in Node and in the browser. Each parser is loaded when a file first needs it. */
export { readSource, type Source, type SourceOptions } from "./source.js";
export { FORMATS, formatOfName, tellFormat, tellFormatOfBytes, type Format } from "./format.js";
export type { Part } from "./parts.js";
export { parseSpot, type Spot } from "./spot.js";
export { parseCells, writeCells } from "../content/cells.js";
export { decodeText } from "./text-encoding.js";
export { writeFile, WRITTEN_FORMATS, type ToWrite, type Written, type WrittenFormat } from "./write.js";
