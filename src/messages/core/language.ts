import type * as composer from "../en/composer.js";
import type * as element from "../en/element.js";
import type * as panels from "../en/panels.js";
import type { Errors, Notices } from "./catalogues.js";
import { Listeners } from "./listeners.js";

/** Sentences of another language in the place of these: the same names and data, whatever they say. */
export type Translated<English> = English extends (...data: infer Data) => string
  ? (...data: Data) => string
  : English extends string
    ? string
    : English extends readonly unknown[]
      ? English
      : { readonly [Name in keyof English]: Translated<English[Name]> };

/** All sentences of the elements of a page. */
type ElementSentences = SentencesOf<typeof element & typeof composer & typeof panels>;

type SentencesOf<English> = { -readonly [Name in keyof English]: Translated<English[Name]> };

/** The sentences of a language: those of the elements, of notices and of errors. */
export interface Language extends ElementSentences {
  /** The language (BCP 47), for those who read it aloud and for its dates. */
  tag: string;
  /** How many snippets: `3 snippets`. */
  many: (count: number) => string;
  /** The sentences of notices, by their reason; what is left out stays English. */
  notices: Partial<Translated<Notices>>;
  /** The sentences of errors, by their reason; what is left out stays English. */
  errors: Partial<Translated<Errors>>;
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

/** What stands in place of English. */
let translation: SomeSentences = {};
const listeners = new Listeners();

/**
 * Sets sentences in place of those that are used: a whole language, such as `de` of `drawer/de`, or some of a page's own
 * words. Elements that are there are drawn again; notices that were made before keep their sentences.
 *
 * @param sentences a language, or those of its sentences that are to be others
 * @example
 * ```js
 * import { Drawer, MemoryStore, setLanguage } from "drawer";
 *
 * setLanguage({ errors: { "nothing/undo": () => "That was all." } });
 * await new Drawer(new MemoryStore()).undo().catch(({ message }) => console.log(message)); // That was all.
 * ```
 */
export function setLanguage(sentences: SomeSentences): void {
  translation = merged(translation, sentences);
  listeners.call();
}

/** The language that is spoken (BCP 47), and how it is written. */
export function spokenLanguage(): { readonly tag: string; readonly dir: "ltr" | "rtl" } {
  const { tag = "en" } = translation;
  return { tag, dir: /^(?:ar|arc|ckb|dv|fa|he|iw|ks|nqo|ps|sd|syr|ug|ur|yi)\b/i.test(tag) ? "rtl" : "ltr" };
}

/** Whether anybody has set sentences in place of English. */
export function isLanguageSet(): boolean {
  return Object.keys(translation).length > 0;
}

/** Calls `listener` when other sentences were set. Returns an unsubscribe function. */
export function onLanguageChange(listener: () => void): () => void {
  return listeners.add(listener);
}

/** The translated sentence of a notice or an error; nothing when it has none. */
export function translatedSentence(
  kind: "notices" | "errors",
  reason: string,
): ((data: never) => string) | undefined {
  return (translation[kind] as Record<string, (data: never) => string> | undefined)?.[reason];
}

/** English sentences, with their translations in their places. */
export function translated<Part extends object>(english: Part): Part {
  return merged(english, translation as SomeSentences<Part>);
}

function merged<Part extends object>(before: Part, changes: SomeSentences<Part>): Part {
  const after: Record<string, unknown> = { ...(before as Record<string, unknown>) };
  for (const [name, change] of Object.entries(changes)) {
    const isPart = typeof change === "object" && change !== null && !Array.isArray(change);
    after[name] = isPart ? merged((after[name] ?? {}) as object, change) : change;
  }
  return after as Part;
}
