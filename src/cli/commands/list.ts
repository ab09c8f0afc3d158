import type { Command } from "commander";
import { defined } from "../../content/defined.js";
import { type Kind, KINDS } from "../../content/kind.js";
import type { Drawer } from "../../drawer/drawer.js";
import type { Entry } from "../../drawer/model/entry.js";
import type { Positioned } from "../../drawer/store.js";
import { answers } from "../../messages/en/cli-answers.js";
import { commands } from "../../messages/en/cli-help.js";
import { listed, type CommonOptions } from "../answer.js";
import { terminalWidth } from "../columns.js";
import { begin, wholeNumber } from "../command.js";
import { withDrawer } from "../home.js";
import { UsageError } from "../refusal.js";
import { printRows, type ColumnName } from "../snippet-rows.js";
import { print, printJson } from "../terminal.js";

interface ListOptions extends CommonOptions {
  readonly find?: string;
  readonly kind?: string;
  readonly from?: string;
  readonly limit?: number | "all";
  readonly gone?: boolean;
  readonly when?: boolean;
}

/** Which snippets to list, and how many. */
interface Query {
  readonly kind?: Kind;
  readonly document?: string;
  readonly limit?: number;
}

/** How many snippets are listed when nobody says how many. */
const USUAL = 50;

/** `drawer list`: what is in the drawer, in order; what is found in it; or what has left it. */
export function add(program: Command): void {
  const says = commands.list;
  begin(program, "list")
    .option("--find <words>", says.find)
    .option("--kind <kind>", says.kind)
    .option("--from <document>", says.from)
    .option("--limit <n>", says.limit(USUAL), limitOf)
    .option("--gone", says.gone)
    .option("--when", says.when)
    .action(async (options: ListOptions) => {
      const kind = options.kind === undefined ? undefined : kindNamed(options.kind);
      const { gone, find } = options;
      if (gone && (find !== undefined || kind || options.from !== undefined))
        throw new UsageError("bad-option/gone", {});
      if (find?.trim() === "") throw new UsageError("bad-option/find", {});
      await withDrawer(options.drawer, async (drawer) => {
        const filter = {
          ...(kind && { kind }),
          ...defined({ document: options.from }),
        };
        const limit = options.limit ?? (options.json ? "all" : USUAL);
        if (gone) await listGone(drawer, options, limit);
        else if (find !== undefined)
          await listFound(drawer, options, find, { ...filter, ...(limit !== "all" && { limit }) });
        else await listAll(drawer, options, { ...filter, ...(limit !== "all" && { limit }) });
      });
    });
}

/** The columns of a list: when, if it is asked for, beside where from. */
function columnsOf({ when, gone }: ListOptions): ColumnName[] {
  return [
    "position",
    "kind",
    "marks",
    "text",
    ...(when ? (["collected"] as const) : []),
    gone ? "left" : "origin",
  ];
}

async function listAll(drawer: Drawer, options: ListOptions, query: Query): Promise<void> {
  const snippets = await drawer.list(query);
  const until = await drawer.privateUntil();
  if (options.json) return answerListed(drawer, snippets, ({ entry }) => leaves(entry, until));
  printRows(
    snippets.map((one) => ({ ...one, privateUntil: until.get(one.entry.id) })),
    columnsOf(options),
  );
  const { name } = drawer;
  const count = await drawer.count();
  const isCut = snippets.length < count && snippets.length === query.limit;
  await say(
    drawer,
    count === 0
      ? answers.isEmpty({ drawer: name })
      : answers.listed({ shown: snippets.length, count, drawer: name, isCut }),
  );
}

async function listFound(drawer: Drawer, options: ListOptions, words: string, query: Query): Promise<void> {
  const found = await drawer.find(words, { ...query, length: Math.max(40, terminalWidth() - 40) });
  const byId = new Map(found.map((one) => [one.entry.id, one]));
  const rows = (await drawer.positioned(found.map(({ entry }) => entry))).map((one) => ({
    ...one,
    found: byId.get(one.entry.id)!,
  }));
  if (options.json) return answerListed(drawer, rows, ({ found: { context } }) => ({ context }));
  printRows(rows, columnsOf(options));
  const { name } = drawer;
  await say(
    drawer,
    found.length === 0
      ? answers.noneFound({ drawer: name, words })
      : answers.found({ count: found.length, drawer: name, words, isCut: found.length === query.limit }),
  );
}

async function listGone(drawer: Drawer, options: ListOptions, limit: number | "all"): Promise<void> {
  const gone = await drawer.gone();
  const latest = limit === "all" ? gone : gone.slice(-limit);
  if (options.json) return answerListed(drawer, latest, ({ at, by }) => ({ goneAt: at, by }));
  printRows(
    latest.map((one) => ({ ...one, left: one })),
    columnsOf(options),
  );
  await say(drawer, answers.gone({ count: gone.length, drawer: drawer.name }));
}

async function answerListed<Listed extends Positioned>(
  drawer: Drawer,
  snippets: readonly Listed[],
  more: (one: Listed) => object,
): Promise<void> {
  printJson({ snippets: await listed(drawer, snippets, more), notices: [] });
}

/** When a private snippet goes, for `--json`. */
function leaves({ id }: Entry, until: ReadonlyMap<string, number>): { goesAt?: string } {
  const time = until.get(id);
  return time === undefined ? {} : { goesAt: new Date(time).toISOString() };
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
