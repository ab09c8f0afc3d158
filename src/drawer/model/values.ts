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
  /** When its log was last shortened, in milliseconds since 1970. */
  shortened: "shortened",
} as const;
