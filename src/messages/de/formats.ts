import type { Translated } from "../core/language.js";
import type * as english from "../en/formats.js";
import { optionalPackages, type OptionalPackage } from "../en/formats.js";
import { grouped } from "./phrases.js";

const insteadOf = (what: OptionalPackage) => {
  const facts = optionalPackages[what];
  return "as" in facts ? ` Oder speichern Sie sie als ${facts.as}.` : "";
};
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
  "locked/pdf": ({ file }) =>
    `„${file}“ ist mit einem Kennwort geschützt. Schreiben Sie es in eine Datei für sich, und nennen Sie die (--password-file in einem Befehl).`,
  "locked/password": ({ file }) =>
    `Das Kennwort öffnet „${file}“ nicht. Sehen Sie nach, ob es das richtige ist.`,
  "unreadable/page": ({ file, page }) => `Seite ${page} von „${file}“ ist beschädigt. ${SAVE_AGAIN}`,
  "too-large/pdf": ({ file, page }) =>
    `${page === undefined ? `„${file}“` : `Seite ${page} von „${file}“`} braucht mehr Zeit oder Speicher als jede wirkliche und wurde nicht gelesen. Drucken Sie es aus einem Programm, das es zeigt, in ein neues PDF.`,
  "unknown-format/package": ({ file, what }) =>
    `Für „${file}“ fehlt hier das Paket, das solche Dateien liest: npm install ${optionalPackages[what].packages.join(" ")}.${insteadOf(what)}`,
  "unknown-format/in-page": ({ file, what }) =>
    `„${file}“ wird vom Befehl und im eigenen Fenster gelesen, nicht in einer Webseite.${insteadOf(what)}`,
  "too-large/old-form": ({ file, what }) =>
    `„${file}“ ist zu groß für eine Datei alter Form, oder braucht zu lange.${insteadOf(what)}`,
  "too-large/workbook": ({ file, most }) =>
    `„${file}“ hat mehr als ${grouped(most)} Zellen. Speichern Sie die nötigen Blätter für sich.`,
  "too-large/range": ({ sheet, cells, most }) =>
    `Das Blatt „${sheet}“ reicht über ${grouped(cells)} Zellen; auf einmal gehen höchstens ${grouped(most)}.`,
  "too-large/document": ({ file }) =>
    `„${file}“ ist größer als jedes wirkliche Dokument und wurde nicht gelesen. Speichern Sie es in Teilen.`,
};

const SEPARATORS = { comma: "Kommas", tab: "Tabulatoren", semicolon: "Semikolons", bar: "Strichen" };

