import { devices as says } from "../messages/en/cli-answers.js";
import type { RowStore } from "../stores/row-store.js";
import { isJoined } from "../sync/joined.js";
import { isRefusal, refusalText } from "./refusal.js";

/** How often it is looked whether another program has let this home join, in milliseconds. */
const LOOKING = 10_000;

/** What keeps a store in step with the other devices. */
export interface FollowedDevices {
  /** The home may have joined just now. */
  look(): void;
  end(): Promise<void>;
}

/**
 * Keeps a store in step with the other devices while a program works with it, from when there are any.
 * @param tell is told in a sentence what came, and what keeps them apart
 */
export function followDevices(store: RowStore, tell: (sentence: string) => void): FollowedDevices {
  const ending = new AbortController();
  const { signal } = ending;
  let followed: Promise<void> | undefined;
  let looked: Promise<void> = Promise.resolve();
  const begin = async () => {
    const [{ follow }, { syncClient }] = await Promise.all([
      import("../sync/follow.js"),
      import("./device-keeper.js"),
    ]);
    let isFirst = true;
    await follow(syncClient(store), {
      signal,
      exchanged: ({ came, changed, left, notices }) => {
        // That nothing was new is news once; what went out was told when it was done.
        if (isFirst || came + changed + left > 0) for (const { message } of notices) tell(message);
        isFirst = false;
      },
      failed: (error) => tell(says.away(refusalText(error))),
    }).catch((error: unknown) => {
      // The program goes on without the other devices.
      tell(isRefusal(error) ? refusalText(error) : String(error));
    });
  };
  const look = () => {
    looked = looked.then(async () => {
      if (followed || signal.aborted || !(await store.engine.read(isJoined))) return;
      clearInterval(timer);
      followed = begin();
    });
  };
  const timer = setInterval(look, LOOKING).unref();
  look();
  return {
    look,
    async end() {
      clearInterval(timer);
      ending.abort();
      await looked;
      await followed;
    },
  };
}
