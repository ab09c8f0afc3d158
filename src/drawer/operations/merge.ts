import type { Recipe } from "../../compose/recipe.js";
import { DrawerError } from "../../content/error.js";
import { notice } from "../../content/notice.js";
import { actErrors, actNotices } from "../../messages/en/acts.js";
import type { Entry, Origin } from "../model/entry.js";
import { newId } from "../model/ids.js";
import type { Positioned } from "../store.js";
import { removals, type Operation } from "../transaction.js";
import type { Collected } from "./collect.js";
import { madeOf, refusePrivate } from "./made-of.js";
/**
 * Makes one snippet of several, where the first of the pick stood; {@link split} makes the several of it again, with
 * all that was known of them.
 *
 * @throws DrawerError `bad-pick`, `no-position`, `bad-option`, `private`, `nothing` when the pick is less than two snippets
 */
export const merge: Operation<[pick: string, recipe?: Recipe], Collected> = {
  name: "merge",
  async plan(transaction, pick, recipe = {}) {
    const { picked: merging, notices } = await transaction.anyToGiveOut(pick);
    if (merging.length < 2)
      throw new DrawerError(actErrors, "nothing/merge", { pick, count: merging.length === 0 ? 0 : 1 });
    refusePrivate(merging, "merge");
    // A page loads composing when it is first needed.
    const { compose } = await import("../../compose/compose.js");
    const block = compose(await transaction.read(merging), recipe);
    const parts = merging.map((one) => one.entry);
    const first = merging[0]!;
    const made = madeOf(block.content, parts);
    const entry: Entry = {
      id: newId(),
      drawer: transaction.drawer,
      order: first.entry.order,
      kept: parts.some((part) => part.kept),
      private: false,
      origin: commonOrigin(parts),
      collectedAt: new Date().toISOString(),
      ...made.facts,
    };
    const positions = merging.map((one) => one.position);
    const position = first.position - positions.filter((each) => each < first.position).length;
    return {
      edits: [...removals(parts), { id: entry.id, before: null, after: entry }],
      contents: made.contents,
      result: {
        collected: [{ position, entry }] satisfies Positioned[],
        notices: [
          ...notices,
          ...block.notices,
          notice(actNotices, "merged", { positions, position, snippet: entry }),
        ],
      },
    };
  },
};

/** What the origins of several snippets have in common. */
function commonOrigin([first, ...rest]: readonly Entry[]): Origin {
  const shared = Object.entries(first!.origin).filter(([name, value]) =>
    rest.every(({ origin }) => origin[name as keyof Origin] === value),
  );
  return Object.fromEntries(shared) as Origin;
}
