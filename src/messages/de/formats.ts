import type { Translated } from "../core/language.js";
import type * as english from "../en/formats.js";
import { grouped } from "./phrases.js";

const SAVE_AGAIN = "Öffnen Sie es in seinem eigenen Programm, und speichern Sie es noch einmal.";
const ofOne = (count: number, one: string, several: string) =>
  count === 1 ? one : `${grouped(count)} ${several}`;

export const formatErrors: Translated<typeof english.formatErrors> = {
  "unreadable/part": ({ file }) =>
    `„${file}“ ist beschädigt: ein Teil fehlt oder ist nicht ganz. ${SAVE_AGAIN}`,
  "unreadable/damaged": ({ file }) => `„${file}“ ist beschädigt oder abgeschnitten. ${SAVE_AGAIN}`,
  "unreadable/not-one": ({ file }) => `„${file}“ ist nicht, was seine Endung sagt. ${SAVE_AGAIN}`,
  locked: ({ file }) =>
    `„${file}“ ist mit einem Kennwort geschützt. Speichern Sie in seinem Programm eine Kopie ohne Kennwort.`,
  "too-large/workbook": ({ file, most }) =>
    `„${file}“ hat mehr als ${grouped(most)} Zellen. Speichern Sie die nötigen Blätter für sich.`,
  "too-large/range": ({ sheet, cells, most }) =>
    `Das Blatt „${sheet}“ reicht über ${grouped(cells)} Zellen; auf einmal gehen höchstens ${grouped(most)}.`,
  "too-large/document": ({ file }) =>
    `„${file}“ ist größer als jedes wirkliche Dokument und wurde nicht gelesen. Speichern Sie es in Teilen.`,
};

const SEPARATORS = { comma: "Kommas", tab: "Tabulatoren", semicolon: "Semikolons", bar: "Strichen" };

export const formatNotices: Translated<typeof english.formatNotices> = {
  guarded: ({ count }) =>
    `${ofOne(count, "Eine Zelle beginnt", "Zellen beginnen")} wie eine Formel; ein Hochkomma davor hält Tabellen davon ab, sie auszuführen (--no-guard in einem Befehl lässt es weg).`,
  "read-as": ({ file, format }) =>
    `„${file}“ ist seinem Inhalt nach ${format} und wurde so gelesen. Ist das falsch, sagen Sie, was es ist (--type in einem Befehl).`,
  separator: ({ separator }) =>
    `Gelesen mit ${SEPARATORS[separator]} zwischen den Spalten. Ist das falsch, sagen Sie, was sie trennt (--separator in einem Befehl).`,
  "left-out/comments": ({ file, count }) =>
    `Ausgelassen aus „${file}“: ${ofOne(count, "eine Anmerkung", "Anmerkungen")} neben dem Text.`,
  "as-text/diagrams": ({ file, count }) =>
    `Von ${ofOne(count, "einem Schaubild", "Schaubildern")} in „${file}“ sind nur die Wörter da.`,
  "left-out/attachments": ({ file, names }) =>
    `An „${file}“ angehängt, und nicht mitgelesen: ${names.join(", ")}. Sichern Sie ${names.length === 1 ? "es" : "sie"} aus Ihrem Mailprogramm, und sammeln Sie von dort.`,
  "hidden-parts/slides": ({ file, count }) =>
    `${count === 1 ? "Eine Folie ist" : `${grouped(count)} Folien sind`} in „${file}“ ausgeblendet, und wurden trotzdem gelesen.`,
  "as-text/titles": ({ file, count }) =>
    `${count === 1 ? "Eine Folie hat" : `${grouped(count)} Folien haben`} in „${file}“ keinen Titel: dort steht die Nummer.`,
  "as-text/speaker-notes": ({ file, count }) =>
    `Die Notizen zu ${count === 1 ? "einer Folie" : `${grouped(count)} Folien`} von „${file}“ stehen dahinter als Zitate.`,
  "left-out/slide-furniture": ({ file, count }) =>
    `Aus „${file}“ weggelassen: ${count === 1 ? "eine Zeile" : `${grouped(count)} Zeilen`} am Rand von Folien, ihre Nummern, Daten und Fußzeilen.`,
  "left-out/fields": ({ file, count }) =>
    `${count === 1 ? "Ein Feld" : `${grouped(count)} Felder`} von „${file}“ ${count === 1 ? "hat" : "haben"} keinen Text in der Datei, und nichts steht dafür. Das Dokument in einem Textprogramm zu öffnen, die Felder zu aktualisieren und es zu speichern füllt sie.`,
  "as-text/numbers": ({ file, count }) =>
    `${count === 1 ? "Ein Punkt" : `${grouped(count)} Punkte`} von „${file}“ ${count === 1 ? "ist" : "sind"} in einer Weise nummeriert, die Drawer nicht schreibt: hier ${count === 1 ? "steht eine schlichte Zahl" : "stehen schlichte Zahlen"}.`,
  "left-out/pictures": ({ file, count }) =>
    `Ausgelassen aus „${file}“: ${ofOne(count, "ein Bild", "Bilder")} in einer Form, die nicht gelesen wird.`,
  "not-shown/picture": ({ alt }) =>
    `${alt === "" ? "Ein Bild" : `Das Bild „${alt}“`} kann in diesem Format nicht stehen; seine Beschreibung steht an seiner Stelle.`,
  "left-out/sheet": ({ sheet }) =>
    `Das Blatt „${sheet}“ ist in seiner Datei genannt, die nichts davon hat: keine Zelle wurde gelesen. Es in einem Tabellenprogramm zu öffnen und zu speichern bringt es vielleicht zurück.`,
  "hidden-parts/sheet": ({ sheet }) =>
    `Das Blatt „${sheet}“ ist in seiner Datei verborgen; es wurde trotzdem gelesen.`,
  "hidden-parts/cells": ({ sheet }) =>
    `Auf dem Blatt „${sheet}“ sind Zeilen oder Spalten verborgen; sie wurden trotzdem gelesen.`,
  "no-result": ({ sheet, count }) =>
    `${ofOne(count, "Eine Formel", "Formeln")} auf dem Blatt „${sheet}“ ${count === 1 ? "hat" : "haben"} kein Ergebnis in der Datei; dort bleibt es leer.`,
  "not-shown/links-in-cell": ({ count }) =>
    `${count === 1 ? "Eine Zelle hat" : `${grouped(count)} Zellen haben`} mehrere Verweise, wo eine Zelle nur einen haben kann: die Wörter stehen ohne die Adressen da. Die Passung „address“ gibt sie.`,
  "not-shown/pictures-in-cells": () =>
    "Bilder können in den Zellen eines Blatts nicht stehen; ihre Beschreibungen stehen dort.",
  "not-shown/long-cells": ({ count, most }) =>
    `${ofOne(count, "Eine Zelle hat", "Zellen haben")} mehr als die ${grouped(most)} Zeichen, die eine Zelle dieses Formats fasst; was darüber ist, steht nicht in der Datei.`,
};
