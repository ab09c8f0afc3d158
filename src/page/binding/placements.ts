import type { Block } from "../../compose/block.js";
import type { Fit } from "../../compose/options.js";
import type { Recipe } from "../../compose/recipe.js";
import { DrawerError } from "../../content/error.js";
import { notice, type Notice } from "../../content/notice.js";
import type { Drawer } from "../../drawer/drawer.js";
import type { Snippet } from "../../drawer/snippets.js";
import { pageErrors, pageNotices } from "../../messages/en/page.js";
import { describeLastPlace, type LastPlace } from "../places/last-place.js";
import type { Landed, Placing } from "../places/place.js";
import type { PlaceDetail } from "./events.js";
import type { DesktopBlock } from "./host-desktop.js";
import { composed } from "./lazy.js";

/** A block that is to be placed. */
export interface PlaceRequest {
  /** The ids of the snippets that it is made of. */
  readonly ids: readonly string[];
  /** Makes the block for what the place can hold. */
  readonly make: (fit: Fit) => Promise<Block> | Block;
  /** How the block is called when it is told that it was placed: `snippet 3`. */
  readonly what: string;
}

/** Snippets as a block that is to be placed, made by a recipe; `what` is how it is called. */
export function requestOf(snippets: readonly Snippet[], recipe: Recipe, what: string): PlaceRequest {
  return {
    ids: snippets.map(({ entry }) => entry.id),
    make: (fit) => composed(snippets, { ...recipe, fit }),
    what,
  };
}

/** A request as a block for the desktop. */
export async function desktopBlock(drawer: Drawer, request: PlaceRequest): Promise<DesktopBlock> {
  const block = await request.make("page");
  const entries = await drawer.store.entries({ drawer: drawer.name, ids: [...request.ids] });
  return { block, isPrivate: entries.some(({ entry }) => entry.private) };
}

/** What is told of how a block has landed. */
const LANDED = {
  whole: "placed/page",
  "as-lines": "placed/as-lines",
  changed: "placed/changed",
} as const satisfies Record<Landed, string>;

/** Something that was placed, and how it is taken back. */
export interface Placed {
  readonly what: string;
  readonly placing: Placing;
  /** What else is to be done when it was taken back. */
  readonly takenBack?: (() => Promise<unknown>) | undefined;
}

/** Blocks that were placed on a page since anything else was done, each of which can be taken back where it is. */
export class Placements {
  /** The latest last. */
  readonly #placed: Placed[] = [];
  #lastTarget: Pick<LastPlace, "element" | "place"> | undefined;

  /**
   * @param before is asked before a block is placed; it may keep it from it
   * @param after is told that one was placed
   */
  constructor(
    readonly before: (detail: PlaceDetail) => boolean,
    readonly after: (detail: PlaceDetail) => void,
  ) {}

  /** How many there are. */
  get count(): number {
    return this.#placed.length;
  }

  /** Where the last block went; it stays known when the placements are forgotten. */
  get lastTarget(): Pick<LastPlace, "element" | "place"> | undefined {
    return this.#lastTarget;
  }

  /** Forgets them: something else was done since. */
  clear(): void {
    this.#placed.length = 0;
  }

  /** Adds what was placed otherwise: the fields of a form. */
  add(placed: Placed): void {
    this.#placed.push(placed);
  }

  /**
   * Makes a block and places it. Returns what is told of it.
   * @param takenBack is called when it was taken back
   * @throws DrawerError `not-placed`, and as what makes the block
   */
  async put(
    at: LastPlace,
    request: PlaceRequest,
    takenBack?: () => Promise<unknown>,
  ): Promise<readonly Notice[]> {
    const { element, place, caret } = at;
    if (!place) throw new DrawerError(pageErrors, "not-placed/kind", { place: describeLastPlace(at) });
    const block = await request.make(place.fit);
    const detail = { ids: request.ids, target: element, block };
    if (!this.before(detail)) return [];
    const placing = await place.put(block, caret);
    this.#lastTarget = { element, place };
    this.add({ placing, what: request.what, takenBack });
    this.after(detail);
    return [
      ...block.notices,
      notice(pageNotices, LANDED[placing.landed ?? "whole"], {
        what: request.what,
        place: describeLastPlace(at),
      }),
    ];
  }

  /**
   * Takes back the latest.
   * @throws DrawerError `nothing` when there is none, or what it stands in has changed since
   */
  async takeBack(): Promise<readonly Notice[]> {
    const last = this.#placed.pop();
    if (!last) throw new DrawerError(pageErrors, "nothing/placed", {});
    if (!(await last.placing.takeBack())) throw new DrawerError(pageErrors, "nothing/changed", {});
    await last.takenBack?.();
    return [notice(pageNotices, "undone/placing", { what: last.what })];
  }
}
