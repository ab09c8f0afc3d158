import type { Recipe } from "../compose/recipe.js";
import type { Hash } from "../content/encode.js";
import type { Notice, Reading } from "../content/notice.js";
import type { FileLines, ImportOptions } from "./drawer-file.js";
import { changing, DrawerReader } from "./drawer-reader.js";
import type { Incoming } from "./incoming.js";
import type { SnippetRef } from "./model/pick.js";
import { type Rules } from "./model/rules.js";
import type { Collected } from "./operations/collect.js";
import type { DealOptions, DealStatus, DealReceiver, Dealt } from "./operations/deal.js";
import type { Exported } from "./operations/export.js";
import type { Refreshed } from "./operations/refresh.js";
import type { Context, Operation, Plan, Procedure, Transaction } from "./transaction.js";

type Operations = typeof import("./operations/index.js");

/** The method that an operation is on a drawer. */
type Method<Value> = Value extends {
  plan(transaction: Transaction, ...args: infer Args): Promise<Plan<infer Result>>;
}
  ? (...args: Args) => Promise<Result>
  : Value extends { run(context: Context, ...args: infer Args): infer Result }
    ? (...args: Args) => Result
    : never;

/** A method for each operation: the compiler says which is forgotten. */
type OperationMethods = {
  readonly [Name in keyof Operations]: Method<Operations[Name]>;
};

/** The operations that are loaded when the first is done: those that give a promise. */
type Loaded = {
  [Name in keyof Operations]: OperationMethods[Name] extends (...args: never) => Promise<unknown>
    ? Name
    : never;
}[keyof Operations];

type AnyOperation = Operation<unknown[], unknown> | Procedure<unknown[], unknown>;

/**
 * A drawer: a named, ordered collection of snippets in a store. Positions start at 1, in the order of gathering. It
 * holds no state of its own, so any number of them, in any number of processes, can work on one store at once. What an
 * operation has to say it gives as notices; what it refuses it throws as a DrawerError, and then nothing has changed.
 *
 * @example
 * ```js
 * import { Drawer, MemoryStore, readText } from "drawer";
 *
 * const drawer = new Drawer(new MemoryStore(), "spring");
 * await drawer.collect([{ ...readText("First wheatear on the seawall"), origin: { document: "diary.txt" } }]);
 * const [latest] = await drawer.snippets("last");
 * console.log(latest.position, latest.entry.text); // 1 First wheatear on the seawall
 * ```
 */
export class Drawer extends DrawerReader implements OperationMethods {
  /**
   * Collects all of these at the end, in order, by the drawer's rules; or none of them. Nothing goes, and nothing is
   * left out, without a notice.
   * @param incoming what was read, each with its origin, as the readers give it
   * @throws DrawerError `paused` when collecting is off, `full` when nothing that may go would make room enough
   *
   * @example
   * ```js
   * import { Drawer, MemoryStore, readText } from "drawer";
   *
   * const drawer = new Drawer(new MemoryStore());
   * const piece = (text) => ({ ...readText(text), origin: { document: "diary.txt" } });
   * const { collected, notices } = await drawer.collect([piece("Wryneck"), piece("")]);
   * console.log(collected.map(({ position }) => position)); // [ 1 ]
   * console.log(notices[0].message); // Nothing collected: diary.txt is blank.
   * ```
   */
  collect(incoming: readonly Incoming[]): Promise<Collected> {
    return this.#perform("collect", incoming);
  }

