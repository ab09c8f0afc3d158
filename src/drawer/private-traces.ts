import type { Store } from "./store.js";
import { tracesOf, type Traces } from "./traces.js";

/** The traces of all private snippets of a store, by which nothing of them is shown; nothing when there are none. */
export async function privateTraces(store: Store): Promise<Traces | undefined> {
  const secrets = (await store.privateEntries()).map(({ id }) => id);
  if (secrets.length === 0) return undefined;
  let traces: Traces = { ids: new Set(secrets), contents: new Set() };
  for (let known = -1; known !== traces.ids.size;) {
    known = traces.ids.size;
    traces = tracesOf(secrets, await store.changes({ about: [...traces.ids] }));
  }
  return traces;
}
