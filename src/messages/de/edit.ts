import type { Translated } from "../core/language.js";
import type * as english from "../en/edit.js";

export const editNotices: Translated<typeof english.editNotices> = {
  "appended/columns": ({ count, sheet, empty }) =>
    `${count === 1 ? "Eine Zeile steht" : `${count} Zeilen stehen`} unter den Spalten von „${sheet}“, nach deren Namen${empty.length === 0 ? "" : `; ${empty.join(", ")} ${empty.length === 1 ? "hat" : "haben"} nichts bekommen`}.`,
  "appended/order": ({ count, sheet }) =>
    `Die Spalten haben hier keine Namen: ${count === 1 ? "die Zeile steht" : `die ${count} Zeilen stehen`} in denen von „${sheet}“ von der ersten an. Mit einer Kopfzeile kommt alles unter die Namen.`,
  "appended/dates": ({ count, names, order }) =>
    `${count === 1 ? "Ein Text" : `${count} Texte`} unter ${names.join(", ")} ${count === 1 ? "wurde ein Datum" : "wurden Daten"}, gelesen als ${{ dmy: "Tag, Monat, Jahr", mdy: "Monat, Tag, Jahr", ymd: "Jahr, Monat, Tag" }[order]}. War ein anderer Tag gemeint: rückgängig machen und als 2031-04-21 schreiben.`,
  "appended/texts": ({ count, names }) =>
    `${count === 1 ? "Eine Angabe bleibt Text" : `${count} Angaben bleiben Text`} unter ${names.join(", ")}, weil nicht klar ist, wie ${count === 1 ? "sie gemeint ist" : "sie gemeint sind"}: eine Tabelle zählt und sortiert sie nicht mit denen darüber. Schreiben Sie Zahlen schlicht (1234.5) und Tage als 2031-04-21, oder ändern Sie sie dort.`,
  "calculated-later": ({ file }) =>
    `Was die Formeln von „${file}“ ergeben, wird berechnet, wenn ihr Programm sie öffnet; bis dahin zeigt Drawer, was sie vorher ergaben, oder nichts.`,
  "not-kept/tracked": ({ file }) =>
    `Was in „${file}“ geändert wurde, ist nicht als Änderung gekennzeichnet: in odt geht das nur mit Absätzen des Textes, die nach einem anderen stehen. Rückgängig stellt die Datei wieder her; oder ändern Sie sie in einer Textverarbeitung.`,
  "not-kept/edges": ({ file, names }) =>
    `Kopf und Fuß der Seiten von „${file}“ gibt es einmal; ${names.join(", ")} ${names.length === 1 ? "bleibt" : "bleiben"} dort, wie es ist. Mit einem Namen in Klammern in --to bekommt jede Zeile eine eigene Datei.`,
  "not-kept/page-count": ({ file }) =>
    `„${file}“ sagt, wie viele Seiten es gibt: in einer Datei ist das die Zahl aller zusammen. Mit einem Namen in Klammern in --to bekommt jede Zeile eine eigene Datei.`,
  "not-kept/in-cells": ({ count }) =>
    `${count === 1 ? "Ein Verweis oder eine verbundene Zelle steht" : `${count} Verweise und verbundene Zellen stehen`} dort als gewöhnliche Zellen: setzen Sie sie im Programm der Tabelle.`,
  "not-kept/emphasis-in-cells": ({ count }) =>
    `Was in ${count === 1 ? "einer Zelle" : `${count} Zellen`} fett, kursiv, unterstrichen, durchgestrichen, hoch- oder tiefgestellt ist, sieht dort aus wie die Zellen daneben: setzen Sie es im Programm der Tabelle.`,
};