  /**
   * Adds one piece or several to the end of a snippet, all or none of them. It can be split again into what it was and
   * what was added.
   *
   * @param to the snippet; the latest when it is left out
   * @param between what stands between the two, as in a recipe
   * @param incoming what was read; several are added in their order
   * @throws DrawerError `no-position`, `nothing` when there is nothing to add, `private`, `paused`, `full`
   *
   * @example
   * ```js
   * import { Drawer, MemoryStore, readText } from "drawer";
   *
   * const drawer = new Drawer(new MemoryStore());
   * const piece = (text) => ({ ...readText(text), origin: { document: "diary.txt" } });
   * await drawer.collect([piece("Wryneck")]);
   * await drawer.append(piece("at the hut"), undefined, "space");
   * console.log((await drawer.snippets("1"))[0].entry.text); // Wryneck at the hut
   * ```
   */
  append(incoming: Incoming | readonly Incoming[], to?: SnippetRef, between?: string): Promise<Collected> {
    return this.#perform("append", incoming, to, between);
  }

  /**
   * Makes one snippet of several, where the first of the pick stood; {@link split} makes the several of it again, with
   * all that was known of them.
   *
   * @param pick which snippets, as on the command line: `1 3..5 last`; their order is that of the pieces
   * @param recipe how they are laid out; one after another when it is left out
   * @throws DrawerError `bad-pick`, `no-position`, `bad-option`, `private`, `nothing` when the pick is less than two snippets
   *
   * @example
   * ```js
   * import { Drawer, MemoryStore, readText } from "drawer";
   *
   * const drawer = new Drawer(new MemoryStore());
   * const piece = (text) => ({ ...readText(text), origin: { document: "diary.txt" } });
   * await drawer.collect([piece("Wryneck"), piece("Wren")]);
   * const { notices } = await drawer.merge("all", { as: "sentence" });
   * console.log(notices[0].message); // Merged 1, 2 into 1: “Wryneck and Wren”. Split makes them 2 again.
   * ```
   */
  merge(pick: string, recipe?: Recipe): Promise<Collected> {
    return this.#perform("merge", pick, recipe);
  }

  /**
   * Parts a snippet that was merged or appended to into the snippets it was made of, where it stands.
   * @param place the snippet: a position, counting from 1 or from the last, or an id
   * @throws DrawerError `no-position`, `nothing` when it was made of one piece
   */
  split(place: SnippetRef): Promise<Collected> {
    return this.#perform("split", place);
  }

  /**
   * Puts other words into a snippet, which stays where it is, with its label, its origin and the pieces it can be split into.
   * @param place the snippet: a position, counting from 1 or from the last, or an id
   * @param reading what it is to say
   * @param from what it said when it was read for this, by the name of its content (`entry.content`); whatever it says now when it is
   *   left out
   * @throws DrawerError `no-position`, `nothing` when nothing is left of it, `conflict` when it says something else by now, `private`
   *   when it looks like a secret that it was not before, `full`
   *
   * @example
   * ```js
   * import { Drawer, MemoryStore, readText } from "drawer";
   *
   * const drawer = new Drawer(new MemoryStore());
   * await drawer.collect([{ ...readText("Hihg water"), origin: {} }]);
   * const { notices } = await drawer.rewrite({ position: 1 }, readText("High water"));
   * console.log(notices[0].message); // Snippet 1 says now: “High water”.
   * ```
   */
  rewrite(place: SnippetRef, reading: Reading, from?: Hash): Promise<Collected> {
    return this.#perform("rewrite", place, reading, from);
  }

  /**
   * Takes snippets anew from where they came from, all as one act; they stay where they are, with their labels and the pieces they can
   * be split into.
   * @param refreshed each snippet, what its document says now, what the snippet said when that was looked at (`entry.content`), and the
   *   spot of what it says now, where that is another
   * @throws DrawerError `no-position`, `nothing` when nothing is left of one, `conflict` when one says something else by now, `private`
   *   when one looks like a secret that it was not before, `full`
   *
   * @example
   * ```js
   * import { Drawer, MemoryStore, readText } from "drawer";
   *
   * const drawer = new Drawer(new MemoryStore());
   * const { collected } = await drawer.collect([{ ...readText("High water 06:10"), origin: { document: "tides.txt", at: "p1" } }]);
   * const from = collected[0].entry.content;
   * await drawer.refresh([{ place: { position: 1 }, reading: readText("High water 06:52"), from }]);
   * console.log((await drawer.list())[0].entry.text); // High water 06:52
   * ```
   */
  refresh(refreshed: readonly Refreshed[]): Promise<Collected> {
    return this.#perform("refresh", refreshed);
  }

