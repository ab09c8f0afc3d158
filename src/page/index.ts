/** Drawer on a web page: reading selections, placing at the caret, saying it aloud, and the `<snippet-drawer>` element. */
export { Binding, type BindOptions, type Told } from "./binding.js";
export { pageDoor } from "./door.js";
export { placeAt, targetOf, type Placing, type Target } from "./place.js";
export { readSelection, readTransfer } from "./selection.js";
export { Voice } from "./say.js";
export { SnippetDrawer } from "./snippet-drawer.js";
