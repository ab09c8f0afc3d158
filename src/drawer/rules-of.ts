import { decodeRules, type Rules } from "./model/rules.js";
import { VALUES } from "./model/values.js";
import type { Store } from "./store.js";

/** The rules of a drawer. */
export async function rulesOf(store: Store, drawer: string): Promise<Rules> {
  return decodeRules(await store.value(drawer, VALUES.rules));
}
