/** Whether all is run of which the docs tell figures; otherwise a sample, by the same seed each day and on each machine. */
export const isFull = process.env["DRAWER_TESTS"] === "full";

/** All of these in full, and otherwise those of them that are enough to see what breaks. */
export function some<Value>(all: readonly Value[], isEnough: (value: Value) => boolean): readonly Value[] {
  return isFull ? all : all.filter(isEnough);
}

/** How many runs of a property: a sample here, and the full count with `npm test -- --full`. */
export function runs(here: number, full: number): { readonly numRuns: number; readonly seed?: number } {
  return isFull ? { numRuns: full } : { numRuns: here, seed: 20_310_408 };
}
