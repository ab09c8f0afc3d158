import type { Job } from "../stores/engine.js";
import { value } from "../stores/queries.js";
import { STORE_VALUES } from "../stores/schema.js";

/** Whether a store is one of several devices'. It is asked without loading what they do then. */
export function* isJoined(): Job<boolean> {
  return (yield* value("", STORE_VALUES.sync)) !== undefined;
}
