#!/usr/bin/env node
import { readFileSync } from "node:fs";
import { Command, CommanderError } from "commander";
import { reasonOf } from "../content/error.js";
import { answers } from "../messages/en/cli-answers.js";
import { commandGroups, program as says } from "../messages/en/cli-help.js";
import { whyText } from "../messages/en/cli.js";
import { begin, type CommandName } from "./command.js";
import { whyOf } from "./output.js";
import { endReading } from "./reading-bar.js";
import { isRefusal, isWrongUsage, refusalText } from "./refusal.js";
import { onOutputFailure, OutputError, printJson, remark } from "./terminal.js";

/** A file a command, loaded when it is called; in the order of the work. */
const groups: Readonly<
  Record<keyof typeof commandGroups, Readonly<Record<string, () => Promise<{ add(program: Command): void }>>>>
> = {
  gather: {
    look: () => import("./commands/look.js"),
    collect: () => import("./commands/collect.js"),
    lift: () => import("./commands/lift.js"),
    append: () => import("./commands/append.js"),
    watch: () => import("./commands/watch.js"),
    keys: () => import("./commands/keys.js"),
    pause: async () => (await import("./simple-commands.js")).drawerCommand("pause"),
    resume: async () => (await import("./simple-commands.js")).drawerCommand("resume"),
    import: () => import("./commands/import.js"),
  },
  look: {
    open: () => import("./commands/open.js"),
    list: () => import("./commands/list.js"),
    show: () => import("./commands/show.js"),
    check: () => import("./commands/check.js"),
    log: () => import("./commands/log.js"),
    drawers: () => import("./commands/drawers.js"),
  },
  arrange: {
    move: () => import("./commands/move.js"),
    edit: () => import("./commands/edit.js"),
    refresh: () => import("./commands/refresh.js"),
    label: () => import("./commands/label.js"),
    keep: async () => (await import("./simple-commands.js")).pickCommand("keep"),
    hide: () => import("./commands/hide.js"),
    rules: () => import("./commands/rules.js"),
  },
  putDown: {
    place: () => import("./commands/place.js"),
    fill: () => import("./commands/fill.js"),
    send: () => import("./commands/send.js"),
    deal: () => import("./commands/deal.js"),
    next: async () => (await import("./deal-step.js")).dealStepCommand("next"),
    back: async () => (await import("./deal-step.js")).dealStepCommand("back"),
    recipe: () => import("./commands/recipe.js"),
    export: () => import("./commands/export.js"),
  },
  join: {
    merge: () => import("./commands/merge.js"),
    split: () => import("./commands/split.js"),
  },
  takeOut: {
    discard: async () => (await import("./simple-commands.js")).pickCommand("discard"),
    empty: () => import("./commands/empty.js"),
    restore: async () => (await import("./simple-commands.js")).pickCommand("restore"),
    undo: async () => (await import("./simple-commands.js")).drawerCommand("undo"),
    redo: async () => (await import("./simple-commands.js")).drawerCommand("redo"),
  },
  devices: {
    sync: () => import("./commands/sync.js"),
    devices: () => import("./commands/devices.js"),
    hub: () => import("./commands/hub.js"),
  },
  learn: {
    demo: () => import("./commands/demo.js"),
  },
};

async function main(typed: readonly string[]): Promise<void> {
  const words = commandFirst(typed);
  const isJson = words.includes("--json");
  const program = new Command("drawer");
  program
    .description(says.about)
    .configureHelp({ showGlobalOptions: false })
    .configureOutput({
      writeOut: (text) => void process.stdout.write(text),
      outputError: (message) => remark(asSentence(message)),
    })
    .version(packageVersion(), "--version", says.version)
    .helpCommand("help [command]", says.help)
    .exitOverride()
    .enablePositionalOptions();
  // Of a command that is not called, nothing is needed but what the overview says of it.
  const name = words[0] === "help" ? words[1] : words[0];
  const named = Object.values(groups).find((commands) => Object.hasOwn(commands, name ?? ""));
  try {
    if (named) (await named[name!]!()).add(program);
    else listAll(program);
    await program.parseAsync(words, { from: "user" });
  } catch (error) {
    endReading();
    process.exitCode = exitCode(error, isJson);
  }
}

