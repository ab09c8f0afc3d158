import { originText } from "../names.js";
import type { Language } from "../spoken.js";
import { pageSentences } from "./page.js";
import {
  action,
  duration,
  grouped,
  many,
  named,
  namedAll,
  namedWithOrigin,
  namedWithPosition,
  namedWithPositions,
  oneOrMany,
  quotedAll,
  SECRETS,
  size,
} from "./phrases.js";

const blank = (place: string) => (place === "" ? "es ist leer" : `${place} ist leer`);
const whatStays = (count: number) =>
  count === 0
    ? ""
    : ` ${count === 1 ? "Das eine, das behalten wird, bleibt" : `Die ${count}, die behalten werden, bleiben`}.`;
const ofOne = (count: number, one: string, several: string) =>
  count === 1 ? one : `${grouped(count)} ${several}`;
/** Ein Satz der Regeln: was davor steht, und was gewählt ist. */
const rule = (name: keyof typeof pageSentences.ruleSentences, value: unknown) => {
  const { before, say } = pageSentences.ruleSentences[name];
  return `${before} ${(say as (value: unknown) => string)(value)}`;
};

/** Was auf einer Seite gesagt wird. */
export const notices: Language["notices"] = {
  collected: ({ position, entry }) => `Eingesammelt als ${position}: ${namedWithOrigin(entry)}.`,
  "private/collected": ({ position, looks, age }) => {
    const why =
      looks === undefined
        ? ""
        : looks === "known"
          ? "es sagt, was ein privates Stück sagt; darum wird es"
          : `es sieht aus wie ${SECRETS[looks]}; darum wird es`;
    const goes = age === null ? "" : ` und geht nach ${duration(age)}`;
    return `Eingesammelt als ${position}, privat: ${why || "es wird"} nirgends gezeigt${goes}. Behalten Sie es, oder machen Sie es nicht privat, wenn das falsch ist.`;
  },
  blank: ({ origin }) => `Nichts eingesammelt: ${blank(originText(origin))}.`,
  "repeat/skipped": ({ snippet }) =>
    `Nicht noch einmal eingesammelt: ${named(snippet)} ist dasselbe wie das Stück davor.`,
  "repeat/moved": ({ position, snippet }) =>
    `${named(snippet)} war schon hier und ist jetzt das letzte, als ${position}.`,
  "repeat/imported": ({ count }) =>
    count === 1
      ? "Eines war schon da und wurde ausgelassen."
      : `${grouped(count)} waren schon da und wurden ausgelassen.`,
  "nearly-full": ({ count, snippets, bytes, most }) => {
    const parts = [
      ...(count === undefined ? [] : [`${grouped(count)} von höchstens ${many(snippets!)}`]),
      ...(bytes === undefined ? [] : [`${Math.floor((100 * bytes) / most!)} % von ${size(most)}`]),
    ];
    return `Fast voll: ${parts.join(", ")}. Ist die Lade voll, geht das älteste, das nicht behalten wird.`;
  },
  "made-room": ({ snippets }) =>
    `Platz gemacht: ${namedAll(snippets)} ${snippets.length === 1 ? "ging, das älteste, das nicht behalten wurde" : "gingen, die ältesten, die nicht behalten wurden"}. „Rückgängig“ bringt es zurück.`,
  aged: ({ snippets, textAge, pictureAge, goneAge }) => {
    const ages = [
      ...(textAge === undefined ? [] : [`Text nach ${duration(textAge)}`]),
      ...(pictureAge === undefined ? [] : [`Bilder nach ${duration(pictureAge)}`]),
    ];
    const howLong = goneAge === null ? "" : `, ${duration(goneAge)} lang`;
    return `Dem Alter nach gegangen (${ages.join(", ")}): ${namedAll(snippets)}. „Rückgängig“ bringt es zurück${howLong}.`;
  },
  "private/forgotten": ({ count, drawer, age }) =>
    `${count === 1 ? "Ein privates Stück ist" : `${count} private Stücke sind`} für immer weg${drawer === undefined ? "" : ` in der Lade „${drawer}“`}, nach ${duration(age)}.`,
  "private/not-exported": ({ count }) =>
    count === 1 ? "Ein privates Stück wurde ausgelassen." : `${count} private Stücke wurden ausgelassen.`,
  waits: ({ why }) =>
    `Was dem Alter nach oder als Privates fällig ist, ging jetzt nicht und wird nächstes Mal versucht: ${why}`,
  appended: ({ position, added, snippet, pieces }) =>
    `An ${position} angehängt: ${added.map(namedWithOrigin).join(", ")}. Es lautet jetzt ${named(snippet)}, ${pieces} Teile; Teilen trennt sie wieder.`,
  merged: ({ positions, position, snippet }) =>
    `${positions.join(", ")} verbunden zu ${position}: ${named(snippet)}. Teilen macht wieder ${positions.length} daraus.`,
  split: ({ snippets }) => `Geteilt in ${snippets.length}: ${snippets.map(namedWithPosition).join("; ")}.`,
  moved: ({ snippets }) =>
    `Verschoben: ${snippets.map(({ position, entry }) => `${named(entry)} ist jetzt ${position}`).join("; ")}.`,
  "moved/into": ({ into, snippets }) => `In die Lade „${into}“ verschoben: ${oneOrMany(snippets)}.`,
  copied: ({ into, snippets }) => `In die Lade „${into}“ kopiert: ${oneOrMany(snippets)}.`,
  labelled: ({ snippets, label, isChanged }) =>
    !isChanged
      ? `${oneOrMany(snippets)}: der Name war schon so.`
      : label === ""
        ? `Den Namen von ${oneOrMany(snippets)} genommen.`
        : `${oneOrMany(snippets)} heißt jetzt „${label}“.`,
  kept: ({ snippets, isChanged }) =>
    isChanged
      ? `Behalten: ${oneOrMany(snippets)}. Weder Grenzen noch Alter noch Leeren nehmen es weg.`
      : `${oneOrMany(snippets)} wurde schon behalten.`,
  released: ({ snippets, isChanged }) =>
    isChanged
      ? `Freigegeben: ${oneOrMany(snippets)}. Grenzen, Alter und Leeren nehmen es wieder weg.`
      : `${oneOrMany(snippets)} wurde nicht behalten.`,
  hidden: ({ positions, age }) =>
    positions.length === 0
      ? "Sie waren alle schon privat."
      : `Privat gemacht: ${positions.join(", ")}. Es wird nirgends gezeigt${age === null ? "" : ` und geht nach ${duration(age)}, wenn es nicht behalten wird`}.`,
  unhidden: ({ positions }) =>
    positions.length === 0
      ? "Keines davon war privat."
      : `Nicht mehr privat: ${positions.join(", ")}. Es wird gezeigt, gefunden und ausgegeben wie jedes andere.`,
  discarded: ({ snippets, left }) => {
    const rest =
      left === 0
        ? "Die Lade ist jetzt leer"
        : left === 1
          ? "Ein Stück ist noch da"
          : `${many(left)} sind noch da`;
    return `Weggelegt: ${namedWithPositions(snippets)}. ${rest}; „Rückgängig“ bringt es zurück.`;
  },
  emptied: ({ drawer, count, left }) =>
    count > 0
      ? `Die Lade „${drawer}“ um ${many(count)} geleert.${whatStays(left)} „Rückgängig“ bringt es zurück.`
      : left === 0
        ? `Die Lade „${drawer}“ ist schon leer.`
        : `Aus der Lade „${drawer}“ ist nichts zu nehmen.${whatStays(left)}`,
  "forgotten/all": ({ drawer, count, left }) =>
    `Für immer vergessen: ${count === 0 ? "das Verzeichnis" : `${many(count)}, mit allem, was gegangen war, und dem Verzeichnis`} der Lade „${drawer}“.${whatStays(left)} Nichts bringt es zurück.`,
  "forgotten/gone": ({ count, age }) =>
    `Für immer vergessen: ${many(count)}, vor mehr als ${duration(age)} gegangen.`,
  "trace/browser": () =>
    "Keine Seite kann es mehr lesen; in den eigenen Dateien des Browsers können Spuren bleiben, bis er sie ordnet oder die Daten dieser Seite gelöscht werden.",
  restored: ({ snippets, first }) =>
    `Zurückgeholt, als ${snippets.length === 1 ? first : `${first} bis ${first + snippets.length - 1}`}: ${namedAll(snippets)}.`,
  undone: ({ done }) => `Rückgängig gemacht: ${action(done)}.`,
  "undone/several": ({ count }) => `Rückgängig gemacht: die letzten ${grouped(count)} Schritte.`,
  "undone/placing": ({ what }) => `Rückgängig gemacht: Einsetzen, ${what}.`,
  redone: ({ done }) => `Wiederholt: ${action(done)}.`,
  rule: ({ rule: name, value, was }) => `${rule(name, value)}${was === value ? " (wie es war)" : ""}.`,
  "rule/unchanged": () => "Nichts wurde geändert.",
  paused: () => `${rule("collecting", false)}.`,
  resumed: () => `${rule("collecting", true)}.`,
  dealing: ({ of }) => `${many(of)} ${of === 1 ? "wird" : "werden"} ausgeteilt.`,
  "dealing/page": ({ of }) =>
    `${many(of)} ${of === 1 ? "wird" : "werden"} ausgeteilt: je eines in das nächste Feld, in das Sie gehen.`,
  "dealing/clipboard": ({ of }) =>
    `${many(of)} ${of === 1 ? "wird" : "werden"} über die Zwischenablage ausgeteilt. Das erste ist dort; jedes Einfügen bringt das nächste.`,
  "dealing/in-turn": ({ of }) =>
    `${many(of)} ${of === 1 ? "wird" : "werden"} über die Zwischenablage ausgeteilt. Das erste ist dort; ist es eingefügt, bringt „Auslassen“ das nächste.`,
  "dealing/offered": ({ number, of, snippet }) =>
    `In der Zwischenablage: ${number} von ${of}, ${named(snippet)}.`,
  "dealing/skipped": ({ number, of }) => `${number} von ${of} ausgelassen.`,
  "dealing/done": () => "Alle sind ausgeteilt.",
  "dealing/left": ({ left, of }) => `${left === 1 ? "Eines ist" : `${left} sind`} übrig von ${of}.`,
  "done/none-left": ({ of }) => `Keines ist übrig von ${of}.`,
  dealt: ({ number, of }) => `${number} von ${of}${number === of ? ", das letzte" : ""}.`,
  done: () => "Alle sind ausgeteilt.",
  "forgotten/dealt": ({ number, of }) =>
    `${number} von ${of} ausgelassen: es ist für immer weg, oder wurde mit dem privat, womit es verbunden wurde.`,
  exported: ({ count, drawer }) => `${many(count)} der Lade „${drawer}“ ausgegeben.`,
  imported: ({ count, file, drawer }) => `${many(count)} aus „${file}“ in die Lade „${drawer}“ eingelesen.`,
  "imported/taken-back": ({ file, count }) =>
    `Das Einlesen von „${file}“ wurde abgebrochen. Was es gebracht hatte, ${many(count)}, wurde zurückgenommen; lesen Sie es noch einmal ein.`,
  "left-out/front-matter": () => "Ausgelassen: die Angaben zum Dokument, die vor seinem Text stehen.",
  "left-out/markdown": () =>
    "Dieses Markdown ist zu tief verschachtelt oder hat zu viele Zeichen; es wurde als bloßer Text genommen.",
  "left-out/picture": ({ name }) =>
    `Das Bild „${name}“ ist nicht in dem, was kopiert wurde, nur seine Adresse. Sein Name steht an seiner Stelle.`,
  "left-out/comments": ({ file, count }) =>
    `Ausgelassen aus „${file}“: ${ofOne(count, "eine Anmerkung", "Anmerkungen")} neben dem Text.`,
  "as-text/diagrams": ({ file, count }) =>
    `Von ${ofOne(count, "einem Schaubild", "Schaubildern")} in „${file}“ sind nur die Wörter da.`,
  "as-text/equations": ({ file, count }) =>
    `${ofOne(count, "Eine Formel", "Formeln")}${file === undefined ? "" : ` aus „${file}“`} ${count === 1 ? "ist" : "sind"} als Text auf einer Zeile da.`,
  "left-out/pictures": ({ file, count }) =>
    `Ausgelassen aus „${file}“: ${ofOne(count, "ein Bild", "Bilder")} in einer Form, die nicht gelesen wird.`,
  "not-shown/picture": ({ alt }) =>
    `${alt === "" ? "Ein Bild" : `Das Bild „${alt}“`} kann in diesem Format nicht stehen; seine Beschreibung steht an seiner Stelle.`,
  "hidden-parts/sheet": ({ sheet }) =>
    `Das Blatt „${sheet}“ ist in seiner Datei verborgen; es wurde trotzdem gelesen.`,
  "hidden-parts/cells": ({ sheet }) =>
    `Auf dem Blatt „${sheet}“ sind Zeilen oder Spalten verborgen; sie wurden trotzdem gelesen.`,
  "no-result": ({ sheet, count }) =>
    `${ofOne(count, "Eine Formel", "Formeln")} auf dem Blatt „${sheet}“ ${count === 1 ? "hat" : "haben"} kein Ergebnis in der Datei; dort bleibt es leer.`,
  "not-shown/pictures-in-cells": () =>
    "Bilder können in den Zellen eines Blatts nicht stehen; ihre Beschreibungen stehen dort.",
  "not-shown/long-cells": ({ count, most }) =>
    `${ofOne(count, "Eine Zelle hat", "Zellen haben")} mehr als die ${grouped(most)} Zeichen, die eine Zelle dieses Formats fasst; was darüber ist, steht nicht in der Datei.`,
  "not-shown/pictures-in-text": ({ count }) =>
    `Text hat keinen Platz für Bilder: ${count === 1 ? "die Beschreibung steht" : `die Beschreibungen von ${count} stehen`} dort.`,
  "not-shown/numbers": ({ count }) =>
    `${ofOne(count, "Eine Liste ist", "Listen sind")} so nummeriert, wie dieses Format es nicht sagen kann: sie ${count === 1 ? "hat" : "haben"} einfache Zahlen.`,
  "not-shown/partner": ({ count, what }) =>
    `${ofOne(count, what === "text" ? "Ein Text hat" : "Eine Adresse hat", what === "text" ? "Texte haben" : "Adressen haben")} nichts, womit ein Verweis daraus würde.`,
  "not-shown/dividers": ({ count }) =>
    `Ausgelassen: ${ofOne(count, "eine Linie", "Linien")} über die Seite, die diese Anlage nicht zeigen kann.`,
  "not-shown/same-line": ({ count }) =>
    `${ofOne(count, "Ein Teil steht", "Teile stehen")} unter dem davor: nur Zeilen Text gehen auf derselben Zeile weiter.`,
  "not-shown/columns": ({ names }) => `Keine Spalte heißt ${quotedAll(names)}.`,
  "not-shown/pairs": ({ count }) =>
    `${ofOne(count, "Eine Tabelle hat", "Tabellen haben")} mehr als zwei Spalten: was auf den Namen folgt, bleibt in eigenen Spalten.`,
  "not-shown/address": ({ isNone }) =>
    isNone
      ? "In dem Gewählten ist keine Adresse."
      : "Nur Adressen werden eingesetzt; die Wörter daneben nicht.",
  "placed/page": ({ what }) => `Eingesetzt: ${what}.`,
  "opened/page": ({ drawer }) => `Das ist die Lade „${drawer}“.`,
  "recipe/kept": ({ name }) => `Das Rezept „${name}“ ist aufbewahrt.`,
  "copied/page": ({ what }) => `In die Zwischenablage kopiert: ${what}.`,
  "filled/page": ({ count }) => `${ofOne(count, "Ein Feld", "Felder")} ausgefüllt.`,
  "placed/not-secret": () =>
    "Hier kann nicht gesagt werden, dass es geheim ist: ein Verlauf der Zwischenablage kann es behalten.",
};
