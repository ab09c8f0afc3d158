import { many } from "../phrases.js";

/** What a command tells of placing and dealing on a desktop. */
export const cliNotices = {
  /** A deal has begun. */
  dealing: ({ of }: { left: number; of: number }) => `Dealing ${of === 1 ? "1 snippet" : many(of)}.`,
  /** A deal has begun on the clipboard of a desktop that does not tell of pastes. */
  "dealing/by-hand": ({ of }: { of: number }) =>
    `Dealing ${of === 1 ? "1 snippet" : many(of)} on the clipboard. The first is there; “drawer next” brings the next.`,
  /** So many snippets of a deal are left. */
  "dealing/left": ({ left, of }: { left: number; of: number }) =>
    `${left === 1 ? "One is" : `${left} are`} left of ${of}.`,
  /** Of a deal nothing is left. */
  "done/none-left": ({ of }: { of: number }) => `None is left of ${of}.`,
  /** A snippet was handed out. */
  dealt: ({ number, of }: { number: number; of: number }) =>
    `${number} of ${of}${number === of ? ", the last" : ""}.`,
  /** All snippets of a deal have been handed out. */
  done: () => "All have been handed out.",
  /** A block was pasted into a window. */
  "placed/window": ({ count, title }: { count: number; title: string }) =>
    title === "" ? `Pasted ${many(count)}.` : `Pasted ${many(count)} into “${title}”.`,
  /** A key does something from now on. */
  "key/set": ({ key, act }: { key: string; act: string }) => `${key}: ${act}.`,
  /** A key does nothing more. */
  "key/removed": ({ key }: { key: string }) => `${key} does nothing any more.`,
  /** A block was placed into a file. */
  placed: ({ count, path }: { count: number; path: string }) =>
    `Placed ${count === 1 ? "1 snippet" : many(count)} in “${path}”.`,
  /** A block was put on the desktop's clipboard. */
  "placed/clipboard": ({ count }: { count: number }) =>
    `Placed ${many(count)} on the clipboard. Paste ${count === 1 ? "it" : "them"} where you like; the next copy takes its place.`,
};
