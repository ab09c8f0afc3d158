import type { Translated } from "../core/language.js";
import { originText } from "../core/names.js";
import type * as english from "../en/acts.js";
import { action } from "./operations.js";
import { panelSentences } from "./panels.js";
import {
  grouped,
  limits,
  many,
  named,
  quotedAll,
  SECRETS,
  size,
  duration,
  namedAll,
  namedWithOrigin,
  namedWithPosition,
  namedWithPositions,
  oneOrMany,
  didYouMean,
} from "./phrases.js";

const blank = (place: string) => (place === "" ? "es ist leer" : `${place} ist leer`);
const whatStays = (count: number) =>
  count === 0
    ? ""
    : ` ${count === 1 ? "Das eine, das behalten wird, bleibt" : `Die ${count}, die behalten werden, bleiben`}.`;
/** Ein Satz der Regeln: was davor steht, und was gewählt ist. */
const rule = (name: keyof typeof panelSentences.ruleSentences, value: unknown) => {
  const { before, say } = panelSentences.ruleSentences[name];
  return `${before} ${(say as (value: unknown) => string)(value)}`;
};

export const actErrors: Translated<typeof english.actErrors> = {
  "bad-option/recipe-name": () => "Ein Rezept braucht einen Namen aus einem Wort, von höchstens 60 Zeichen.",
  "bad-option/label": ({ most }) => `Ein Name hat höchstens ${most} Zeichen.`,
  "bad-option/same-drawer": ({ drawer }) => `Sie sind schon in der Lade „${drawer}“. Nennen Sie eine andere.`,
  "bad-option/ambiguous": ({ digits, readings }) => `„${digits}“ kann ${readings.join(" oder ")} sein.`,
  "bad-option/rule": ({ name, names }) =>
    `Es gibt keine Regel „${name}“.${didYouMean(name, names)} Die Regeln sind: ${names.join(", ")}.`,
  "bad-option/rule-value": ({ name, value }) => `„${value}“ ist nichts, was die Regel „${name}“ sein kann.`,
  "bad-option/rule-without-value": ({ name }) => `Sagen Sie, was „${name}“ sein soll.`,
  "nothing/append": () => "Nichts angehängt: es war leer.",
  "nothing/merge": ({ pick, count }) =>
    `„${pick}“ ist ${count === 0 ? "kein Stück" : "ein Stück"}: zum Verbinden braucht es zwei oder mehr.`,
  "nothing/split": ({ position, snippet }) =>
    `Stück ${position} ist aus einem Teil: ${named(snippet)} wurde nie verbunden oder verlängert.`,
  "nothing/rewrite": ({ position }) =>
    `Stück ${position} bleibt, wie es ist: nichts blieb davon übrig. Legen Sie es weg, wenn es gehen soll.`,
  "nothing/undo": () => "Es gibt nichts rückgängig zu machen.",
  "nothing/redo": () => "Es gibt nichts zu wiederholen.",
  "nothing/deal": () => "Nichts wird ausgeteilt. Beginnen Sie zuerst mit einer Wahl.",
  "nothing/recipe": ({ name, drawer, names }) =>
    `In der Lade „${drawer}“ gibt es kein Rezept „${name}“.${didYouMean(name, names)}`,
  paused: ({ drawer }) =>
    `Nichts eingesammelt: in der Lade „${drawer}“ ist das Sammeln angehalten. Setzen Sie es fort.`,
  full: ({ drawer, snippets, bytes }) =>
    `Nichts hineingelegt: die Lade „${drawer}“ fasst höchstens ${limits({ snippets, bytes })}. Erhöhen Sie ihre Grenzen, oder legen Sie etwas weg.`,
  "full/rewrite": ({ position }) =>
    `Stück ${position} bleibt, wie es ist: es wäre zu groß für die Regeln der Lade.`,
  "full/append": ({ snippet }) =>
    `Nichts angehängt: ${named(snippet)} würde zu groß für die Regeln der Lade.`,
  "full/import": ({ file, count, drawer, snippets, bytes }) =>
    `Nichts eingelesen: „${file}“ hat ${many(count)}, und die Lade „${drawer}“ fasst höchstens ${limits({ snippets, bytes })}.`,
  "private/append": ({ looks }) =>
    `Nichts angehängt: ${looks === undefined ? "es ist privat" : `es sieht aus wie ${SECRETS[looks]}`}, und Privates bleibt für sich.`,
  "private/rewrite": ({ position, looks }) =>
    `Stück ${position} bleibt, wie es ist: die neuen Worte sehen aus wie ${SECRETS[looks]}. Verbergen Sie das Stück zuerst, oder sammeln Sie sie für sich.`,
  "private/join": ({ position }) =>
    `Nichts verbunden: Stück ${position} ist privat, und Privates bleibt für sich.`,
  "private/copy": ({ position }) => `Nichts kopiert: Stück ${position} ist privat und bleibt für sich.`,
  conflict: ({ drawer }) =>
    `Die Lade „${drawer}“ wird von anderen ohne Pause geändert. Versuchen Sie es noch einmal.`,
  "conflict/undo": ({ operation, done, drawers }) =>
    `Das lässt sich nicht ${operation === "undo" ? "rückgängig machen" : "wiederholen"}: ${action(done)}. Es wurde seither geändert${drawers.length > 0 ? ` in der Lade ${quotedAll(drawers)}` : ""}.`,
  "conflict/rewrite": ({ position }) =>
    `Stück ${position} bleibt, wie es ist: seine Worte wurden inzwischen anderswo geändert. Sehen Sie es an, und ändern Sie sie noch einmal.`,
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
  "store/missing-gone": ({ snippet }) =>
    `${named(snippet)} kann nicht zurückgeholt werden: sein Inhalt ist nicht mehr da.`,
  "store/missing-export": ({ snippet }) =>
    `Nichts ausgegeben: der Inhalt von ${named(snippet)} ist nicht mehr da.`,
};

