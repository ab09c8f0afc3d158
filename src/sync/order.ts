import { generateKeyBetween } from "fractional-indexing";
import { hashBytes } from "../content/encode.js";

const DIGITS = 8;

/**
 * A key in the order of a drawer just after another, for a snippet that stands in the same place as one from another device: every
 * device works out the same. (The digits are the first of those that `fractional-indexing` uses; a key does not end in 0.)
 */
export function orderBeside(order: string, id: string): string {
  const digits = hashBytes(new TextEncoder().encode(`${order} ${id}`))
    .slice(0, DIGITS)
    .toUpperCase();
  return order + digits.replace(/0+$/, "") + "1";
}

/** Whether text is a key in the order of a drawer, after which others can be made. */
export function isOrderKey(text: string): boolean {
  try {
    generateKeyBetween(text, null);
    return true;
  } catch {
    // It is said by an error alone.
    return false;
  }
}
