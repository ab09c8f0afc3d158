import * as v from "valibot";

/** What in messages is called by a name that tells nothing: groups, devices, records, keys, contents. */
export const name = v.pipe(v.string(), v.regex(/^[\w-]{1,64}$/));

/** A whole number from 0 on. */
export const count = v.pipe(v.number(), v.safeInteger(), v.minValue(0));

/** Bytes in a message. */
export const bytes = v.custom<Uint8Array>((value) => value instanceof Uint8Array);

/** A key of 32 bytes. */
export const key = v.pipe(
  bytes,
  v.check(({ length }) => length === 32),
);
