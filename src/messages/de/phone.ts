import type { Translated } from "../core/language.js";
import type * as english from "../en/phone.js";

/** Was die Seite für das Telefon neben ihrem Element sagt. */
export const phonePage: Translated<typeof english.phonePage> = {
  title: "Lade",
  join: {
    name: "Ihre Laden auf diesem Gerät",
    about:
      "Am Rechner zeigt „Mehr“, „Dieser Rechner“, „Gerät einladen“ einen Code: halten Sie diese Kamera darauf. Oder schreiben Sie hier, was dort steht.",
    invitation: "Die Einladung",
    device: "Wie dieses Gerät heißt",
    deviceName: "Telefon",
    go: "Beitreten",
    joining: "Tritt bei …",
  },
  joined: (words) => `Beigetreten. Am Computer hat dieses Gerät dieselben vier Wörter: ${words}.`,
  inStep: (others) =>
    others.length === 0
      ? "Noch kein anderes Gerät ist beigetreten."
      : `Im Gleichschritt. ${others.map(({ name, time }) => `${name}: ${time ?? "noch nicht gehört"}`).join(" · ")}`,
  away: "Keine Verbindung zu Ihren anderen Geräten. Was Sie sammeln, wartet hier und geht hinaus, sobald es eine gibt.",
  removed: "Dieses Gerät wurde auf einem anderen herausgenommen. Was hier ist, bleibt; Neues kommt nicht.",
  again: "Wieder beitreten",
  more: (count) =>
    count === 1
      ? "1 Stück mehr, als hier nach den Regeln Platz hat."
      : `${count} Stücke mehr, als hier nach den Regeln Platz haben.`,
  takeAll: "Auch nehmen",
  field: "Hier schreiben oder einfügen",
  collect: "Sammeln",
  paste: "Einfügen",
  noClipboard:
    "Der Browser gibt die Zwischenablage nicht her. Halten Sie den Finger in das Feld, und fügen Sie dort ein.",
  emptyClipboard: "In der Zwischenablage ist nichts, was sich sammeln ließe.",
  begin: [
    "Fügen Sie unten etwas ein, oder schreiben Sie es: es steht hier, und gleich darauf an Ihrem Computer.",
    "Berühren Sie ein Stück, das dort gesammelt wurde: es ist hier kopiert.",
  ],
};
