import { styleText } from "node:util";
import type { Command } from "commander";
import { UsageError } from "../refusal.js";
import { type Kind, KINDS } from "../../content/kind.js";
import { grouped } from "../../messages/en/phrases.js";
import { originText } from "../../content/origin.js";
import type { Drawer, Found } from "../../drawer/drawer.js";
import type { Entry } from "../../drawer/model/entry.js";
import { displayText } from "../../drawer/selection.js";
import type { Positioned } from "../../drawer/store.js";
import { answers } from "../../messages/en/command-line.js";
import { listed, type CommonOptions } from "../answer.js";
import { columns, localTime, terminalWidth, timeLeft } from "../columns.js";
import { begin, wholeNumber } from "../command.js";
import { withDrawer } from "../home.js";
import { print, printJson, visible } from "../terminal.js";

interface ListOptions extends CommonOptions {
  readonly find?: string;
  readonly kind?: string;
  readonly from?: string;
  readonly limit?: number | "all";
  readonly gone?: boolean;
}

/** How many snippets are listed when nobody says how many. */
const USUAL = 50;

/** `drawer list`: what is in the drawer, in order; what is found in it; or what has left it. */
export function add(program: Command): void {
  begin(program, "list", "the snippets in the drawer, in order")
    .option("--find <words>", "only those that hold these words or parts of words, the newest first")
    .option("--kind <kind>", "only text, table, picture or link")
    .option("--from <document>", "only those from this document")
    .option("--limit <n>", `at most so many, the latest, or all (default: ${USUAL})`, limitOf)
    .option("--gone", "what has left the drawer and can be brought back with “drawer restore”")
    .action(async (options: ListOptions) => {
      const kind = options.kind === undefined ? undefined : kindNamed(options.kind);
      const { gone, find } = options;
      if (gone && (find !== undefined || kind || options.from !== undefined))
        throw new UsageError("bad-option/gone", {});
      if (find?.trim() === "") throw new UsageError("bad-option/find", {});
      await withDrawer(options.drawer, async (drawer) => {
        const filter = {
          ...(kind && { kind }),
          ...(options.from !== undefined && { document: options.from }),
        };
        const limit = options.limit ?? (options.json ? "all" : USUAL);
        if (gone) await listGone(drawer, options, limit);
        else if (find !== undefined)
          await listFound(drawer, options, find, { ...filter, ...(limit !== "all" && { limit }) });
        else await listAll(drawer, options, { ...filter, ...(limit !== "all" && { limit }) });
      });
    });
}

async function listAll(
  drawer: Drawer,
  options: ListOptions,
  query: { kind?: Kind; document?: string; limit?: number },
): Promise<void> {
  const snippets = await drawer.list(query);
  const until = await drawer.privateUntil();
  if (options.json)
    return printJson(snippets.map((one) => ({ ...listed(one), ...leaves(one.entry, until) })));
  const count = await drawer.count();
  printRows(
    rowsOf(snippets, count, ({ entry }) => displayText(entry), until),
    3,
  );
  const some = snippets.length < count ? `${snippets.length} of ` : "";
  const more = some !== "" && snippets.length === query.limit ? " “--limit all” lists all." : "";
  await say(
    drawer,
    count === 0 ? answers.isEmpty({ drawer: drawer.name }) : `${some}${snippetsIn(count, drawer)}.${more}`,
  );
}

async function listFound(
  drawer: Drawer,
  options: ListOptions,
  words: string,
  query: { kind?: Kind; document?: string; limit?: number },
): Promise<void> {
  const found = await drawer.find(words, { ...query, length: Math.max(40, terminalWidth() - 40) });
  const byId = new Map(found.map((one) => [one.entry.id, one]));
  const positioned = await drawer.positioned(found.map(({ entry }) => entry));
  if (options.json) {
    return printJson(positioned.map((one) => ({ ...listed(one), ...byId.get(one.entry.id)!.context })));
  }
  const rows = rowsOf(positioned, await drawer.count(), ({ entry }) =>
    [entry.label, byId.get(entry.id)!.context.text].filter(Boolean).join(": "),
  );
  printRows(rows, 3, (line, index) => marked(line, byId.get(positioned[index]!.entry.id)!));
  const many =
    found.length === 1
      ? "1 snippet"
      : `${found.length}${found.length === query.limit ? " or more" : ""} snippets`;
  await say(
    drawer,
    found.length === 0
      ? answers.noneFound({ drawer: drawer.name, words })
      : `${many} in the drawer “${drawer.name}” with “${words}”, the newest first.`,
  );
}

