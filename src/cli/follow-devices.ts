import { devices as says } from "../messages/en/cli-answers.js";
import type { RowStore } from "../stores/row-store.js";
import { follow } from "../sync/follow.js";
import { readState } from "../sync/state.js";
import { syncClient } from "./device-keeper.js";
import { isRefusal, refusalText } from "./refusal.js";

/**
 * Keeps a store in step with the other devices while a program works with it, where there are any.
 * @param tell is told in a sentence what came, and what keeps them apart
 * @returns what ends it
 */
export async function followDevices(
  store: RowStore,
  tell: (sentence: string) => void,
): Promise<() => Promise<void>> {
  const ending = new AbortController();
  if (!(await store.engine.read(readState))) return async () => undefined;
  let isFirst = true;
  const followed = follow(syncClient(store), {
    signal: ending.signal,
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
  return async () => {
    ending.abort();
    await followed;
  };
}
