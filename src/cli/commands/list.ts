import type { Command } from "commander";
import { defined } from "../../content/defined.js";
import { type Kind, KINDS } from "../../content/kind.js";
import type { Drawer } from "../../drawer/drawer.js";
import type { Entry } from "../../drawer/model/entry.js";
import { displayText } from "../../drawer/snippets.js";
import { answers, waysOut } from "../../messages/en/cli-answers.js";
import { commands } from "../../messages/en/cli-help.js";
import { listed, type CommonOptions } from "../answer.js";
import { localTime, terminalWidth } from "../columns.js";
import { begin, wholeNumber } from "../command.js";
import { withDrawer } from "../home.js";
import { UsageError } from "../refusal.js";
import { marked, printRows, rowsOf } from "../snippet-rows.js";
import { print, printJson } from "../terminal.js";

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
  const says = commands.list;
  begin(program, "list")
    .option("--find <words>", says.find)
    .option("--kind <kind>", says.kind)
    .option("--from <document>", says.from)
    .option("--limit <n>", says.limit(USUAL), limitOf)
    .option("--gone", says.gone)
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
  const { name } = drawer;
  const isCut = snippets.length < count && snippets.length === query.limit;
  await say(
    drawer,
    count === 0
      ? answers.isEmpty({ drawer: name })
      : answers.listed({ shown: snippets.length, count, drawer: name, isCut }),
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
  if (options.json) return printJson(latest.map((one) => ({ ...listed(one), goneAt: one.at, by: one.by })));
  const by = new Map(
    latest.map(({ entry, at, by: what }) => [entry.id, `${waysOut[what] ?? what} ${localTime(at)}`]),
  );
  printRows(
    rowsOf(latest, gone.length, ({ entry }) => displayText(entry)).map((row, index) => [
      ...row.slice(0, -1),
      by.get(latest[index]!.entry.id)!,
    ]),
    3,
  );
  await say(drawer, answers.gone({ count: gone.length, drawer: drawer.name }));
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
