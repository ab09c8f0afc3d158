import type { Translated } from "../core/language.js";
import type * as english from "../en/content.js";
import { didYouMean, grouped, quotedAll, size } from "./phrases.js";

const ofOne = (count: number, one: string, several: string) =>
  count === 1 ? one : `${grouped(count)} ${several}`;

export const argumentErrors: Translated<typeof english.argumentErrors> = {
  "bad-option/name": ({ what, name, names }) =>
    `Es gibt „${name}“ nicht (${what}).${didYouMean(name, names)} Es gibt: ${names.join(", ")}.`,
  "bad-option/value": ({ name, value }) => `„${name}“ kann nicht ${value} sein.`,
};

export const contentErrors: Translated<typeof english.contentErrors> = {
  "unreadable/picture": ({ file }) =>
    `„${file}“ ist kein Bild, das gelesen wird: PNG, JPEG, GIF, WebP, BMP, TIFF, EMF, WMF, oder ein SVG ohne Skripte und fremde Adressen.`,
  "unreadable/quote": ({ file, row }) =>
    `Zeile ${row} ${file === undefined ? "dieser Tabelle" : `von „${file}“`} hat ein Anführungszeichen, das nie geschlossen wird. Schließen Sie es.`,
  "unknown-format/other": ({ file, as }) =>
    `„${file}“ kann nicht gelesen werden. Öffnen Sie es in seinem eigenen Programm, und sichern Sie es als ${as.join(" oder ")}.`,
  "unknown-format/packed": ({ file }) =>
    `„${file}“ ist ein Archiv. Packen Sie es aus, und nehmen Sie die Dateien darin.`,
  "unknown-format/old": ({ file }) =>
    `„${file}“ ist in einem alten Büroformat. Speichern Sie es als docx, odt, xlsx oder ods.`,
  "bad-option/separator": ({ file, format }) =>
    `„${file}“ wird als ${format} gelesen; dort trennt nichts die Spalten. Lassen Sie „separator“ weg.`,
  "unknown-format/read": ({ file, formats }) =>
    `„${file}“ kann nicht gelesen werden. Gelesen wird: ${formats}.`,
  "unknown-format/write": ({ file, endings }) =>
    `„${file}“ endet auf keinem Format, das geschrieben wird (${endings.join(" ")}).`,
  "too-large/characters": ({ file, characters, most }) =>
    `${file === undefined ? "Das" : `„${file}“`} hat ${grouped(characters)} Zeichen; auf einmal gehen höchstens ${grouped(most)}. Sammeln Sie es in Teilen ein.`,
  "too-large/bytes": ({ file, most }) =>
    `${file === undefined ? "Das" : `„${file}“`} hat mehr als ${size(most)}; mehr geht nicht auf einmal.`,
  "too-large/cells": ({ file, most }) =>
    `${file === undefined ? "Diese Tabelle" : `Eine Tabelle in „${file}“`} hat mehr als ${grouped(most)} Zellen. Sammeln Sie sie in Teilen ein.`,
  "too-large/nesting": ({ file, depth }) =>
    `${file === undefined ? "Das" : `„${file}“`} ist mehr als ${depth} Ebenen tief verschachtelt. Sammeln Sie es als Text ein.`,
  "bad-option/locale": ({ locale }) => `„${locale}“ ist nicht der Name einer Sprache.`,
  "bad-option/between": ({ as, between }) =>
    `Die Anlage „${as}“ hat zwischen den Teilen keinen Platz für „${between}“.`,
  "bad-option/columns": ({ as }) => `Spalten werden nur bei „rows“ anders genannt, nicht bei „${as}“.`,
};

export const contentNotices: Translated<typeof english.contentNotices> = {
  "left-out/repeats": ({ count }) =>
    `Ausgelassen, denn ein früheres sagt dasselbe: ${count === 1 ? "ein Stück" : `${grouped(count)} Stücke`}. Nehmen Sie „ohne Wiederholungen“ zurück, um alle zu haben.`,
  "left-out/front-matter": () => "Ausgelassen: die Angaben zum Dokument, die vor seinem Text stehen.",
  "left-out/markdown": () =>
    "Dieses Markdown ist zu tief verschachtelt oder hat zu viele Zeichen; es wurde als bloßer Text genommen.",
  "left-out/picture": ({ name }) =>
    `Das Bild „${name}“ ist nicht in dem, was kopiert wurde, nur seine Adresse. Sein Name steht an seiner Stelle.`,
  "as-text/equations": ({ file, count }) =>
    `${ofOne(count, "Eine Formel", "Formeln")}${file === undefined ? "" : ` aus „${file}“`} ${count === 1 ? "ist" : "sind"} als Text auf einer Zeile da.`,
  "left-out/addresses": ({ count }) =>
    `Weggelassen: ${count === 1 ? "die Adresse eines Verweises" : `die Adressen von ${count} Verweisen`}; in einer Zeile oder Zelle Text ist kein Platz dafür. Die Passung „address“ gibt sie allein; HTML und Markdown behalten sie.`,
  "not-shown/pictures-in-text": ({ count }) =>
    `Text hat keinen Platz für Bilder: ${count === 1 ? "die Beschreibung steht" : `die Beschreibungen von ${count} stehen`} dort.`,
  "not-shown/pictures-in-page": ({ count }) =>
    `${count === 1 ? "Ein Bild zeichnen Browser nicht: seine Beschreibung steht dafür" : `${count} Bilder zeichnen Browser nicht: ihre Beschreibungen stehen dafür`}. In docx und odt bleiben TIFF, EMF und WMF, wie sie sind.`,
  "not-shown/numbers": ({ count }) =>
    `${ofOne(count, "Eine Liste ist", "Listen sind")} so nummeriert, wie dieses Format es nicht sagen kann: sie ${count === 1 ? "hat" : "haben"} einfache Zahlen.`,
  "not-shown/partner": ({ count, what }) =>
    `${ofOne(count, what === "text" ? "Ein Text hat" : "Eine Adresse hat", what === "text" ? "Texte haben" : "Adressen haben")} nichts, womit ein Verweis daraus würde.`,
  "not-shown/dividers": ({ count }) =>
    `Ausgelassen: ${ofOne(count, "eine Linie", "Linien")} über die Seite, die diese Anlage nicht zeigen kann.`,
  "not-shown/same-line": ({ count }) =>
    `${ofOne(count, "Ein Teil steht", "Teile stehen")} unter dem davor: nur Zeilen Text gehen auf derselben Zeile weiter.`,
  "by-position": ({ count }) =>
    `Die Spalten ${count === 1 ? "einer Tabelle stehen" : `von ${grouped(count)} Tabellen stehen`} nur nach ihrer Reihenfolge untereinander, denn keine bekannte Kopfzeile nennt sie. Nennen die ersten Zeilen die Spalten, sagen Sie --header yes in einem Befehl, bei anderen Namen --columns A=B.`,
  "not-shown/columns": ({ names }) => `Keine Spalte heißt ${quotedAll(names)}.`,
  "not-shown/pairs": ({ count }) =>
    `${ofOne(count, "Eine Tabelle hat", "Tabellen haben")} mehr als zwei Spalten: was auf den Namen folgt, bleibt in eigenen Spalten.`,
  "not-shown/address": ({ isNone }) =>
    isNone
      ? "In dem Gewählten ist keine Adresse."
      : "Nur Adressen werden eingesetzt; die Wörter daneben nicht.",
};
