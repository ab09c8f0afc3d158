/** Documents and sheets as places, in Node and in the browser. Each parser is loaded when a file first needs it. */
export { readSource, type Source, type SourceOptions } from "./source.js";
export { UNITS, type Unit, type Units } from "./units.js";
export { putInto, takeOut, type PutOptions } from "./edit.js";
export { PUTS, type Edited, type Put } from "../formats/edit.js";
export { fillPages, fillPlaces, placesIn, type FilledFile, type FillValue } from "./fill.js";
export type { NamedPlace, PlaceKind } from "../formats/fill.js";
export { standingOf, type Standing } from "./check.js";
export type { Part, PartType } from "./parts.js";
export { parseSpot, type Spot } from "./spot.js";
export { parseCells, writeCells } from "../content/cells.js";
export { tellFormat, tellFormatOfBytes } from "../formats/detect.js";
export { decodeText } from "../formats/text/decode.js";
