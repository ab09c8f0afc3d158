/** Drawer on a web page without an element of its own: reading selections, placing at the caret, saying it aloud. */
export type { ActionResult } from "./action-queue.js";
export { Binding, type BindOptions, type PlaceRequest } from "./binding.js";
export type { BindingEventMap, CollectDetail, PlaceDetail } from "./events.js";
export type { DealState, PageDeal } from "./dealing.js";
export type { FieldToFill, FillPlan } from "./filling.js";
export { openPageDrawer } from "./page-drawer.js";
export { domAdapter } from "./dom-adapter.js";
export { placeOf } from "./places/index.js";
export type { Caret, Place, PlaceKind, Placing } from "./places/place.js";
export { readSelection, readTransfer } from "./selection.js";
export { LiveRegion } from "./live-region.js";
export { speak, type Language, type SomeSentences } from "../messages/spoken.js";
