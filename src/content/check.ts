import { argumentErrors } from "../messages/en/content.js";
import { DrawerError } from "./error.js";

/**
 * Checks what a caller in JavaScript may get wrong, where it would be told much later, or not at all.
 * @param name what it is called where it is given
 * @param expected what it should be, as it stands in the sentence: `a text`
 * @throws DrawerError `bad-option` when it is not that
 */
export function checkValue(name: string, value: unknown, isRight: boolean, expected: string): void {
  if (!isRight)
    throw new DrawerError(argumentErrors, "bad-option/value", { name, value: shown(value), expected });
}

/** Checks that something is a text. */
export function checkText(name: string, value: unknown): void {
  checkValue(name, value, typeof value === "string", "a text");
}

/**
 * Checks that options are an object, with no name that is none of theirs.
 * @param what what they are options of, as it stands in the sentence
 * @throws DrawerError `bad-option`
 */
export function checkOptions(what: string, options: unknown, names: readonly string[]): void {
  const isObject = typeof options === "object" && options !== null && !Array.isArray(options);
  checkValue(what, options, isObject, "an object");
  for (const name of Object.keys(options as object))
    if (!names.includes(name))
      throw new DrawerError(argumentErrors, "bad-option/name", { what, name, names });
}

/** A value as a caller wrote it, as far as that is short. */
function shown(value: unknown): string {
  if (typeof value === "function") return "a function";
  try {
    return (JSON.stringify(value) ?? String(value)).slice(0, 60);
  } catch {
    // What holds itself cannot be written out.
    return String(value);
  }
}
