import { fileURLToPath } from "node:url";

/** What starts this command line from anywhere: the program, and the words before those of a command. */
export function ownCommand(...words: readonly string[]): [program: string, ...words: string[]] {
  return [process.execPath, fileURLToPath(new URL("main.js", import.meta.url)), ...words];
}
