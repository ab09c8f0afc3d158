import type { Hash } from "../content/encode.js";
import { contentHash } from "./incoming.js";
import type { PrivateEntry, Store } from "./store.js";
import { tracesOf, type Traces } from "./traces.js";

/** The traces of all private snippets of a store, by which nothing of them is shown; nothing when there are none. */
export async function privateTraces(store: Store): Promise<Traces | undefined> {
  const entries = await store.privateEntries();
  const secrets = entries.map(({ id }) => id);
  if (secrets.length === 0) return undefined;
  const own = await openNames(store, entries);
  let traces: Traces = { ids: new Set(secrets), contents: own };
  for (let known = -1; known !== traces.ids.size;) {
    known = traces.ids.size;
    traces = tracesOf(secrets, await store.changes({ about: [...traces.ids] }));
  }
  return { ids: traces.ids, contents: new Set([...traces.contents, ...own]) };
}

/** The hashes of what private snippets say: the names under which a copy that could be seen has been stored. */
async function openNames(store: Store, secrets: readonly PrivateEntry[]): Promise<Set<Hash>> {
  const names = new Set<Hash>();
  for (const { id, drawer } of secrets)
    for (const { entry } of await store.entries({ drawer, ids: [id] }))
      names.add(await contentHash(store, entry));
  return names;
}
