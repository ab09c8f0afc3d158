// Every operation of a drawer: what makes it possible where the usual drawer does not, and the act itself.
import { readText } from "../dist/index.js";
import { drawerFile } from "./support.mjs";

export const piece = (text, more = {}) => ({ ...readText(text), origin: {}, ...more });

/** What a drawer holds before each: 1 to 5, of which 2 is kept, 3 hidden and 5 merged; 6 is a secret; one has left, and one was dealt. */
export async function fill(drawer, word) {
  await drawer.collect(
    ["zero", "one", "two", "three", "four", "five", "six"].map((text) => piece(`${text} ${word}`)),
  );
  await drawer.discard("1");
  await drawer.merge("5 6");
  await drawer.keep("2");
  await drawer.hide("3");
  await drawer.collect([piece(`hush ${word}`, { private: true })]);
  await drawer.saveRecipe("before", { as: "lines" });
  await drawer.deal("1 2 4");
  await drawer.dealNext();
}

/** By the names under which `drawer/operations` exports them. */
export const OPERATIONS = {
  collect: { act: (drawer, word) => drawer.collect([piece(`new ${word}`), piece(`newer ${word}`)]) },
  append: { act: (drawer, word) => drawer.append(piece(`more ${word}`), { position: 1 }) },
  merge: { act: (drawer) => drawer.merge("1 2 4") },
  split: { act: (drawer) => drawer.split({ position: 5 }) },
  refresh: {
    act: async (drawer, word) => {
      const [{ entry }] = await drawer.list({ last: 1 });
      return drawer.refresh([
        { place: { id: entry.id }, reading: readText(`fresh ${word}`), from: entry.content, at: "p9" },
      ]);
    },
  },
  rewrite: { act: (drawer, word) => drawer.rewrite({ position: 4 }, readText(`other ${word}`)) },
  move: { act: (drawer) => drawer.move("1 2", "end") },
  moveInto: { act: (drawer) => drawer.moveInto(`${drawer.name}-other`, "1 3 5") },
  copyInto: { act: (drawer) => drawer.copyInto(`${drawer.name}-other`, "1 5") },
  label: { act: (drawer) => drawer.label("1 4", "harbour") },
  keep: { act: (drawer) => drawer.keep("1 4") },
  release: { act: (drawer) => drawer.release("2") },
  hide: { act: (drawer) => drawer.hide("1 5") },
  unhide: { act: (drawer) => drawer.unhide("3") },
  discard: { act: (drawer) => drawer.discard("1 3 5") },
  empty: { act: (drawer) => drawer.empty() },
  emptyForGood: { act: (drawer) => drawer.emptyForGood() },
  restore: { act: (drawer) => drawer.restore("all") },
  setRules: { act: (drawer) => drawer.setRules({ snippets: 3 }) },
  saveRecipe: { act: (drawer) => drawer.saveRecipe("harbour", { as: "bullets" }) },
  removeRecipe: { act: (drawer) => drawer.removeRecipe("before") },
  deal: { act: (drawer) => drawer.deal("4 1") },
  dealNext: { act: (drawer) => drawer.dealNext() },
  dealBack: { act: (drawer) => drawer.dealBack() },
  dealSkip: { act: (drawer) => drawer.dealSkip() },
  dealReturn: { act: (drawer) => drawer.dealReturn() },
  importFile: { act: (drawer, word) => drawer.importFile(() => drawerFile(30, word)) },
  undo: { prepare: (drawer) => drawer.merge("1 4"), act: (drawer) => drawer.undo() },
  undoTo: {
    prepare: (drawer) => drawer.discard("1 4"),
    act: async (drawer) => drawer.undoTo((await drawer.actions(2))[1].id),
    // It is so many undos, and each of them is whole.
    between: (drawer) => drawer.undo(),
  },
  redo: {
    prepare: async (drawer) => {
      await drawer.merge("1 4");
      await drawer.undo();
    },
    act: (drawer) => drawer.redo(),
  },
};

/** Those that change nothing. */
export const READING = ["recipes", "recipe", "dealStatus", "dealPeek", "exportFile"];
