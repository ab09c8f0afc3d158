import type { Translated } from "../core/language.js";
import type * as english from "../en/cli.js";
import { many, size } from "./phrases.js";

export const cliErrors: Partial<Translated<typeof english.cliErrors>> = {
  "too-large/line": ({ file, most }) =>
    `Nichts eingelesen: „${file}“ hat eine Zeile von mehr als ${size(most)}, wie sie keine Ladendatei hat.`,
  "too-large/import": ({ file, most }) => `„${file}“ hat mehr als ${size(most)}. Geben Sie es in Teilen aus.`,
  "no-file/unknown": ({ path }) =>
    `Wo „${path}“ auf diesem Rechner liegt, ist nicht bekannt. Sehen Sie im Fenster noch einmal hinein.`,
  "cannot-edit/link": ({ path, target }) =>
    `„${path}“ wurde nicht geändert: es ist eine Verknüpfung. Nehmen Sie die Datei, zu der sie führt: ${target}.`,
  "cannot-edit/names": ({ path }) =>
    `„${path}“ wurde nicht geändert: die Datei hat noch einen Namen, unter dem sie bliebe, wie sie ist. Kopieren Sie sie zuerst.`,
  "cannot-edit/open": ({ path, lock }) =>
    `„${path}“ wurde nicht geändert: ein Programm hat die Datei offen (daneben liegt „${lock}“). Schließen Sie sie dort zuerst.`,
  "cannot-edit/changed": ({ path }) =>
    `„${path}“ wurde nicht geändert: jemand hat die Datei inzwischen geändert. Sehen Sie noch einmal hinein.`,
  "cannot-edit/attributes": ({ path, why }) =>
    `„${path}“ wurde nicht geändert: Besitzer, Rechte oder erweiterte Attribute ließen sich nicht erhalten (${why}).`,
  "conflict/file": ({ path, kept }) =>
    `„${path}“ wurde seitdem geändert und bleibt, wie sie ist. Was sie vorher war, liegt in ${kept}.`,
  "conflict/file-again": ({ path, kept }) =>
    `„${path}“ wurde seitdem geändert und bleibt, wie sie ist. Wie sie würde, liegt in ${kept}: kopieren Sie von dort, was Sie brauchen.`,
  "bad-option/own-key": ({ why }) => `Die Taste wurde nicht gesetzt: ${why}`,
};

export const cliNotices: Partial<Translated<typeof english.cliNotices>> = {
  dealing: ({ of }) => `${many(of)} ${of === 1 ? "wird" : "werden"} ausgeteilt.`,
  "dealing/left": ({ left, of }) => `${left === 1 ? "Eines ist" : `${left} sind`} übrig von ${of}.`,
  "placed/into": ({ count, file, spot, put }) =>
    `Eingesetzt in „${file}“, ${{ after: `nach ${spot}`, before: `vor ${spot}`, instead: `statt ${spot}` }[put] ?? `bei ${spot}`}: ${many(count)}. Rückgängig stellt die Datei wieder her.`,
  lifted: ({ file, spots }) => `Aus „${file}“ genommen: ${spots.join(", ")}. Rückgängig legt es zurück.`,
  "redone/file": ({ file }) => `„${file}“ ist wieder geändert, wie sie es war.`,
  "undone/file": ({ file }) => `„${file}“ ist wieder, wie sie war.`,
  "refresh/same": () => "Alle sagen, was ihre Dateien sagen.",
  "refresh/left": ({ positions }) =>
    `Wie ${positions.length === 1 ? "es war, blieb" : "sie waren, blieben"}: ${positions.join(", ")}.`,
  "done/none-left": ({ of }) => `Keines ist übrig von ${of}.`,
  "start/menu": ({ path }) => `Das Fenster steht im Menü des Systems (${path}).`,
  "start/login": ({ path }) => `Das Fenster öffnet still, wenn Sie sich anmelden (${path}).`,
  "start/not-menu": ({ path }) => `Aus dem Menü des Systems genommen: ${path}.`,
  "start/not-login": ({ path }) => `Es öffnet nicht mehr, wenn Sie sich anmelden: ${path} ist weg.`,
  "key/set": ({ key, act }) => `${key}: ${act}.`,
  "key/removed": ({ key }) => `${key} tut nichts mehr.`,
};
