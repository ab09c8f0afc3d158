import { generateNKeysBetween } from "fractional-indexing";
import { DrawerError } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import { actErrors, actNotices } from "../messages/en/acts.js";
import type { Edit } from "./model/change.js";
import type { Entry } from "./model/entry.js";
import { type Rules } from "./model/rules.js";
import { rulesOf } from "./rules-of.js";
import type { DrawerSize, Positioned, Store } from "./store.js";
/** From which part of a limit on a drawer says that it is nearly full. */
const NEARLY_FULL = 0.9;

/** What makes room for what arrives: the edits that take the oldest out, and what is to be said of it. */
export interface Room {
  readonly leaving: readonly Edit[];
  readonly notices: readonly Notice[];
}

/** How much arrives. */
export interface Arriving {
  readonly count: number;
  readonly bytes: number;
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
  arriving: Arriving,
  staying: ReadonlySet<string> = new Set(),
): Promise<Room> {
  const { snippets, size } = rules;
  const over = {
    count: snippets === null ? 0 : count + arriving.count - snippets,
    bytes: size === null ? 0 : bytes + arriving.bytes - size,
  };
  const leaving = over.count > 0 || over.bytes > 0 ? await oldestThatFree(store, drawer, over, staying) : [];
  if (!leaving) {
    const tooMany = snippets !== null && arriving.count > snippets;
    throw new DrawerError(actErrors, "full", {
      drawer,
      snippets,
      bytes: size,
      ...(tooMany && { arriving: arriving.count }),
    });
  }
  if (leaving.length > 0)
    return {
      leaving: leaving.map((entry) => ({ id: entry.id, before: entry, after: null })),
      notices: [notice(actNotices, "made-room", { snippets: leaving })],
    };
  return { leaving: [], notices: nearlyFull(rules, count + arriving.count, bytes + arriving.bytes) };
}

/** The last entry of a drawer. */
export async function lastOf(store: Store, drawer: string): Promise<Entry | undefined> {
  const [last] = await store.entries({ drawer, last: 1 });
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
  const last = await lastOf(store, drawer);
  const bytes = arriving.reduce((sum, { entry }) => sum + entry.bytes, 0);
  const room = await makeRoom(store, await rulesOf(store, drawer), size, { count: arriving.length, bytes });
  const orders = generateNKeysBetween(last?.order ?? null, null, arriving.length);
  return { ...room, orders, first: size.count - room.leaving.length + 1 };
}

/** The oldest entries that are enough; undefined when all of them are not. */
async function oldestThatFree(
  store: Store,
  drawer: string,
  over: Arriving,
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

function nearlyFull({ snippets, size }: Rules, count: number, bytes: number): Notice[] {
  const isManyNearly = snippets !== null && count >= snippets * NEARLY_FULL;
  const isLargeNearly = size !== null && bytes >= size * NEARLY_FULL;
  if (!isManyNearly && !isLargeNearly) return [];
  return [
    notice(actNotices, "nearly-full", {
      ...(isManyNearly && { count }),
      snippets,
      ...(isLargeNearly && { bytes }),
      most: size,
    }),
  ];
}
