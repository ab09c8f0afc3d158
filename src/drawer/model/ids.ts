import { v7 } from "uuid";

/** Random bytes are dear one by one, so they are asked for in store. */
const STORE = 4096;
const BYTES = 16;
let store = new Uint8Array(0);

/** A new id: a UUID of version 7, which sorts by the millisecond in which it was made (RFC 9562). */
export function newId(): string {
  if (store.length < BYTES) store = crypto.getRandomValues(new Uint8Array(STORE));
  const random = store.subarray(0, BYTES);
  store = store.subarray(BYTES);
  return v7({ random });
}
