import type { Recipe } from "../../compose/recipe.js";
import { checkOptions, checkValue } from "../../content/check.js";
import { defined } from "../../content/defined.js";
import { DrawerError } from "../../content/error.js";
import { notice, type Notice } from "../../content/notice.js";
import { actErrors, actNotices } from "../../messages/en/acts.js";
import { piecesOf, type Entry } from "../model/entry.js";
import { newId } from "../model/ids.js";
import { readValue, VALUES } from "../model/values.js";
import { privateTraces } from "../private-traces.js";
import { readSnippets, someToGiveOut, snippetsOf, type Snippet } from "../snippets.js";
import type { Positioned } from "../store.js";
import { isTrace } from "../traces.js";
import { retryOnConflict, type Context, type Procedure } from "../transaction.js";

/**
 * A deal hands out a pick one snippet at a time, in order: one to each field, cell or page. It is kept with the drawer,
 * with its recipe, so it goes on tomorrow and in another process, and what is collected or discarded meanwhile does not
 * disturb it. Who hands a snippet out claims it first, so no two get the same one. What has been forgotten for good is
 * passed over, with a notice.
 */

/** How a deal is begun. */
export interface DealOptions {
  /** How each snippet is made into a block. */
  readonly recipe?: Recipe;
  /** Where it goes by itself, each paste bringing the next: the clipboard of the desktop. */
  readonly to?: "clipboard";
}

/** How far a deal is. */
export interface DealStatus extends DealOptions {
  /** How many are left to hand out. */
  readonly left: number;
  /** How many there are in all. */
  readonly of: number;
  /** What is told of a deal that has just been begun: that private snippets were left out. */
  readonly notices?: readonly Notice[];
}

/** One snippet that was handed out: which of how many. */
export interface Dealt {
  readonly snippet: Snippet;
  /** Its number in the deal, from 1. */
  readonly number: number;
  /** How many the deal has. */
  readonly of: number;
  /** How it is made into a block. */
  readonly recipe: Recipe;
  /** What was passed over on the way. */
  readonly notices: readonly Notice[];
}

/** Gets a snippet that is handed out; when it fails, the snippet has not been handed out. */
export type DealReceiver = (dealt: Dealt) => Promise<void> | void;

/** How long somebody may take to hand a snippet out before it counts as left again, in milliseconds. */
const CLAIM = 60_000;

/** A snippet that is being handed out, until when; past that its process has ended, or failed, and it is left again. */
interface Claim {
  readonly number: number;
  /** In milliseconds since 1970. */
  readonly until: number;
}

/** A deal as it is kept: which snippets are handed out, by their ids alone, and how many have been. */
interface KeptDeal extends DealOptions {
  /** Of this deal alone; deals of old have none. */
  readonly id?: string;
  readonly snippets: readonly { readonly id: string; readonly position: number }[];
  readonly handed: number;
  readonly claims?: readonly Claim[];
}

/**
 * Begins a deal, in place of the one before. A snippet that is picked twice is handed out twice.
 * @param pick which snippets
 * @throws DrawerError `bad-pick`, `no-position`, `nothing`, `bad-option`
 */
export const deal: Procedure<[pick: string, options?: DealOptions], Promise<DealStatus>> = {
  async run({ store, drawer }, pick, options = {}) {
    checkOptions("option of a deal", options, ["recipe", "to"]);
    const { recipe, to } = options;
    if (recipe) {
      // A page loads composing when it is first needed.
      const { checkRecipe } = await import("../../compose/check-recipe.js");
      checkRecipe(recipe);
    }
    const { picked, notices } = await someToGiveOut(snippetsOf(store, drawer), pick);
    const snippets = picked.map(({ position, entry }) => ({ id: entry.id, position }));
    const before = await store.value(drawer, VALUES.deal);
    const kept: KeptDeal = { id: newId(), snippets, handed: 0, ...defined({ recipe, to }) };
    await store.setValue(drawer, VALUES.deal, before, JSON.stringify(kept));
    return { ...statusOf(kept), ...(notices.length > 0 && { notices }) };
  },
};

