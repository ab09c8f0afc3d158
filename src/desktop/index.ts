/** The clipboard of a desktop, in Node. */
export { chordText, parseChord, type Chord, type Modifier } from "./chord.js";
export { readClipboard } from "./clipboard.js";
export { dealOnClipboard } from "./deal.js";
export { holdOnClipboard } from "./hold.js";
export { offeredBlock } from "./offered-block.js";
export {
  openDesktop,
  type ClipboardEvent,
  type Copied,
  type Desktop,
  type DesktopWindow,
  type Offer,
  type Offered,
  type System,
  type Windows,
} from "./desktop.js";
