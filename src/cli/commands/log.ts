import { answers } from "../../messages/en/command-line.js";
import type { Command } from "commander";
import { commands } from "../../messages/en/commands.js";
import { summaryOf, type Change } from "../../drawer/model/change.js";
import type { Drawer } from "../../drawer/drawer.js";
import { action } from "../../messages/en/actions.js";
import { operations } from "../../messages/en/operations.js";
import { answer, type CommonOptions } from "../answer.js";
import { columns, localTime } from "../columns.js";
import { begin, wholeNumber } from "../command.js";
import { withDrawer } from "../home.js";
import { print } from "../terminal.js";

/** How many acts are listed when nobody says how many. */
const USUAL = 20;

/** `drawer log`: what was done in the drawer, the latest first. */
export function add(program: Command): void {
  const says = commands.log;
  begin(program, "log")
    .option("--limit <n>", says.limit(USUAL), wholeNumber, USUAL)
    .action(async (options: CommonOptions & { limit: number }) => {
      const acts = await withDrawer(options.drawer, (drawer) => latestActs(drawer, options.limit));
      if (options.json)
        return answer(options, [], {
          log: acts.map(({ change: { id, at, operation, undoneOperation }, said }) => ({
            id,
            at,
            operation,
            ...(undoneOperation && { undoneOperation }),
            said,
          })),
        });
      const rows = acts.map(({ change, said }) => [localTime(change.at), said]);
      for (const line of columns(rows, 1)) print(line + "\n");
      if (acts.length === 0) print(`${answers.nothingDone({ drawer: options.drawer })}\n`);
    });
}

/** The latest acts, each by its first change, and what it did. */
async function latestActs(drawer: Drawer, limit: number): Promise<{ change: Change; said: string }[]> {
  const acts: { change: Change; count: number }[] = [];
  const known = new Map<string, number>();
  /** Acts of which there is more to come. */
  const open = new Set<string>();
  for await (const change of drawer.log()) {
    const at = known.get(change.groupId ?? "");
    if (at !== undefined) {
      if (change.part === 1) open.delete(change.groupId!);
      const { change: last, count } = acts[at]!;
      // An undo is written from the last change back, so its newest change is of what was first.
      acts[at] = { change: change.operation === "undo" ? last : change, count: count + change.edits.length };
      continue;
    }
    if (acts.length === limit) {
      if (open.size === 0) break;
      continue;
    }
    if (change.groupId !== undefined) {
      known.set(change.groupId, acts.length);
      if (change.part !== 1) open.add(change.groupId);
    }
    acts.push({ change, count: change.edits.length });
  }
  return acts.map(({ change, count }) => ({
    change,
    said: inWords(change, change.groupId === undefined ? undefined : count),
  }));
}

function inWords(change: Change, count: number | undefined): string {
  const done = action(summaryOf(change, count));
  const { operation } = change;
  return operation === "undo" || operation === "redo" ? `${operations[operation]}: ${done}` : done;
}
