import { DrawerError } from "../../content/error.js";
import { notice, type Notice } from "../../content/notice.js";
import { hiddenTraces } from "../hidden.js";
import { piecesOf, type Entry } from "../model/entry.js";
import { VALUES } from "../model/values.js";
import { pickSome, readSnippets, snippetsOf, type Snippet } from "../selection.js";
import { Conflict, type Positioned } from "../store.js";
import { isTrace } from "../traces.js";
import type { Context, Procedure } from "../transaction.js";
import { drawerErrors } from "../../messages/en/errors/drawer.js";
import { drawerNotices } from "../../messages/en/notices/drawer.js";

/**
 * A deal hands out a pick one snippet at a time, in order: one to each field, cell or page. It is kept with the drawer,
 * so it goes on tomorrow and in another process, and what is collected or discarded meanwhile does not disturb it. What
 * has been forgotten for good is passed over, with a notice.
 */

/** One snippet that was handed out: which of how many. */
export interface Dealt {
  readonly snippet: Snippet;
  /** Its number in the deal, from 1. */
  readonly number: number;
  /** How many the deal has. */
  readonly of: number;
  /** What was passed over on the way. */
  readonly notices: readonly Notice[];
}

/** How many snippets of a deal are left, of how many. */
export interface Left {
  readonly left: number;
  readonly of: number;
  /** Where it is dealt to, if it is to the clipboard of the desktop. */
  readonly to?: DealtTo;
}

/** Where a deal goes by itself, each paste bringing the next. */
export type DealtTo = "clipboard";

/** What is done with a snippet that is handed out; when it fails, the snippet has not been handed out. */
export type Use = (dealt: Dealt) => Promise<void> | void;

/** A deal as it is kept: which snippets are handed out, by their ids alone, and how many have been. */
interface KeptDeal {
  readonly snippets: readonly { readonly id: string; readonly position: number }[];
  readonly handed: number;
  readonly to?: DealtTo;
}

/**
 * Begins a deal, in place of the one before. A snippet that is picked twice is handed out twice.
 * @throws DrawerError `bad-pick`, `no-position`, `nothing`
 */
export const deal: Procedure<[pick: string, to?: DealtTo], Promise<Left>> = {
  async run({ store, drawer }, pick, to) {
    const picked = await pickSome(snippetsOf(store, drawer), pick);
    const snippets = picked.map(({ position, entry }) => ({ id: entry.id, position }));
    const before = await store.value(drawer, VALUES.deal);
    const kept: KeptDeal = { snippets, handed: 0, ...(to && { to }) };
    await store.setValue(drawer, VALUES.deal, before, JSON.stringify(kept));
    return leftOf(kept);
  },
};

/**
 * How many snippets are left to hand out.
 * @throws DrawerError `nothing` when no deal has been begun
 */
export const dealLeft: Procedure<[], Promise<Left>> = {
  run: async (context) => leftOf((await keptDeal(context)).kept),
};

/**
 * Hands out the next snippet; undefined when all have been handed out.
 * @throws DrawerError `nothing` when no deal has been begun, `conflict`
 */
export const dealNext: Procedure<[use?: Use], Promise<Dealt | undefined>> = {
  run: (context, use) => handOut(context, (handed) => handed, 1, use),
};

/**
 * Hands out again the snippet before the last that was handed out; the first stays the first.
 * @throws DrawerError `nothing` when no deal has been begun, `conflict`
 */
export const dealBack: Procedure<[use?: Use], Promise<Dealt | undefined>> = {
  run: (context, use) => handOut(context, (handed) => Math.max(0, handed - 2), -1, use),
};

/**
 * The snippet that would be handed out next, which is not handed out; undefined when all have been.
 * @throws DrawerError `nothing` when no deal has been begun
 */
export const dealPeek: Procedure<[], Promise<Dealt | undefined>> = {
  async run(context) {
    const { kept } = await keptDeal(context);
    return find(context, kept, kept.handed, 1);
  },
};

/**
 * Passes over the next snippet, and hands out nothing.
 * @throws DrawerError `nothing` when no deal has been begun, `conflict`
 */
export const dealSkip: Procedure<[], Promise<Left>> = {
  run: (context) => move(context, 1),
};

/**
 * Makes the snippet that was handed out last the next again, and hands out nothing; the first stays the first.
 * @throws DrawerError `nothing` when no deal has been begun, `conflict`
 */
export const dealReturn: Procedure<[], Promise<Left>> = {
  run: (context) => move(context, -1),
};

async function move(context: Context, step: 1 | -1): Promise<Left> {
  const { text, kept } = await keptDeal(context);
  const handed = Math.min(kept.snippets.length, Math.max(0, kept.handed + step));
  await keep(context, text, { ...kept, handed });
  return leftOf({ ...kept, handed });
}

function leftOf({ snippets, handed, to }: KeptDeal): Left {
  return { left: snippets.length - handed, of: snippets.length, ...(to && { to }) };
}

async function handOut(
  context: Context,
  choose: (handed: number) => number,
  step: 1 | -1,
  use: Use = () => undefined,
): Promise<Dealt | undefined> {
  const { text, kept } = await keptDeal(context);
  const dealt = await find(context, kept, choose(kept.handed), step);
  if (dealt) await use(dealt);
  else if (step < 0) return undefined;
  await keep(context, text, { ...kept, handed: dealt?.number ?? kept.snippets.length });
  return dealt;
}

/** The first snippet of a deal from a place on that can be handed out, with what is passed over on the way. */
async function find(
  context: Context,
  { snippets }: KeptDeal,
  from: number,
  step: 1 | -1,
): Promise<Dealt | undefined> {
  const of = snippets.length;
  const notices: Notice[] = [];
  for (let index = from; index >= 0 && index < of; index += step) {
    const number = index + 1;
    const snippet = await findDealt(context, snippets[index]!);
    if (snippet) return { snippet, number, of, notices };
    notices.push(notice(drawerNotices, "forgotten/dealt", { number, of }));
  }
  return undefined;
}

/** Keeps how far the deal is; when another process has gone on with it meanwhile, that stands. */
async function keep({ store, drawer }: Context, before: string, kept: KeptDeal): Promise<void> {
  const after = JSON.stringify(kept);
  if (after === before) return;
  try {
    await store.setValue(drawer, VALUES.deal, before, after);
  } catch (error) {
    if (!(error instanceof Conflict)) throw error;
    throw new DrawerError(drawerErrors, "conflict/deal", {}, { cause: error });
  }
}

async function keptDeal({ store, drawer }: Context): Promise<{ text: string; kept: KeptDeal }> {
  const text = await store.value(drawer, VALUES.deal);
  if (text === undefined) throw new DrawerError(drawerErrors, "nothing/deal", {});
  return { text, kept: JSON.parse(text) as KeptDeal };
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
  const traces = await hiddenTraces(store);
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
