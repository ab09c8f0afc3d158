/** Drawer on a web page: reading selections, placing at the caret, saying it aloud, and the `<snippet-drawer>` element. */
export { Binding, type BindOptions, type ActionResult } from "./binding.js";
export { domAdapter } from "./dom-adapter.js";
export { placeOf } from "./places/index.js";
export type { Caret, Place, PlaceKind, Placing } from "./places/place.js";
export { readSelection, readTransfer } from "./selection.js";
export { LiveRegion } from "./live-region.js";
export { SnippetDrawer } from "./snippet-drawer.js";
