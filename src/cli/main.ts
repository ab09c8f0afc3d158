#!/usr/bin/env node
import { Command, CommanderError } from "commander";
import { DrawerError, type RefusalCode } from "../content/error.js";

/** A file a command, loaded when it is called. */
const commands: Readonly<Record<string, () => Promise<{ add(program: Command): void }>>> = {
  look: () => import("./commands/look.js"),
  collect: () => import("./commands/collect.js"),
  append: () => import("./commands/append.js"),
  list: () => import("./commands/list.js"),
  show: () => import("./commands/show.js"),
  place: () => import("./commands/place.js"),
  merge: () => import("./commands/merge.js"),
  split: () => import("./commands/split.js"),
  deal: () => import("./commands/deal.js"),
  next: () => import("./commands/next.js"),
  back: () => import("./commands/back.js"),
  recipe: () => import("./commands/recipe.js"),
  recipes: () => import("./commands/recipes.js"),
  move: () => import("./commands/move.js"),
  copy: () => import("./commands/copy.js"),
  label: () => import("./commands/label.js"),
  keep: () => import("./commands/keep.js"),
  release: () => import("./commands/release.js"),
  hide: () => import("./commands/hide.js"),
  unhide: () => import("./commands/unhide.js"),
  discard: () => import("./commands/discard.js"),
  empty: () => import("./commands/empty.js"),
  restore: () => import("./commands/restore.js"),
  undo: () => import("./commands/undo.js"),
  redo: () => import("./commands/redo.js"),
  log: () => import("./commands/log.js"),
  pause: () => import("./commands/pause.js"),
  resume: () => import("./commands/resume.js"),
  rules: () => import("./commands/rules.js"),
  drawers: () => import("./commands/drawers.js"),
  export: () => import("./commands/export.js"),
  import: () => import("./commands/import.js"),
  demo: () => import("./commands/demo.js"),
};

/** Refusals of what was typed, not of what it was typed about. */
const WRONG_USAGE: readonly RefusalCode[] = ["bad-pick", "bad-spot", "bad-option"];

async function main(words: readonly string[]): Promise<void> {
  const program = new Command("drawer");
  program
    .description(
      "Collect many snippets in order; place one, several, all, or all of them joined into one block.",
    )
    .configureHelp({ showGlobalOptions: false })
    .configureOutput({
      outputError: (message, write) =>
        write(message.replace(/^error: (.)/, (_, first: string) => `drawer: ${first.toUpperCase()}`)),
    })
    .helpCommand("help [command]", "what a command does")
    .exitOverride();
  const named = commands[words[0] ?? ""];
  for (const load of named ? [named] : Object.values(commands)) (await load()).add(program);
  try {
    await program.parseAsync(words, { from: "user" });
  } catch (error) {
    process.exitCode = exitCode(error);
  }
}

/** Says what went wrong and gives the exit code: 1 refused, 2 wrong usage. Anything else is a fault, shown whole. */
function exitCode(error: unknown): number {
  if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
  if (!(error instanceof DrawerError)) throw error;
  process.stderr.write(`drawer: ${error.message}\n`);
  return WRONG_USAGE.includes(error.code) ? 2 : 1;
}

// A reader that has had enough (`drawer list | head -1`) is no error.
process.stdout.on("error", (error: NodeJS.ErrnoException) => {
  if (error.code !== "EPIPE") throw error;
  process.exit(0);
});

await main(process.argv.slice(2));
