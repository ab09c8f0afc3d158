import type { Command } from "commander";
import { rulesOf } from "../../drawer/rules-of.js";
import { answers, countOf, facts } from "../../messages/en/cli-answers.js";
import { type CommonOptions } from "../answer.js";
import { printColumns } from "../columns.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { print, printJson } from "../terminal.js";

/** `drawer drawers`: all drawers, and what they hold. */
export function add(program: Command): void {
  begin(program, "drawers").action(async (options: CommonOptions) => {
    const drawers = await withDrawer(options.drawer, async ({ store }) =>
      Promise.all(
        (await store.drawers()).map(async ({ drawer, count, bytes }) => ({
          drawer,
          snippets: count,
          bytes,
          collecting: (await rulesOf(store, drawer)).collecting,
        })),
      ),
    );
    if (options.json) return printJson({ drawers, notices: [] });
    const rows = drawers.map(({ drawer, snippets, bytes, collecting }) => [
      drawer,
      countOf(snippets),
      sizeText(bytes),
      collecting ? "" : facts.paused,
    ]);
    printColumns(rows, 0);
    if (drawers.length === 0) print(`${answers.noDrawers()}\n`);
  });
}

function sizeText(bytes: number): string {
  const megabytes = bytes / 1024 / 1024;
  return megabytes < 0.1 ? `${Math.ceil(bytes / 1024)} KB` : `${megabytes.toFixed(1)} MB`;
}
