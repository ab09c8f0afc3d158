/** A whole number as messages write it: `12,345`. */
export function grouped(number: number): string {
  return String(number).replace(/\B(?=(?:\d{3})+$)/g, ",");
}
