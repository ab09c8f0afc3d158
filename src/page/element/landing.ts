import { page, row } from "../../messages/core/page-sentences.js";
import type { Binding } from "../binding/binding.js";

/** What placing does here, in words: where it goes, what the large button says, what a click on a row does. */
export interface Landing {
  /** Where what is placed lands. */
  readonly lands: string;
  /** What the button says that places so many. */
  readonly act: (count: number) => string;
  /** What a click on the row at this position does. */
  readonly ofRow: (position: number) => string;
}

/** What placing does now: on a page, at the caret of another program's window, or onto the clipboard of the desktop. */
export function landing(binding: Binding | undefined): Landing {
  const { desktop } = binding?.options ?? {};
  if (desktop?.target) {
    const { name } = desktop.target;
    const ofRow = (position: number) => row.placesIn({ position, name });
    return { lands: page.desktop.into(name), act: page.place, ofRow };
  }
  if (desktop) {
    const lands = desktop.reachesCarets ? page.desktop.nowhere : page.desktop.paste;
    return { lands, act: page.desktop.place, ofRow: row.copies };
  }
  const place = binding?.targetName;
  const lands = place === undefined ? page.landsNowhere : page.landsIn(place);
  return { lands, act: page.place, ofRow: (position) => row.places({ position, place }) };
}
