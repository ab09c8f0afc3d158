/** What the panels show, and their looks: loaded when the first is opened. */
export { computerPanel, type Computer } from "./computer.js";
export { donePanel } from "./done.js";
export { fillPanel } from "./fill.js";
export { gonePanel } from "./gone.js";
export { keysPanel } from "./keys.js";
export { panelStyles } from "./panel-styles.js";
export { recipesPanel } from "./recipes.js";
export { rulesPanel } from "./rules.js";
export { isEditable, snippetPanel } from "./snippet.js";
