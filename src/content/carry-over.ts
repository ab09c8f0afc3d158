import { encodeContent, hashBytes } from "./encode.js";
import type { Content, Flow } from "./model.js";

/** Content that was edited in a form that holds less than the content itself. */
export interface CarriedOver {
  readonly content: Content;
  /** How many flows were changed, of those that hold something which the form does not. */
  readonly poorer: number;
}

/**
 * Puts what was edited in place of what was there, and keeps every flow as it was that nobody has touched: a form such as Markdown
 * has no place for colours, pictures or the values of cells, and they are not lost by correcting a word beside them.
 *
 * @param before the content, as it was
 * @param shown what each of its flows comes to, read back from the form in which it was edited
 * @param edited what was read from the form afterwards
 */
export function carryOver(before: Content, shown: readonly Content[], edited: Content): CarriedOver {
  const forms = shown.map((flows) => flows.map(keyOf));
  const keys = edited.map(keyOf);
  const isKept = keptOf(forms, keys);
  const content: Flow[] = [];
  let at = 0;
  let poorer = 0;
  before.forEach((flow, index) => {
    const start = isKept[index];
    if (start === undefined) {
      if (!isSame(shown[index]!, [flow])) poorer++;
      return;
    }
    content.push(...edited.slice(at, start), flow);
    at = start + forms[index]!.length;
  });
  content.push(...edited.slice(at));
  return { content, poorer };
}

/** Where each form stands unchanged in what was edited, in order, as many of them as can be. */
function keptOf(
  forms: readonly (readonly string[])[],
  keys: readonly string[],
): readonly (number | undefined)[] {
  // The longest common subsequence, by what is left of both: forms that came to nothing cannot be edited, and stay.
  const most = Array.from({ length: forms.length + 1 }, () => new Uint32Array(keys.length + 1));
  const standsAt = (form: readonly string[], at: number) => form.every((key, by) => keys[at + by] === key);
  for (let index = forms.length - 1; index >= 0; index--)
    for (let at = keys.length; at >= 0; at--) {
      const form = forms[index]!;
      const skipped = Math.max(most[index + 1]![at]!, at < keys.length ? most[index]![at + 1]! : 0);
      const taken = standsAt(form, at) ? 1 + most[index + 1]![at + form.length]! : 0;
      most[index]![at] = Math.max(skipped, taken);
    }
  const kept: (number | undefined)[] = [];
  let at = 0;
  for (let index = 0; index < forms.length;) {
    const form = forms[index]!;
    const isTaken = standsAt(form, at) && most[index]![at] === 1 + (most[index + 1]![at + form.length] ?? -1);
    if (isTaken) {
      kept[index++] = at;
      at += form.length;
    } else if (at < keys.length && most[index]![at] === most[index]![at + 1]) at++;
    else kept[index++] = undefined;
  }
  return kept;
}

function isSame(one: Content, other: Content): boolean {
  return one.length === other.length && one.every((flow, at) => keyOf(flow) === keyOf(other[at]!));
}

function keyOf(flow: Flow): string {
  return hashBytes(encodeContent([flow]));
}
