import type { Incoming } from "../drawer/incoming.js";
import { sources } from "../messages/en/content.js";
import type { Copied } from "./desktop.js";

/** What was copied on the desktop, as something to collect. */
export async function incomingOf({ secret, origin, ...flavours }: Copied): Promise<Incoming> {
  const { readFlavours } = await import("../formats/flavours.js");
  return {
    ...(await readFlavours(flavours)),
    ...(secret && { private: true }),
    origin: Object.keys(origin).length > 0 ? origin : { app: sources.clipboard },
  };
}