  /**
   * Moves the snippets of a pick, in the pick's order, to stand before another one, or after the last when `before` is
   * `end`.
   * @param pick which snippets, as on the command line: `1 3..5 last`
   * @param before the snippet to stand before, or `end`
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   *
   * @example
   * ```js
   * import { Drawer, MemoryStore, readText } from "drawer";
   *
   * const drawer = new Drawer(new MemoryStore());
   * const piece = (text) => ({ ...readText(text), origin: { document: "diary.txt" } });
   * await drawer.collect([piece("Wryneck"), piece("Wren"), piece("Gannet")]);
   * await drawer.move("last", { position: 1 });
   * console.log((await drawer.snippets("all")).map(({ entry }) => entry.text)); // [ 'Gannet', 'Wryneck', 'Wren' ]
   * ```
   */
  move(pick: string, before: SnippetRef | "end"): Promise<Notice[]> {
    return this.#perform("move", pick, before);
  }

  /**
   * Moves the snippets of a pick to the end of another drawer, by its rules.
   * @param drawer the name of the other drawer, which is made when there is none
   * @param pick which snippets, as on the command line: `1 3..5 last`
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`, `full`, `bad-option` when it is the same drawer
   */
  moveInto(drawer: string, pick: string): Promise<Notice[]> {
    return this.#perform("moveInto", drawer, pick);
  }

  /**
   * Copies the snippets of a pick to the end of another drawer, by its rules.
   * @param drawer the name of the other drawer, which is made when there is none
   * @param pick which snippets, as on the command line: `1 3..5 last`; private ones by their own numbers only
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`, `full`, `private`, `bad-option` when it is the same drawer
   */
  copyInto(drawer: string, pick: string): Promise<Notice[]> {
    return this.#perform("copyInto", drawer, pick);
  }

  /**
   * Gives the snippets of a pick a label, or takes it off with an empty one.
   * @param pick which snippets, as on the command line: `1 3..5 last`
   * @param label one line of at most 200 characters
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`, `bad-option`
   */
  label(pick: string, label: string): Promise<Notice[]> {
    return this.#perform("label", pick, label);
  }

  /**
   * Keeps the snippets of a pick: limits, age and emptying leave them alone.
   * @param pick which snippets, as on the command line: `1 3..5 last`
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   */
  keep(pick: string): Promise<Notice[]> {
    return this.#perform("keep", pick);
  }

  /**
   * Stops keeping the snippets of a pick.
   * @param pick which snippets, as on the command line: `1 3..5 last`
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   */
  release(pick: string): Promise<Notice[]> {
    return this.#perform("release", pick);
  }

  /**
   * Makes the snippets of a pick private: shown nowhere, not found, not exported. They stay so until a person says, or go after a time.
   * @param pick which snippets
   * @param age that time, in milliseconds
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`, `bad-option` for what is no time
   */
  hide(pick: string, age?: number): Promise<Notice[]> {
    return this.#perform("hide", pick, age);
  }

  /**
   * Takes the privacy off the snippets of a pick.
   * @param pick which snippets, as on the command line: `1 3..5 last`
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   */
  unhide(pick: string): Promise<Notice[]> {
    return this.#perform("unhide", pick);
  }

  /**
   * Takes the snippets of a pick out. `undo` brings them back.
   * @param pick which snippets, as on the command line: `1 3..5 last`
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   */
  discard(pick: string): Promise<Notice[]> {
    return this.#perform("discard", pick);
  }

  /** Takes out all that are not kept. `undo` brings them back. */
  empty(): Promise<Notice[]> {
    return this.#perform("empty");
  }

  /** Forgets all that is not kept, all that has left, and the log, and wipes out what the store has of them. */
  emptyForGood(): Promise<Notice[]> {
    return this.#perform("emptyForGood");
  }

