import { timeOf } from "./clock.js";
import type { Rules } from "./model/rules.js";
import { rulesOf } from "./rules-of.js";
import type { PrivateEntry, Store } from "./store.js";

/** Whether the time of a private snippet is over. */
export function isDue(secret: PrivateEntry, rules: Rules, now: number): boolean {
  const age = ageOf(secret, rules);
  return !secret.kept && age !== null && now - secret.came >= age;
}

/** How long a private snippet stays: as was said of it, or by the rule. */
function ageOf({ privateAge }: PrivateEntry, rules: Rules): number | null {
  return privateAge === undefined ? rules.privateAge : privateAge;
}

/** When private snippets of a drawer go, by their ids, in milliseconds since 1970; those that stay are left out. */
export async function privateUntil(
  store: Store,
  drawer: string,
  now = Date.now(),
): Promise<ReadonlyMap<string, number>> {
  const secrets = (await store.privateEntries()).filter((secret) => secret.drawer === drawer);
  const rules = await rulesOf(store, drawer);
  const going = secrets.flatMap((secret) => {
    if (secret.kept) return [];
    const age = ageOf(secret, rules);
    return age === null ? [] : [{ secret, age }];
  });
  if (going.length === 0) return new Map();
  const time = await timeOf(store, drawer, secrets, now);
  return new Map(going.map(({ secret, age }) => [secret.id, now + age - (time(secret) - secret.came)]));
}