export const formatNotices: Translated<typeof english.formatNotices> = {
  "left-out/old-document": ({ file }) =>
    `Von „${file}“ wurden die Wörter gelesen, in Absätzen und Zeilen; Aussehen, Überschriften, Listen, Verweise und Bilder bleiben zurück. Als docx gespeichert kommt alles herein.`,
  "as-text/place": ({ file, name }) =>
    `Was an der Stelle „${name}“ von „${file}“ steht, kam als Text, ohne Aussehen. Mit der Stelle seines Absatzes (--at p3) kommt es mit.`,
  "as-text/notes": ({ file }) =>
    `Die Fußnoten von „${file}“ stehen nach dem Text. Als docx gespeichert stehen sie, wo sie hingehören.`,
  "left-out/edges": ({ file, comments, edges }) =>
    `Weggelassen aus „${file}“: ${[comments && "die Kommentare", edges && "Kopf und Fuß der Seiten"].filter(Boolean).join(", und ")}.`,
  "left-out/facts": ({ file, names, more }) =>
    `Weggelassen aus „${file}“, da sie keine Spalte haben: ${names.join(", ")}${more > 0 ? ` und ${grouped(more)} weitere` : ""}. Was Sie davon brauchen, zeigt jeder Texteditor.`,
  "as-text/repeats": ({ file, count }) =>
    `${ofOne(count, "Ein Termin", "Termine")} von „${file}“ ${count === 1 ? "kommt" : "kommen"} wieder und ${count === 1 ? "steht" : "stehen"} einmal da, mit der Regel, wie die Datei sie sagt.`,
  guarded: ({ count }) =>
    `${ofOne(count, "Eine Zelle beginnt", "Zellen beginnen")} wie eine Formel; ein Hochkomma davor hält Tabellen davon ab, sie auszuführen (--no-guard in einem Befehl lässt es weg).`,
  "read-as": ({ file, format }) =>
    `„${file}“ ist seinem Inhalt nach ${format} und wurde so gelesen. Ist das falsch, sagen Sie, was es ist (--type in einem Befehl).`,
  "guessed/encoding": ({ file }) =>
    `„${file}“ sagt nicht, wie seine Buchstaben kodiert sind, und wurde als westeuropäisch gelesen (Windows-1252). Sind welche falsch, speichern Sie es als UTF-8.`,
  separator: ({ separator }) =>
    `Gelesen mit ${SEPARATORS[separator]} zwischen den Spalten. Ist das falsch, sagen Sie, was sie trennt (--separator in einem Befehl).`,
  "left-out/comments": ({ file, count }) =>
    `Ausgelassen aus „${file}“: ${ofOne(count, "eine Anmerkung", "Anmerkungen")} neben dem Text.`,
  "as-text/diagrams": ({ file, count }) =>
    `Von ${ofOne(count, "einem Schaubild", "Schaubildern")} in „${file}“ sind nur die Wörter da.`,
  "left-out/inserted": ({ file, count }) =>
    `Ausgelassen aus „${file}“: ${ofOne(count, "ein Dokument", "Dokumente")}, ${count === 1 ? "das als eigene Datei darin steht" : "die als eigene Dateien darin stehen"}. In einem Textprogramm geöffnet und gespeichert, ${count === 1 ? "wird es" : "werden sie"} Teil seines Textes.`,
  "left-out/attachments": ({ file, names, more }) =>
    `An „${file}“ angehängt, und nicht mitgenommen: ${names.join(", ")}${more > 0 ? ` und ${grouped(more)} weitere` : ""}. Die Stelle in Klammern nimmt ${names.length === 1 ? "es" : "jedes davon"} (--at in einem Befehl).`,
  "left-out/no-paragraphs": ({ file, tables, pictures }) => {
    const partly = ({ count, first, last }: typeof tables, one: string, several: string) =>
      count === 0 ? [] : [`${ofOne(count, one, several)} (${count === 1 ? first : `${first} bis ${last}`})`];
    const parts = [
      ...partly(tables, "eine Tabelle", "Tabellen"),
      ...partly(pictures, "ein Bild", "Bilder"),
    ].join(" und ");
    return `Aus „${file}“ nicht genommen, da keine Absätze: ${parts}. Jedes geht mit seiner Stelle (--at in einem Befehl).`;
  },
  "hidden-parts/slides": ({ file, count }) =>
    `${count === 1 ? "Eine Folie ist" : `${grouped(count)} Folien sind`} in „${file}“ ausgeblendet, und wurden trotzdem gelesen.`,
  "as-text/titles": ({ file, count }) =>
    `${count === 1 ? "Eine Folie hat" : `${grouped(count)} Folien haben`} in „${file}“ keinen Titel: dort steht die Nummer.`,
  "as-text/speaker-notes": ({ file, count }) =>
    `Die Notizen zu ${count === 1 ? "einer Folie" : `${grouped(count)} Folien`} von „${file}“ stehen dahinter als Zitate.`,
  "left-out/slide-furniture": ({ file, count }) =>
    `Aus „${file}“ weggelassen: ${count === 1 ? "eine Zeile" : `${grouped(count)} Zeilen`} am Rand von Folien, ihre Nummern, Daten und Fußzeilen.`,
  "left-out/page-furniture": ({ file, count }) =>
    `Aus „${file}“ weggelassen: ${count === 1 ? "eine Zeile" : `${grouped(count)} Zeilen`} am Rand der Seiten, Kopf- und Fußzeilen und Seitenzahlen.`,
  "as-picture/pages": ({ file, pages }) =>
    `${pagesOf(pages)} von „${file}“ ${pages.length === 1 ? "ist ein Bild" : "sind Bilder"} ohne Text, wie aus einem Scanner. Ein Programm zur Texterkennung kann die Wörter dahinterlegen.`,
  "left-out/pages": ({ file, pages }) =>
    `${pagesOf(pages)} von „${file}“ ${pages.length === 1 ? "ist" : "sind"} beschädigt und nicht gelesen. ${SAVE_AGAIN}`,
  "left-out/page-pictures": ({ file, count }) =>
    `Ausgelassen aus „${file}“: ${ofOne(count, "ein Bild", "Bilder")} hinter dem Text einer Seite, oder zu groß.`,
  "guessed/rejoined": ({ file, count }) =>
    `${ofOne(count, "Ein Wort", "Wörter")} von „${file}“, am Zeilenende getrennt, ${count === 1 ? "ist" : "sind"} ohne Trennstrich zusammengefügt. Wo er zum Wort gehört, berichtigen Sie das Stück.`,
  "left-out/fields": ({ file, count }) =>
    `${count === 1 ? "Ein Feld" : `${grouped(count)} Felder`} von „${file}“ ${count === 1 ? "hat" : "haben"} keinen Text in der Datei, und nichts steht dafür. Das Dokument in einem Textprogramm zu öffnen, die Felder zu aktualisieren und es zu speichern füllt sie.`,
  "as-text/numbers": ({ file, count }) =>
    `${count === 1 ? "Ein Punkt" : `${grouped(count)} Punkte`} von „${file}“ ${count === 1 ? "ist" : "sind"} in einer Weise nummeriert, die Drawer nicht schreibt: hier ${count === 1 ? "steht eine schlichte Zahl" : "stehen schlichte Zahlen"}.`,
  "left-out/pictures": ({ file, count }) =>
    `Ausgelassen aus „${file}“: ${ofOne(count, "ein Bild", "Bilder")} in einer Form, die nicht gelesen wird.`,
  "not-shown/picture": ({ alt }) =>
    `${alt === "" ? "Ein Bild" : `Das Bild „${alt}“`} kann in diesem Format nicht stehen; seine Beschreibung steht an seiner Stelle.`,
  "left-out/old-looks": ({ file }) =>
    `Von „${file}“ wurden die Zellen mit ihren Werten und Zahlenformaten gelesen, ihre Farben, Schriften, Notizen und Bilder nicht. Als xlsx oder ods gespeichert, kommen sie mit.`,
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

function pagesOf(pages: readonly number[]): string {
  if (pages.length === 1) return `Seite ${pages[0]}`;
  const [shown, more] = [pages.slice(0, 5), pages.length - 5];
  return more > 0
    ? `Die Seiten ${shown.join(", ")} und ${grouped(more)} weitere`
    : `Die Seiten ${shown.slice(0, -1).join(", ")} und ${shown.at(-1)}`;
}