  /**
   * Brings back what has left, to the end of the drawer.
   *
   * @param pick of what {@link Drawer.gone} gives
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`, `full`, `store` when a content is missing
   */
  restore(pick: string): Promise<Notice[]> {
    return this.#perform("restore", pick);
  }

  /**
   * Changes rules, and says of each what it is now. What no longer has room goes, and a notice names it; undo takes all
   * of it back.
   * @param changes those that change; times in milliseconds, sizes in bytes, `null` for no limit
   * @throws DrawerError `bad-option`, `full` when nothing that may go would make room enough
   */
  setRules(changes: Partial<Rules>): Promise<Notice[]> {
    return this.#perform("setRules", changes);
  }

  /** The names of the recipes that are kept with the drawer, in order. */
  recipes(): Promise<string[]> {
    return this.#perform("recipes");
  }

  /**
   * A recipe by its name.
   * @param name the name under which it was kept
   * @throws DrawerError `nothing` when there is none of that name
   */
  recipe(name: string): Promise<Recipe> {
    return this.#perform("recipe", name);
  }

  /**
   * Keeps a recipe under a name, in place of the one that had it. Returns whether there was one.
   * @param name one short word
   * @param recipe what is kept
   * @throws DrawerError `bad-option` when the name is not one short word
   */
  saveRecipe(name: string, recipe: Recipe): Promise<boolean> {
    return this.#perform("saveRecipe", name, recipe);
  }

  /**
   * Takes a recipe away. Returns what it was.
   * @param name the name under which it was kept
   * @throws DrawerError `nothing` when there is none of that name
   */
  removeRecipe(name: string): Promise<Recipe> {
    return this.#perform("removeRecipe", name);
  }

  /**
   * Begins a deal, in place of the one before. A snippet that is picked twice is handed out twice.
   * @param pick which snippets
   * @param options the recipe that each snippet is made by, and whether it is dealt on the clipboard
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`, `bad-option`
   *
   * @example
   * ```js
   * import { Drawer, MemoryStore, readText } from "drawer";
   *
   * const drawer = new Drawer(new MemoryStore());
   * const piece = (text) => ({ ...readText(text), origin: { document: "diary.txt" } });
   * await drawer.collect([piece("Wryneck"), piece("Wren")]);
   * await drawer.deal("all");
   * console.log((await drawer.dealNext()).snippet.entry.text); // Wryneck
   * console.log(await drawer.dealStatus()); // { left: 1, of: 2 }
   * ```
   */
  deal(pick: string, options?: DealOptions): Promise<DealStatus> {
    return this.#perform("deal", pick, options);
  }

  /**
   * How far the deal is.
   * @throws DrawerError `nothing` when no deal has been begun
   */
  dealStatus(): Promise<DealStatus> {
    return this.#perform("dealStatus");
  }

  /**
   * Hands out the next snippet; undefined when all have been handed out.
   * @param receive gets it
   * @throws DrawerError `nothing` when no deal has been begun, `conflict`
   */
  dealNext(receive?: DealReceiver): Promise<Dealt | undefined> {
    return this.#perform("dealNext", receive);
  }

  /**
   * Hands out again the snippet before the last that was handed out; the first stays the first.
   * @param receive gets it
   * @throws DrawerError `nothing` when no deal has been begun, `conflict`
   */
  dealBack(receive?: DealReceiver): Promise<Dealt | undefined> {
    return this.#perform("dealBack", receive);
  }

  /**
   * The snippet that would be handed out next, which is not handed out; undefined when all have been.
   * @throws DrawerError `nothing` when no deal has been begun
   */
  dealPeek(): Promise<Dealt | undefined> {
    return this.#perform("dealPeek");
  }

  /**
   * Passes over the next snippet, and hands out nothing.
   * @param number the number that the next one must have
   * @throws DrawerError `nothing` when no deal has been begun, `conflict` when another one is next by now
   */
  dealSkip(number?: number): Promise<DealStatus> {
    return this.#perform("dealSkip", number);
  }