/** Commands that have commands of their own (`drawer recipe save`). */
const NESTING: readonly string[] = ["recipe", "devices"];

/** Options that every command has may also stand before the command. */
function commandFirst(words: readonly string[]): readonly string[] {
  const options: string[] = [];
  let at = 0;
  for (; at < words.length; at++) {
    const word = words[at]!;
    if (word === "--drawer" && at + 1 < words.length) options.push(word, words[++at]!);
    else if (word === "--json" || word.startsWith("--drawer=")) options.push(word);
    else break;
  }
  if (at === words.length) return words;
  const isNested = NESTING.includes(words[at]!) && /^[a-z]/.test(words[at + 1] ?? "");
  const end = at + (isNested ? 2 : 1);
  return [...words.slice(at, end), ...options, ...words.slice(end)];
}

/** What commander says is wrong, as a sentence of ours. */
function asSentence(message: string): string {
  return message.replace(/^error: (.)/, (_, first: string) => `drawer: ${first.toUpperCase()}`);
}

function packageVersion(): string {
  const file = new URL("../../package.json", import.meta.url);
  return (JSON.parse(readFileSync(file, "utf8")) as { version: string }).version;
}

/** Lists all commands, in their groups. */
function listAll(program: Command): void {
  for (const group of Object.keys(groups) as (keyof typeof groups)[])
    for (const name of Object.keys(groups[group]) as CommandName[])
      begin(program, name).helpGroup(`${commandGroups[group]}:`);
}

/**
 * Says what went wrong, on standard error, and to programs also as JSON on standard output. Returns the exit code: 1
 * refused, 2 wrong usage. Anything else is a fault, in one sentence; whole with `DRAWER_TRACE`.
 */
function exitCode(error: unknown, isJson: boolean): number {
  if (error instanceof CommanderError) {
    if (error.exitCode === 0) return 0;
    const message = asSentence(error.message).replace(/^drawer: /, "");
    if (isJson) printJson({ error: { code: "usage", message } });
    return 2;
  }
  if (error instanceof OutputError) return outputFailed(error);
  const missing = missingPackage(error);
  if (missing !== undefined) {
    sayRefused("missing-package", answers.missingPackage(missing), isJson);
    return 1;
  }
  if (!isRefusal(error)) {
    if (process.env["DRAWER_TRACE"]) throw error;
    sayRefused("failed", answers.fault(reasonOf(error)), isJson);
    return 1;
  }
  sayRefused(error.code, refusalText(error), isJson);
  return isWrongUsage(error) ? 2 : 1;
}

/** Says why a command was refused. */
function sayRefused(code: string, message: string, isJson: boolean): void {
  if (isJson) printJson({ error: { code, message } });
  remark(`drawer: ${message}\n`);
}

/** The package that a command needs and that was left out when Drawer was installed; nothing for other errors. */
function missingPackage(error: unknown): string | undefined {
  const { code, message } = error as NodeJS.ErrnoException;
  if (code !== "ERR_MODULE_NOT_FOUND" && code !== "MODULE_NOT_FOUND") return undefined;
  return /(?:package|module) '([^'./][^']*)'/.exec(message)?.[1];
}

/** What is said of output that could not be written. Returns the exit code. */
function outputFailed({ isEnough, cause }: OutputError): number {
  if (isEnough) return 0;
  remark(`drawer: ${answers.notWritten({ why: whyText(whyOf(cause)) })}\n`);
  return 1;
}

onOutputFailure((error) => process.exit(outputFailed(error)));

await main(process.argv.slice(2));
