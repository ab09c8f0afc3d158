/** Whether all is run of which the docs tell figures; otherwise a sample, by the same seed each day and on each machine. */
export const isFull = process.env["DRAWER_TESTS"] === "full";

/** How many runs of a property: a sample here, and the full count with `npm test -- --full`. */
export function runs(here: number, full: number): { readonly numRuns: number; readonly seed?: number } {
  return isFull ? { numRuns: full } : { numRuns: here, seed: 20_310_408 };
}
