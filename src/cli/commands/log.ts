import { basename } from "node:path";
import type { Command } from "commander";
import { defined } from "../../content/defined.js";
import type { LoggedAction } from "../../drawer/action-log.js";
import { answers } from "../../messages/en/cli-answers.js";
import { commands } from "../../messages/en/cli-help.js";
import { action, operations } from "../../messages/en/operations.js";
import { answer, type CommonOptions } from "../answer.js";
import { localTime, printColumns } from "../columns.js";
import { begin, wholeNumber } from "../command.js";
import { fileChanges } from "../file-journal.js";
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
      const acts = await withDrawer(options.drawer, (drawer) => drawer.actions(options.limit));
      const files = fileChanges().filter(
        ({ drawer, act, isUndone }) => drawer === options.drawer && act === "put" && !isUndone,
      );
      if (options.json)
        return answer(options, [], {
          log: acts.map((act) => ({
            ...{ id: act.id, at: act.at, operation: act.operation },
            ...defined({ undoneOperation: act.undoneOperation }),
            said: inWords(act),
          })),
          files: files.map(({ id, doneAt, path, spots }) => ({ id, at: doneAt, path, spots })),
        });
      const all = [
        ...acts.map((act) => ({ at: act.at, said: inWords(act) })),
        ...files.map(({ doneAt = "", path, spots }) => ({
          at: doneAt,
          said: answers.putInto({ file: basename(path), spots }),
        })),
      ];
      all.sort((one, other) => (one.at < other.at ? 1 : one.at > other.at ? -1 : 0));
      const rows = all.slice(0, options.limit).map(({ at, said }) => [localTime(at), said]);
      printColumns(rows, 1);
      if (all.length === 0) print(`${answers.nothingDone({ drawer: options.drawer })}\n`);
    });
}

function inWords({ operation, summary }: LoggedAction): string {
  const done = action(summary);
  return operation === "undo" || operation === "redo" ? `${operations[operation]}: ${done}` : done;
}