async function listGone(drawer: Drawer, options: ListOptions, limit: number | "all"): Promise<void> {
  const gone = await drawer.gone();
  const latest = limit === "all" ? gone : gone.slice(-limit);
  if (options.json) return printJson(latest.map((one) => ({ ...listed(one), goneAt: one.at, by: one.by })));
  const by = new Map(
    latest.map(({ entry, at, by: what }) => [entry.id, `${WAYS[what] ?? what} ${localTime(at)}`]),
  );
  printRows(
    rowsOf(latest, gone.length, ({ entry }) => displayText(entry)).map((row, index) => [
      ...row.slice(0, -1),
      by.get(latest[index]!.entry.id)!,
    ]),
    3,
  );
  const what = gone.length === 1 ? "1 snippet has" : `${gone.length} snippets have`;
  const none = `Nothing has left the drawer “${drawer.name}” that could be brought back.`;
  await say(
    drawer,
    gone.length === 0
      ? none
      : `${what} left the drawer “${drawer.name}”. “drawer restore” and its number brings one back.`,
  );
}

/** How snippets leave, in a word or two; by `rule` is by a limit that was lowered, by `collect` by one that was met. */
const WAYS: Readonly<Record<string, string>> = {
  discard: "discarded",
  empty: "emptied",
  age: "by age",
  collect: "made room",
  rule: "made room",
  import: "import undone",
  restore: "undone",
  copy: "undone",
  move: "made room",
  append: "made room",
};

function snippetsIn(count: number, drawer: Drawer): string {
  return `${count === 1 ? "1 snippet" : `${grouped(count)} snippets`} in the drawer “${drawer.name}”`;
}

/** Position, kind, marks (kept, private), text, origin. */
function rowsOf(
  snippets: readonly Positioned[],
  count: number,
  text: (one: Positioned) => string,
  until: ReadonlyMap<string, number> = new Map(),
): string[][] {
  return snippets.map((one) => [
    String(one.position).padStart(String(count).length),
    one.entry.kind,
    marks(one.entry, until.get(one.entry.id)),
    text(one) || "(blank)",
    originText(one.entry.origin),
  ]);
}

function marks({ kept, private: isPrivate }: Entry, until: number | undefined): string {
  const left = until === undefined ? "" : `, ${timeLeft(until)} left`;
  return [kept ? "kept" : "", isPrivate ? `private${left}` : ""].filter(Boolean).join(", ");
}

/** When a private snippet goes, for `--json`. */
function leaves({ id }: Entry, until: ReadonlyMap<string, number>): { goesAt?: string } {
  const time = until.get(id);
  return time === undefined ? {} : { goesAt: new Date(time).toISOString() };
}

function printRows(
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
function marked(line: string, { context: { text: found, matches } }: Found): string {
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

/** The last line of every list, which also says when nothing is collected. */
async function say(drawer: Drawer, sentence: string): Promise<void> {
  const { collecting } = await drawer.rules();
  const off = collecting ? "" : ` ${answers.isPaused()}`;
  print(`${sentence}${off}\n`);
}

function kindNamed(name: string): Kind {
  const kind = KINDS.find((known) => known === name);
  if (kind) return kind;
  throw new UsageError("bad-option/kind", { kind: name, kinds: KINDS });
}

function limitOf(value: string): number | "all" {
  return value === "all" ? value : wholeNumber(value);
}
