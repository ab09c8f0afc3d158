/** Documents and sheets as places, in Node and in the browser. Each parser is loaded when a file first needs it. */
export { readSource, UNITS, type Source, type SourceOptions, type Unit } from "./source.js";
export type { Part, PartType } from "./parts.js";
export { parseSpot, type Spot } from "./spot.js";
export { parseCells, writeCells } from "../content/cells.js";
export { tellFormat, tellFormatOfBytes } from "../formats/detect.js";
export { decodeText } from "../formats/text/decode.js";
