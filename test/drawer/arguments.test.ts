import { compose, Drawer, DrawerError, MemoryStore, readHtml, readText, writeText } from "drawer";
import { readSource } from "drawer/files";

const drawer = () => new Drawer(new MemoryStore());
const piece = { ...readText("a wren"), origin: {} };
/** What is wrong for the compiler too, as a caller in JavaScript writes it. */
const wrong = (value: unknown) => value as never;

test.each<[call: string, make: () => unknown, says: RegExp]>([
  ['new Drawer("x")', () => new Drawer(wrong("x")), /“store” cannot be "x": it is a store/],
  ["new Drawer(store, 5)", () => new Drawer(new MemoryStore(), wrong(5)), /“name” cannot be 5: it is a text/],
  ["snippets(1)", () => drawer().snippets(wrong(1)), /“pick” cannot be 1: it is a text/],
  [
    'collect(["x"])',
    () => drawer().collect(wrong(["x"])),
    /“incoming” cannot be "x": it is a list of what was read/,
  ],
  [
    "collect of what has no origin",
    () => drawer().collect(wrong([readText("x")])),
    /“incoming” cannot be \{/,
  ],
  ["append(undefined)", () => drawer().append(wrong(undefined)), /“incoming” cannot be undefined/],
  [
    "list({ limt: 3 })",
    () => drawer().list(wrong({ limt: 3 })),
    /There is no option of a list “limt”\. Did you mean “limit”\? There is: .*limit/,
  ],
  ["find(5)", () => drawer().find(wrong(5)), /“words” cannot be 5/],
  ["find(…, { kinds })", () => drawer().find("x", wrong({ kinds: "text" })), /option of a search “kinds”/],
  ["deal(…, { recipes })", () => drawer().deal("1", wrong({ recipes: {} })), /option of a deal “recipes”/],
  ["compose(5)", () => compose(wrong(5)), /“snippets” cannot be 5: it is a list of snippets/],
  [
    "compose({ betwen })",
    () => compose([piece], wrong({ betwen: "comma" })),
    /part of a recipe “betwen”.*between/,
  ],
  ["compose({ as: 5 })", () => compose([piece], wrong({ as: 5 })), /There is no layout “5”/],
  [
    "compose({ tidy: 'edges' })",
    () => compose([piece], wrong({ tidy: "edges" })),
    /“tidy” cannot be "edges": it is a list/,
  ],
  [
    "compose({ before: 5 })",
    () => compose([piece], wrong({ before: 5 })),
    /“before” cannot be 5: it is a text/,
  ],
  [
    'block.to("pdf")',
    () => compose([piece]).to(wrong("pdf")),
    /“pdf” ends in no format that is written|“pdf”/,
  ],
  ["block.to(undefined)", () => compose([piece]).to(wrong(undefined)), /“undefined”/],
  [
    "block.to(…, { titel })",
    () => compose([piece]).to("html", wrong({ titel: "x" })),
    /option of a block “titel”/,
  ],
  [
    'readSource("a.docx", …)',
    () => readSource(wrong("a.docx"), "a.docx"),
    /“bytes” cannot be "a\.docx": it is the bytes of a file/,
  ],
  [
    "readSource(…, undefined)",
    () => readSource(new Uint8Array(), wrong(undefined)),
    /“name” cannot be undefined/,
  ],
  ["readHtml(undefined)", () => readHtml(wrong(undefined)), /“HTML” cannot be undefined: it is a text/],
  ["readText(null)", () => readText(wrong(null)), /cannot be null: it is a text/],
])("%s is refused in a sentence that names it, and nothing is done", async (_, make, says) => {
  const error = await Promise.resolve()
    .then(make)
    .then(
      () => undefined,
      (thrown: unknown) => thrown,
    );
  expect(error).toBeInstanceOf(DrawerError);
  expect((error as DrawerError).message).toMatch(says);
  expect((error as DrawerError).code).toMatch(/^(?:bad-option|unknown-format)$/);
});

test("a deal keeps its recipe, and those who ask at once get a snippet each, in order", async () => {
  const store = new MemoryStore();
  const birds = ["wren", "tern", "knot", "dunlin", "eider", "gannet"];
  await new Drawer(store).collect(birds.map((bird) => ({ ...readText(bird), origin: {} })));
  await new Drawer(store).deal("all", { recipe: { as: "quotes" } });
  const dealt = await Promise.all(
    birds.map(() => new Drawer(store).dealNext(() => new Promise((next) => setTimeout(next, 5)))),
  );
  expect(dealt.map((one) => writeText(one!.snippet.content)).sort()).toEqual([...birds].sort());
  expect(dealt.every((one) => one!.recipe.as === "quotes")).toBe(true);
  expect(await new Drawer(store).dealStatus()).toMatchObject({ left: 0, of: 6, recipe: { as: "quotes" } });
  expect(await new Drawer(store).dealNext()).toBeUndefined();
});

test("what could not be handed out is left, also when others have gone on meanwhile", async () => {
  const at = drawer();
  await at.collect(["wren", "tern", "knot"].map((bird) => ({ ...readText(bird), origin: {} })));
  await at.deal("all");
  let fail: (error: Error) => void;
  const failing = at.dealNext(() => new Promise((_, reject) => (fail = reject)));
  await new Promise((next) => setTimeout(next, 20));
  const second = await at.dealNext();
  fail!(new Error("no room"));
  await expect(failing).rejects.toThrow("no room");
  expect([second!.number, (await at.dealStatus()).left]).toEqual([2, 2]);
  expect([(await at.dealNext())!.number, (await at.dealNext())!.number, await at.dealNext()]).toEqual([
    1,
    3,
    undefined,
  ]);
});

/** A right call of each method of a drawer that takes arguments. */
const CALLS: { readonly [Name in keyof Drawer]?: readonly unknown[] } = {
  ...{ collect: [[piece]], append: [piece, { position: 1 }, "space"], merge: ["1 2", { as: "lines" }] },
  ...{ split: [{ position: 1 }], move: ["1", { position: 2 }], moveInto: ["b", "1"], copyInto: ["b", "1"] },
  ...{ label: ["1", "hut"], keep: ["1"], release: ["1"], hide: ["1"], unhide: ["1"], discard: ["1"] },
  ...{ restore: ["1"], setRules: [{ maxCount: 5 }], wouldLeave: [{ maxCount: 5 }], recipe: ["hut"] },
  ...{
    saveRecipe: ["hut", { as: "lines" }],
    removeRecipe: ["hut"],
    deal: ["1", { recipe: { as: "lines" } }],
  },
  ...{ dealNext: [() => Promise.resolve()], dealBack: [() => Promise.resolve()], dealSkip: [1] },
  ...{ undoTo: ["id"], actions: [5], list: [{ first: 1 }], find: ["wren", { limit: 5 }], pick: ["1"] },
  ...{
    pickSome: ["1"],
    snippets: ["1"],
    exportFile: ["1"],
    importFile: [async function* () {}, { name: "x" }],
  },
};

/** What somebody may give in place of any argument. */
const WRONG: readonly unknown[] = [
  ...[5, Number.NaN, -1, null, true, "nonsense!", "", {}, [], [null], { id: 5 }, { position: "1" }],
  ...[Symbol("x"), () => 5, [{ ...piece, origin: { app: 5 } }], [{ ...piece, origin: null }]],
];

test.each(Object.entries(CALLS))(
  "%s refuses by name, never by an error of its insides, whatever is wrong",
  async (name, right) => {
    for (const [at] of right.entries())
      for (const value of WRONG) {
        const one = drawer();
        await one.collect([piece, { ...readText("a robin"), origin: {} }]);
        await one.deal("all");
        const args = right.map((given, index) => (index === at ? value : given));
        const method = one[name as "collect"] as (...given: unknown[]) => Promise<unknown>;
        const error: unknown = await Promise.resolve()
          .then(() => method.apply(one, args))
          .then(
            () => undefined,
            (thrown: unknown) => thrown,
          );
        if (error !== undefined && !(error instanceof DrawerError))
          throw new Error(`${name}, argument ${at + 1}, ${String(value)}: ${String(error)}`, {
            cause: error,
          });
      }
  },
);
