import type { Language } from "../core/language.js";
import { action } from "./operations.js";
import { duration, grouped, many, namedAll, namedPlace, size } from "./phrases.js";

type Page = Omit<Language, "tag" | "many" | "notices" | "errors">;

const stays = (before: string) => ({
  before,
  say: (age: number | null) => (age === null ? "bis sie weggelegt werden" : `${duration(age)} lang`),
});

/** Was die Elemente einer Seite sagen. */
export const elementSentences: Page = {
  page: {
    title: "Lade",
    collecting: {
      name: "Was kopiert wird",
      states: { on: "Sammelt", latest: "An das letzte", off: "Angehalten" },
      does: {
        on: "Was Sie kopieren, wird gesammelt, jedes für sich.",
        latest: "Was Sie kopieren, kommt an das letzte Stück.",
        off: "Was Sie kopieren, wird nicht gesammelt.",
      },
    },
    menu: "Mehr",
    back: "Zurück zu den Stücken",
    divider: "Breite der Liste",
    receives: {
      files: () => "Hier ablegen, um hineinzusehen und zu wählen, was gesammelt wird.",
      piece: (position) => `Hier ablegen: es wird als ${grouped(position)} gesammelt.`,
    },
    unseen: (count) => `${grouped(count)} neu`,
    find: { name: "In der Lade suchen", short: "Suchen" },
    panels: {
      gone: "Weggelegt",
      done: "Was geschah",
      recipes: "Rezepte",
      rules: "Regeln",
      computer: "Dieser Rechner",
      keys: "Tasten",
    },
    drawers: { name: "Lade", another: "eine andere…", ask: "Wie soll die andere Lade heißen?" },
    notKept:
      "Dieser Browser bewahrt für diese Seite nichts auf: was hier steht, ist weg, wenn sie geschlossen wird.",
    nothingYet:
      "Noch nichts hier. Markieren und kopieren Sie etwas; es steht dann hier, nummeriert, in der Reihenfolge des Sammelns.",
    run: "Stücke, der Reihe nach",
    foundRun: "Gefundene Stücke, die neuesten zuerst",
    found: ({ count, words, most }) => {
      const which =
        count === 0
          ? "Nichts enthält"
          : count === most
            ? `Die neuesten ${most} mit`
            : count === 1
              ? "Ein Stück enthält"
              : `${many(count)} enthalten`;
      return `${which} „${words}“.`;
    },
    undo: "Rückgängig",
    redo: "Wiederholen",
    putDown: "Stücke einsetzen",
    preview: "Wie es ankommt",
    more: (count) => `… und ${grouped(count)} mehr, die auch eingesetzt werden.`,
    leftOut: (count) =>
      count === 1
        ? "Ein privates Stück bleibt hier. Wählen Sie es an seiner Nummer, um es einzusetzen."
        : `${grouped(count)} private Stücke bleiben hier. Wählen Sie sie an ihren Nummern, um sie einzusetzen.`,
    moreOfIt: "… und der Rest, der auch eingesetzt wird.",
    notShown: "Was ankäme, kann nicht gezeigt werden.",
    place: (count) => (count === 0 ? "Einsetzen" : `${grouped(count)} einsetzen`),
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
    desktop: {
      place: (count) => (count === 0 ? "Kopieren" : `${grouped(count)} kopieren`),
      paste: "Dann dort einfügen, wo es stehen soll.",
      into: (name) => `In „${name}“,`,
      nowhere:
        "Gehen Sie dorthin, wo es ankommen soll, und kommen Sie zurück: dann kommt es dort an. Bis dahin wird kopiert.",
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
    dealActs: { next: "Hier einsetzen", back: "Zurück", skip: "Auslassen", end: "Beenden" },
    landsIn: (place) => `Kommt an in: ${namedPlace(place)}.`,
    landsNowhere: "Klicken Sie dorthin, wo es ankommen soll.",
    dealt: (number, of) => `${number} von ${of}`,
    fields: (count) => (count === 1 ? "in ein Feld" : `in ${grouped(count)} Felder`),
    snippet: (position) => `Stück ${position}`,
    askChange: (leaving) => `Dadurch gehen ${many(leaving.length)}: ${namedAll(leaving)}. Fortfahren?`,
    askForget:
      "Alles, was nicht behalten wird, und alles, was gegangen ist, für immer vergessen? Nichts bringt es zurück.",
  },
  row: {
    pick: ({ position, turn }) =>
      turn > 0 ? `Als Nummer ${turn} gewählt; aus der Wahl nehmen` : `Stück ${position} wählen`,
    copies: (position) => `Stück ${position} kopieren`,
    placesIn: ({ position, name }) => `Stück ${position} in „${name}“ einsetzen`,
    places: ({ position, place }) =>
      place === undefined
        ? `Klicken Sie zuerst dorthin, wo Stück ${position} ankommen soll`
        : `Stück ${position} einsetzen in: ${namedPlace(place)}`,
    pickedSeveral: (count) => `${grouped(count)} sind gewählt.`,
    show: "Ansehen",
    actionOn: ({ action, position }) => `${action}: Stück ${position}`,
    kinds: { text: "Text", table: "Tabelle", picture: "Bild", link: "Verweis" },
    picked: ({ position, turn }) =>
      turn > 0
        ? `Stück ${position} gewählt, als Nummer ${turn}.`
        : `Stück ${position} ist nicht mehr gewählt.`,
    open: "Öffnen",
    copy: "Kopieren",
    label: "Benennen",
    labelOf: (position) => `Name von Stück ${position}`,
    split: "Teilen",
    kept: "behalten",
    standings: {
      changed: "in der Datei geändert",
      moved: "in der Datei woanders",
      gone: "nicht mehr in der Datei",
      missing: "die Datei ist weg",
    },
    private: "privat",
    privateUntil: (time) => `privat, geht um ${time}`,
    keep: "Behalten",
    release: "Freigeben",
    reveal: "Zeigen",
    mask: "Verdecken",
    hide: "Verbergen",
    unhide: "Nicht privat",
    earlier: "Früher",
    later: "Später",
    discard: "Weglegen",
    otherActs: "Mehr …",
  },
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
    name: "Was gegangen ist",
    nothing: "Nichts ist gegangen, was zurückgeholt werden könnte.",
    left: (time) => `gegangen ${time}`,
    restore: "Zurückholen",
    empty: ["Die Lade leeren", "um alles, was nicht behalten wird, oder"],
    forget: ["es für immer vergessen", ", mit allem, was gegangen ist."],
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
    cells: ["Die Zellen hinunter", "Das sind einzelne Werte: jeden in eine eigene Zelle, untereinander."],
    rejoined: [
      "Zeilen verbinden",
      "Zeilen sind wie auf einer Druckseite umbrochen: wieder zu Absätzen machen.",
    ],
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
    open: "In eine Datei sehen…",
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
    importing: (percent) => `Wird eingelesen: ${percent} %.`,
    exporting: (percent) => `Wird ausgegeben: ${percent} %.`,
    copying: () => "Noch nicht in der Zwischenablage …",
    placing: () => "Wird eingesetzt …",
  },
  rulesPanel: {
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
