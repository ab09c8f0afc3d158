import { styleText } from "node:util";
import type { Found } from "../drawer/drawer-reader.js";
import { displayText } from "../drawer/snippets.js";
import type { Gone, Positioned } from "../drawer/store.js";
import { originText } from "../messages/core/names.js";
import { facts, waysOut } from "../messages/en/cli-answers.js";
import { columns, localTime, timeLeft } from "./columns.js";
import { visible } from "./terminal.js";

/** A snippet in a list, with what the list knows of it. */
export interface Row extends Positioned {
  /** When it goes because it is private, in milliseconds since 1970. */
  readonly privateUntil?: number | undefined;
  /** Where the words stand in it that were asked for. */
  readonly found?: Found | undefined;
  /** When it left its drawer, and by what. */
  readonly left?: Pick<Gone, "at" | "by"> | undefined;
}

/** The columns that a list of snippets can have, by name. To add one is one line. */
const COLUMNS = {
  position: ({ position }) => String(position),
  kind: ({ entry }) => entry.kind,
  marks,
  text: ({ entry, found }) =>
    (found ? [entry.label, found.context.text].filter(Boolean).join(": ") : displayText(entry)) ||
    facts.blank,
  origin: ({ entry }) => originText(entry.origin),
  collected: ({ entry }) => localTime(entry.collectedAt),
  left: ({ left }) => (left ? `${waysOut[left.by] ?? left.by} ${localTime(left.at)}` : ""),
} satisfies Readonly<Record<string, (row: Row) => string>>;

export type ColumnName = keyof typeof COLUMNS;

function marks({ entry, privateUntil }: Row): string {
  const privacy = privateUntil === undefined ? facts.private : facts.privateFor(timeLeft(privateUntil));
  return [entry.kept ? facts.kept : "", entry.private ? privacy : ""].filter(Boolean).join(", ");
}

/** Prints a list as a terminal shows it: a row each, its columns aligned; the text takes the room that the others leave. */
export function printRows(rows: readonly Row[], names: readonly ColumnName[]): void {
  const cells = names.map((name) => rows.map((row) => COLUMNS[name](row)));
  // A column in which nothing stands takes no room.
  const used = names
    .map((_, column) => column)
    .filter((column) => cells[column]!.some((cell) => cell !== ""));
  const digits = Math.max(0, ...rows.map(({ position }) => String(position).length));
  const lines = columns(
    rows.map((_, row) =>
      used.map((column) =>
        names[column] === "position" ? cells[column]![row]!.padStart(digits) : cells[column]![row]!,
      ),
    ),
    used.findIndex((column) => names[column] === "text"),
  );
  lines.forEach((line, index) => process.stdout.write(`${marked(line, rows[index]!.found)}\n`));
}

/** On a terminal, the matches stand out. */
function marked(line: string, found: Found | undefined): string {
  if (!found || !process.stdout.isTTY) return line;
  const { matches } = found.context;
  const text = visible(found.context.text);
  const start = line.indexOf(text.slice(0, 12));
  if (start < 0) return line;
  let out = line.slice(0, start);
  let at = 0;
  for (const [from, to] of matches) {
    if (!line.startsWith(text.slice(0, to), start)) break;
    out += text.slice(at, from) + styleText("bold", text.slice(from, to));
    at = to;
  }
  return out + line.slice(start + at);
}
