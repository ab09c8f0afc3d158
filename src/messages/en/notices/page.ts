import { grouped, many } from "../phrases.js";

/** What is told in a page. */
export const pageNotices = {
  /** In a page, a placing was taken back. */
  "undone/placing": ({ what }: { what: string }) => `Undone: placing ${what}.`,
  /** Rules were to be changed, and were not. */
  "rule/unchanged": () => "Nothing was changed.",

  /** A block was placed, in a page. */
  "placed/page": ({ what }: { what: string }) => `Placed ${what}.`,
  /** Another drawer is shown, in a page. */
  "opened/page": ({ drawer }: { drawer: string }) => `This is the drawer “${drawer}”.`,
  /** A recipe is kept, in a page. */
  "recipe/kept": ({ name }: { name: string }) => `Kept the recipe “${name}”.`,
  /** A block was copied to the clipboard, in a page. */
  "copied/page": ({ what }: { what: string }) => `Copied ${what} to the clipboard.`,
  /** Fields of a form were filled, in a page. */
  "filled/page": ({ count }: { count: number }) =>
    `Filled ${count === 1 ? "one field" : `${grouped(count)} fields`}.`,
  /** A deal has begun, in a page. */
  "dealing/page": ({ of }: { of: number }) =>
    `Dealing ${many(of)}: ${of === 1 ? "it goes" : "each goes"} to the next field that you go to.`,
  /** A deal has begun, in a page, on the clipboard of a desktop that does not tell of pastes. */
  "dealing/in-turn": ({ of }: { of: number }) =>
    `Dealing ${many(of)} on the clipboard. The first is there; once it is pasted, “Pass over” brings the next.`,
  /** A snippet of a deal was passed over. */
  "dealing/skipped": ({ number, of }: { number: number; of: number }) => `Passed over ${number} of ${of}.`,
  /** All of a deal has been handed out. */
  "dealing/done": () => "All are handed out.",
};