  /**
   * Makes the snippet that was handed out last the next again, and hands out nothing; the first stays the first.
   * @throws DrawerError `nothing` when no deal has been begun, `conflict`
   */
  dealReturn(): Promise<DealStatus> {
    return this.#perform("dealReturn");
  }

  /**
   * Brings the snippets of a drawer file into a drawer, at its end: all of them, or, if one line is refused, none. Those
   * that are there already, collected at the same time with the same content, are left out and counted. The file is
   * checked whole before anything is written; then it is written in short parts, so that others need not wait. An import
   * that is cut off is taken back when next what is due is done.
   *
   * @param open opens the lines of the file; it is read twice
   * @param options the name of the file, for what is said of it, and what is told how far it is
   * @throws DrawerError `bad-file` for a file that is none, is cut short, or of a newer version, and for a line that is no
   *   snippet; `full` when the drawer's rules do not let so many in; `conflict` when another import is under way
   */
  importFile(open: () => FileLines, options?: ImportOptions): Promise<Notice[]> {
    return this.#perform("importFile", open, options);
  }

  /**
   * Writes snippets as a drawer file: JSON Lines in UTF-8, first a header, then a line a snippet (`docs/drawer-file.md`).
   * Private snippets are left out, and a notice counts them.
   *
   * @param pick which snippets, in which order; all when it is left out
   * @throws DrawerError, while the lines are read: `bad-pick`, `no-position`, `store` when a content is missing
   */
  exportFile(pick?: string): Exported {
    const notices: Notice[] = [];
    return { lines: this.#exportedLines(pick, notices), notices };
  }

  /** What writes the file is loaded when its first line is asked for. */
  async *#exportedLines(pick: string | undefined, notices: Notice[]): AsyncGenerator<string> {
    const { operations } = await changing();
    const exported = operations.exportFile.run({ store: this.store, drawer: this.name }, pick);
    yield* exported.lines;
    notices.push(...exported.notices);
  }

  /**
   * Takes back the last operation that still stands, whoever did it, in whichever process.
   * @throws DrawerError `nothing` when there is none, `conflict` when another drawer is in the way
   *
   * @example
   * ```js
   * import { Drawer, MemoryStore, readText } from "drawer";
   *
   * const drawer = new Drawer(new MemoryStore());
   * await drawer.collect([{ ...readText("Wryneck"), origin: { document: "diary.txt" } }]);
   * await drawer.discard("1");
   * console.log((await drawer.undo())[0].message); // Undone: discarding “Wryneck”.
   * console.log(await drawer.count()); // 1
   * ```
   */
  undo(): Promise<Notice[]> {
    return this.#perform("undo");
  }

  /**
   * Takes back an act and all that was done after it, the latest first, as so many undos. Nothing is done when it does not stand
   * any more.
   *
   * @param id the act, as `actions` tells it
   * @throws DrawerError `conflict` when another drawer is in the way; what came after that is taken back then
   */
  undoTo(id: string): Promise<Notice[]> {
    return this.#perform("undoTo", id);
  }

  /**
   * Does again what was last undone.
   * @throws DrawerError `nothing` when nothing was undone since the last operation, `conflict`
   */
  redo(): Promise<Notice[]> {
    return this.#perform("redo");
  }

  #perform<Name extends Loaded>(
    name: Name,
    ...args: Parameters<OperationMethods[Name]>
  ): ReturnType<OperationMethods[Name]>;
  async #perform(name: Loaded, ...args: unknown[]): Promise<unknown> {
    const { operations, transact } = await changing();
    const operation = operations[name] as AnyOperation;
    const context: Context = { store: this.store, drawer: this.name };
    if ("run" in operation) return operation.run(context, ...args);
    return transact(context, operation.name, (transaction) => operation.plan(transaction, ...args));
  }
}
