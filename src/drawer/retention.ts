import { DrawerError, reasonOf } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import { DAY } from "../messages/core/units.js";
import { actNotices } from "../messages/en/acts.js";
import { drawerNotices } from "../messages/en/drawer.js";
import { timeOf } from "./clock.js";
import { makeRoom } from "./limits.js";
import type { Entry } from "./model/entry.js";
import { areReadable, type Rules } from "./model/rules.js";
import { VALUES } from "./model/values.js";
import { isDue } from "./private-age.js";
import { rulesOf } from "./rules-of.js";
import { Conflict, type PrivateEntry, type Store } from "./store.js";
import { removals, transact } from "./transaction.js";

/** Takes back an import that was cut off, if there is one. */
async function takeBackCutImport(store: Store, drawer: string, now: number): Promise<Notice[]> {
  if ((await store.value(drawer, VALUES.importing)) === undefined) return [];
  const { takeBackImport } = await import("./file-import.js");
  return takeBackImport(store, drawer, now);
}

/**
 * Does what is due by the rules: in all drawers, private snippets whose time is over are forgotten; in this one, what is
 * too old goes, and what left too long ago is forgotten. To be called when a drawer is opened, and now and then while
 * it is open; when nothing is due, it is quick.
 */
export async function applyRetention(store: Store, drawer: string, now = Date.now()): Promise<Notice[]> {
  const rules = await rulesOf(store, drawer);
  const notices: Notice[] = [];
  // What is private goes first, and one part that fails keeps none of the others from being done.
  for (const part of [
    () => forgetSecrets(store, drawer, now),
    () => tellUnreadRules(store, drawer),
    () => takeBackCutImport(store, drawer, now),
    () => letGoByAge(store, drawer, rules, now),
    () => shorten(store, drawer, rules, now),
  ])
    try {
      notices.push(...(await part()));
    } catch (error) {
      if (error instanceof DrawerError && error.code === "damaged") throw error;
      notices.push(notice(drawerNotices, "waits", { why: reasonOf(error) }));
    }
  return notices;
}

/** Rules that cannot be read are told each time; the usual ones hold. */
async function tellUnreadRules(store: Store, drawer: string): Promise<Notice[]> {
  const isReadable = areReadable(await store.value(drawer, VALUES.rules));
  return isReadable ? [] : [notice(actNotices, "rules/unread", { drawer })];
}

async function forgetSecrets(store: Store, here: string, now: number): Promise<Notice[]> {
  const due = new Map<string, string[]>();
  const secrets = await store.privateEntries();
  const clocks = new Map<string, (secret: PrivateEntry) => number>();
  for (const name of new Set(secrets.map(({ drawer }) => drawer)))
    clocks.set(
      name,
      await timeOf(
        store,
        name,
        secrets.filter(({ drawer }) => drawer === name),
        now,
      ),
    );
  for (const secret of secrets) {
    const { id, drawer } = secret;
    const time = clocks.get(drawer)!(secret);
    if (isDue(secret, await rulesOf(store, drawer), time)) due.set(drawer, [...(due.get(drawer) ?? []), id]);
  }
  const notices: Notice[] = [];
  for (const [drawer, ids] of due) {
    const { trace } = await store.forget({ drawer, ids });
    notices.push(
      notice(actNotices, "private/forgotten", {
        count: ids.length,
        ...(drawer !== here && { drawer }),
      }),
      ...(trace ? [trace] : []),
    );
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
  const secrets = (await store.privateEntries()).filter(
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

async function letGoByAge(store: Store, drawer: string, rules: Rules, now: number): Promise<Notice[]> {
  const { textAge, pictureAge, goneAge } = rules;
  const tooOld = () => tooOldFor(store, drawer, rules, now);
  if ((await tooOld()).length === 0) return [];
  return transact({ store, drawer }, "age", async () => {
    const snippets = await tooOld();
    const pictures = snippets.filter(({ kind }) => kind === "picture").length;
    const ages = {
      ...(pictures < snippets.length && textAge !== null && { textAge }),
      ...(pictures > 0 && pictureAge !== null && { pictureAge }),
    };
    const told = snippets.length === 0 ? [] : [notice(actNotices, "aged", { snippets, ...ages, goneAge })];
    return { edits: removals(snippets), result: told };
  });
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
  return forgotten === 0 ? [] : [notice(actNotices, "forgotten/gone", { count: forgotten, age: goneAge })];
}
