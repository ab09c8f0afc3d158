import type { Translated } from "../core/language.js";
import type * as english from "../en/window.js";

/** Was die Seite des Fensters neben ihrem Element sagt. */
export const windowPage: Translated<typeof english.windowPage> = {
  title: ({ drawer, count }) => `Lade · ${drawer} (${count})`,
  notListening: (why) =>
    `${why ?? "Was Sie in anderen Programmen kopieren, ist auf diesem System nicht zu hören."} Fügen Sie es in dieses Fenster ein, oder legen Sie Dateien darauf ab.`,
  watched: "„drawer watch“ sammelt, was Sie kopieren, wie es ihm gesagt wurde; jede Kopie steht auch hier.",
  elsewhere: (drawer) => `Was Sie kopieren, kommt in die Lade „${drawer}“, wie ein anderes Fenster sagt.`,
  here: "Hier sammeln",
  away: "Die Laden sind nicht zu erreichen: was dieses Fenster bedient hat, ist weg. Öffnen Sie es wieder mit „drawer open“.",
  locked: "Dieses Fenster braucht einen neuen Schlüssel. Öffnen Sie es wieder mit „drawer open“.",
  begin: [
    "Kopieren Sie etwas in irgendeinem Programm: es steht dann hier, nummeriert, in der Reihenfolge des Sammelns.",
    "Oder ziehen Sie ein Dokument oder eine Tabelle auf dieses Fenster, und nehmen Sie daraus, was Sie wollen.",
    "Gehen Sie dorthin, wo es ankommen soll, kommen Sie zurück, und klicken Sie ein Stück an: es kommt dort an.",
  ],
  sample: ["Oder sehen Sie sich erst um:", "eine Lade mit Beispielen füllen"],
  sampleDrawer: "sample",
};
