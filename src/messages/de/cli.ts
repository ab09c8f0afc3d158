import type { Translated } from "../core/language.js";
import type * as english from "../en/cli.js";
import { many, size } from "./phrases.js";

export const cliErrors: Partial<Translated<typeof english.cliErrors>> = {
  "too-large/line": ({ file, most }) =>
    `Nichts eingelesen: „${file}“ hat eine Zeile von mehr als ${size(most)}, wie sie keine Ladendatei hat.`,
  "too-large/import": ({ file, most }) => `„${file}“ hat mehr als ${size(most)}. Geben Sie es in Teilen aus.`,
  "bad-option/own-key": ({ why }) => `Die Taste wurde nicht gesetzt: ${why}`,
};

export const cliNotices: Partial<Translated<typeof english.cliNotices>> = {
  dealing: ({ of }) => `${many(of)} ${of === 1 ? "wird" : "werden"} ausgeteilt.`,
  "dealing/left": ({ left, of }) => `${left === 1 ? "Eines ist" : `${left} sind`} übrig von ${of}.`,
  "done/none-left": ({ of }) => `Keines ist übrig von ${of}.`,
  "start/menu": ({ path }) => `Das Fenster steht im Menü des Systems (${path}).`,
  "start/login": ({ path }) => `Das Fenster öffnet still, wenn Sie sich anmelden (${path}).`,
  "start/not-menu": ({ path }) => `Aus dem Menü des Systems genommen: ${path}.`,
  "start/not-login": ({ path }) => `Es öffnet nicht mehr, wenn Sie sich anmelden: ${path} ist weg.`,
  "key/set": ({ key, act }) => `${key}: ${act}.`,
  "key/removed": ({ key }) => `${key} tut nichts mehr.`,
};
