import { append } from "./append.js";
import { collect } from "./collect.js";
import { deal, dealBack, dealLeft, dealNext, dealPeek, dealReturn, dealSkip } from "./deal.js";
import { discard } from "./discard.js";
import { emptyForGood } from "./empty-for-good.js";
import { empty } from "./empty.js";
import { exportFile } from "./export.js";
import { hide } from "./hide.js";
import { importFile } from "./import.js";
import { keep } from "./keep.js";
import { label } from "./label.js";
import { merge } from "./merge.js";
import { move } from "./move.js";
import { copyInto, moveInto } from "./put-into.js";
import { recipe, recipes, removeRecipe, saveRecipe } from "./recipes.js";
import { release } from "./release.js";
import { restore } from "./restore.js";
import { setRules } from "./set-rules.js";
import { split } from "./split.js";
import { redo, undo, undoTo } from "./undo-redo.js";
import { unhide } from "./unhide.js";

/** All operations, by the names of the methods that {@link Drawer} has for them. */
export const OPERATIONS = {
  collect,
  append,
  merge,
  split,
  move,
  moveInto,
  copyInto,
  label,
  keep,
  release,
  hide,
  unhide,
  discard,
  empty,
  emptyForGood,
  restore,
  setRules,
  recipes,
  recipe,
  saveRecipe,
  removeRecipe,
  deal,
  dealLeft,
  dealNext,
  dealBack,
  dealPeek,
  dealSkip,
  dealReturn,
  importFile,
  exportFile,
  undo,
  undoTo,
  redo,
} as const;
