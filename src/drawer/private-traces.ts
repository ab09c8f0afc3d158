import type { Hash } from "../content/encode.js";
import { contentHash } from "./incoming.js";
import type { Entry } from "./model/entry.js";
import type { PrivateEntry, Store } from "./store.js";
import { tracesOf, type Traces } from "./traces.js";

/** The traces of all private snippets of a store, by which nothing of them is shown; nothing when there are none. */
export async function privateTraces(store: Store): Promise<Traces | undefined> {
  const entries = await store.privateEntries();
  const secrets = entries.map(({ id }) => id);
  if (secrets.length === 0) return undefined;
  const own = new Set((await privateByHash(store, entries)).keys());
  let traces: Traces = { ids: new Set(secrets), contents: new Set() };
  for (let known = -1; known !== traces.ids.size;) {
    known = traces.ids.size;
    traces = tracesOf(secrets, await store.changes({ about: [...traces.ids] }));
  }
  return { ids: traces.ids, contents: new Set([...traces.contents, ...own]) };
}

/** The private snippets that are in drawers, by the hashes of what they say: the names under which the same is stored where it can be seen. */
export async function privateByHash(
  store: Store,
  secrets?: readonly PrivateEntry[],
): Promise<ReadonlyMap<Hash, Entry>> {
  const byHash = new Map<Hash, Entry>();
  for (const { id, drawer } of secrets ?? (await store.privateEntries()))
    for (const { entry } of await store.entries({ drawer, ids: [id] }))
      byHash.set(await contentHash(store, entry), entry);
  return byHash;
}
