import type { Translated } from "../core/language.js";
import type * as english from "../en/drawer.js";
import { named, didYouMean } from "./phrases.js";

const PICK_FORMS =
  "3, 2..5, 5..2, 3.., ..3, first, last, last-1, all, kept, text, table, picture, link, from:diary.docx, /Wörter/, today, yesterday, since:2031-04-08 oder not:3";
const whereOf = ({ drawer, isGone }: { readonly drawer: string; readonly isGone: boolean }) =>
  isGone ? `dem, was aus der Lade „${drawer}“ gegangen ist` : `der Lade „${drawer}“`;
const isEmpty = ({ drawer }: { readonly drawer: string }) =>
  `Die Lade „${drawer}“ ist leer. Sammeln Sie zuerst etwas ein.`;
const noneGone = ({ drawer }: { readonly drawer: string }) =>
  `Aus der Lade „${drawer}“ ist nichts gegangen, was zurückgeholt werden könnte.`;

export const drawerErrors: Translated<typeof english.drawerErrors> = {
  "no-position": ({ place, from, count }) =>
    count === 0
      ? `Es gibt kein Stück ${place}: in ${whereOf(from)} ist nichts.`
      : `Es gibt kein Stück ${place}: in ${whereOf(from)} ${count === 1 ? "ist eines, 1" : `sind ${count}, 1 bis ${count}`}.`,
  "no-position/empty": isEmpty,
  "no-position/none-gone": noneGone,
  "no-position/left": ({ from }) => `Dieses Stück ist nicht mehr in ${whereOf(from)}.`,
  "bad-pick/empty": () => `Die Wahl ist leer. Sagen Sie, welche Stücke: ${PICK_FORMS}.`,
  "bad-pick/word": ({ word, words }) =>
    `„${word}“ ist keine Wahl.${didYouMean(word, words)} Schreiben Sie etwa ${PICK_FORMS}.`,
  "bad-pick/place": ({ word }) =>
    `„${word}“ ist keine Stelle. Schreiben Sie eine Zahl, first, last oder last-1.`,
  "bad-option/drawer-name": () =>
    "Eine Lade braucht einen Namen von höchstens 200 Zeichen, auf einer Zeile und ohne Steuerzeichen.",
  "bad-option/number": ({ name, value, least }) =>
    `„${String(value)}“ kann „${name}“ nicht sein: es ist eine ganze Zahl ab ${least}.`,
  "nothing/empty": isEmpty,
  "nothing/none-gone": noneGone,
  "nothing/no-match": ({ pick, from }) => `Nichts in ${whereOf(from)} passt zu „${pick}“.`,
  "private/not-named": ({ positions }) =>
    `Nichts wurde genommen: ${positions.join(", ")} ${positions.length === 1 ? "ist" : "sind"} privat. Nennen Sie die Nummern, wenn es hinaus soll.`,
  "store/missing": ({ position, snippet }) =>
    `Der Inhalt von Stück ${position} ist nicht mehr da. Es war ${named(snippet)}.`,
};

export const drawerNotices: Translated<typeof english.drawerNotices> = {
  "private/left-out": ({ positions }) =>
    `Ausgelassen, weil privat: ${positions.join(", ")}. Nennen Sie die Nummern, damit es mitkommt.`,
  waits: ({ why }) =>
    `Was dem Alter nach oder als Privates fällig ist, ging jetzt nicht und wird nächstes Mal versucht: ${why}`,
  "placed/not-secret": () =>
    "Hier kann nicht gesagt werden, dass es geheim ist: ein Verlauf der Zwischenablage kann es behalten.",
};
