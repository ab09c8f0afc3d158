/** Drawer on a web page without an element of its own: reading selections, placing at the caret, saying it aloud. */
export type { ActionResult } from "../drawer/collecting-session.js";
export { Binding, type BindOptions } from "./binding/binding.js";
export type { HostDesktop } from "./binding/host-desktop.js";
export type { PlaceRequest } from "./binding/placements.js";
export type { BindingEventMap, CollectDetail, PlaceDetail } from "./binding/events.js";
export type { DealState, PageDeal } from "./binding/deal.js";
export type { FieldToFill, FillPlan } from "./places/form.js";
export { openPageDrawer } from "./binding/page-drawer.js";
export { domAdapter } from "./capture/dom-adapter.js";
export { placeOf } from "./places/index.js";
export { notPlaced, type Caret, type Place, type PlaceKind, type Placing } from "./places/place.js";
export { readSelection, readTransfer } from "./capture/selection.js";
export { LiveRegion } from "./binding/live-region.js";
export { setLanguage, type Language, type SomeSentences } from "../messages/core/language.js";
