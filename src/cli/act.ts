import type { Notice } from "../content/notice.js";
import { Drawer } from "../drawer/drawer.js";
import type { Edit } from "../drawer/model/change.js";
import type { Entry } from "../drawer/model/entry.js";
import type { Store } from "../drawer/store.js";
import { answer, listedEntries, type CommonOptions } from "./answer.js";
import { withDrawer } from "./home.js";

/**
 * Does something in a drawer, and answers with what is said of it; for programs, also with the snippets that it made or touched, as
 * they are now, or as they were when they left.
 */
export async function act(
  options: CommonOptions,
  perform: (drawer: Drawer) => Promise<readonly Notice[]>,
): Promise<void> {
  if (!options.json) return answer(options, await withDrawer(options.drawer, perform));
  const { notices, snippets } = await withDrawer(options.drawer, async ({ store, name }) => {
    const { recorded, touched } = recorder(store);
    return {
      notices: await perform(new Drawer(recorded, name)),
      snippets: await listedEntries(new Drawer(store, name), [...touched.values()]),
    };
  });
  answer(options, notices, { snippets });
}

/** A store that notes what is written through it, and the entries that were touched by that. */
function recorder(store: Store): { recorded: Store; touched: ReadonlyMap<string, Entry> } {
  const touched = new Map<string, Entry>();
  const note = ({ id, before, after }: Edit) => void touched.set(id, (after ?? before)!);
  const own: Partial<Store> = {
    async commit(commits) {
      await store.commit(commits);
      for (const { change } of commits) change.edits.forEach(note);
    },
    async revert(change, operation) {
      const { groupId } = change;
      const whole = groupId === undefined ? [change] : await store.changes({ about: [groupId] });
      const reverted = await store.revert(change, operation);
      for (const { edits } of whole)
        edits.forEach(({ id, before, after }) => note({ id, before: after, after: before }));
      return reverted;
    },
  };
  const recorded = new Proxy(store, {
    get(target, name) {
      const value: unknown = Reflect.get(own, name) ?? Reflect.get(target, name, target);
      return typeof value === "function" ? (value.bind(target) as unknown) : value;
    },
  });
  return { recorded, touched };
}
