import { DrawerError } from "../../content/error.js";
import type { Incoming } from "../../drawer/incoming.js";
import type { Origin } from "../../drawer/model/entry.js";
import { readFlavours, type Flavours } from "../../formats/flavours.js";
import { contentErrors } from "../../messages/en/content.js";
import { domAdapter } from "./dom-adapter.js";
import { withPictures } from "./pictures.js";

/**
 * Reads what was copied as a piece, with the pictures that it shows. This is the door to all readers: a page loads it when it
 * is first needed.
 * @param most how many characters it may have
 * @throws DrawerError `too-large` for more
 */
export async function readCopied(flavours: Flavours, origin: Origin, most: number): Promise<Incoming> {
  const characters = (flavours.html?.length ?? 0) + (flavours.text?.length ?? 0);
  if (characters > most)
    throw new DrawerError(contentErrors, "too-large/characters", { what: "piece", characters, most });
  const { secret, ...others } = await withPictures(flavours);
  const reading = await readFlavours(others, { adapter: domAdapter });
  return { ...reading, origin, ...(secret && { private: true }) };
}
