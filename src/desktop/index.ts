/** The clipboard of a desktop, in Node. */
export { chordText, parseChord, type Chord, type Modifier } from "./chord.js";
export { readClipboard } from "./clipboard.js";
export { dealOnClipboard } from "./jobs/dealing.js";
export { holdOnClipboard } from "./jobs/hold.js";
export { offeredBlock } from "./offered-block.js";
export { openDesktop, type System } from "./open.js";
export type { ClipboardEvent, Copied, Desktop, DesktopWindow, Offer, Offered, Windows } from "./desktop.js";
export { addToMenu, isInMenu, removeFromMenu } from "./menus/index.js";
export type { MenuPlace, MenuProgram } from "./menus/menu.js";
