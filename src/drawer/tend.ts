import type { Notice } from "../content/notice.js";
import { perform } from "./act.js";
import type { Entry } from "./entry.js";
import { timeOf } from "./clock.js";
import { takeBackImport } from "./import-file.js";
import { howLong } from "./leave.js";
import { makeRoom } from "./room.js";
import { RULES, rulesOf, type Rules } from "./rules.js";
import { many, namesOf } from "./saying.js";
import { Conflict, type Secret, type Store } from "./store.js";
import { VALUES } from "./values.js";

const DAY = 24 * 60 * 60 * 1000;

/**
 * Does what is due by the rules: in all drawers, private snippets whose time is over are forgotten; in this one, what is
 * too old goes, and what left too long ago is forgotten. To be called when a drawer is opened, and now and then while
 * it is open; when nothing is due, it is quick.
 */
export async function tend(store: Store, drawer: string, now = Date.now()): Promise<Notice[]> {
  const rules = await rulesOf(store, drawer);
  return [
    ...(await takeBackImport(store, drawer, now)),
    ...(await forgetSecrets(store, drawer, now)),
    ...(await letGoByAge(store, drawer, rules, now)),
    ...(await shorten(store, drawer, rules, now)),
  ];
}

async function forgetSecrets(store: Store, here: string, now: number): Promise<Notice[]> {
  const due = new Map<string, string[]>();
  const secrets = await store.secrets();
  const clocks = new Map<string, (secret: Secret) => number>();
  for (const name of new Set(secrets.map(({ drawer }) => drawer)))
    clocks.set(name, await timeOf(store, name, now));
  for (const secret of secrets) {
    const { id, drawer } = secret;
    const time = clocks.get(drawer)!(secret);
    if (isDue(secret, await rulesOf(store, drawer), time)) due.set(drawer, [...(due.get(drawer) ?? []), id]);
  }
  const notices: Notice[] = [];
  for (const [drawer, ids] of due) {
    const { trace } = await store.forget({ drawer, ids });
    const { privateAge } = await rulesOf(store, drawer);
    const where = drawer === here ? "" : ` in the drawer “${drawer}”`;
    const what = ids.length === 1 ? "A private snippet is" : `${ids.length} private snippets are`;
    notices.push({
      code: "private",
      message: `${what} gone for good${where}, after ${RULES.privateAge.form.say(privateAge)}.`,
    });
    if (trace !== undefined) notices.push({ code: "private", message: trace });
  }
  return notices;
}

/** The snippets that are older than the rules let them be. */
async function tooOldFor(store: Store, drawer: string, rules: Rules, now: number): Promise<Entry[]> {
  const of = (picture: boolean, age: number | null) =>
    age === null ? [] : store.oldest({ drawer, picture, cameBefore: now - age, limit: Infinity });
  return [...(await of(false, rules.textAge)), ...(await of(true, rules.pictureAge))];
}

/** The snippets that would leave a drawer if these were its rules. */
export async function leavingBy(
  store: Store,
  drawer: string,
  rules: Rules,
  now = Date.now(),
): Promise<Entry[]> {
  const room = await makeRoom(store, rules, await store.size(drawer), { count: 0, bytes: 0 });
  const secrets = (await store.secrets()).filter(
    (secret) => secret.drawer === drawer && isDue(secret, rules, now),
  );
  const secretly = await store.entries({ drawer, ids: secrets.map(({ id }) => id) });
  const all = [
    ...room.leaving.map(({ before }) => before!),
    ...(await tooOldFor(store, drawer, rules, now)),
    ...secretly.map(({ entry }) => entry),
  ];
  return [...new Map(all.map((entry) => [entry.id, entry])).values()];
}

/** Whether the time of a private snippet is over. */
function isDue({ kept, came }: Secret, { privateAge }: Rules, now: number): boolean {
  return !kept && privateAge !== null && now - came >= privateAge;
}

async function letGoByAge(store: Store, drawer: string, rules: Rules, now: number): Promise<Notice[]> {
  const tooOld = () => tooOldFor(store, drawer, rules, now);
  let leaving: readonly Entry[] = await tooOld();
  if (leaving.length === 0) return [];
  await perform(store, drawer, "age", async () => {
    leaving = await tooOld();
    return { edits: leaving.map((entry) => ({ id: entry.id, before: entry, after: null })) };
  });
  if (leaving.length === 0) return [];
  const pictures = leaving.filter(({ kind }) => kind === "picture").length;
  const ages = [
    ...(pictures < leaving.length ? [`text after ${RULES.textAge.form.say(rules.textAge)}`] : []),
    ...(pictures > 0 ? [`pictures after ${RULES.pictureAge.form.say(rules.pictureAge)}`] : []),
  ];
  const them = leaving.length === 1 ? "it" : "them";
  const message = `Let go by age (${ages.join(", ")}): ${namesOf(leaving)}. Undo brings ${them} back${await howLong(store, drawer)}.`;
  return [{ code: "aged", message }];
}

/** Forgets what left too long ago, and the log of that time; at most once a day, so up to a day late. */
async function shorten(store: Store, drawer: string, { goneAge }: Rules, now: number): Promise<Notice[]> {
  if (goneAge === null) return [];
  const before = await store.value(drawer, VALUES.shortened);
  if (before !== undefined && now - Number(before) < Math.min(DAY, goneAge)) return [];
  if (before === undefined && (await store.changes({ drawer, limit: 1 })).length === 0) return [];
  try {
    await store.setValue(drawer, VALUES.shortened, before, String(now));
  } catch (error) {
    // Another process is at it.
    if (error instanceof Conflict) return [];
    throw error;
  }
  if (before === undefined) return [];
  const { forgotten } = await store.forget({ drawer, until: new Date(now - goneAge).toISOString() });
  if (forgotten === 0) return [];
  const message = `Forgot for good ${many(forgotten)} that had left more than ${RULES.goneAge.form.say(goneAge)} ago.`;
  return [{ code: "forgotten", message }];
}

/** When private snippets of a drawer go, by their ids, in milliseconds since 1970; those that stay are left out. */
export async function privateUntil(
  store: Store,
  drawer: string,
  now = Date.now(),
): Promise<ReadonlyMap<string, number>> {
  const secrets = (await store.secrets()).filter((secret) => secret.drawer === drawer && !secret.kept);
  const { privateAge } = await rulesOf(store, drawer);
  if (privateAge === null || secrets.length === 0) return new Map();
  const time = await timeOf(store, drawer, now);
  return new Map(secrets.map((secret) => [secret.id, now + privateAge - (time(secret) - secret.came)]));
}