/**
 * How far the deal is.
 * @throws DrawerError `nothing` when no deal has been begun
 */
export const dealStatus: Procedure<[], Promise<DealStatus>> = {
  run: async (context) => statusOf((await keptDeal(context)).kept),
};

/**
 * Hands out the next snippet; undefined when all have been handed out.
 * @param receive gets it
 * @throws DrawerError `nothing` when no deal has been begun, `conflict`
 */
export const dealNext: Procedure<[receive?: DealReceiver], Promise<Dealt | undefined>> = {
  run: (context, receive) => handOut(context, 1, receive),
};

/**
 * Hands out again the snippet before the last that was handed out; the first stays the first.
 * @param receive gets it
 * @throws DrawerError `nothing` when no deal has been begun, `conflict`
 */
export const dealBack: Procedure<[receive?: DealReceiver], Promise<Dealt | undefined>> = {
  run: (context, receive) => handOut(context, -1, receive),
};

/**
 * The snippet that would be handed out next, which is not handed out; undefined when all have been.
 * @throws DrawerError `nothing` when no deal has been begun
 */
export const dealPeek: Procedure<[], Promise<Dealt | undefined>> = {
  async run(context) {
    const { kept } = await keptDeal(context);
    return find(context, kept, nextOf(kept), 1);
  },
};

/**
 * Passes over the next snippet, and hands out nothing.
 * @param number the number of the snippet up to which is passed over, as it was seen
 * @throws DrawerError `nothing` when no deal has been begun, `conflict` when it has been handed out since
 */
export const dealSkip: Procedure<[number?: number], Promise<DealStatus>> = {
  async run(context, number) {
    checkValue("number", number, number === undefined || Number.isInteger(number), "a whole number");
    const altered = await alter(context, (kept) => {
      const next = nextOf(kept);
      if (number !== undefined && number < next) throw new DrawerError(actErrors, "conflict/deal", {});
      return next > kept.snippets.length ? kept : handed(kept, number ?? next);
    });
    return statusOf(altered);
  },
};

/**
 * Makes the snippet that was handed out last the next again, and hands out nothing; the first stays the first.
 * @throws DrawerError `nothing` when no deal has been begun, `conflict`
 */
export const dealReturn: Procedure<[], Promise<DealStatus>> = {
  run: (context) =>
    alter(context, (kept) => ({ ...kept, handed: Math.max(0, kept.handed - 1) })).then(statusOf),
};

/** The claims of those who did not hand out what they had claimed. */
function lapsed({ claims = [] }: KeptDeal): number[] {
  return claims.filter(({ until }) => until <= Date.now()).map(({ number }) => number);
}

/** The number of the next snippet: the first that was claimed and not handed out, or the one after those that were. */
function nextOf(kept: KeptDeal): number {
  return Math.min(kept.handed + 1, ...lapsed(kept));
}

/** A deal in which a snippet has been handed out, or is being. */
function handed(kept: KeptDeal, number: number, until?: number): KeptDeal {
  const others = (kept.claims ?? []).filter((claim) => claim.number !== number);
  const claims = until === undefined ? others : [...others, { number, until }];
  const { claims: _, ...rest } = kept;
  return { ...rest, handed: Math.max(kept.handed, number), ...(claims.length > 0 && { claims }) };
}

function statusOf(kept: KeptDeal): DealStatus {
  const { snippets, recipe, to } = kept;
  const left = snippets.length - kept.handed + lapsed(kept).length;
  return { left, of: snippets.length, ...defined({ recipe, to }) };
}

