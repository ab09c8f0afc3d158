import { generateNKeysBetween } from "fractional-indexing";
import { hashBytes, type Hash } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import { isBlank } from "../content/measure.js";
import type { Notice } from "../content/notice.js";
import { originText, type Origin } from "../content/origin.js";
import { perform } from "./act.js";
import type { Edit } from "./change.js";
import { draft, SAME_AS_PRIVATE, type Draft, type Gathered } from "./draft.js";
import type { Entry } from "./entry.js";
import { lastOf, makeRoom } from "./room.js";
import { RULES, rulesOf, type Rules } from "./rules.js";
import { naming, said } from "./saying.js";
import type { Positioned, Store } from "./store.js";

/** What was collected, and what the drawer has to say of it. */
export interface Collected {
  readonly collected: readonly Positioned[];
  readonly notices: readonly Notice[];
}

/** Collects all of these at the end of a drawer, in order, by its rules; or none of them. */
export async function collect(
  store: Store,
  drawer: string,
  gathered: readonly Gathered[],
): Promise<Collected> {
  let collected: Positioned[] = [];
  let told: Notice[] = [];
  let drafts: (Draft | undefined)[] | undefined;
  await perform(store, drawer, "collect", async () => {
    const rules = await rulesOf(store, drawer);
    if (!rules.collecting) throw paused(drawer);
    drafts ??= await draftsOf(store, drawer, gathered, rules);
    const size = await store.size(drawer);
    const last = await lastOf(store, drawer, size.count);
    const sorted = await sortOut(store, rules, gathered, drafts, last);
    const { fresh, again: moving } = sorted;
    const arriving = { count: fresh.length, bytes: fresh.reduce((sum, { entry }) => sum + entry.bytes, 0) };
    const room =
      arriving.count > 0
        ? await makeRoom(store, rules, size, arriving, new Set(moving.map(({ id }) => id)))
        : { leaving: [], notices: [] };
    const gone = new Set(room.leaving.map(({ id }) => id));
    const orders = generateNKeysBetween(last?.order ?? null, null, moving.length + fresh.length);
    const first = size.count - gone.size - moving.length;
    // What is collected again is as young as what is new; stores know it by its later time.
    const young = moving.map((entry) => ({ ...entry, collectedAt: nowOrAfter(entry.collectedAt) }));
    collected = [...young, ...fresh.map(({ entry }) => entry)].map((entry, index) => ({
      position: first + index + 1,
      entry: { ...entry, order: orders[index]! },
    }));
    told = [
      ...sorted.notices,
      ...collected.map(({ position, entry }, index) =>
        index < moving.length
          ? movedAgain(position, entry)
          : taken(position, entry, fresh[index - moving.length]!, rules),
      ),
      ...room.notices,
    ];
    const edits = collected.map(({ entry }, index): Edit => ({
      id: entry.id,
      before: moving[index] ?? null,
      after: entry,
    }));
    return {
      edits: [...room.leaving, ...edits],
      contents: new Map(fresh.flatMap(({ blobs }) => [...blobs])),
    };
  });
  return { collected, notices: [...gathered.flatMap(({ notices }) => notices), ...told] };
}

/** This time, or, within the same millisecond, the next one. */
function nowOrAfter(time: string): string {
  return new Date(Math.max(Date.now(), Date.parse(time) + 1)).toISOString();
}

/** Drafts of all pieces; nothing for one that is blank. What says the same as a private snippet is private as well. */
async function draftsOf(
  store: Store,
  drawer: string,
  gathered: readonly Gathered[],
  rules: Rules,
): Promise<(Draft | undefined)[]> {
  const secrets = await secretHashes(store);
  return gathered.map((piece) => {
    if (rules.blanks === "skip" && isBlank(piece.content)) return undefined;
    const drafted = draft(piece, drawer, rules.detect);
    const isKnown = piece.private === undefined && !drafted.entry.private && secrets.has(drafted.hash);
    return isKnown
      ? { ...draft({ ...piece, private: true }, drawer, false), looks: SAME_AS_PRIVATE }
      : drafted;
  });
}

/** The hashes of what private snippets say, which are stored under other names. */
async function secretHashes(store: Store): Promise<ReadonlySet<Hash>> {
  const hashes = new Set<Hash>();
  for (const { id, drawer } of await store.secrets())
    for (const { entry } of await store.entries({ drawer, ids: [id] }))
      hashes.add(await contentHash(store, entry));
  return hashes;
}

/** That a drawer does not collect now. */
export function paused(drawer: string): DrawerError {
  return new DrawerError(
    "paused",
    `Nothing was collected: collecting is paused in the drawer “${drawer}”. Resume it first.`,
  );
}

/** Which of the drafts are new, and which are there already and are only to become the latest. */
async function sortOut(
  store: Store,
  rules: Rules,
  gathered: readonly Gathered[],
  drafts: readonly (Draft | undefined)[],
  last: Entry | undefined,
): Promise<{ fresh: Draft[]; again: Entry[]; notices: Notice[] }> {
  const notices: Notice[] = [];
  const again = new Map<string, Entry>();
  let fresh: Draft[] = [];
  let before = last && (await contentHash(store, last));
  let latest: Pick<Entry, "text" | "kind" | "private" | "label"> | undefined = last;
  for (const [index, drafted] of drafts.entries()) {
    if (!drafted) {
      notices.push({ code: "blank", message: `Nothing collected: ${blankPlace(gathered[index]!.origin)}.` });
      continue;
    }
    const { entry, hash } = drafted;
    if (rules.repeats !== "allow" && hash === before) {
      const message = `Not collected again: ${said(latest?.private ? latest : entry)} is the same as the snippet before it.`;
      notices.push({ code: "repeat", message });
      continue;
    }
    before = hash;
    latest = entry;
    if (rules.repeats === "move") {
      fresh = fresh.filter((other) => other.hash !== hash);
      const [there] = await store.entries({ drawer: entry.drawer, content: hash, limit: 1 });
      if (there) {
        // Deleted first, so that it stands after those that came between.
        again.delete(there.entry.id);
        again.set(there.entry.id, there.entry);
        continue;
      }
    }
    fresh.push(drafted);
  }
  return { fresh, again: [...again.values()], notices };
}

/** The hash of an entry's content; a private one is stored under another name. */
async function contentHash(store: Store, entry: Entry): Promise<Hash> {
  if (!entry.private) return entry.content;
  const bytes = (await store.contents([entry.content])).get(entry.content);
  return bytes ? hashBytes(bytes) : entry.content;
}

function movedAgain(position: number, entry: Entry): Notice {
  return {
    code: "repeat",
    message: `${said(entry)} was here already, and is the latest now, as ${position}.`,
  };
}

function taken(position: number, entry: Entry, { looks }: Draft, rules: Rules): Notice {
  if (!entry.private) return { code: "collected", message: `Collected as ${position}: ${naming(entry)}.` };
  const is = looks === SAME_AS_PRIVATE ? "is" : "looks like";
  const why = looks === undefined ? "" : `it ${is} ${looks}, so `;
  const goes =
    rules.privateAge === null ? "" : `, and goes after ${RULES.privateAge.form.say(rules.privateAge)}`;
  return {
    code: "private",
    message: `Collected as ${position}, private: ${why}it is shown nowhere${goes}. Keep it, or take the privacy off, if that is wrong.`,
  };
}

/** What is said of a place that holds nothing. */
export function blankPlace(origin: Origin): string {
  const place = originText(origin);
  return place === "" ? "it is blank" : `${place} is blank`;
}
