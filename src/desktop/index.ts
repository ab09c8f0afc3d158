/** The clipboard of a desktop, in Node. */
export { readClipboard } from "./clipboard.js";
export { holdOnClipboard } from "./hold.js";
export { offeredBlock } from "./offered-block.js";
export {
  openDesktop,
  type ClipboardEvent,
  type Copied,
  type Desktop,
  type Offer,
  type Offered,
} from "./desktop.js";
