import type { Translated } from "../core/language.js";
import type * as english from "../en/panels.js";
import { action } from "./operations.js";
import { duration, grouped, many, namedAll, size } from "./phrases.js";

const stays = (before: string) => ({
  before,
  say: (age: number | null) => (age === null ? "bis sie weggelegt werden" : `${duration(age)} lang`),
});

/** Was neben oder über der Liste steht. */
export const panelSentences: Translated<typeof english> = {
  aside: { back: "Zurück zu den Stücken" },
  snippetPanel: {
    name: (position) => `Stück ${position}`,
    came: (time) => `gesammelt ${time}`,
    kept: "behalten",
    more: "… und mehr.",
    edit: "Worte ändern",
    refresh: "Neu holen",
    lookInto: "In seine Datei sehen",
    save: "Sichern",
    leave: "Lassen",
    words: (position) => `Worte von Stück ${position}`,
    askLeave: "Die Worte lassen, wie sie waren? Was Sie getippt haben, geht verloren.",
    editNote: "Rückgängig bringt wieder, was es sagte.",
  },
  gone: {
    askForget:
      "Alles, was nicht behalten wird, und alles, was gegangen ist, für immer vergessen? Nichts bringt es zurück.",
    name: "Was gegangen ist",
    nothing: "Nichts ist gegangen, was zurückgeholt werden könnte.",
    left: (time) => `gegangen ${time}`,
    restore: "Zurückholen",
    empty: ["Die Lade leeren", "um alles, was nicht behalten wird, oder"],
    forget: ["es für immer vergessen", ", mit allem, was gegangen ist."],
  },
  done: {
    name: "Was geschah",
    nothing: "Nichts geschah, was sich rückgängig machen ließe.",
    act: (summary) => {
      const words = action(summary);
      return words.charAt(0).toUpperCase() + words.slice(1);
    },
    undo: (count) => (count === 1 ? "Rückgängig" : `Diese ${count} rückgängig`),
    undoFrom: ({ act, count }) =>
      count === 1 ? `Rückgängig: ${act}` : `Die letzten ${count} rückgängig, ab: ${act}`,
  },
  partsPanel: {
    name: "Teile der Dateien",
    collect: (count) => (count === 0 ? "Markiertes einsammeln" : `${many(count)} einsammeln`),
    whole: (files) => (files === 1 ? "Alles als eines einsammeln" : "Jede Datei als eines einsammeln"),
    leave: "Lassen",
    every: (count) => (count === 1 ? "ihr einer Teil" : `alle ${grouped(count)} Teile`),
    more: ({ shown, of }) => `Mehr zeigen: ${grouped(shown)} von ${grouped(of)} sind hier`,
    takeOut: (count) => (count < 2 ? "Aus der Datei nehmen" : `Diese ${grouped(count)} aus der Datei nehmen`),
    put: (count) => (count === 0 ? "Hier einsetzen …" : `Hier einsetzen: ${many(count)} …`),
    puts: {
      after: "danach",
      before: "davor",
      instead: "an seiner Stelle",
      cells: "in diese Zellen, die leer sind",
      over: "über das, was diese Zellen sagen",
      below: "als Zeilen darunter",
      end: "als Zeilen ans Ende des Blatts",
    },
    putNothing: "Wählen Sie zuerst Stücke.",
    putWhere: "Markieren Sie die eine Stelle, an die sie kommen.",
    sought: "Es wird gesucht, wo diese Datei liegt …",
    inPlace: (path) => `Ändert ${path}; Rückgängig stellt sie wieder her.`,
    inCopy:
      "Wo diese Datei liegt, ist nicht bekannt: Sie bekommen eine geänderte Kopie, und sie bleibt, wie sie ist.",
    sheet: "Blatt",
    grid: (sheet) => `Zellen des Blatts „${sheet}“`,
    draw: "Ziehen Sie einen Bereich über die Zellen; mit der Tastatur durch Umschalt und die Pfeile, dann Eingabe.",
    empty: "Dieses Blatt ist leer.",
    mark: "Diesen Bereich markieren",
    marked: (spot) => `${spot} ist markiert.`,
    unmarked: (spot) => `${spot} ist nicht mehr markiert.`,
    unmark: "Wegnehmen",
    unmarkOf: (spot) => `Wegnehmen: ${spot}`,
    page: (number) => `Seite ${number}`,
    types: {
      heading: "Überschrift",
      paragraph: "Absatz",
      item: "Punkt einer Liste",
      numberedItem: "nummerierter Punkt",
      quote: "Zitat",
      code: "Code",
      table: "Tabelle",
      picture: "Bild",
      sheet: "Blatt",
      attachment: "Anhang",
    },
  },
  ruleSentences: {
    collecting: {
      before: "Was kopiert wird,",
      say: (on) => (on ? "wird gesammelt" : "wird nicht gesammelt"),
    },
    blanks: {
      before: "Was nichts enthält,",
      say: (what) => (what === "skip" ? "wird ausgelassen" : "wird auch gesammelt"),
    },
    repeats: {
      before: "Kommt dasselbe Stück noch einmal,",
      say: (what) =>
        ({
          skip: "wird es ausgelassen",
          allow: "wird es wieder gesammelt",
          move: "wird das vorhandene das letzte",
        })[what],
    },
    snippets: {
      before: "Die Lade fasst",
      say: (count) => (count === null ? "beliebig viele Stücke" : `höchstens ${many(count)}`),
    },
    size: {
      before: "Sie brauchen",
      say: (bytes) => (bytes === null ? "beliebig viel Platz" : `höchstens ${size(bytes)}`),
    },
    textAge: stays("Texte, Tabellen und Verweise bleiben"),
    pictureAge: stays("Bilder bleiben"),
    detect: {
      before: "Was wie ein Geheimnis aussieht,",
      say: (on) => (on ? "wird privat" : "bleibt wie das andere"),
    },
    privateAge: stays("Geheimnisse bleiben"),
    goneAge: {
      before: "Was ging, kann zurückgeholt werden",
      say: (age) => (age === null ? "immer" : `${duration(age)} lang`),
    },
    neverFrom: {
      before: "Auf dem Schreibtisch wird gesammelt,",
      say: (names) =>
        names === "" ? "was in irgendeinem Programm kopiert wird" : `was kopiert wird, außer in ${names}`,
    },
  },
  rulesPanel: {
    askChange: (leaving) => `Dadurch gehen ${many(leaving.length)}: ${namedAll(leaving)}. Fortfahren?`,
    name: "Regeln",
    note: "Was behalten wird, bleibt, was auch immer die Regeln sagen. Das älteste, das nicht behalten wird, geht zuerst.",
  },
  recipesPanel: {
    name: "Rezepte",
    nothing: "Noch kein Rezept. Wählen Sie Wörter im Satz, und bewahren Sie sie unter einem Namen auf.",
    use: "Anwenden",
    remove: "Entfernen",
    keep: "Den Satz aufbewahren als",
    keepName: "Name des Rezepts",
  },
  fillPanel: {
    name: "Formular ausfüllen",
    closed: "lässt sich nicht beschreiben",
    form: "nimmt es nicht",
    unmatched: (labels) => `Kein Feld heißt ${labels.map((label) => `„${label}“`).join(", ")}.`,
    nothing:
      "Kein Feld des Formulars heißt wie ein Stück. Benennen Sie Stücke, oder wählen Sie eine Tabelle aus Namen und Werten.",
    fill: (count) => (count === 1 ? "Ein Feld ausfüllen" : `${count} Felder ausfüllen`),
    leave: "Lassen",
  },
  computerPanel: {
    name: "Dieser Rechner",
    starts: {
      menu: "Drawer steht im Menü des Systems",
      login: "Es öffnet, wenn Sie sich anmelden, und sammelt still",
    },
    devices: "Ihre Geräte",
    thisDevice: "dieses",
    heard: (time: string) => `zuletzt da: ${time}`,
    notHeard: "noch nicht da gewesen",
    alone: "Diese Laden sind auf diesem Rechner allein.",
    hub: "Wo sich Ihre Geräte treffen (Adresse des Hubs):",
    invite: "Gerät einladen",
    joinBy: "Oder einem anderen beitreten, mit seiner Einladung:",
    join: "Beitreten",
    invited: (time: string) =>
      `Einmal gut, bis ${time}. Halten Sie die Kamera eines Telefons auf den Code; oder schreiben Sie dies auf dem anderen Gerät unter „Dieser Rechner“:`,
    code: "Die Einladung als Code für eine Kamera",
    keys: "Eigene Tasten, in jedem Programm",
    noKeys: "Noch keine Taste ist gesetzt.",
    remove: "Zurücknehmen",
    key: "Drücken Sie eine Taste:",
    does: "Sie",
    which: "welche, und wie:",
    set: "Setzen",
    acts: {
      open: "holt dieses Fenster nach vorn",
      collect: "sammelt das Markierte",
      append: "fügt das Markierte an das neueste an",
      place: "setzt Stücke ein",
      next: "gibt das nächste aus",
      back: "gibt das vorige noch einmal aus",
      send: "sendet das Markierte dorthin, wo das Letzte hinkam",
      undo: "macht rückgängig",
      redo: "wiederholt",
    },
    note: "Sie wirken, solange dieses Fenster offen ist, oder „drawer watch“ läuft.",
  },
  keysPanel: {
    name: "Tasten",
    hotkey: "führt von überall auf der Seite zu den Stücken",
    sendKey: "sendet das Markierte dorthin, wo das Letzte eingesetzt wurde",
    inRun: "Bei den Stücken",
    placeKey: ["Eingabe", "setzt es ein"],
    copyKey: ["Eingabe", "kopiert es in die Zwischenablage"],
    desktopKey: ["Eingabe", "setzt es in das Fenster ein, aus dem Sie kamen"],
    leaveKey: ["Esc", "führt zurück, wo Sie geschrieben haben"],
    keys: [
      ["↓ ↑", "das nächste und das vorige Stück"],
      ["← →", "seine Nummer, was es sagt, und was damit getan werden kann"],
      ["Pos1 Ende", "das erste und das letzte Stück"],
      ["P", "wählt es, oder nimmt es aus der Wahl"],
      ["Umschalt P", "wählt alle vom zuletzt gewählten bis zu ihm"],
      ["Strg A, Esc", "wählt alle, und keines"],
      ["S", "zeigt es ganz"],
      ["E", "ändert seine Worte"],
      ["K", "behält es, oder gibt es frei"],
      ["C", "kopiert es in die Zwischenablage"],
      ["L", "benennt es"],
      ["A", "legt die Stücke so aus, wie sie es nahelegen"],
      ["Alt ↓, Alt ↑", "schiebt es nach hinten und nach vorn"],
      ["Entf", "legt es weg"],
      ["Strg Z, Strg Umschalt Z", "macht rückgängig, und wiederholt"],
    ],
  },
};
