import type { Translated } from "../core/language.js";
import type * as english from "../en/stores.js";

export const remoteErrors: Translated<typeof english.remoteErrors> = {
  "store/away": ({ reason }) =>
    `Nichts wurde geändert: die Laden sind nicht zu erreichen (${reason}). Öffnen Sie das Fenster noch einmal mit „drawer open“.`,
};

export const indexeddbErrors: Translated<typeof english.indexeddbErrors> = {
  "store/browser": ({ reason }) =>
    `Dieser Browser lässt die Laden nicht öffnen (${reason}). Private Fenster lehnen das oft ab.`,
  "store/browser-newer": () =>
    "Die Laden in diesem Browser sind von einer neueren Fassung und blieben, wie sie waren. Laden Sie diese Seite neu.",
  "store/browser-full": () =>
    "Nichts wurde geändert, nichts ist verloren: dieser Browser hat keinen Platz mehr. Legen Sie Stücke weg, oder schaffen Sie Platz.",
  "store/browser-write": ({ reason }) =>
    `Nichts wurde geändert: die Laden ließen sich nicht beschreiben (${reason}).`,
};

export const indexeddbNotices: Translated<typeof english.indexeddbNotices> = {
  "trace/browser": () =>
    "Keine Seite kann es mehr lesen; in den eigenen Dateien des Browsers können Spuren bleiben, bis er sie ordnet oder die Daten dieser Seite gelöscht werden.",
};
