import type { Block } from "../../compose/block.js";
import type { Fit } from "../../compose/options.js";
import { DrawerError } from "../../content/error.js";
import type { NamedPlace } from "../../messages/core/names.js";
import { pageErrors } from "../../messages/en/page.js";

/** Somewhere on a page that takes text: a field, an editor, a cell. */
export interface Place {
  /** What it is on the page. */
  readonly element: HTMLElement;
  /** What users know it by; its label, or what it is, when it is left out. */
  readonly name?: string | NamedPlace;
  /** What it can hold. */
  readonly fit: Fit;
  /**
   * Puts a block at its caret, in place of what is selected there, in a way that its own undo takes back as one step and
   * its own events tell of.
   *
   * @param caret where the caret was last, when the place does not remember that itself
   * @throws DrawerError `not-placed` when it does not take it; then nothing has changed
   */
  put(block: Block, caret?: Caret): Promise<Placing>;
}

/** How a block has landed: whole; as lines, since the place has no tables; or otherwise than it was. */
export type Landed = "whole" | "as-lines" | "changed";

/** A block that was placed, and can be taken back. */
export interface Placing {
  /** How it has landed; whole, when it is left out. */
  readonly landed?: Landed;
  /** Takes the block back, and nothing else. Returns whether it could: not when what it stands in has changed since. */
  takeBack(): Promise<boolean>;
}

/**
 * What a place of one's own throws when it does not take a block: nothing has changed then, and the user is told.
 * @param message what is wrong, where, and the way out, as a sentence
 */
export function notPlaced(message: string): DrawerError {
  return new DrawerError(pageErrors, "not-placed/own", { message });
}

/** Places one after another; when one is refused, those before it are taken back. What was placed is taken back as one. */
export async function allOrNone(placings: readonly (() => Promise<Placing>)[]): Promise<Placing> {
  const done: Placing[] = [];
  const takeBack = async () => {
    let isAll = true;
    for (const placing of done.splice(0).reverse()) isAll = (await placing.takeBack()) && isAll;
    return isAll;
  };
  try {
    for (const place of placings) done.push(await place());
  } catch (error) {
    await takeBack();
    throw error;
  }
  return { takeBack };
}

/** Where the caret stood, or what was selected. */
export interface Caret {
  /** In an editor: a range that the browser keeps up as the tree changes. */
  readonly range?: Range;
  /** In a field: in characters from its beginning. */
  readonly offsets?: readonly [start: number, end: number];
}

/** A kind of places. */
export interface PlaceKind {
  /** The place that an element is or stands in; nothing when it is none of this kind. */
  find(element: Element): Place | undefined;
}

/** How long a place may take to show what was put into it, in milliseconds. */
const SHOWING = 1000;

/** Settles with whether something came to be: editors work when they are asked, or soon after. */
export async function comesToBe(look: () => boolean, within = SHOWING): Promise<boolean> {
  for (const end = performance.now() + within; ;) {
    if (look()) return true;
    if (performance.now() > end) return false;
    await nextTurn();
  }
}

/** Lets the page do what it has to. */
export function nextTurn(): Promise<void> {
  return new Promise((next) => setTimeout(next, 0));
}
