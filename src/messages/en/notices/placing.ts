import type { NamedSnippet } from "../../names.js";
import { many, named } from "../phrases.js";

/** What is told of placing and dealing, wherever it is done. */
export const placingNotices = {
  /** What is due could not be done now, and is tried again. */
  waits: ({ why }: { why: string }) =>
    `What is due by age or privacy could not be done now, and will be tried next time: ${why}`,
  /** A deal has begun on the clipboard of the desktop. */
  "dealing/clipboard": ({ of }: { of: number }) =>
    `Dealing ${of === 1 ? "1 snippet" : many(of)} on the clipboard. The first is there; each paste brings the next.`,
  /** A snippet of the deal is on the clipboard. */
  "dealing/offered": ({ number, of, snippet }: { number: number; of: number; snippet: NamedSnippet }) =>
    `On the clipboard: ${number} of ${of}, ${named(snippet)}.`,
  /** Something private was put on a clipboard where nothing can be declared a secret. */
  "placed/not-secret": () =>
    "On this desktop it cannot be declared a secret: a history of the clipboard may keep it.",
};
