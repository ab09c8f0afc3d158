import { readValue, VALUES } from "./model/values.js";
import { Conflict, type PrivateEntry, type Store } from "./store.js";

/** What is kept of a drawer's clock while it holds private snippets. */
interface Seen {
  /** The latest time that was seen, in milliseconds since 1970, every setting back made good. */
  readonly at: number;
  /** By how much the clock has been set back since. */
  readonly behind: number;
}

/** How much later it must be for what was seen to be kept again, in milliseconds. */
const STEP = 1000;

/**
 * The time by which private snippets of a drawer go: that of the clock, and, where the clock was set back, that which has
 * been seen and has passed since. A clock that is set back keeps no secret: it was at least as late as when one of them came.
 * @param secrets the private snippets of that drawer
 */
export async function timeOf(
  store: Store,
  drawer: string,
  secrets: readonly PrivateEntry[],
  now: number,
): Promise<(secret: PrivateEntry) => number> {
  const text = await store.value(drawer, VALUES.clock);
  const seen = readValue<Seen>(text, isSeen) ?? { at: now, behind: 0 };
  const came = secrets.reduce((latest, secret) => Math.max(latest, secret.came), seen.at);
  const behind = Math.max(0, seen.behind, came - now);
  const at = now + behind;
  if (!store.isReadOnly && (text === undefined || behind !== seen.behind || at - seen.at > STEP))
    await keep(store, drawer, text, { at, behind });
  // What came after the clock was set back is as old as the clock says.
  return ({ came }) => (came > now ? at : now);
}

function isSeen({ at, behind }: Partial<Seen>): boolean {
  return Number.isFinite(at) && Number.isFinite(behind);
}

async function keep(store: Store, drawer: string, before: string | undefined, seen: Seen): Promise<void> {
  try {
    await store.setValue(drawer, VALUES.clock, before, JSON.stringify(seen));
  } catch (error) {
    // Another process has kept what it saw.
    if (!(error instanceof Conflict)) throw error;
  }
}
