/** How the parts of an equation are written on one line of text: `(a+b)/2`, `x^2`, `√(x)`. */

/** A fraction. */
export const fraction = (above: string, below: string) => `${grouped(above)}/${grouped(below)}`;
/** Something with what stands below and above it at its right; either may be empty. */
export const scripted = (base: string, below: string, above: string) => grouped(base) + scripts(below, above);
/** What stands below and above at the right, without what it stands at. */
export const scripts = (below: string, above: string) =>
  (below && `_${grouped(below)}`) + (above && `^${grouped(above)}`);
/** A root; its degree may be empty. */
export const root = (inner: string, degree = "") => `${degree === "2" ? "" : degree}√(${inner})`;
/** Several parts in brackets. */
export const fenced = (parts: readonly string[], open = "(", close = ")") => open + parts.join(", ") + close;
/** The rows of a matrix. */
export const matrix = (rows: readonly (readonly string[])[]) => rows.map((row) => row.join(", ")).join("; ");

/** In brackets, when it is more than one sign or number. */
export function grouped(text: string): string {
  return /^(?:[\p{L}\p{M}]|[\d.,]+|)$/u.test(text) ? text : `(${text})`;
}
