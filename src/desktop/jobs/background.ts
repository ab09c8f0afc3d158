import { fork } from "node:child_process";
import { fileURLToPath } from "node:url";
import { DrawerError, errorOf, reasonOf, refusalOf, type Refusal } from "../../content/error.js";
import { desktopErrors } from "../../messages/en/desktop.js";
import type { Desktop } from "../desktop.js";

/** What a program in the background says to the one that started it: that it has begun, or why not. */
type Answer =
  | { readonly isBegun: true }
  | {
      readonly isBegun: false;
      readonly why: string;
      readonly refusal?: Refusal;
    };

/**
 * Starts a program that goes on when this one ends, and hands it what it is to work on. Settles when it says that it has
 * begun.
 *
 * @param name the file of the program, beside this one
 * @throws DrawerError `no-clipboard` when it could not begin
 */
export async function startInBackground(name: string, work: unknown): Promise<void> {
  const child = fork(fileURLToPath(new URL(`./${name}.js`, import.meta.url)), {
    detached: true,
    stdio: ["ignore", "ignore", "ignore", "ipc"],
    serialization: "advanced",
  });
  const answer = await new Promise<Answer>((resolve) => {
    child.once("message", (said: Answer) => resolve(said));
    child.once("error", (error) => resolve({ isBegun: false, why: error.message }));
    child.once("exit", (code) => resolve({ isBegun: false, why: `it ended with ${code}` }));
    child.send(work as never);
  });
  child.unref();
  if (child.connected) child.disconnect();
  if (answer.isBegun) return;
  const { refusal, why } = answer;
  if (refusal) throw errorOf(refusal);
  throw new DrawerError(desktopErrors, "no-clipboard/holder", { why });
}

/**
 * What a program in the background does: it is handed its work by the one that starts it, says when it has begun, and
 * goes on.
 */
export function workInBackground<Work>(run: (work: Work, begun: () => void) => Promise<void>): void {
  process.once("message", (work: Work) => {
    const begun = () =>
      process.send!({ isBegun: true } satisfies Answer, () => {
        // Who has started it may have let go of it first.
        if (process.connected) process.disconnect();
      });
    run(work, begun).catch((error: unknown) => {
      const why = reasonOf(error);
      if (!process.connected) process.exit(1);
      const refusal = error instanceof DrawerError ? refusalOf(error) : undefined;
      const answer: Answer = { isBegun: false, why, ...(refusal && { refusal }) };
      process.send!(answer, () => process.exit(1));
    });
  });
}

/** Shows what went wrong in the background, where the desktop has notifications: nobody reads what is printed there. */
export async function tell(desktop: Desktop, error: unknown): Promise<void> {
  await desktop.notify(reasonOf(error)).catch(() => undefined);
}
