/** Whether a text is a number, an amount, a date or a time, as people write them. */
export function isFigure(text: string): boolean {
  return /^[-+(]?\p{Sc}?\s?\d[\d.,:/\-\s]*%?\)?\s?\p{Sc}?$/u.test(text);
}

/** The sign before decimals in a language (BCP 47). */
export function decimalOf(locale: string): "." | "," {
  const decimal = new Intl.NumberFormat(locale).formatToParts(0.5).find(({ type }) => type === "decimal");
  return decimal?.value === "," ? "," : ".";
}
