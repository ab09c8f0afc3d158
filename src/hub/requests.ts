import { REQUEST_PURPOSE, requestSaid } from "../sync/http-hub.js";
import { decodeBytes, isSigned } from "../sync/sealing.js";

/** By how much the clock of a device may differ from the hub's, in milliseconds; who differs more asks again with the hub's time. */
const MOST_ASKEW = 5 * 60 * 1000;

/** Who asks, when, and the proof of it, as a request says it: `Drawer DEVICE TIME SIGNATURE`. */
export interface Claim {
  readonly device: string;
  readonly time: string;
  readonly signature: Uint8Array;
}

/** The claim in the head of a request; nothing when there is none. */
export function claimIn(header: string | undefined): Claim | undefined {
  const [, device, time, signature] =
    /^Drawer ([\w-]{1,64}) (\d{1,16}) ([\w-]{86})$/.exec(header ?? "") ?? [];
  if (device === undefined || time === undefined || signature === undefined) return undefined;
  return { device, time, signature: decodeBytes(signature) };
}

/** Whether a claim was made about now. */
export function isOfNow({ time }: Claim, now: number): boolean {
  return Math.abs(Number(time) - now) <= MOST_ASKEW;
}

/** Whether a device has made a claim for this very request, which brings this body. */
export function isMadeBy(
  signing: Uint8Array,
  { time, signature }: Claim,
  { method, url }: { readonly method: string; readonly url: string },
  body: Uint8Array,
): boolean {
  const { pathname, search } = new URL(url);
  const said = requestSaid(method, pathname + search, time, body);
  return isSigned(signing, REQUEST_PURPOSE, said, signature);
}