export const actNotices: Translated<typeof english.actNotices> = {
  collected: ({ position, entry }) => `Eingesammelt als ${position}: ${namedWithOrigin(entry)}.`,
  "private/collected": ({ position, looks, age }) => {
    const why =
      looks === undefined
        ? ""
        : looks === "known"
          ? "es sagt, was ein privates Stück sagt; darum wird es"
          : `es sieht aus wie ${SECRETS[looks]}; darum wird es`;
    const goes =
      age === null
        ? " und bleibt, bis Sie es sagen"
        : ` und geht nach ${duration(age)}, wenn es nicht behalten wird`;
    return `Eingesammelt als ${position}, privat: ${why || "es wird"} nirgends gezeigt${goes}. Ist das falsch, machen Sie es nicht privat (hide --not in einem Befehl).`;
  },
  blank: ({ origin }) => `Nichts eingesammelt: ${blank(originText(origin))}.`,
  "repeat/skipped": ({ snippet }) =>
    `Nicht noch einmal eingesammelt: ${named(snippet)} ist dasselbe wie das Stück davor.`,
  "repeat/moved": ({ position, snippet }) =>
    `${named(snippet)} war schon hier und ist jetzt das letzte, als ${position}.`,
  "repeat/imported": ({ count }) =>
    count === 1
      ? "Eines war schon da und wurde ausgelassen."
      : `${grouped(count)} waren schon da und wurden ausgelassen.`,
  "nearly-full": ({ count, snippets, bytes, most }) => {
    const parts = [
      ...(count === undefined ? [] : [`${grouped(count)} von höchstens ${many(snippets!)}`]),
      ...(bytes === undefined ? [] : [`${Math.floor((100 * bytes) / most!)} % von ${size(most)}`]),
    ];
    return `Fast voll: ${parts.join(", ")}. Ist die Lade voll, geht das älteste, das nicht behalten wird.`;
  },
  "made-room": ({ snippets }) =>
    `Platz gemacht: ${namedAll(snippets)} ${snippets.length === 1 ? "ging, das älteste, das nicht behalten wurde" : "gingen, die ältesten, die nicht behalten wurden"}. „Rückgängig“ bringt es zurück.`,
  aged: ({ snippets, textAge, pictureAge, goneAge }) => {
    const ages = [
      ...(textAge === undefined ? [] : [`Text nach ${duration(textAge)}`]),
      ...(pictureAge === undefined ? [] : [`Bilder nach ${duration(pictureAge)}`]),
    ];
    const howLong = goneAge === null ? "" : `, ${duration(goneAge)} lang`;
    return `Dem Alter nach gegangen (${ages.join(", ")}): ${namedAll(snippets)}. „Rückgängig“ bringt es zurück${howLong}.`;
  },
  "not-from": ({ name }) =>
    `Aus „${name}“ wird nichts gesammelt, wie die Regeln sagen. Das wird einmal gesagt.`,
  "rules/unread": ({ drawer }) =>
    `Die Regeln der Lade „${drawer}“ sind nicht lesbar, also gelten die üblichen. Setzen Sie neu, was anders sein soll.`,
  "private/forgotten": ({ count, drawer }) =>
    `${count === 1 ? "Ein privates Stück ist" : `${count} private Stücke sind`} für immer weg${drawer === undefined ? "" : ` in der Lade „${drawer}“`}, denn ${count === 1 ? "seine" : "ihre"} Zeit ist um.`,
  "private/not-exported": ({ count }) =>
    count === 1 ? "Ein privates Stück wurde ausgelassen." : `${count} private Stücke wurden ausgelassen.`,
  appended: ({ position, added, snippet, pieces }) =>
    `An ${position} angehängt: ${added.map(namedWithOrigin).join(", ")}. Es lautet jetzt ${named(snippet)}, ${pieces} Teile; Teilen trennt sie wieder.`,
  merged: ({ positions, position, snippet }) =>
    `${positions.join(", ")} verbunden zu ${position}: ${named(snippet)}. Teilen macht wieder ${positions.length} daraus.`,
  "refreshed/moved": ({ position, at }) => `Stück ${position} steht jetzt bei ${at}.`,
  rewritten: ({ position, snippet, isOfPieces }) =>
    `Stück ${position} lautet jetzt: ${named(snippet)}.${isOfPieces ? " Teilen gibt seine Teile zurück, wie sie waren." : ""}`,
  "rewritten/same": ({ position }) => `Nichts zu ändern: Stück ${position} lautet schon so.`,
  "rewritten/poorer": ({ count }) =>
    `${count === 1 ? "Ein geänderter Teil hat" : `${grouped(count)} geänderte Teile haben`} Aussehen, Bilder oder Zellwerte verloren, für die der Text keinen Platz hat. Rückgängig bringt sie wieder.`,
  split: ({ snippets }) => `Geteilt in ${snippets.length}: ${snippets.map(namedWithPosition).join("; ")}.`,
  moved: ({ snippets }) =>
    `Verschoben: ${snippets.map(({ position, entry }) => `${named(entry)} ist jetzt ${position}`).join("; ")}.`,
  "moved/into": ({ into, snippets }) => `In die Lade „${into}“ verschoben: ${oneOrMany(snippets)}.`,
  copied: ({ into, snippets }) => `In die Lade „${into}“ kopiert: ${oneOrMany(snippets)}.`,
  labelled: ({ snippets, label, isChanged }) =>
    !isChanged
      ? `${oneOrMany(snippets)}: der Name war schon so.`
      : label === ""
        ? `Den Namen von ${oneOrMany(snippets)} genommen.`
        : `${oneOrMany(snippets)} heißt jetzt „${label}“.`,
  kept: ({ snippets, isChanged }) =>
    isChanged
      ? `Behalten: ${oneOrMany(snippets)}. Weder Grenzen noch Alter noch Leeren nehmen es weg.`
      : `${oneOrMany(snippets)} wurde schon behalten.`,
  released: ({ snippets, isChanged }) =>
    isChanged
      ? `Freigegeben: ${oneOrMany(snippets)}. Grenzen, Alter und Leeren nehmen es wieder weg.`
      : `${oneOrMany(snippets)} wurde nicht behalten.`,
  hidden: ({ positions, age }) =>
    positions.length === 0
      ? "Sie waren alle schon privat."
      : `Privat gemacht: ${positions.join(", ")}. Nirgends mehr gezeigt; ${age === null ? "das bleibt, bis Sie es nicht mehr privat machen (hide --not in einem Befehl)" : `nach ${duration(age)} für immer weg, wenn nicht behalten`}.`,
  unhidden: ({ positions }) =>
    positions.length === 0
      ? "Keines davon war privat."
      : `Nicht mehr privat: ${positions.join(", ")}. Es wird gezeigt, gefunden und ausgegeben wie jedes andere.`,
  discarded: ({ snippets, left }) => {
    const rest =
      left === 0
        ? "Die Lade ist jetzt leer"
        : left === 1
          ? "Ein Stück ist noch da"
          : `${many(left)} sind noch da`;
    return `Weggelegt: ${namedWithPositions(snippets)}. ${rest}; „Rückgängig“ bringt es zurück.`;
  },
  emptied: ({ drawer, count, left }) =>
    count > 0
      ? `Die Lade „${drawer}“ um ${many(count)} geleert.${whatStays(left)} „Rückgängig“ bringt es zurück.`
      : left === 0
        ? `Die Lade „${drawer}“ ist schon leer.`
        : `Aus der Lade „${drawer}“ ist nichts zu nehmen.${whatStays(left)}`,
  "forgotten/all": ({ drawer, count, left }) =>
    `Für immer vergessen: ${count === 0 ? "das Verzeichnis" : `${many(count)}, mit allem, was gegangen war, und dem Verzeichnis`} der Lade „${drawer}“.${whatStays(left)} Nichts bringt es zurück.`,
  "forgotten/gone": ({ count, age }) =>
    `Für immer vergessen: ${many(count)}, vor mehr als ${duration(age)} gegangen.`,
  restored: ({ snippets, first }) =>
    `Zurückgeholt, als ${snippets.length === 1 ? first : `${first} bis ${first + snippets.length - 1}`}: ${namedAll(snippets)}.`,
  undone: ({ done }) => `Rückgängig gemacht: ${action(done)}.`,
  "undone/several": ({ count }) => `Rückgängig gemacht: die letzten ${grouped(count)} Schritte.`,
  redone: ({ done }) => `Wiederholt: ${action(done)}.`,
  rule: ({ rule: name, value, was }) => `${rule(name, value)}${was === value ? " (wie es war)" : ""}.`,
  paused: () => `${rule("collecting", false)}.`,
  resumed: () => `${rule("collecting", true)}.`,
  "forgotten/dealt": ({ number, of }) =>
    `${number} von ${of} ausgelassen: es ist für immer weg, oder wurde mit dem privat, womit es verbunden wurde.`,
  exported: ({ count, drawer }) => `${many(count)} der Lade „${drawer}“ ausgegeben.`,
  imported: ({ count, file, drawer }) => `${many(count)} aus „${file}“ in die Lade „${drawer}“ eingelesen.`,
  "imported/private": ({ count }) =>
    `${count === 1 ? "Eines davon sagt" : `${grouped(count)} davon sagen`}, was ein privates Stück sagt, und ${count === 1 ? "ist" : "sind"} auch privat. Stimmt das nicht, nehmen Sie es zurück (hide --not als Befehl).`,
  "imported/taken-back": ({ file, count }) =>
    `Das Einlesen von „${file}“ wurde abgebrochen. Was es gebracht hatte, ${many(count)}, wurde zurückgenommen; lesen Sie es noch einmal ein.`,
  "imported/left": ({ file, count, of }) =>
    `Das Einlesen von „${file}“ wurde nach ${grouped(count)} von ${many(of)} abgebrochen. Sie sind seitdem geändert worden und bleiben; lesen Sie es für den Rest noch einmal ein.`,
  dealt: ({ number, of }) => `${number} von ${of}${number === of ? ", das letzte" : ""}.`,
  "dealing/clipboard": ({ of }) =>
    `${many(of)} ${of === 1 ? "wird" : "werden"} über die Zwischenablage ausgeteilt. Das erste ist dort; jedes Einfügen bringt das nächste.`,
  "dealing/offered": ({ number, of, snippet }) =>
    `In der Zwischenablage: ${number} von ${of}, ${named(snippet)}.`,
  done: () => "Alle sind ausgeteilt.",
  "dealing/skipped": ({ number, of }) => `Ausgelassen: ${number} von ${of}.`,
};
