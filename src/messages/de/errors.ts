import type { Language } from "../spoken.js";
import { action, grouped, limits, many, named, quotedAll, SECRETS, size } from "./phrases.js";

const SAVE_AGAIN = "Öffnen Sie es in seinem eigenen Programm, und speichern Sie es noch einmal.";
const PICK_FORMS =
  "3, 2..5, 5..2, 3.., ..3, first, last, last-1, all, kept, text, table, picture, link, from:diary.docx, /Wörter/ oder !3";
const whereOf = ({ drawer, isGone }: { readonly drawer: string; readonly isGone: boolean }) =>
  isGone ? `dem, was aus der Lade „${drawer}“ gegangen ist` : `der Lade „${drawer}“`;
const isEmpty = ({ drawer }: { readonly drawer: string }) =>
  `Die Lade „${drawer}“ ist leer. Sammeln Sie zuerst etwas ein.`;
const noneGone = ({ drawer }: { readonly drawer: string }) =>
  `Aus der Lade „${drawer}“ ist nichts gegangen, was zurückgeholt werden könnte.`;
/** Was ein Ort heißt, in deutschen Anführungszeichen. */
const at = (place: string) => place.replace(/^“(.*)”$/, "„$1“");

/** Was auf einer Seite abgelehnt wird: was nicht stimmt, wo, und was hilft. */
export const errors: Language["errors"] = {
  "unreadable/part": ({ file }) =>
    `„${file}“ ist beschädigt: ein Teil fehlt oder ist nicht ganz. ${SAVE_AGAIN}`,
  "unreadable/damaged": ({ file }) => `„${file}“ ist beschädigt oder abgeschnitten. ${SAVE_AGAIN}`,
  "unreadable/not-one": ({ file }) => `„${file}“ ist nicht, was seine Endung sagt. ${SAVE_AGAIN}`,
  "unreadable/picture": ({ file }) =>
    `„${file}“ ist kein Bild, das gelesen wird: PNG, JPEG, GIF, WebP, oder ein SVG ohne Skripte und fremde Adressen.`,
  "unreadable/quote": ({ file, row }) =>
    `Zeile ${row} ${file === undefined ? "dieser Tabelle" : `von „${file}“`} hat ein Anführungszeichen, das nie geschlossen wird. Schließen Sie es.`,
  locked: ({ file }) =>
    `„${file}“ ist mit einem Kennwort geschützt. Speichern Sie in seinem Programm eine Kopie ohne Kennwort.`,
  "unknown-format/old": ({ file }) =>
    `„${file}“ ist in einem alten Büroformat. Speichern Sie es als docx, odt, xlsx oder ods.`,
  "unknown-format/read": ({ file, formats }) =>
    `„${file}“ kann nicht gelesen werden. Gelesen wird: ${formats}.`,
  "unknown-format/write": ({ file, endings }) =>
    `„${file}“ endet auf keinem Format, das geschrieben wird (${endings.join(" ")}).`,
  "too-large/characters": ({ file, characters, most }) =>
    `${file === undefined ? "Das" : `„${file}“`} hat ${grouped(characters)} Zeichen; auf einmal gehen höchstens ${grouped(most)}. Sammeln Sie es in Teilen ein.`,
  "too-large/bytes": ({ file, most }) =>
    `${file === undefined ? "Das" : `„${file}“`} hat mehr als ${size(most)}; mehr geht nicht auf einmal.`,
  "too-large/clipboard": ({ most }) =>
    `Was kopiert wurde, hat mehr als ${size(most)}. Kopieren Sie es in Teilen.`,
  "too-large/cells": ({ file, most }) =>
    `${file === undefined ? "Diese Tabelle" : `Eine Tabelle in „${file}“`} hat mehr als ${grouped(most)} Zellen. Sammeln Sie sie in Teilen ein.`,
  "too-large/workbook": ({ file, most }) =>
    `„${file}“ hat mehr als ${grouped(most)} Zellen. Speichern Sie die nötigen Blätter für sich.`,
  "too-large/range": ({ sheet, cells, most }) =>
    `Das Blatt „${sheet}“ reicht über ${grouped(cells)} Zellen; auf einmal gehen höchstens ${grouped(most)}.`,
  "too-large/nesting": ({ file, depth }) =>
    `${file === undefined ? "Das" : `„${file}“`} ist mehr als ${depth} Ebenen tief verschachtelt. Sammeln Sie es als Text ein.`,
  "too-large/document": ({ file }) =>
    `„${file}“ ist größer als jedes wirkliche Dokument und wurde nicht gelesen. Speichern Sie es in Teilen.`,
  "too-large/line": ({ file, most }) =>
    `Nichts eingelesen: „${file}“ hat eine Zeile von mehr als ${size(most)}, wie sie keine Ladendatei hat.`,
  "too-large/import": ({ file, most }) => `„${file}“ hat mehr als ${size(most)}. Geben Sie es in Teilen aus.`,
  "no-position": ({ place, from, count }) =>
    count === 0
      ? `Es gibt kein Stück ${place}: in ${whereOf(from)} ist nichts.`
      : `Es gibt kein Stück ${place}: in ${whereOf(from)} ${count === 1 ? "ist eines, 1" : `sind ${count}, 1 bis ${count}`}.`,
  "no-position/empty": isEmpty,
  "no-position/none-gone": noneGone,
  "no-position/left": ({ from }) => `Dieses Stück ist nicht mehr in ${whereOf(from)}.`,
  "bad-pick/empty": () => `Die Wahl ist leer. Sagen Sie, welche Stücke: ${PICK_FORMS}.`,
  "bad-pick/word": ({ word }) => `„${word}“ ist keine Wahl. Schreiben Sie etwa ${PICK_FORMS}.`,
  "bad-pick/place": ({ word }) =>
    `„${word}“ ist keine Stelle. Schreiben Sie eine Zahl, first, last oder last-1.`,
  "bad-option/name": ({ what, name, names }) =>
    `Es gibt „${name}“ nicht (${what}). Es gibt: ${names.join(", ")}.`,
  "bad-option/locale": ({ locale }) => `„${locale}“ ist nicht der Name einer Sprache.`,
  "bad-option/between": ({ as, between }) =>
    `Die Anlage „${as}“ hat zwischen den Teilen keinen Platz für „${between}“.`,
  "bad-option/columns": ({ as }) => `Spalten werden nur bei „rows“ anders genannt, nicht bei „${as}“.`,
  "bad-option/drawer-name": () =>
    "Eine Lade braucht einen Namen von höchstens 200 Zeichen, auf einer Zeile und ohne Steuerzeichen.",
  "bad-option/recipe-name": () => "Ein Rezept braucht einen Namen aus einem Wort, von höchstens 60 Zeichen.",
  "bad-option/label": ({ most }) => `Ein Name hat höchstens ${most} Zeichen.`,
  "bad-option/same-drawer": ({ drawer }) => `Sie sind schon in der Lade „${drawer}“. Nennen Sie eine andere.`,
  "bad-option/number": ({ name, value, least }) =>
    `„${String(value)}“ kann „${name}“ nicht sein: es ist eine ganze Zahl ab ${least}.`,
  "bad-option/ambiguous": ({ digits, readings }) => `„${digits}“ kann ${readings.join(" oder ")} sein.`,
  "bad-option/rule": ({ name, names }) =>
    `Es gibt keine Regel „${name}“. Die Regeln sind: ${names.join(", ")}.`,
  "bad-option/rule-without-value": ({ name }) => `Sagen Sie, was „${name}“ sein soll.`,
  "bad-option/rule-value": ({ name, value }) => `„${value}“ ist nichts, was die Regel „${name}“ sein kann.`,
  "nothing/empty": isEmpty,
  "nothing/none-gone": noneGone,
  "nothing/no-match": ({ pick, from }) => `Nichts in ${whereOf(from)} passt zu „${pick}“.`,
  "nothing/append": () => "Nichts angehängt: es war leer.",
  "nothing/merge": ({ pick, count }) =>
    `„${pick}“ ist ${count === 0 ? "kein Stück" : "ein Stück"}: zum Verbinden braucht es zwei oder mehr.`,
  "nothing/split": ({ position, snippet }) =>
    `Stück ${position} ist aus einem Teil: ${named(snippet)} wurde nie verbunden oder verlängert.`,
  "nothing/undo": () => "Es gibt nichts rückgängig zu machen.",
  "nothing/redo": () => "Es gibt nichts zu wiederholen.",
  "nothing/deal": () => "Nichts wird ausgeteilt. Beginnen Sie zuerst mit einer Wahl.",
  "nothing/recipe": ({ name, drawer }) => `In der Lade „${drawer}“ gibt es kein Rezept „${name}“.`,
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
    `Nichts eingesetzt: ${at(place)}, wo Sie zuletzt waren, nimmt keinen Text von hier. Klicken Sie dorthin, wo es ankommen soll.`,
  "not-placed/closed": ({ place }) => `Nichts eingesetzt: ${at(place)} lässt sich jetzt nicht beschreiben.`,
  "not-placed/long": ({ place, length, most }) =>
    `Nichts eingesetzt: ${at(place)} nimmt ${grouped(most)} Zeichen und hätte ${grouped(length)}.`,
  "not-placed/form": ({ place, text }) =>
    `Nichts eingesetzt: „${text.slice(0, 40)}“ ist nicht, was ${at(place)} nimmt.`,
  "not-placed/refused": ({ place }) =>
    `Nichts eingesetzt: ${at(place)} hat es nicht genommen. Klicken Sie dorthin, wo es ankommen soll, und versuchen Sie es noch einmal.`,
  "not-placed/room": ({ place }) =>
    `Nichts eingesetzt: ab ${at(place)} sind nicht genug Zellen da. Wählen Sie eine weiter oben oder weiter links.`,
  "nothing/placed": () => "Nichts wurde eingesetzt, was zurückgenommen werden könnte.",
  "nothing/changed": () => "Der Text hat sich seither geändert. Machen Sie es im Text selbst rückgängig.",
  paused: ({ drawer }) =>
    `Nichts eingesammelt: in der Lade „${drawer}“ ist das Sammeln angehalten. Setzen Sie es fort.`,
  full: ({ drawer, snippets, bytes }) =>
    `Nichts hineingelegt: die Lade „${drawer}“ fasst höchstens ${limits({ snippets, bytes })}. Erhöhen Sie ihre Grenzen, oder legen Sie etwas weg.`,
  "full/append": ({ snippet }) =>
    `Nichts angehängt: ${named(snippet)} würde zu groß für die Regeln der Lade.`,
  "full/import": ({ file, count, drawer, snippets, bytes }) =>
    `Nichts eingelesen: „${file}“ hat ${many(count)}, und die Lade „${drawer}“ fasst höchstens ${limits({ snippets, bytes })}.`,
  "private/append": ({ looks }) =>
    `Nichts angehängt: ${looks === undefined ? "es ist privat" : `es sieht aus wie ${SECRETS[looks]}`}, und Privates bleibt für sich.`,
  "private/join": ({ position }) =>
    `Nichts verbunden: Stück ${position} ist privat, und Privates bleibt für sich.`,
  "private/copy": ({ position }) => `Nichts kopiert: Stück ${position} ist privat und bleibt für sich.`,
  conflict: ({ drawer }) =>
    `Die Lade „${drawer}“ wird von anderen ohne Pause geändert. Versuchen Sie es noch einmal.`,
  "conflict/undo": ({ operation, done, drawers }) =>
    `Das lässt sich nicht ${operation === "undo" ? "rückgängig machen" : "wiederholen"}: ${action(done)}. Es wurde seither geändert${drawers.length > 0 ? ` in der Lade ${quotedAll(drawers)}` : ""}.`,
  "conflict/deal": () => "Ein anderes Fenster hat im selben Augenblick weiter ausgeteilt.",
  "conflict/import": ({ drawer }) =>
    `Nichts eingelesen: in die Lade „${drawer}“ wird schon etwas eingelesen.`,
  "bad-file/empty": ({ file }) => `„${file}“ ist leer und darum keine Ladendatei.`,
  "bad-file/count": ({ file, expected, found }) =>
    `Nichts eingelesen: „${file}“ sollte ${many(expected)} enthalten und enthält ${grouped(found)}.`,
  "bad-file/other": ({ file }) => `„${file}“ ist keine Ladendatei.`,
  "bad-file/newer": ({ file }) => `„${file}“ ist von einer neueren Fassung. Nichts wurde eingelesen.`,
  "bad-file/line": ({ file, line }) =>
    `Nichts eingelesen: Zeile ${line} von „${file}“ ist nicht, was sie sein sollte.`,
  "store/missing": ({ position, snippet }) =>
    `Der Inhalt von Stück ${position} ist nicht mehr da. Es war ${named(snippet)}.`,
  "store/missing-gone": ({ snippet }) =>
    `${named(snippet)} kann nicht zurückgeholt werden: sein Inhalt ist nicht mehr da.`,
  "store/missing-export": ({ snippet }) =>
    `Nichts ausgegeben: der Inhalt von ${named(snippet)} ist nicht mehr da.`,
  "store/away": ({ reason }) =>
    `Nichts wurde geändert: die Laden sind nicht zu erreichen (${reason}). Öffnen Sie das Fenster noch einmal mit „drawer open“.`,
  "store/browser": ({ reason }) =>
    `Dieser Browser lässt die Laden nicht öffnen (${reason}). Private Fenster lehnen das oft ab.`,
  "store/browser-newer": () =>
    "Die Laden in diesem Browser sind von einer neueren Fassung und blieben, wie sie waren. Laden Sie diese Seite neu.",
  "store/browser-full": () =>
    "Nichts wurde geändert, nichts ist verloren: dieser Browser hat keinen Platz mehr. Legen Sie Stücke weg, oder schaffen Sie Platz.",
  "store/browser-write": ({ reason }) =>
    `Nichts wurde geändert: die Laden ließen sich nicht beschreiben (${reason}).`,
};
