#!/usr/bin/env node
import { Command, CommanderError } from "commander";
import { DrawerError, type RefusalCode } from "../content/error.js";

/** A file a command, loaded when it is called; in the order of the work. */
const groups: Readonly<
  Record<string, Readonly<Record<string, () => Promise<{ add(program: Command): void }>>>>
> = {
  Gather: {
    look: () => import("./commands/look.js"),
    collect: () => import("./commands/collect.js"),
    append: () => import("./commands/append.js"),
    pause: () => import("./commands/pause.js"),
    resume: () => import("./commands/resume.js"),
    import: () => import("./commands/import.js"),
  },
  Look: {
    list: () => import("./commands/list.js"),
    show: () => import("./commands/show.js"),
    log: () => import("./commands/log.js"),
    drawers: () => import("./commands/drawers.js"),
  },
  Arrange: {
    move: () => import("./commands/move.js"),
    copy: () => import("./commands/copy.js"),
    label: () => import("./commands/label.js"),
    keep: () => import("./commands/keep.js"),
    release: () => import("./commands/release.js"),
    hide: () => import("./commands/hide.js"),
    unhide: () => import("./commands/unhide.js"),
    rules: () => import("./commands/rules.js"),
  },
  "Put down": {
    place: () => import("./commands/place.js"),
    deal: () => import("./commands/deal.js"),
    next: () => import("./commands/next.js"),
    back: () => import("./commands/back.js"),
    recipe: () => import("./commands/recipe.js"),
    recipes: () => import("./commands/recipes.js"),
    export: () => import("./commands/export.js"),
  },
  Join: {
    merge: () => import("./commands/merge.js"),
    split: () => import("./commands/split.js"),
  },
  "Take out and bring back": {
    discard: () => import("./commands/discard.js"),
    empty: () => import("./commands/empty.js"),
    restore: () => import("./commands/restore.js"),
    undo: () => import("./commands/undo.js"),
    redo: () => import("./commands/redo.js"),
  },
  "See how it works": {
    demo: () => import("./commands/demo.js"),
  },
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
  const named = Object.values(groups).find((commands) => Object.hasOwn(commands, words[0] ?? ""));
  if (named) (await named[words[0]!]!()).add(program);
  else await addAll(program);
  try {
    await program.parseAsync(words, { from: "user" });
  } catch (error) {
    process.exitCode = exitCode(error);
  }
}

/** Adds all commands, in their groups. */
async function addAll(program: Command): Promise<void> {
  for (const [group, commands] of Object.entries(groups)) {
    for (const load of Object.values(commands)) {
      (await load()).add(program);
      program.commands.at(-1)!.helpGroup(`${group}:`);
    }
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
