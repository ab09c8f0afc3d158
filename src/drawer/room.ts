import { generateNKeysBetween } from "fractional-indexing";
import { DrawerError } from "../content/error.js";
import type { Notice } from "../content/notice.js";
import { grouped } from "../content/number.js";
import type { Edit } from "./change.js";
import type { Entry } from "./entry.js";
import { RULES, rulesOf, type Rules } from "./rules.js";
import { namesOf } from "./saying.js";
import type { DrawerSize, Positioned, Store } from "./store.js";

/** From which part of a limit on a drawer says that it is nearly full. */
const NEARLY = 0.9;

/** What makes room for what arrives: the edits that take the oldest out, and what is to be said of it. */
export interface Room {
  readonly leaving: readonly Edit[];
  readonly notices: readonly Notice[];
}

/**
 * Makes room in a drawer for what arrives, by its limits: the oldest that are not kept go.
 *
 * @param size what it holds now
 * @param arriving how much is to come; nothing, to bring the drawer back within its limits
 * @param staying the ids of those that must not go, though they are old
 * @throws DrawerError `full` when nothing that may go would make room enough
 */
export async function makeRoom(
  store: Store,
  rules: Rules,
  { drawer, count, bytes }: DrawerSize,
  arriving: { readonly count: number; readonly bytes: number },
  staying: ReadonlySet<string> = new Set(),
): Promise<Room> {
  const { snippets = null, size = null } = rules;
  const over = {
    count: snippets === null ? 0 : count + arriving.count - snippets,
    bytes: size === null ? 0 : bytes + arriving.bytes - size,
  };
  const leaving = over.count > 0 || over.bytes > 0 ? await oldestThatFree(store, drawer, over, staying) : [];
  if (!leaving) throw full(drawer, rules, arriving);
  if (leaving.length > 0) {
    const names = namesOf(leaving);
    const message =
      leaving.length === 1
        ? `Made room: ${names} left, the oldest here that was not kept. Undo brings it back.`
        : `Made room: ${names} left, the oldest here that were not kept. Undo brings them back.`;
    return {
      leaving: leaving.map((entry) => ({ id: entry.id, before: entry, after: null })),
      notices: [{ code: "made-room", message }],
    };
  }
  return { leaving: [], notices: nearlyFull(rules, count + arriving.count, bytes + arriving.bytes) };
}

/** The last entry of a drawer that holds so many. */
export async function lastOf(store: Store, drawer: string, count: number): Promise<Entry | undefined> {
  if (count === 0) return undefined;
  const [last] = await store.entries({ drawer, offset: count - 1, limit: 1 });
  return last?.entry;
}

/** Room at the end of a drawer, with the places there. */
export interface RoomAtEnd extends Room {
  readonly orders: readonly string[];
  /** The position of the first. */
  readonly first: number;
}

/**
 * Makes room for snippets at the end of a drawer, by its rules.
 * @throws DrawerError `full`
 */
export async function roomAtEnd(
  store: Store,
  drawer: string,
  arriving: readonly Positioned[],
): Promise<RoomAtEnd> {
  const size = await store.size(drawer);
  const last = await lastOf(store, drawer, size.count);
  const bytes = arriving.reduce((sum, { entry }) => sum + entry.bytes, 0);
  const room = await makeRoom(store, await rulesOf(store, drawer), size, { count: arriving.length, bytes });
  const orders = generateNKeysBetween(last?.order ?? null, null, arriving.length);
  return { ...room, orders, first: size.count - room.leaving.length + 1 };
}

/** The oldest entries that are enough; nothing when all of them are not. */
async function oldestThatFree(
  store: Store,
  drawer: string,
  over: { readonly count: number; readonly bytes: number },
  staying: ReadonlySet<string>,
): Promise<Entry[] | undefined> {
  for (let limit = Math.max(over.count, 1) + staying.size; ; limit *= 2) {
    const all = await store.oldest({ drawer, limit });
    const oldest = all.filter(({ id }) => !staying.has(id));
    let freed = 0;
    const enough = oldest.findIndex((entry, index) => {
      freed += entry.bytes;
      return index + 1 >= over.count && freed >= over.bytes;
    });
    if (enough >= 0) return oldest.slice(0, enough + 1);
    if (all.length < limit) return undefined;
  }
}

/** A drawer's limits in words: `1,000 snippets and 256 MB`. */
export function limitsOf({ snippets, size }: Rules): string {
  return [
    ...(snippets === null ? [] : [`${grouped(snippets)} snippets`]),
    ...(size === null ? [] : [RULES.size.form.say(size)]),
  ].join(" and ");
}

function full(drawer: string, rules: Rules, arriving: { count: number; bytes: number }): DrawerError {
  const tooMany = rules.snippets !== null && arriving.count > rules.snippets;
  const why = tooMany
    ? `${grouped(arriving.count)} pieces at once are more than it takes`
    : "there is no room, even without all that is not kept";
  return new DrawerError(
    "full",
    `Nothing was put in: the drawer “${drawer}” takes at most ${limitsOf(rules)}, and ${why}. Raise its rules “snippets” or “size”, or release or discard some.`,
  );
}

function nearlyFull(rules: Rules, count: number, bytes: number): Notice[] {
  const said = [
    ...(rules.snippets !== null && count >= rules.snippets * NEARLY
      ? [`${grouped(count)} of at most ${grouped(rules.snippets)} snippets`]
      : []),
    ...(rules.size !== null && bytes >= rules.size * NEARLY
      ? [`${Math.floor((100 * bytes) / rules.size)} % of ${RULES.size.form.say(rules.size)}`]
      : []),
  ];
  if (said.length === 0) return [];
  const message = `Nearly full: ${said.join(", ")}. When it is full, the oldest that is not kept goes.`;
  return [{ code: "nearly-full", message }];
}
