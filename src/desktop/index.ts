/** The system clipboard of a desktop, in Node. */
export { readClipboard } from "./clipboard.js";
