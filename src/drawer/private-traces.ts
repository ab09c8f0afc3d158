import { hashBytes, type Hash } from "../content/encode.js";
import type { Change } from "./model/change.js";
import type { PrivateEntry, Store } from "./store.js";
import { tracesOf, type Traces } from "./traces.js";

/** The traces of all private snippets of a store, by which nothing of them is shown; nothing when there are none. */
export async function privateTraces(store: Store): Promise<Traces | undefined> {
  const entries = await store.privateEntries();
  if (entries.length === 0) return undefined;
  const secrets = entries.map(({ id }) => id);
  const changes = new Map<string, Change>();
  const asked = new Set<string>();
  let traces: Traces = { ids: new Set(secrets), contents: new Set() };
  for (let about = secrets; about.length > 0; about = [...traces.ids].filter((id) => !asked.has(id))) {
    for (const id of about) asked.add(id);
    for (const change of await store.changes({ about })) changes.set(change.id, change);
    traces = tracesOf(secrets, [...changes.values()]);
  }
  const own = (await privateByHash(store, entries)).keys();
  return { ids: traces.ids, contents: new Set([...traces.contents, ...own]) };
}

/** How many contents are in memory at once. */
const AT_ONCE = 50;

/**
 * What the private contents of a store say, by the names under which they are stored, as far as it was asked before. A name is
 * never given twice.
 */
const hashes = new WeakMap<Store, ReadonlyMap<Hash, Hash>>();

/**
 * The private snippets, in drawers and among what has left, by the hashes of what they say: the names under which the same is stored
 * where it can be seen.
 */
export async function privateByHash(
  store: Store,
  secrets?: readonly PrivateEntry[],
): Promise<ReadonlyMap<Hash, PrivateEntry>> {
  const all = secrets ?? (await store.privateEntries());
  const known = hashes.get(store);
  const now = new Map<Hash, Hash>();
  for (const { content } of all) if (known?.has(content)) now.set(content, known.get(content)!);
  const asked = all.map(({ content }) => content).filter((name) => !now.has(name));
  for (let from = 0; from < asked.length; from += AT_ONCE)
    for (const [name, bytes] of await store.contents(asked.slice(from, from + AT_ONCE)))
      now.set(name, hashBytes(bytes));
  hashes.set(store, now);
  return new Map(
    all.flatMap((secret) => {
      const hash = now.get(secret.content);
      return hash === undefined ? [] : [[hash, secret] as const];
    }),
  );
}
