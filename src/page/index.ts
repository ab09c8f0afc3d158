/** Drawer on a web page: all of `drawer/binding`, and the `<snippet-drawer>` element, which it defines. */
export * from "./headless.js";
export { SnippetDrawer, type SnippetDrawerEventMap } from "./element/snippet-drawer.js";
