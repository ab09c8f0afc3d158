import type { Translated } from "../core/language.js";
import type * as english from "../en/composer.js";
import { grouped } from "./phrases.js";

/** Was dort steht, wo Stücke eingesetzt werden. */
export const composerSentences: Translated<typeof english> = {
  composer: {
    putDown: "Stücke einsetzen",
    preview: "Wie es ankommt",
    more: (count) => `… und ${grouped(count)} mehr, die auch eingesetzt werden.`,
    leftOut: (count) =>
      count === 1
        ? "Ein privates Stück bleibt hier. Wählen Sie es an seiner Nummer, um es einzusetzen."
        : `${grouped(count)} private Stücke bleiben hier. Wählen Sie sie an ihren Nummern, um sie einzusetzen.`,
    moreOfIt: "… und der Rest, der auch eingesetzt wird.",
    notShown: "Was ankäme, kann nicht gezeigt werden.",
    acts: {
      copy: "Kopieren",
      deal: "Eines nach dem anderen",
      down: "Zellen abwärts",
      across: "Zellen entlang",
      fill: "Formular ausfüllen",
      send: "Markiertes senden",
      merge: "Zu einem verbinden",
      file: "Speichern als…",
      export: "Ausgeben",
    },
    dealing: ({ left, of, next }) =>
      next === undefined ? `Alle ${of} sind ausgeteilt.` : `Als Nächstes ${of - left + 1} von ${of}: ${next}`,
    dealActs: { next: "Hier einsetzen", back: "Zurück", skip: "Auslassen", end: "Beenden" },
    then: { name: "Danach", there: "dann dort bleiben", here: "dann hierher zurück" },
    each: {
      name: "Jedes für sich…",
      keys: {
        Tab: "dazwischen Tab: ins nächste Feld",
        Enter: "dazwischen Eingabe: in die nächste Zeile",
        Down: "dazwischen ↓: die Zellen hinunter",
        Right: "dazwischen →: die Zellen entlang",
      },
    },
    deal: "Eines nach dem anderen",
  },
  sentence: {
    place: "Setze",
    as: "ein,",
    in: "in",
    names: { which: "Welche Stücke", as: "Angelegt als", style: "Aussehen", tidy: "Ordnen", cite: "Quellen" },
    which: {
      picked: (count) => (count === 1 ? "das gewählte" : `die ${count} gewählten`),
      found: (count) => (count === 1 ? "das gefundene" : `die ${count} gefundenen`),
      all: (count) =>
        count === 0 ? "noch kein Stück" : count === 1 ? "das eine Stück" : `alle ${count} Stücke`,
      last: "das letzte Stück",
      today: "die von heute wählen",
      from: (document) => `die aus ${document} wählen`,
    },
    layouts: {
      sequence: "wie sie sind, nacheinander",
      lines: "als Zeilen",
      joined: "als einen Absatz",
      sentence: "als einen Satz",
      bullets: "als Punkte",
      numbers: "als nummerierte Liste",
      rows: "als eine Tabelle",
      columns: "als Spalten nebeneinander",
      pairs: "als Namen und Werte",
      link: "als Verweise",
      quotes: "als Zitate mit ihrer Herkunft",
    },
    styles: {
      own: "ihrem eigenen Aussehen",
      host: "dem Aussehen dort, wo es ankommt",
      bare: "bloßen Worten",
    },
    tidying: {
      edges: "ohne leere Ränder",
      lines: "ohne leere Zeilen",
      repeats: "ohne Wiederholungen",
      rejoin: "mit verbundenen Zeilen",
      tables: "mit Zeilen in einer Tabelle",
      none: "unberührt",
    },
    citations: {
      none: "ohne Quellen",
      inline: "mit Quellen in Klammern",
      notes: "mit nummerierten Anmerkungen",
      list: "mit einer Liste der Quellen",
    },
  },
  details: {
    name: "Mehr dazu",
    between: "Zwischen den Stücken",
    before: "Vor jedem",
    after: "Nach jedem",
    header: "Erste Zeilen von Tabellen",
    columns: "Spalten heißen",
    fit: "Es kommt in",
    locale: "Sprache der Zeichen",
    usual: {
      between: "wie ausgelegt",
      before: "nichts",
      after: "nichts",
      columns: "Tel=Telefon, …",
      locale: "wie hier",
    },
    headers: { usual: "wie sie aussehen", yes: "benennen die Spalten", no: "benennen nichts" },
    fits: {
      usual: "wohin Sie gehen",
      page: "eine Seite",
      plain: "Textzeilen",
      line: "eine Zeile",
      cell: "eine Zelle",
      cells: "Zellen",
      address: "eine Adresse",
    },
  },
  suggestions: {
    once: ["Jedes einmal", "Dasselbe Stück ist zweimal da: einmal einsetzen."],
    link: ["Als Link", "Ein Text und eine Adresse: als Link einsetzen."],
    table: ["Als eine Tabelle", "Das sind Zeilen derselben Spalten: als eine Tabelle einsetzen."],
    tables: [
      "Zeilen in eine Tabelle",
      "Einige davon sind Zeilen derselben Spalten: die aufeinander folgen, kommen in eine Tabelle.",
    ],
    cells: ["Die Zellen hinunter", "Das sind einzelne Werte: jeden in eine eigene Zelle, untereinander."],
    rejoined: [
      "Zeilen verbinden",
      "Zeilen sind wie auf einer Druckseite umbrochen: wieder zu Absätzen machen.",
    ],
  },
};
