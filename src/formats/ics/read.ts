import { DrawerError } from "../../content/error.js";
import { notice } from "../../content/notice.js";
import { tableWords } from "../../messages/en/content.js";
import { formatErrors, formatNotices } from "../../messages/en/formats.js";
import type { ReadSheet } from "../office/sheet.js";
import { decodeText } from "../text/decode.js";
import { componentsOf, textOf, type Component, type Fact } from "./components.js";
import { sheetOf, type Entries, type Entry } from "./table.js";

const WORDS = tableWords.events;
/** The column of each fact that has one. */
const COLUMNS: Readonly<Record<string, string>> = {
  summary: WORDS.what,
  dtstart: WORDS.begins,
  dtend: WORDS.ends,
  due: WORDS.due,
  duration: WORDS.lasts,
  url: WORDS.web,
  location: WORDS.where,
  organizer: WORDS.who,
  attendee: WORDS.who,
  description: WORDS.about,
  rrule: WORDS.repeats,
  status: WORDS.status,
};
/** What programs keep for themselves: nobody misses it. */
const OWN =
  /^(?:x-|uid$|dtstamp$|created$|last-modified$|sequence$|transp$|class$|priority$|percent-complete$)/;
const ORDER = [
  ...[
    WORDS.what,
    WORDS.begins,
    WORDS.ends,
    WORDS.lasts,
    WORDS.due,
    WORDS.zone,
    WORDS.where,
    WORDS.who,
    WORDS.about,
  ],
  ...[WORDS.web, WORDS.repeats, WORDS.status],
];

/**
 * Reads a calendar (RFC 5545): its events, and its tasks, each as a sheet with a row for each. Times stay as they were where they were
 * written, with their zone beside them.
 *
 * @param bytes the whole file
 * @param file its name, for messages
 * @throws DrawerError `unreadable`, `unknown-format` where the package that reads it is not installed
 */
export async function readIcs(bytes: Uint8Array, file: string): Promise<ReadSheet[]> {
  const calendars = await componentsOf(decodeText(bytes), file, "ics");
  const inner = calendars.flatMap((each) => (each.name === "vcalendar" ? each.inner : [each]));
  const sheets = [
    [tableWords.eventSheet, inner.filter(({ name }) => name === "vevent")] as const,
    [tableWords.taskSheet, inner.filter(({ name }) => name === "vtodo")] as const,
  ].flatMap(([name, components]) => (components.length > 0 ? [sheet(file, name, components)] : []));
  if (sheets.length === 0) throw new DrawerError(formatErrors, "unreadable/not-one", { file, what: "ics" });
  return sheets;
}

function sheet(file: string, name: string, components: readonly Component[]): ReadSheet {
  const left = new Set<string>();
  const rows = components.map(({ facts, inner }) => {
    for (const { name: fact } of [...facts, ...inner])
      if (!(fact in COLUMNS) && !OWN.test(fact)) left.add(fact);
    return rowOf(facts);
  });
  const count = rows.filter((row) => row.has(WORDS.repeats)).length;
  const repeats = count > 0 ? [notice(formatNotices, "as-text/repeats", { file, count })] : [];
  return sheetOf(file, name, ORDER, rows, left, repeats);
}

function rowOf(facts: readonly Fact[]): Entries {
  const row = new Map<string, Entry>();
  for (const fact of facts) {
    const column = COLUMNS[fact.name];
    if (column === undefined) continue;
    const entry = entryOf(fact);
    const before = row.get(column);
    row.set(column, before ? { lines: [...before.lines, ...entry.lines] } : entry);
    const zone = zoneOf(fact);
    if (zone !== undefined) row.set(WORDS.zone, { lines: [zone] });
  }
  return row;
}

/** The zone that a time is said in; nothing for a day, and for a time that is the same everywhere. */
function zoneOf({ type, parameters, values }: Fact): string | undefined {
  if (type !== "date-time") return undefined;
  const { tzid } = parameters;
  return typeof tzid === "string" ? tzid : /Z$/.test(String(values[0])) ? "UTC" : undefined;
}

function entryOf({ name, parameters, type, values }: Fact): Entry {
  const [first = ""] = values;
  if (type === "date" || type === "date-time") {
    const date = String(first).replace(/Z$/, "");
    const format = type === "date" ? "yyyy-mm-dd" : "yyyy-mm-dd hh:mm";
    return { lines: [date.replace("T", " ").slice(0, format.length)], value: { type: "date", date, format } };
  }
  if (type === "recur")
    return {
      lines: [
        Object.entries(first as object)
          .map(([part, value]) => `${part.toUpperCase()}=${textOf(value as string)}`)
          .join(";"),
      ],
    };
  const { cn } = parameters;
  const said = values.map((value) => textOf(value).replace(/^mailto:/i, "")).join(", ");
  if (name === "organizer" || name === "attendee")
    return { lines: [typeof cn === "string" && cn !== said ? `${cn} <${said}>` : said] };
  return { lines: said.split("\n") };
}
