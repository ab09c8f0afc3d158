import * as v from "valibot";

/** Bytes in a message. */
export const bytes = v.custom<Uint8Array>((value) => value instanceof Uint8Array);
