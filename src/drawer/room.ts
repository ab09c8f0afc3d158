import { DrawerError } from "../content/error.js";
import type { Notice } from "../content/notice.js";
import { grouped } from "../content/number.js";
import type { Edit } from "./change.js";
import type { Entry } from "./entry.js";
import { RULES, type Rules } from "./rules.js";
import { namesOf } from "./saying.js";
import type { DrawerSize, Store } from "./store.js";

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
 * @throws DrawerError `full` when nothing that may go would make room enough
 */
export async function makeRoom(
  store: Store,
  rules: Rules,
  { drawer, count, bytes }: DrawerSize,
  arriving: { readonly count: number; readonly bytes: number },
): Promise<Room> {
  const { snippets = null, size = null } = rules;
  const over = {
    count: snippets === null ? 0 : count + arriving.count - snippets,
    bytes: size === null ? 0 : bytes + arriving.bytes - size,
  };
  const leaving = over.count > 0 || over.bytes > 0 ? await oldestThatFree(store, drawer, over) : [];
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

/** The oldest entries that are enough; nothing when all of them are not. */
async function oldestThatFree(
  store: Store,
  drawer: string,
  over: { readonly count: number; readonly bytes: number },
): Promise<Entry[] | undefined> {
  for (let limit = Math.max(over.count, 1); ; limit *= 2) {
    const oldest = await store.oldest({ drawer, limit });
    let freed = 0;
    const enough = oldest.findIndex((entry, index) => {
      freed += entry.bytes;
      return index + 1 >= over.count && freed >= over.bytes;
    });
    if (enough >= 0) return oldest.slice(0, enough + 1);
    if (oldest.length < limit) return undefined;
  }
}

function full(drawer: string, rules: Rules, arriving: { count: number; bytes: number }): DrawerError {
  const tooMany = rules.snippets !== null && arriving.count > rules.snippets;
  const limits = [
    ...(rules.snippets === null ? [] : [`${grouped(rules.snippets)} snippets`]),
    ...(rules.size === null ? [] : [RULES.size.form.say(rules.size)]),
  ].join(" and ");
  const why = tooMany
    ? `${grouped(arriving.count)} pieces at once are more than it takes`
    : "there is no room, even without all that is not kept";
  return new DrawerError(
    "full",
    `Nothing was put in: the drawer “${drawer}” takes at most ${limits}, and ${why}. Raise its rules “snippets” or “size”, or release or discard some.`,
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
