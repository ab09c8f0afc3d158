/** The names under which a drawer keeps small values in its store. */
export const VALUES = {
  /** Its rules, as far as they are not the usual ones. */
  rules: "rules",
  /** What is being dealt, and how far. */
  deal: "deal",
  /** How the names of its recipes begin. */
  recipe: "recipe ",
  /** The latest time that was seen while it held private snippets. */
  clock: "clock",
  /** An import that is under way, or was cut off. */
  importing: "importing",
  /** Of no drawer: how a window is arranged. */
  arranged: "arranged",
  /** Of no drawer: where its window stands, and how large it is. */
  bounds: "bounds",
  /** When its log was last shortened, in milliseconds since 1970. */
  shortened: "shortened",
} as const;

/**
 * Reads a small value that is kept as the JSON of an object; nothing for what was never kept, and for what no Drawer has written: one
 * that cannot be read must not keep anybody from working.
 * @param isOne tells whether an object is such a value
 */
export function readValue<Value extends object>(
  text: string | undefined,
  isOne: (value: Partial<Value>) => boolean,
): Value | undefined {
  if (text === undefined) return undefined;
  try {
    const value: unknown = JSON.parse(text);
    const isObject = typeof value === "object" && value !== null && !Array.isArray(value);
    return isObject && isOne(value as Partial<Value>) ? (value as Value) : undefined;
  } catch {
    return undefined;
  }
}
