/** How blocks are put into the places of a page. */
export { EditorPaste } from "./editor.js";
export { putIntoField, setFieldTo } from "./field.js";
export { putIntoGrid } from "./grids.js";
