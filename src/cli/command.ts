import { InvalidArgumentError, type Command } from "commander";

/** Begins a command with the options that every command has. */
export function begin(program: Command, usage: string, description: string): Command {
  return program
    .command(usage)
    .description(description)
    .option("--drawer <name>", "which drawer", "main")
    .option("--json", "answer with one JSON value");
}

/** Reads an option that is a number. */
export function wholeNumber(value: string): number {
  if (!/^[1-9]\d{0,8}$/.test(value)) throw new InvalidArgumentError("Write a whole number from 1 up.");
  return Number(value);
}

/** Gathers an option that may be given several times. */
export function several(value: string, before: string[] = []): string[] {
  return [...before, value];
}
