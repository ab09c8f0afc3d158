import { many } from "./phrases.js";

const hubFaults = {
  gap: "er lässt aus, was ein Gerät geschrieben hat",
  forged: "etwas dort ist nicht von einem deiner Geräte",
  swapped: "etwas dort steht an einem anderen Platz als dem, für den es geschrieben ist",
  copied:
    "dieser Ordner ist kopiert oder aus einem älteren Stand zurückgeholt und geht an zwei Stellen weiter",
  closed: "etwas dort lässt sich mit den Schlüsseln dieses Geräts nicht öffnen",
};

/** What is refused when devices meet. */
export const syncErrors = {
  "not-joined": () =>
    "Diese Schubladen sind nur auf diesem Gerät. „drawer devices invite --hub URL“ beginnt eine Gruppe von Geräten, „drawer devices join“ tritt einer bei.",
  "not-joined/secrets": ({ file }: { file: string }) =>
    `In „${file}“ stehen die Schlüssel dieses Geräts nicht. Nimm es auf einem anderen Gerät aus der Gruppe („drawer devices remove“) und lass es neu beitreten („drawer devices join“).`,
  joined: ({ hub }: { hub: string }) =>
    `Diese Schubladen sind schon in einer Gruppe von Geräten (${hub}). „drawer devices leave“ nimmt sie erst heraus.`,
  removed: () =>
    "Dieses Gerät wurde aus seiner Gruppe genommen: von den anderen kommt nichts mehr, und alles hier bleibt. „drawer devices leave“ vergisst die Gruppe.",
  "hub-away": ({ hub, reason }: { hub: string; reason: string }) =>
    `Der Treffpunkt ${hub} ist nicht zu erreichen (${reason}). Verloren ist nichts: was hier geschah, geht hinaus, sobald er wieder da ist.`,
  "hub-refused": ({ hub, reason }: { hub: string; reason: string }) =>
    `Der Treffpunkt ${hub} hat abgelehnt (${reason}). Verloren ist nichts: es wartet hier.`,
  "hub-wrong": ({ hub, why }: { hub: string; why: keyof typeof hubFaults }) =>
    `Was der Treffpunkt ${hub} gibt, kann nicht stimmen: ${hubFaults[why]}. Davon wurde nichts übernommen. Frag, wer ihn betreibt; ist ihm nicht zu trauen, treffen sich deine Geräte an einem anderen („drawer devices leave“, dann „invite“).`,
  "invitation/word": ({ word, like }: { word: string; like: readonly string[] }) =>
    `„${word}“ ist kein Wort einer Einladung.${like.length > 0 ? ` Ist es ${like.map((one) => `„${one}“`).join(" oder ")}?` : ""}`,
  "invitation/words": ({ count, of }: { count: number; of: number }) =>
    `Eine Einladung hat ${of} Wörter; hier sind es ${count}. „drawer devices invite“ auf dem anderen Gerät macht eine.`,
  "invitation/hub": () =>
    "Die Einladung sagt nicht, wo der Treffpunkt ist. Setz seine Adresse vor die Wörter, oder nenne sie mit --hub.",
  "invitation/over": () =>
    "Diese Einladung gilt nicht: sie ist benutzt, ihre zehn Minuten sind um, oder ein Wort ist ein anderes. „drawer devices invite“ auf dem anderen Gerät macht eine neue.",
  "no-device": ({ name, names }: { name: string; names: readonly string[] }) =>
    `Es gibt kein Gerät „${name}“. Es gibt: ${names.join(", ")}.`,
  "no-device/two": ({ name, words }: { name: string; words: readonly string[] }) =>
    `Zwei Geräte heißen „${name}“. Nenne eines bei seinen vier Wörtern: ${words.map((each) => `„${each}“`).join(" oder ")}.`,
  "no-device/own": ({ name }: { name: string }) =>
    `„${name}“ ist dieses Gerät. „drawer devices leave“ nimmt es aus der Gruppe.`,
  "bad-option/hub": ({ address }: { address: string }) =>
    `„${address}“ ist keine Adresse eines Treffpunkts. Schreib sie wie https://hub.example.`,
  "bad-option/device-name": ({ most }: { most: number }) =>
    `Der Name eines Geräts hat 1 bis ${most} Zeichen, die man sehen kann.`,
};

/** What is told when devices have met. */
export const syncNotices = {
  "synced/same": ({ devices }: { devices: number }) =>
    devices <= 1
      ? "Noch ist kein anderes Gerät beigetreten."
      : "Im Gleichstand mit deinen anderen Geräten: dort nichts Neues, hier nichts Neues.",
  synced: ({ came, changed, left, sent }: { came: number; changed: number; left: number; sent: number }) => {
    const parts = [
      ...(came > 0 ? [`${many(came)} gekommen`] : []),
      ...(changed > 0 ? [`${many(changed)} geändert`] : []),
      ...(left > 0 ? [`${many(left)} gegangen`] : []),
      ...(sent > 0 ? [`${sent} ${sent === 1 ? "Änderung" : "Änderungen"} hinausgegangen`] : []),
    ];
    return `Im Gleichstand mit deinen anderen Geräten: ${parts.join(", ")}.`;
  },
  "synced/waiting": ({ drawer, count, most }: { drawer: string; count: number; most: number | null }) =>
    `${many(count)} aus „${drawer}“ ${count === 1 ? "bleibt" : "bleiben"} auf deinen anderen Geräten: hier ist kein Platz${
      most === null ? "" : ` (höchstens ${most})`
    }. „drawer rules snippets=N“ und „drawer sync“ ${count === 1 ? "holt ihn" : "holen sie"}.`,
  "synced/made-room": ({ count }: { count: number }) =>
    `${many(count)} ${count === 1 ? "hat" : "haben"} hier Platz gemacht; die anderen Geräte haben ${count === 1 ? "ihn" : "sie"} noch.`,
  "synced/missing": ({ count }: { count: number }) =>
    `${many(count)} ${count === 1 ? "kann" : "können"} noch nicht kommen: der Inhalt ist nicht am Treffpunkt. „drawer sync“ fragt wieder, am besten, wenn das Gerät dort war, auf dem er gesammelt wurde.`,
  "synced/more": () => "Was deine anderen Geräte früher gesammelt haben, kommt noch.",
  "synced/key": () =>
    "Was deine anderen Geräte zuletzt geschrieben haben, ist hier noch nicht zu lesen: eines von ihnen muss erst einen Schlüssel weitergeben. Das tut es, wenn es am Treffpunkt ist.",
};
