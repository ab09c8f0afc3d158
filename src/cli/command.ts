import { InvalidArgumentError, type Command } from "commander";
import { commands, program } from "../messages/en/cli-help.js";
import { MAIN } from "./home.js";

/** A command by its words: `recipe save` stands in `recipe`. */
export type CommandName = keyof typeof commands;

/** Begins a command with the options that every command has. */
export function begin(parent: Command, name: CommandName): Command {
  const { about, operands = "" }: { readonly about: string; readonly operands?: string } = commands[name];
  return parent
    .command(`${name.split(" ").at(-1)!} ${operands}`.trim())
    .description(about)
    .option("--drawer <name>", program.drawer, MAIN)
    .option("--json", program.json);
}

/** Reads an option that is a number. */
export function wholeNumber(value: string): number {
  if (!/^[1-9]\d{0,8}$/.test(value)) throw new InvalidArgumentError(program.wholeNumber);
  return Number(value);
}

/** Gathers an option that may be given several times. */
export function several(value: string, before: string[] = []): string[] {
  return [...before, value];
}
