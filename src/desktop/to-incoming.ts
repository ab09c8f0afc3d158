import { DrawerError } from "../content/error.js";
import type { Reading } from "../content/notice.js";
import type { Incoming } from "../drawer/incoming.js";
import { sources } from "../messages/en/content.js";
import type { Copied } from "./desktop.js";

/** What was copied on the desktop, as something to collect. */
export async function incomingOf({ secret, origin, document, ...flavours }: Copied): Promise<Incoming> {
  const { readFlavours } = await import("../formats/flavours.js");
  return {
    ...((document && (await readDocument(document))) ?? (await readFlavours(flavours))),
    ...(secret && { private: true }),
    origin: Object.keys(origin).length > 0 ? origin : { app: sources.clipboard },
  };
}

/** A document that is offered; nothing when it is none that can be read: the other flavours say then what they lack. */
async function readDocument(bytes: Uint8Array): Promise<Reading | undefined> {
  const { readOdt } = await import("../formats/odt/read.js");
  try {
    const { content, pictures, notices } = readOdt(bytes, sources.clipboard);
    return { content, pictures, notices };
  } catch (error) {
    if (error instanceof DrawerError) return undefined;
    throw error;
  }
}
