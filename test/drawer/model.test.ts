import "fake-indexeddb/auto";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { runs } from "../support/counts";
import { piece } from "../support/pieces";
import { Reference, Refused, type Item } from "../support/reference";
import {
  Drawer,
  DrawerError,
  MASK,
  MemoryStore,
  pickOf,
  writeText,
  type SnippetRef,
  type Positioned,
  type Store,
} from "drawer";
import { openIndexedDb } from "drawer/indexeddb";
import { openSqlite } from "drawer/sqlite";

const folder = mkdtempSync(join(tmpdir(), "drawer-model-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
let made = 0;

const STORES: Record<string, () => Promise<Store>> = {
  memory: async () => new MemoryStore(),
  sqlite: async () => openSqlite(join(folder, `${++made}`, "drawers.db")),
  indexeddb: () => openIndexedDb(`model-${++made}`),
};

const NAMES = ["spring", "autumn"] as const;
const word = fc.constantFrom<string>("", "ab", "bc", "cd", "df", "fg", "gh", "hi", "ij");
/** How often each step is taken, among the others. */
const WEIGHTS = {
  ...{ collect: 16, append: 4, merge: 4, split: 4, move: 4, moveInto: 3, copyInto: 3, label: 2, keep: 2 },
  ...{ release: 1, hide: 2, unhide: 2, discard: 3, empty: 1, restore: 3, limit: 2, repeats: 2, pause: 1 },
  ...{
    saveRecipe: 1,
    removeRecipe: 1,
    deal: 3,
    dealNext: 4,
    dealBack: 2,
    dealSkip: 1,
    dealReturn: 1,
    import: 2,
    forget: 1,
  },
  ...{ undo: 5, redo: 4 },
} as const;
type What = keyof typeof WEIGHTS;
/** A position: one that is there, but for one in thirty. */
const at = fc.noBias(fc.nat(59));
const step = fc.record({
  what: fc.oneof(
    ...Object.entries(WEIGHTS).map(([what, weight]) => ({ weight, arbitrary: fc.constant(what as What) })),
  ),
  drawer: fc.constantFrom(...NAMES),
  at,
  to: at,
  words: fc.array(word, { minLength: 1, maxLength: 3 }),
  flag: fc.boolean(),
  /** Whether it is undone and done again. */
  andBack: fc.boolean(),
});
type Step = typeof step extends fc.Arbitrary<infer One> ? One : never;

/** What each history begins with, so that there is something to work on. */
const BEGINNING: readonly Step[] = NAMES.map((drawer) => ({
  ...{ what: "collect", drawer, at: 0, to: 0, words: ["kl", "lm", "mp", "pq"], flag: false, andBack: false },
}));

/** A deal as it should be: which snippets, by their ids in the reference, and how many have been handed out. */
interface Deal {
  readonly ids: readonly number[];
  handed: number;
}

/** The same steps in a real store and in the reference. */
class Both {
  readonly reference = new Reference();
  readonly #deals = new Map<string, Deal>();

  constructor(readonly store: Store) {}

  /** Does a step in both: both do it, or both refuse it. */
  async take(drawn: Step): Promise<void> {
    const step = this.#within(drawn);
    const drawer = new Drawer(this.store, step.drawer);
    let given: unknown;
    const real = await this.#real(drawer, step).then(
      (result) => ((given = result), "done"),
      (error: unknown) => {
        if (error instanceof DrawerError) return "refused";
        throw error;
      },
    );
    expect([step.what, real]).toEqual([step.what, this.#expected(step, given)]);
    await this.compare();
  }

  /** The step with positions that are there. */
  #within(step: Step): Step {
    const { what, drawer } = step;
    const list = what === "restore" ? this.reference.goneOf(drawer) : this.reference.list(drawer);
    const within = (at: number) => (at > 57 ? list.length + 1 : (at % Math.max(1, list.length)) + 1);
    const merged = list.flatMap(({ parts }, index) => (parts ? [index + 1] : []));
    const at = what === "split" && merged.length > 0 ? merged[step.at % merged.length]! : within(step.at);
    return { ...step, at, to: within(step.to) };
  }

  async #real(drawer: Drawer, { what, at, to, words, flag }: Step): Promise<unknown> {
    const other = drawer.name === "spring" ? "autumn" : "spring";
    const [first] = words;
    const there = what === "restore" ? await drawer.gone() : await drawer.list();
    // The same snippet is spoken of by its position, or by its id.
    const isById = words.length > 1;
    const place = (position: number): SnippetRef => {
      const one = isById ? there[position - 1] : undefined;
      return one ? { id: one.entry.id } : { position };
    };
    const said = (position: number) => {
      const one = isById ? there[position - 1] : undefined;
      return one ? pickOf([one]) : `${position}`;
    };
    const pick = `${said(at)} ${said(to)}`;
    switch (what) {
      case "collect":
        return drawer.collect(
          words.map((text) => ({ ...piece(text), ...(flag && to === 2 && { private: true }) })),
        );
      case "append":
        return drawer.append(piece(first!), place(at));
      case "merge":
        return drawer.merge(pick);
      case "split":
        return drawer.split(place(at));
      case "move":
        return drawer.move(said(at), flag ? "end" : place(to));
      case "moveInto":
      case "copyInto":
        return drawer[what](other, pick);
      case "label":
        return drawer.label(said(at), first!);
      case "keep":
      case "release":
      case "hide":
      case "unhide":
        return drawer[what](said(at));
      case "discard":
        return drawer.discard(pick);
      case "restore":
        return drawer.restore(said(at));
      case "limit":
        return drawer.setRules({ snippets: flag ? null : at + 3 });
      case "repeats":
        return drawer.setRules({ repeats: flag ? "move" : "allow" });
      case "pause":
        return drawer.setRules({ collecting: flag || to > 1 });
      case "saveRecipe":
        return drawer.saveRecipe(`r${at}`, { as: "bullets" });
      case "removeRecipe":
        return drawer.removeRecipe(`r${at}`);
      case "deal":
        return drawer.deal(pick);
      case "import":
        return (async () => {
          const lines: string[] = [];
          for await (const line of new Drawer(this.store, other).exportFile().lines) lines.push(line);
          return drawer.importFile(() => lines);
        })();
      case "forget":
        return Promise.all(NAMES.map((name) => new Drawer(this.store, name).emptyForGood()));
      case "empty":
      case "dealNext":
      case "dealBack":
      case "dealSkip":
      case "dealReturn":
      case "undo":
      case "redo":
        return drawer[what]();
    }
  }

  #expected(step: Step, given: unknown): "done" | "refused" {
    try {
      this.#inReference(step, given);
      return "done";
    } catch (error) {
      if (error instanceof Refused) return "refused";
      throw error;
    }
  }

  #inReference({ what, drawer, at, to, words, flag }: Step, given: unknown): void {
    const { reference } = this;
    const other = drawer === "spring" ? "autumn" : "spring";
    const { recipes } = reference.values(drawer);
    const times = [...((given as { collected?: Positioned[] } | undefined)?.collected ?? [])];
    const time = () => times.shift()?.entry.collectedAt ?? "";
    switch (what) {
      case "collect":
        return reference.collect(drawer, words, flag && to === 2, time);
      case "append":
        return reference.append(
          drawer,
          at,
          words[0]!,
          () => times[0]?.entry.parts?.at(-1)?.collectedAt ?? "",
        );
      case "merge":
        return reference.merge(drawer, [at, to], time);
      case "split":
        return reference.split(drawer, at);
      case "move":
        return reference.move(drawer, [at], flag ? "end" : to);
      case "moveInto":
        return reference.putInto(drawer, other, [at, to], "move");
      case "copyInto":
        return reference.putInto(drawer, other, [at, to], "copy");
      case "label":
        return reference.alter(drawer, [at], (item) => ({ ...item, label: words[0]! }));
      case "keep":
      case "release":
        return reference.alter(drawer, [at], (item) => ({ ...item, kept: what === "keep" }));
      case "hide":
      case "unhide":
        return reference.setHidden(drawer, [at], what === "hide");
      case "discard":
        return reference.discard(drawer, [at, to]);
      case "empty":
        return reference.empty(drawer);
      case "restore":
        return reference.restore(drawer, at);
      case "limit":
        return reference.setValues(drawer, { snippets: flag ? null : at + 3 });
      case "repeats":
        return reference.setValues(drawer, { repeats: flag ? "move" : "allow" });
      case "pause":
        return reference.setValues(drawer, { collecting: flag || to > 1 });
      case "saveRecipe":
        return reference.setValues(drawer, { recipes: [...new Set([...recipes, `r${at}`])].sort() });
      case "removeRecipe":
        if (!recipes.includes(`r${at}`)) throw new Refused();
        return reference.setValues(drawer, { recipes: recipes.filter((name) => name !== `r${at}`) });
      case "import":
        return reference.import(other, drawer);
      case "forget":
        this.#deals.clear();
        return reference.emptyForGood();
      case "undo":
      case "redo":
        return reference[what](drawer);
      case "deal": {
        const list = reference.list(drawer);
        const picked = [list[at - 1], list[to - 1]];
        if (picked.includes(undefined)) throw new Refused();
        this.#deals.set(drawer, { ids: picked.map((item) => item!.id), handed: 0 });
        return;
      }
      case "dealNext":
      case "dealBack":
      case "dealSkip":
      case "dealReturn":
        return this.#deal(what, drawer, given);
    }
  }

  /** What is in the drawer, or has left it, is handed out; what went elsewhere is, as long as it is known. */
  #deal(what: "dealNext" | "dealBack" | "dealSkip" | "dealReturn", drawer: string, given: unknown): void {
    const deal = this.#deals.get(drawer);
    if (!deal) throw new Refused();
    if (what === "dealSkip" || what === "dealReturn") {
      const step = what === "dealSkip" ? 1 : -1;
      deal.handed = Math.max(0, Math.min(deal.ids.length, deal.handed + step));
      return expect(given).toEqual({ left: deal.ids.length - deal.handed, of: deal.ids.length });
    }
    const known = (number: number) =>
      [...this.reference.list(drawer), ...this.reference.goneOf(drawer)].find(
        ({ id }) => id === deal.ids[number - 1],
      );
    const dealt = given as Awaited<ReturnType<Drawer["dealNext"]>>;
    const from = what === "dealNext" ? deal.handed + 1 : Math.max(1, deal.handed - 1);
    const inTurn = what === "dealNext" ? [1, 2].filter((n) => n >= from) : [2, 1].filter((n) => n <= from);
    const passed = dealt ? inTurn.slice(0, inTurn.indexOf(dealt.number)) : inTurn;
    // What is a trace of something private is passed over too.
    const open = passed.filter((number) => known(number) && !this.#isHiddenSomewhere(known(number)!));
    expect(open).toEqual([]);
    if (dealt) {
      const item = known(dealt.number);
      if (item) expect(writeText(dealt.snippet.content)).toBe(item.text);
      deal.handed = dealt.number;
    } else if (what === "dealNext") deal.handed = deal.ids.length;
  }

  #isHiddenSomewhere({ id }: Item): boolean {
    const all = [...this.reference.items.values(), ...NAMES.flatMap((name) => this.reference.goneOf(name))];
    const ids = (item: Item): number[] => [item.id, ...(item.parts ?? []).flatMap(ids)];
    return (
      all.some((item) => item.hidden > 0) || all.some((item) => item.id !== id && ids(item).includes(id))
    );
  }

  /** Compares all that can be asked. */
  async compare(): Promise<void> {
    for (const name of NAMES) {
      const drawer = new Drawer(this.store, name);
      const items = this.reference.list(name);
      const list = await drawer.list();
      const snippets = await drawer.read(list);
      expect(
        snippets.map(({ position, entry, content }) => ({
          position,
          text: writeText(content),
          shown: entry.text,
          label: entry.label ?? "",
          ...{ kept: entry.kept, private: entry.private, parts: entry.parts?.length ?? 0 },
        })),
      ).toEqual(
        items.map(({ text, label, kept, hidden, parts = [] }, index) => ({
          position: index + 1,
          ...{ text, shown: hidden > 0 ? MASK : text.replaceAll("\n", " · "), label },
          ...{ kept, private: hidden > 0, parts: parts.length },
        })),
      );
      const gone = await drawer.gone();
      expect(gone.map(({ position }) => position)).toEqual(
        this.reference.goneOf(name).map((_, index) => index + 1),
      );
      this.reference.goneOf(name).forEach(({ text, hidden }, index) => {
        const shown = gone[index]!.entry.text;
        if (shown !== MASK) expect([shown, hidden]).toEqual([text.replaceAll("\n", " · "), 0]);
      });
      const { snippets: most, repeats, collecting } = await drawer.rules();
      const bytes = list.reduce((sum, { entry }) => sum + entry.bytes, 0);
      expect([most, repeats, collecting, await drawer.recipes(), await drawer.size()]).toEqual([
        ...Object.values(this.reference.values(name)),
        { drawer: name, count: items.length, bytes },
      ]);
      const found = await drawer.find("b");
      const open = items.filter(({ hidden, text, label }) => hidden === 0 && /b/.test(text + label));
      expect(found.map(({ entry }) => entry.text).sort()).toEqual(
        open.map(({ text }) => text.replaceAll("\n", " · ")).sort(),
      );
    }
  }
}

describe.each(Object.entries(STORES))("with the %s store", (kind, make) => {
  test("two drawers do what a plain reference does, in any history, with undo and redo at every point", async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 12, maxLength: 30 }), async (history) => {
        const store = await make();
        const both = new Both(store);
        try {
          for (const step of [...BEGINNING, ...history]) {
            await both.take(step);
            if (!step.andBack) continue;
            await both.take({ ...step, what: "undo" });
            await both.take({ ...step, what: "redo" });
          }
        } finally {
          await store.close();
        }
      }),
      kind === "memory" ? runs(30, 1000) : runs(5, 150),
    );
  });
});
