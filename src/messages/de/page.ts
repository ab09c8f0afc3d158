import type { Translated } from "../core/language.js";
import type * as english from "../en/page.js";
import { grouped, many, namedPlace } from "./phrases.js";

const ofOne = (count: number, one: string, several: string) =>
  count === 1 ? one : `${grouped(count)} ${several}`;

export const pageErrors: Translated<typeof english.pageErrors> = {
  "nothing/target": () => "Klicken Sie zuerst dorthin, wo es ankommen soll: in den Text oder in ein Feld.",
  "nothing/selected-here": () => "Nichts ist markiert. Markieren Sie zuerst etwas.",
  "nothing/fill": () =>
    "Kein Feld wird ausgefüllt: keines heißt wie ein Stück. Benennen Sie Stücke, oder wählen Sie eine Tabelle aus Namen und Werten.",
  "failed/clipboard": () =>
    "Der Browser lässt diese Seite nicht in die Zwischenablage schreiben. Erlauben Sie es, oder markieren Sie den Block und kopieren Sie ihn.",
  "failed/loading": () =>
    "Nichts getan: ein Teil der Lade ließ sich nicht laden. Tun Sie es noch einmal, wenn diese Seite wieder erreichbar ist.",
  failed: ({ why }) => `Das ging nicht: ${why}`,
  "not-placed/kind": ({ place }) =>
    `Nichts eingesetzt: ${namedPlace(place)}, wo Sie zuletzt waren, nimmt keinen Text von hier. Klicken Sie dorthin, wo es ankommen soll.`,
  "not-placed/closed": ({ place }) =>
    `Nichts eingesetzt: ${namedPlace(place)} lässt sich jetzt nicht beschreiben.`,
  "not-placed/long": ({ place, length, most }) =>
    `Nichts eingesetzt: ${namedPlace(place)} nimmt ${grouped(most)} Zeichen und hätte ${grouped(length)}.`,
  "not-placed/form": ({ place, text }) =>
    `Nichts eingesetzt: „${text.slice(0, 40)}“ ist nicht, was ${namedPlace(place)} nimmt.`,
  "not-placed/refused": ({ place }) =>
    `Nichts eingesetzt: ${namedPlace(place)} hat es nicht genommen. Klicken Sie dorthin, wo es ankommen soll, und versuchen Sie es noch einmal.`,
  "not-placed/own": ({ message }) => message,
  "not-placed/not-taken": ({ name }) =>
    `Nichts eingesetzt: „${name}“ hat es nicht genommen. Es liegt in der Zwischenablage: setzen Sie die Einfügemarke, und fügen Sie es ein.`,
  "not-placed/elsewhere": () =>
    "Nichts eingesetzt: Sie kamen inzwischen aus einem anderen Fenster. Sehen Sie nach, wohin es ginge, und tun Sie es noch einmal.",
  "not-placed/window-gone": ({ name }) =>
    `Nichts eingesetzt: „${name}“ ist geschlossen oder kommt nicht nach vorn. Klicken Sie dorthin, wo es ankommen soll, und kommen Sie zurück.`,
  "nothing/changed-there": ({ name }) =>
    `Es bleibt: in „${name}“ geschah seitdem etwas anderes, oder es macht nichts rückgängig. Gehen Sie hin, und drücken Sie Strg+Z.`,
  "nothing/one-by-one": ({ name }) =>
    `Sie bleiben: jedes kam einzeln in „${name}“. Gehen Sie hin, und drücken Sie Strg+Z, bis sie fort sind.`,
  "not-placed/room": ({ place }) =>
    `Nichts eingesetzt: ab ${namedPlace(place)} sind nicht genug Zellen da. Wählen Sie eine weiter oben oder weiter links.`,
  "nothing/placed": () => "Nichts wurde eingesetzt, was zurückgenommen werden könnte.",
  "nothing/changed": () => "Der Text hat sich seither geändert. Machen Sie es im Text selbst rückgängig.",
};

export const pageNotices: Translated<typeof english.pageNotices> = {
  "undone/placing": ({ what }) => `Rückgängig gemacht: Einsetzen, ${what}.`,
  "file/copy": ({ file }) =>
    `Sie bekommen „${file}“ als geänderte Kopie, dort, wo Ihr Browser Dateien sichert; die, in die Sie gesehen haben, bleibt, wie sie ist.`,
  "rule/unchanged": () => "Nichts wurde geändert.",
  "dealing/page": ({ of }) =>
    `${many(of)} ${of === 1 ? "wird" : "werden"} ausgeteilt: je eines in das nächste Feld, in das Sie gehen.`,
  "dealing/in-turn": ({ of }) =>
    `${many(of)} ${of === 1 ? "wird" : "werden"} über die Zwischenablage ausgeteilt. Das erste ist dort; ist es eingefügt, bringt „Auslassen“ das nächste.`,
  "placed/as-lines": ({ what, place }) =>
    `Eingesetzt in ${namedPlace(place)}: ${what}, als Zeilen mit Tabulatoren zwischen den Zellen, denn dort gibt es keine Tabellen.`,
  "placed/changed": ({ what, place }) =>
    `Eingesetzt in ${namedPlace(place)}: ${what}, aber verändert: Wörter fehlen oder laufen zusammen. Sehen Sie nach, oder nehmen Sie es zurück und setzen Sie es als Zeilen ein.`,
  "placed/desktop": ({ what, name }) => `${what} in „${name}“ eingesetzt.`,
  "again/terminal": ({ what, name }) =>
    `„${name}“ ist ein Terminal und führt jede Zeile aus: ${what}. Tun Sie dasselbe noch einmal, um es dort einzusetzen.`,
  "again/private": ({ what, name }) =>
    `Das ist privat: ${what}. Tun Sie dasselbe noch einmal, um es in „${name}“ einzusetzen, wo alle es lesen können.`,
  "stopped/key": ({ taken, of, name }) =>
    `Angehalten, denn Sie haben eine Taste gedrückt oder geklickt: ${taken} von ${of} stehen in „${name}“.`,
  "stopped/window": ({ taken, of, name }) =>
    `Angehalten, denn ein anderes Fenster kam nach vorn: ${taken} von ${of} stehen in „${name}“.`,
  "stopped/not-taken": ({ taken, of, name }) =>
    `Angehalten, denn „${name}“ nahm das nächste nicht: ${taken} von ${of} stehen dort. Das nächste liegt in der Zwischenablage.`,
  "placed/unsure": ({ what, name }) =>
    `In „${name}“ gegeben: ${what}. Dieses System sagt nicht, ob es dort ist: sehen Sie nach, und kopieren Sie es sonst.`,
  "placed/page": ({ what, place }) => `Eingesetzt in ${namedPlace(place)}: ${what}.`,
  "collected/left": ({ count }) =>
    `Die Seite wurde verlassen, ehe ${count === 1 ? "eine Kopie" : `${grouped(count)} Kopien`} gesammelt ${count === 1 ? "war" : "waren"}; was ein Passwort sein kann, wird so lange nicht aufbewahrt. Kopieren Sie es noch einmal.`,
  "opened/page": ({ drawer }) => `Das ist die Lade „${drawer}“.`,
  "recipe/kept": ({ name }) => `Das Rezept „${name}“ ist aufbewahrt.`,
  "copied/page": ({ what }) => `In die Zwischenablage kopiert: ${what}.`,
  "filled/page": ({ count }) => `${ofOne(count, "Ein Feld", "Felder")} ausgefüllt.`,
};
