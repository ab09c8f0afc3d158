import { DrawerError } from "../../content/error.js";
import { notice, type Notice } from "../../content/notice.js";
import { actErrors, actNotices } from "../../messages/en/acts.js";
import type { Edit } from "../model/change.js";
import { checkDrawerName, type Entry } from "../model/entry.js";
import { newId } from "../model/ids.js";
import type { Operation, Plan, Transaction } from "../transaction.js";
/**
 * Moves the snippets of a pick to the end of another drawer, by its rules.
 * @throws DrawerError `bad-pick`, `no-position`, `nothing`, `full`, `bad-option` when it is the same drawer
 */
export const moveInto: Operation<[drawer: string, pick: string], Notice[]> = {
  name: "move",
  plan: (transaction, drawer, pick) => putInto(transaction, drawer, pick, "move"),
};

/**
 * Copies the snippets of a pick to the end of another drawer, by its rules.
 * @throws DrawerError `bad-pick`, `no-position`, `nothing`, `full`, `private`, `bad-option` when it is the same drawer
 */
export const copyInto: Operation<[drawer: string, pick: string], Notice[]> = {
  name: "copy",
  plan: (transaction, drawer, pick) => putInto(transaction, drawer, pick, "copy"),
};

async function putInto(
  transaction: Transaction,
  drawer: string,
  pick: string,
  way: "move" | "copy",
): Promise<Plan<Notice[]>> {
  const into = checkDrawerName(drawer);
  if (into === transaction.drawer)
    throw new DrawerError(actErrors, "bad-option/same-drawer", { drawer: into });
  // What is moved stays in a drawer of the user's, as private as it was; a copy goes out.
  const { picked: snippets, notices: leftOut } =
    way === "move"
      ? { picked: await transaction.pick(pick), notices: [] }
      : await transaction.someToGiveOut(pick);
  const secret = snippets.find(({ entry }) => entry.private);
  if (way === "copy" && secret)
    throw new DrawerError(actErrors, "private/copy", { position: secret.position });
  const { leaving, notices, orders, first } = await transaction.roomAtEnd(snippets, into);
  const edits = snippets.map(({ entry }, index): Edit => {
    const own = way === "move" ? entry : copyOf(entry);
    const after = { ...own, drawer: into, order: orders[index]! };
    return { id: own.id, before: way === "move" ? entry : null, after };
  });
  const told = { from: transaction.drawer, into, snippets, first };
  return {
    edits: [...leaving, ...edits],
    result: [
      way === "move" ? notice(actNotices, "moved/into", told) : notice(actNotices, "copied", told),
      ...leftOut,
      ...notices,
    ],
  };
}

/** An entry with an id of its own, as have the pieces it was made of: both can be split, and each undone by itself. */
function copyOf(entry: Entry): Entry {
  const ids = new Map<string, string>();
  const renewed = ({ id, parts, ...rest }: Entry): Entry => {
    if (!ids.has(id)) ids.set(id, newId());
    return { id: ids.get(id)!, ...rest, ...(parts && { parts: parts.map(renewed) }) };
  };
  return renewed(entry);
}