/** Claims a snippet, hands it to a receiver, and keeps that it has it; or, if that fails, that it is left. */
async function handOut(
  context: Context,
  step: 1 | -1,
  receive: DealReceiver = () => undefined,
): Promise<Dealt | undefined> {
  checkValue("receive", receive, typeof receive === "function", "a function");
  let dealt: Dealt | undefined;
  let before: KeptDeal | undefined;
  const claimed = await alter(context, async (kept) => {
    before = kept;
    dealt = await find(context, kept, step > 0 ? nextOf(kept) : Math.max(1, kept.handed - 1), step);
    if (dealt) {
      const held = step > 0 ? kept : { ...kept, handed: Math.min(kept.handed, dealt.number) };
      return handed(held, dealt.number, Date.now() + CLAIM);
    }
    return step > 0 ? { ...kept, handed: kept.snippets.length } : kept;
  });
  if (!dealt) return undefined;
  const { number } = dealt;
  try {
    await receive(dealt);
  } catch (error) {
    // Where nobody has gone on meanwhile it is as it was; else this one is left.
    await alter(context, (kept) => {
      if (kept.id !== claimed.id) return kept;
      return JSON.stringify(kept) === JSON.stringify(claimed) ? before! : handed(kept, number, 0);
    });
    throw error;
  }
  // A deal that was begun in place of this one meanwhile is none of ours.
  await alter(context, (kept) => (kept.id === claimed.id ? handed(kept, number) : kept));
  return dealt;
}

/** The first snippet of a deal from a place on that can be handed out, with what is passed over on the way. */
async function find(
  context: Context,
  { snippets, recipe = {} }: KeptDeal,
  from: number,
  step: 1 | -1,
): Promise<Dealt | undefined> {
  const of = snippets.length;
  const notices: Notice[] = [];
  for (let number = from; number >= 1 && number <= of; number += step) {
    const snippet = await findDealt(context, snippets[number - 1]!);
    if (snippet) return { snippet, number, of, recipe, notices };
    notices.push(notice(actNotices, "forgotten/dealt", { number, of }));
  }
  return undefined;
}

/** Keeps what a deal has become; worked out again when another process has gone on with it meanwhile. */
function alter(
  context: Context,
  change: (kept: KeptDeal) => KeptDeal | Promise<KeptDeal>,
): Promise<KeptDeal> {
  const { store, drawer } = context;
  return retryOnConflict(drawer, async () => {
    const { text, kept } = await keptDeal(context);
    const changed = await change(kept);
    const after = JSON.stringify(changed);
    if (after !== text) await store.setValue(drawer, VALUES.deal, text, after);
    return changed;
  });
}

async function keptDeal({ store, drawer }: Context): Promise<{ text: string; kept: KeptDeal }> {
  const text = await store.value(drawer, VALUES.deal);
  const kept = readValue<KeptDeal>(text, ({ snippets }) => Array.isArray(snippets));
  if (text === undefined || !kept) throw new DrawerError(actErrors, "nothing/deal", {});
  return { text, kept };
}

/** A snippet of a deal, wherever it is now: in a drawer, among what has left one, or a piece of another. */
async function findDealt(
  context: Context,
  { id, position }: KeptDeal["snippets"][number],
): Promise<Snippet | undefined> {
  const { store, drawer } = context;
  const [here] = await store.entries({ drawer, ids: [id] });
  const found = here ?? (await findElsewhere(context, id, position));
  if (!found) return undefined;
  const [snippet] = await readSnippets(store, [found]);
  return snippet;
}

async function findElsewhere(
  { store, drawer }: Context,
  id: string,
  position: number,
): Promise<Positioned | undefined> {
  const traces = await privateTraces(store);
  const mayBeShown = (entry: Entry) => entry.private || !traces || !isTrace(entry, traces);
  const gone = (await store.gone(drawer)).find(({ entry }) => entry.id === id);
  if (gone) return mayBeShown(gone.entry) ? { position, entry: gone.entry } : undefined;
  // Moved, merged or split: the log tells where it went last.
  for (const change of await store.changes({ about: [id] })) {
    for (const { after } of change.edits) {
      const entry = after && piecesOf(after).find((piece) => piece.id === id);
      if (entry && !mayBeShown(entry)) return undefined;
      if (entry && (await store.contents([entry.content])).has(entry.content)) return { position, entry };
    }
  }
  return undefined;
}
