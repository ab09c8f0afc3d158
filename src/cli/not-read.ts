import { DrawerError } from "../content/error.js";
import { cliErrors, whyNotRead } from "../messages/en/cli.js";

/** That a file cannot be read, and why. */
export function notRead(path: string, error: unknown): DrawerError {
  const { code = "" } = error as NodeJS.ErrnoException;
  const why = Object.hasOwn(whyNotRead, code) ? (code as keyof typeof whyNotRead) : { text: String(error) };
  return new DrawerError(cliErrors, "no-file", { path, why }, { cause: error });
}
