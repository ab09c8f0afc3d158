import type { Translated } from "../core/language.js";
import type * as english from "../en/element.js";
import { grouped, many, namedPlace } from "./phrases.js";

/** Was die Elemente einer Seite sagen: die Liste und was darüber steht. */
export const elementSentences: Translated<typeof english> = {
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
    lookInto: "In eine Datei sehen…",
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
    place: (count) => (count === 0 ? "Einsetzen" : `${grouped(count)} einsetzen`),
    desktop: {
      place: (count) => (count === 0 ? "Kopieren" : `${grouped(count)} kopieren`),
      paste: "Dann dort einfügen, wo es stehen soll.",
      into: (name) => `In „${name}“,`,
      nowhere:
        "Gehen Sie dorthin, wo es ankommen soll, und kommen Sie zurück: dann kommt es dort an. Bis dahin wird kopiert.",
    },
    landsIn: (place) => `Kommt an in: ${namedPlace(place)}.`,
    landsNowhere: "Klicken Sie dorthin, wo es ankommen soll.",
    dealt: (number, of) => `${number} von ${of}`,
    fields: (count) => (count === 1 ? "in ein Feld" : `in ${grouped(count)} Felder`),
    snippet: (position) => `Stück ${position}`,
    progress: {
      importing: (percent) => `Wird eingelesen: ${percent} %.`,
      exporting: (percent) => `Wird ausgegeben: ${percent} %.`,
      copying: () => "Noch nicht in der Zwischenablage …",
      placing: () => "Wird eingesetzt …",
    },
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
};
