import { DrawerError } from "../content/error.js";
import { ask, type Job } from "../stores/engine.js";
import type { SyncClient } from "./client.js";
import type { Exchanged } from "./exchange.js";

/** How the group is followed. */
export interface FollowOptions {
  /** Ends it. */
  readonly signal: AbortSignal;
  /** Is told what each exchange came to that came to something, and the first in any case. */
  readonly exchanged: (result: Exchanged) => void;
  /** Is told when the hub cannot be reached, once until it is there again, and what else was refused. */
  readonly failed: (error: DrawerError) => void;
}

/** How long a pause is after the hub could not be reached, in milliseconds: each twice as long as the one before. */
const PAUSE = { first: 1000, longest: 5 * 60_000 };
/** How long more is waited for after something was done here, in milliseconds: several acts go out together. */
const GATHERING = 30;

/**
 * Keeps in step with the other devices: exchanges when something was done here, when the hub has news, and, while it cannot be reached,
 * after growing pauses. Settles when the signal ends it.
 * @throws DrawerError `not-joined`, `removed`, `hub-wrong`: what no pause mends
 */
export async function follow(client: SyncClient, options: FollowOptions): Promise<void> {
  const { signal, exchanged, failed } = options;
  const bell = new Bell(signal);
  const stopWatching = client.store.watch(() => {
    void hasOutgoing(client).then((is) => is && setTimeout(() => bell.ring(), GATHERING), bell.fail);
  });
  const listening = listen(client, signal, bell);
  let pause = PAUSE.first;
  let isFirst = true;
  let isAway = false;
  try {
    while (!signal.aborted) {
      try {
        const result = await client.exchange({ signal });
        const { came, changed, left, sent } = result;
        if (isFirst || isAway || came + changed + left + sent > 0) exchanged(result);
        [isFirst, isAway, pause] = [false, false, PAUSE.first];
        await bell.rung();
      } catch (error) {
        if (signal.aborted) break;
        if (!isPassing(error)) throw error;
        if (!isAway) failed(error);
        isAway = true;
        await bell.rungOrAfter(pause * (0.75 + Math.random() / 2));
        pause = Math.min(pause * 2, PAUSE.longest);
      }
    }
  } finally {
    stopWatching();
    await listening;
  }
}

function isPassing(error: unknown): error is DrawerError {
  return error instanceof DrawerError && (error.code === "hub-away" || error.code === "hub-refused");
}

/** Whether something was done here that the others have not been told. */
async function hasOutgoing({ store }: SyncClient): Promise<boolean> {
  return store.engine.read(function* (): Job<boolean> {
    const touched = yield* ask((all) => all.range({ table: "touched", limit: 1 }));
    return touched.length > 0;
  });
}

/** Listens to the hub's news, and again whenever the connection was lost. */
async function listen(client: SyncClient, signal: AbortSignal, bell: Bell): Promise<void> {
  for (let pause = PAUSE.first; !signal.aborted; pause = Math.min(pause * 2, PAUSE.longest)) {
    const began = Date.now();
    try {
      await client.listen(() => bell.ring(), signal);
    } catch (error) {
      // Whether the hub is there is told by who exchanges with it; that this device was removed is heard here first.
      if (!isPassing(error)) return bell.fail(error);
    }
    if (Date.now() - began > PAUSE.longest) pause = PAUSE.first;
    if (!signal.aborted) await new Bell(signal).rungOrAfter(pause);
  }
}

/** Is rung when there is something to do, and heard by one who waits; a ring that nobody waited for is heard by the next. */
class Bell {
  #isRung = false;
  #error: unknown;
  #wake: () => void = () => undefined;

  constructor(readonly signal: AbortSignal) {
    signal.addEventListener("abort", () => this.#wake());
  }

  ring(): void {
    this.#isRung = true;
    this.#wake();
  }

  readonly fail = (error: unknown): void => {
    this.#error = error;
    this.ring();
  };

  rung(): Promise<void> {
    return this.rungOrAfter(Infinity);
  }

  /** Settles when it is rung, after a time (in milliseconds), or at the end. */
  async rungOrAfter(time: number): Promise<void> {
    if (!this.#isRung && !this.signal.aborted) {
      let timer: ReturnType<typeof setTimeout> | undefined;
      await new Promise<void>((settle) => {
        this.#wake = settle;
        if (Number.isFinite(time)) timer = setTimeout(settle, time);
      });
      clearTimeout(timer);
    }
    this.#isRung = false;
    if (this.#error !== undefined) throw this.#error;
  }
}
