import { fold } from "../content/fold.js";
import { named } from "../messages/en/phrases.js";
import { privateTraces } from "./private-traces.js";
import { rulesOf } from "./rules-of.js";
import type { Pickable } from "./snippets.js";
import { matches, type Gone, type Positioned, type Store } from "./store.js";
import { maskedEntry } from "./traces.js";

/** A snippet that has left its drawer, numbered in the order of leaving. */
export type PositionedGone = Gone & Positioned;

/** What has left a drawer and can be brought back, as it may be shown: of what is private now it tells nothing. */
export async function shownGoneFrom(store: Store, drawer: string): Promise<PositionedGone[]> {
  const [gone, traces] = [await goneFrom(store, drawer), await privateTraces(store)];
  return traces ? gone.map((one) => ({ ...one, entry: maskedEntry(one.entry, traces) })) : gone;
}

/** What has left a drawer and can be brought back. */
export async function goneFrom(store: Store, drawer: string): Promise<PositionedGone[]> {
  const { goneAge } = await rulesOf(store, drawer);
  const since = goneAge === null ? "" : new Date(Date.now() - goneAge).toISOString();
  const gone = (await store.gone(drawer)).filter(({ at }) => at >= since);
  return gone.map((one, index) => ({ ...one, position: index + 1 }));
}

/** What has left a drawer, to pick from. */
export function goneSnippetsOf(store: Store, drawer: string): Pickable {
  return {
    from: { drawer, isGone: true },
    count: async () => (await goneFrom(store, drawer)).length,
    async entries({ offset = 0, limit = Infinity, last, ...query }) {
      const found = (await goneFrom(store, drawer)).filter(({ entry }) => matches(entry, query));
      return last === undefined ? found.slice(offset, offset + limit) : found.slice(-last);
    },
    async holding(terms) {
      const shown = await shownGoneFrom(store, drawer);
      return shown.filter(
        ({ entry }) =>
          !entry.private && terms.every((term) => fold(named(entry) + entry.text).includes(term)),
      );
    },
  };
}
