import type { Translated } from "../core/language.js";
import type * as english from "../en/desktop.js";
import { size } from "./phrases.js";

export const desktopErrors: Partial<Translated<typeof english.desktopErrors>> = {
  "too-large/clipboard": ({ most }) =>
    `Was kopiert wurde, hat mehr als ${size(most)}. Kopieren Sie es in Teilen.`,
  "no-caret": ({ program, why }) =>
    `An die Schreibmarke eines anderen Programms lässt sich nichts setzen, darum wird es kopiert: „${program}“ sagt „${why}“. Erlauben Sie es in den Einstellungen des Systems (bei macOS: Datenschutz & Sicherheit, Bedienungshilfen).`,
};
