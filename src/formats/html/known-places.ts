import type { ComputedStyle } from "./computed-style.js";
import type { Selectable, StyleSheet } from "./style-sheet.js";
import type { Declaration } from "./tree-adapter.js";

/**
 * An element on its way through the walk. Elements with the same name and the same attributes of look, in the same
 * place, are one place: a thousand rows cost what one row costs.
 */
export interface StyleContext extends Selectable {
  readonly heading: number | undefined;
  /** All declarations that hold for it, the weakest first. */
  readonly declarations: readonly Declaration[];
  /** The places inside it. */
  inside: PlaceTree | undefined;
}

/** A place, and how text looks in it, given how it looked around it. */
export interface StyledContext {
  readonly around: ComputedStyle;
  readonly style: ComputedStyle;
  readonly place: StyleContext;
}

/**
 * Places by the name of their element, then by the name and the value of each attribute of look. (A key of all of these would have to be
 * put together for each element.)
 */
export class PlaceTree {
  entered: StyledContext | undefined;
  #branches: Map<string, PlaceTree> | undefined;

  /** What comes after a word; made where it was never met. */
  to(word: string): PlaceTree {
    let branch = this.#branches?.get(word);
    if (!branch) (this.#branches ??= new Map()).set(word, (branch = new PlaceTree()));
    return branch;
  }
}

/** How many characters of attributes are remembered, about; a place counts as so many more. */
const MOST = 200_000;
const PLACE = 400;

/**
 * A style sheet, and the places that were met in pages with it. Programs write the same frame around all that is copied in them: the
 * next payload finds the places of the last.
 */
export class KnownPlaces {
  #outermost = new Map<ComputedStyle, PlaceTree>();
  #weight = 0;

  /** @param sheet the rules by which the places look as they do */
  constructor(readonly sheet: StyleSheet) {}

  /** The outermost places of a page in which text looks so around them. */
  outermost(around: ComputedStyle): PlaceTree {
    let places = this.#outermost.get(around);
    if (!places) this.#outermost.set(around, (places = new PlaceTree()));
    return places;
  }

  /** Says that a place is known now whose attributes are so long. Past what is remembered the next page begins anew. */
  count(length: number): void {
    this.#weight += PLACE + length;
    if (this.#weight <= MOST) return;
    this.#weight = 0;
    this.#outermost = new Map();
  }
}
