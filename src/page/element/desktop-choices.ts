import { composer as words } from "../../messages/core/composer-sentences.js";
import { NEXT_KEYS, type NextKey } from "../binding/host-desktop.js";
import { actMenu } from "./act-menu.js";
import type { Arrangement } from "./arrangement.js";
import { choice } from "./recipe-sentence.js";

/** The choice whether one comes back from the window in which something was placed. */
export function returnChoice(arrangement: Arrangement) {
  const { name, there, here } = words.then;
  const chosen = arrangement.returns ? "here" : "there";
  return choice(name, { there, here }, chosen, (to) => arrangement.change({ returns: to === "here" }), ".");
}

/** The choice of what is pressed between one snippet and the next, which places each by itself. */
export function eachChoice(place: (key: NextKey) => void, isOff: boolean) {
  const { name, keys } = words.each;
  return actMenu(
    name,
    NEXT_KEYS.map((key) => [key, keys[key]]),
    place,
    { className: "each", isOff },
  );
}
