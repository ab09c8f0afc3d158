/** Whether a text is a number, an amount, a date or a time, as people write them. */
export function isFigure(text: string): boolean {
  return /^[-+(]?\p{Sc}?\s?\d[\d.,:/\-\s]*%?\)?\s?\p{Sc}?$/u.test(text);
}
