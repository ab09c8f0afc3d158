import { decode, encode, ExtensionCodec } from "@msgpack/msgpack";
import type { Store } from "../../drawer/store.js";
import { isWithin } from "./budget.js";

/**
 * How a store is spoken to over HTTP. A question is posted to `call` as MessagePack, `[name, ...arguments]`, and so is the
 * answer. What is refused is answered with its reason and data (422), a conflict with 409. `changes` is a stream of
 * server-sent events, one after each change; `about` tells what does not change.
 */

/** A method of a store that is a question and its answer. */
export type Method = Exclude<keyof Store, "isReadOnly" | "isVolatile" | "watch" | "close">;

/** What can be asked of a store from afar: all of it; the compiler says what is forgotten. */
const ASKED: Readonly<Record<Method, true>> = {
  entries: true,
  size: true,
  drawers: true,
  oldest: true,
  find: true,
  positions: true,
  gone: true,
  privateEntries: true,
  contents: true,
  commit: true,
  revert: true,
  changes: true,
  forget: true,
  value: true,
  valueNames: true,
  setValue: true,
};

/** The names of what can be asked. */
export const METHODS = Object.keys(ASKED) as readonly Method[];

/** What a store tells of itself once. */
export interface About {
  readonly isReadOnly: boolean;
}

/** The media type of MessagePack. */
export const MESSAGE = "application/vnd.msgpack";

export const STATUS = { conflict: 409, refused: 422 } as const;

/** Maps, which MessagePack would make into objects, go as their pairs. */
const MAP = 1;
const extensionCodec = new ExtensionCodec();
extensionCodec.register({
  type: MAP,
  encode: (value) => (value instanceof Map ? pack([...(value as Map<unknown, unknown>)]) : null),
  decode: (bytes) => new Map(decode(bytes, { extensionCodec }) as [unknown, unknown][]),
});

/** Writes a value: plain data, bytes and maps. What is undefined in an object is left out. */
export function pack(value: unknown): Uint8Array<ArrayBuffer> {
  return encode(value, { extensionCodec, ignoreUndefined: true });
}

/** Reads a value that a server of one's own has sent. */
export function unpack(bytes: Uint8Array): unknown {
  return decode(bytes, { extensionCodec });
}

/** How deep values may stand in each other in a question, and how many there may be: a thousand snippets are some fifty thousand. */
const BUDGET = { depth: 100, values: 2_000_000 };

/**
 * Reads a value that anybody may have sent; nothing for what is no MessagePack, and for what would take far more memory than it has
 * bytes.
 */
export function unpackAsked(bytes: Uint8Array): unknown {
  if (!isWithin(bytes, { ...BUDGET, extension: MAP })) return undefined;
  try {
    return unpack(bytes);
  } catch {
    // What cannot be read is no question, which is answered.
    return undefined;
  }
}
