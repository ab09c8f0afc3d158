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

/**
 * The private snippets, in drawers and among what has left, by the hashes of what they say: the names under which the same is stored
 * where it can be seen.
 */
export async function privateByHash(
  store: Store,
  secrets?: readonly PrivateEntry[],
): Promise<ReadonlyMap<Hash, Entry>> {
  const byHash = new Map<Hash, Entry>();
  const all = secrets ?? (await store.privateEntries());
  for (const drawer of new Set(all.map((secret) => secret.drawer))) {
    const ids = new Set(all.filter((secret) => secret.drawer === drawer).map(({ id }) => id));
    const here = await store.entries({ drawer, ids: [...ids] });
    const left = (await store.gone(drawer)).filter(({ entry }) => ids.has(entry.id));
    for (const { entry } of [...left, ...here]) byHash.set(await contentHash(store, entry), entry);
  }
  return byHash;
}
