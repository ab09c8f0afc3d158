import { createInterface } from "node:readline/promises";
import { visible } from "./terminal.js";

/** Whether somebody sits at a terminal, and can be asked. */
export function canAsk(): boolean {
  return process.stdin.isTTY && process.stderr.isTTY;
}

/** Asks something at the terminal. Returns what was answered. */
export async function ask(question: string): Promise<string> {
  const terminal = createInterface({ input: process.stdin, output: process.stderr });
  try {
    return await terminal.question(visible(question));
  } finally {
    terminal.close();
  }
}

/** Asks something at the terminal that is answered by yes or no. */
export async function askWhether(question: string): Promise<boolean> {
  return /^y(es)?$/i.test((await ask(question)).trim());
}
