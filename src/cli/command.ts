import type { Command } from "commander";

/** Begins a command with the options that every command has. */
export function begin(program: Command, usage: string, description: string): Command {
  return program
    .command(usage)
    .description(description)
    .option("--drawer <name>", "which drawer", "main")
    .option("--json", "answer with one JSON value");
}

/** Gathers an option that may be given several times. */
export function several(value: string, before: string[] = []): string[] {
  return [...before, value];
}