export const editErrors: Translated<typeof english.editErrors> = {
  "cannot-edit/form": ({ file }) =>
    `Nichts wurde geändert: „${file}“ ist in einer Form geschrieben, die Drawer liest und nicht ändert. Sichern Sie sie in einer Textverarbeitung noch einmal, als docx oder odt.`,
  "cannot-edit/pages": ({ file }) =>
    `Nichts wurde gemacht: eine Datei mit Seiten für jede Zeile gibt es von docx- und odt-Dateien, nicht von „${file}“. Mit einem Namen in Klammern in --to bekommt jede Zeile eine eigene Datei (--to "Brief-{{Name}}.odt").`,
  "cannot-edit/pages-parts": ({ file, why }) =>
    `Nichts wurde gemacht: „${file}“ hat ${{ notes: "Fußnoten oder Anmerkungen", tracked: "gekennzeichnete Änderungen", controls: "Felder eines Formulars", "page-frames": "Bilder oder Rahmen, die an eine Seite gebunden sind" }[why]}, die nicht für jede Zeile in einer Datei stehen können. Mit einem Namen in Klammern in --to bekommt jede Zeile eine eigene Datei.`,
  "cannot-edit/format": ({ file, format, formats }) =>
    `Nichts wurde geändert: in Dateien der Art ${format} setzt Drawer nichts ein und nimmt nichts heraus („${file}“). Es tut es bei ${formats}.`,
  "cannot-edit/flat": ({ file, as }) =>
    `Nichts wurde geändert: „${file}“ ist ein Dokument in einer einzigen XML-Datei, die gelesen, aber nicht an ihrer Stelle geändert wird. Speichern Sie es als ${as}.`,
  "cannot-edit/places": ({ file, format, formats }) =>
    `„${file}“ hat keine benannten Stellen: Dateien der Art ${format} haben keine. Es gibt sie in ${formats}.`,
  "cannot-edit/shared": ({ file, spot }) =>
    `Nichts wurde geändert: was bei ${spot} in „${file}“ steht, ist ein Absatz mit dem, was daneben steht. Nennen Sie beides, oder ändern Sie es in seinem Programm.`,
  "cannot-edit/field": ({ file, spot }) =>
    `Nichts wurde geändert: ein Feld von „${file}“ beginnt bei ${spot} und endet woanders, oder umgekehrt. Nennen Sie alle seine Absätze.`,
  "cannot-edit/encoding": ({ file, sign }) =>
    `Nichts wurde geändert: die alte Kodierung von „${file}“ hat kein Zeichen für „${sign}“. Sichern Sie die Datei zuerst als UTF-8.`,
  "cannot-edit/pair": ({ file, spot, name }) =>
    `Nichts wurde geändert: die Marke „${name}“ von „${file}“ beginnt bei ${spot} und endet woanders, oder umgekehrt. Nennen Sie alles, was sie umfasst.`,
  "cannot-edit/filled": ({ file, spot }) =>
    `Nichts wurde geändert: bei ${spot} in „${file}“ steht etwas. Setzen Sie an dessen Stelle ein, wenn es gehen darf.`,
  "cannot-edit/shape": ({ file, spot }) =>
    `Nichts wurde geändert: ${spot} in „${file}“ hat nicht so viele Zeilen und Spalten wie das, was hineinkommt. Nennen Sie nur die erste Zelle, oder ebenso viele.`,
  "cannot-edit/merged": ({ file, spot, cells }) =>
    `Nichts wurde geändert: bei ${spot} in „${file}“ sind die Zellen ${cells} verbunden. Setzen Sie es woanders ein, oder trennen Sie sie in ihrem Programm.`,
  "cannot-edit/protected": ({ file, sheet }) =>
    `Nichts wurde geändert: das Blatt „${sheet}“ von „${file}“ ist geschützt. Nehmen Sie den Schutz zuerst in seinem Programm weg.`,
  "cannot-edit/formulas": ({ file, spot, cell }) =>
    `Nichts wurde geändert: eine Formel in ${cell} von „${file}“ spricht von den Zeilen ${spot}. Nehmen Sie stattdessen deren Zellen heraus, die dann leer bleiben.`,
  "cannot-edit/comments": ({ file, spot, cell }) =>
    `Nichts wurde geändert: die Zeilen unter ${spot} in „${file}“ würden rücken, und mit ihnen der Kommentar bei ${cell}, was Drawer nicht tut. Setzen Sie die Zeilen woanders ein, oder im Programm der Tabelle.`,
  "cannot-edit/put": ({ file, spot, put }) =>
    `Nichts wurde geändert: ${spot} in „${file}“ nimmt dort nichts (${put}).`,
  "cannot-edit/cells": ({ file, spot }) =>
    `Nichts wurde geändert: für ${spot} in „${file}“ sind keine Zeilen da. Legen Sie alles als eine Tabelle aus, oder wählen Sie eine.`,
  "cannot-edit/headers": ({ file, spot, names }) =>
    `Nichts wurde geändert: ${spot} in „${file}“ hat keine Spalte für ${names.map((name) => (name === "" ? "eine ohne Namen" : `„${name}“`)).join(", ")}. Nennen Sie die Spalten gleich, oder nehmen Sie Zeilen ohne deren Namen.`,
};
