import { styleText } from "node:util";
import type { Found } from "../drawer/drawer-reader.js";
import type { Entry } from "../drawer/model/entry.js";
import type { Positioned } from "../drawer/store.js";
import { originText } from "../messages/core/names.js";
import { facts } from "../messages/en/cli-answers.js";
import { columns, timeLeft } from "./columns.js";
import { visible } from "./terminal.js";

/** Lists of snippets as a terminal shows them: a row each, its columns aligned. */

/** Position, kind, marks (kept, private), text, origin. */
export function rowsOf(
  snippets: readonly Positioned[],
  count: number,
  text: (one: Positioned) => string,
  until: ReadonlyMap<string, number> = new Map(),
): string[][] {
  return snippets.map((one) => [
    String(one.position).padStart(String(count).length),
    one.entry.kind,
    marks(one.entry, until.get(one.entry.id)),
    text(one) || facts.blank,
    originText(one.entry.origin),
  ]);
}

function marks({ kept, private: isPrivate }: Entry, until: number | undefined): string {
  const privacy = until === undefined ? facts.private : facts.privateFor(timeLeft(until));
  return [kept ? facts.kept : "", isPrivate ? privacy : ""].filter(Boolean).join(", ");
}

export function printRows(
  rows: readonly (readonly string[])[],
  flexible: number,
  finish = (line: string, _: number) => line,
): void {
  // A column in which nothing stands takes no room.
  const used = rows[0]?.map((_, column) => rows.some((row) => row[column] !== "")) ?? [];
  const shownRows = rows.map((row) => row.filter((_, column) => used[column]));
  const at = used.slice(0, flexible).filter(Boolean).length;
  columns(shownRows, at).forEach((line, index) => process.stdout.write(finish(line, index) + "\n"));
}

/** On a terminal, the matches stand out. */
export function marked(line: string, { context: { text: found, matches } }: Found): string {
  const text = visible(found);
  const start = line.indexOf(text.slice(0, 12));
  if (!process.stdout.isTTY || start < 0) return line;
  let out = line.slice(0, start);
  let at = 0;
  for (const [from, to] of matches) {
    if (!line.startsWith(text.slice(0, to), start)) break;
    out += text.slice(at, from) + styleText("bold", text.slice(from, to));
    at = to;
  }
  return out + line.slice(start + at);
}
