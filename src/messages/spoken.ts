import type * as english from "./en/page.js";
import type { Errors, Notices } from "./catalogues.js";

/** The language that a page is spoken to in: English until another one is said. */

/** The shape of some sentences, whatever they say. */
type Shape<Said> = Said extends (...data: infer Data) => string
  ? (...data: Data) => string
  : Said extends string
    ? string
    : Said extends readonly unknown[]
      ? Said
      : { readonly [Name in keyof Said]: Shape<Said[Name]> };

/** All sentences of the elements of a page. */
type PageSentences = { -readonly [Name in keyof typeof english]: Shape<(typeof english)[Name]> };

/** The sentences of a language: those of the elements, and of what Drawer tells and refuses. */
export interface Language extends PageSentences {
  /** How many snippets: `3 snippets`. */
  many: (count: number) => string;
  /** What is told, by its reason; what is left out is told in English. */
  notices: Partial<Shape<Notices>>;
  /** What is refused, by its reason; what is left out is told in English. */
  errors: Partial<Shape<Errors>>;
}

/** Some of a language's sentences, in place of those. */
export type SomeSentences<Part = Language> = {
  readonly [Name in keyof Part]?: Part[Name] extends (...args: never) => unknown
    ? Part[Name]
    : Part[Name] extends readonly unknown[]
      ? Part[Name]
      : Part[Name] extends object
        ? SomeSentences<Part[Name]>
        : Part[Name];
};

/** What was said in place of English. */
let said: SomeSentences = {};
const listeners = new Set<() => void>();

/**
 * Says sentences in place of those that are said: a whole language, such as `de` of `drawer/de`, or some of a page's own
 * words. Elements that are there are drawn again; what is kept stays as it was said.
 *
 * @example
 * ```js
 * import { Drawer, MemoryStore, speak } from "drawer";
 *
 * speak({ errors: { "nothing/undo": () => "That was all." } });
 * await new Drawer(new MemoryStore()).undo().catch(({ message }) => console.log(message)); // That was all.
 * ```
 */
export function speak(sentences: SomeSentences): void {
  said = merged(said, sentences);
  for (const listener of listeners) listener();
}

/** Calls `listener` when other sentences are said. Returns an unsubscribe function. */
export function whenSpoken(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** The sentence of a notice or an error in the language that is spoken; nothing when it has none of its own. */
export function spokenSentence(
  kind: "notices" | "errors",
  reason: string,
): ((data: never) => string) | undefined {
  return (said[kind] as Record<string, (data: never) => string> | undefined)?.[reason];
}

/** English sentences, with those in their place that were said. */
export function withSaid<Part extends object>(english: Part): Part {
  return merged(english, said as SomeSentences<Part>);
}

function merged<Part extends object>(before: Part, changes: SomeSentences<Part>): Part {
  const after: Record<string, unknown> = { ...(before as Record<string, unknown>) };
  for (const [name, change] of Object.entries(changes)) {
    const isPart = typeof change === "object" && change !== null && !Array.isArray(change);
    after[name] = isPart ? merged((after[name] ?? {}) as object, change) : change;
  }
  return after as Part;
}
