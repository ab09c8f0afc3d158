import { DrawerError } from "../content/error.js";
import { fold } from "../content/fold.js";
import type { Notice } from "../content/notice.js";
import { perform } from "./act.js";
import { hiddenTraces } from "./hidden.js";
import { pickSome, snippetsOf, type Pickable } from "./picking.js";
import { roomAtEnd } from "./room.js";
import { RULES, rulesOf } from "./rules.js";
import { many, namesOf, naming, said } from "./saying.js";
import { matches, type Gone, type Positioned, type Store } from "./store.js";
import { veiledEntry } from "./traces.js";
import { VALUES } from "./values.js";

/** Takes the snippets of a pick out. */
export async function discard(store: Store, drawer: string, pick: string): Promise<Notice[]> {
  let leaving: Positioned[] = [];
  await perform(store, drawer, "discard", async () => {
    leaving = await pickSome(snippetsOf(store, drawer), pick);
    return { edits: leaving.map(({ entry }) => ({ id: entry.id, before: entry, after: null })) };
  });
  const shown = leaving.slice(0, leaving.length > 4 ? 3 : 4);
  const more = leaving.length > shown.length ? `; and ${leaving.length - shown.length} more` : "";
  const names = shown.map(({ position, entry }) => `${position}, ${naming(entry)}`).join("; ") + more;
  const { count } = await store.size(drawer);
  const rest =
    count === 0 ? "The drawer is empty now" : count === 1 ? "One snippet is left" : `${many(count)} are left`;
  const message = `Discarded ${names}. ${rest}; undo brings ${leaving.length === 1 ? "it" : "them"} back.`;
  return [{ code: "discarded", message }];
}

/** Takes out all that are not kept. */
export async function empty(store: Store, drawer: string): Promise<Notice[]> {
  let leaving: Positioned[] = [];
  await perform(store, drawer, "empty", async () => {
    leaving = await store.entries({ drawer, kept: false });
    return { edits: leaving.map(({ entry }) => ({ id: entry.id, before: entry, after: null })) };
  });
  const { count } = await store.size(drawer);
  const left = whatStays(count);
  if (leaving.length === 0) {
    const message =
      count === 0
        ? `The drawer “${drawer}” is empty already.`
        : `Nothing to take out of the drawer “${drawer}”.${left}`;
    return [{ code: "emptied", message }];
  }
  const message = `Emptied the drawer “${drawer}” of ${many(leaving.length)}.${left} Undo brings ${leaving.length === 1 ? "it" : "them"} back.`;
  return [{ code: "emptied", message }];
}

/** Forgets all that is not kept, what has left and the log; nothing brings any of it back. */
export async function emptyForGood(store: Store, drawer: string): Promise<Notice[]> {
  const deal = await store.value(drawer, VALUES.deal);
  if (deal !== undefined) await store.setValue(drawer, VALUES.deal, deal, undefined);
  const { forgotten, trace } = await store.forget({ drawer, everything: true });
  const { count } = await store.size(drawer);
  const left = whatStays(count);
  const what = forgotten === 0 ? "the log" : `${many(forgotten)}, with what had left and the log`;
  const message = `Forgot for good: ${what} of the drawer “${drawer}”.${left} Nothing brings it back.`;
  return [
    { code: "forgotten", message },
    ...(trace === undefined ? [] : [{ code: "forgotten" as const, message: trace }]),
  ];
}

/** That what is kept stays, after all else went. */
function whatStays(count: number): string {
  if (count === 0) return "";
  return ` ${count === 1 ? "The one that is kept stays" : `The ${count} that are kept stay`}.`;
}

/** What has left a drawer and can be brought back, as it may be shown: of what is private now it tells nothing. */
export async function shownGoneFrom(store: Store, drawer: string): Promise<(Gone & Positioned)[]> {
  const [gone, traces] = [await goneFrom(store, drawer), await hiddenTraces(store)];
  return traces ? gone.map((one) => ({ ...one, entry: veiledEntry(one.entry, traces) })) : gone;
}

/** What has left a drawer and can be brought back, numbered in the order of leaving. */
async function goneFrom(store: Store, drawer: string): Promise<(Gone & Positioned)[]> {
  const { goneAge } = await rulesOf(store, drawer);
  const since = goneAge === null ? "" : new Date(Date.now() - goneAge).toISOString();
  const gone = (await store.gone(drawer)).filter(({ at }) => at >= since);
  return gone.map((one, index) => ({ ...one, position: index + 1 }));
}

/** What has left a drawer, to pick from. */
function goneToPick(store: Store, drawer: string): Pickable {
  const entries: Pickable["entries"] = async ({ offset = 0, limit = Infinity, ...query }) =>
    (await goneFrom(store, drawer))
      .filter(({ entry }) => matches(entry, query))
      .slice(offset, offset + limit);
  return {
    where: `what has left the drawer “${drawer}”`,
    ifNone: `Nothing has left the drawer “${drawer}” that could be brought back.`,
    count: async () => (await goneFrom(store, drawer)).length,
    entries,
    holding: async (terms) =>
      (await shownGoneFrom(store, drawer)).filter(
        ({ entry }) => !entry.private && terms.every((term) => fold(said(entry) + entry.text).includes(term)),
      ),
  };
}

/** Brings back what has left a drawer, to its end. */
export async function restore(store: Store, drawer: string, pick: string): Promise<Notice[]> {
  let notices: Notice[] = [];
  await perform(store, drawer, "restore", async () => {
    const gone = await goneFrom(store, drawer);
    const picked = await pickSome(goneToPick(store, drawer), pick);
    const coming = picked.flatMap(({ position }) => gone[position - 1] ?? []);
    const contents = await store.contents(coming.map(({ entry }) => entry.content));
    const lost = coming.find(({ entry }) => !contents.has(entry.content));
    if (lost)
      throw new DrawerError(
        "store",
        `${said(lost.entry)} cannot be brought back: its content is not in the store any more.`,
      );
    const { leaving, notices: told, orders, first } = await roomAtEnd(store, drawer, coming);
    const places = coming.length === 1 ? `as ${first}` : `as ${first} to ${first + coming.length - 1}`;
    const traces = await hiddenTraces(store);
    const names = namesOf(coming.map(({ entry }) => (traces ? veiledEntry(entry, traces) : entry)));
    const message = `Brought back, ${places}: ${names}.`;
    notices = [{ code: "restored", message }, ...told];
    const edits = coming.map(({ entry }, index) => ({
      id: entry.id,
      before: null,
      after: { ...entry, order: orders[index]! },
    }));
    return { edits: [...leaving, ...edits] };
  });
  return notices;
}

/** How long what left can be brought back, in words: ` for 7 days`. */
export async function howLong(store: Store, drawer: string): Promise<string> {
  const { goneAge } = await rulesOf(store, drawer);
  return goneAge === null ? "" : ` for ${RULES.goneAge.form.say(goneAge)}`;
}
