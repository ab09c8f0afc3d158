import { later } from "../support/clock";
import { drawerWith, piece, textsOf } from "../support/pieces";
import { DEFAULT_RULES, Drawer, MemoryStore, parseRule, describeRules, type Rules } from "drawer";

const DAY = 24 * 60 * 60 * 1000;
const spring = async (rules: Partial<Rules>, ...texts: string[]) => {
  const drawer = new Drawer(new MemoryStore(), "spring");
  await drawer.setRules(rules);
  await drawer.collect(texts.map((text) => piece(text)));
  return drawer;
};
const said = async (notices: Promise<readonly { message: string }[]>) =>
  (await notices).map(({ message }) => message);
const png = new Uint8Array(
  Buffer.from(
    "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==",
    "base64",
  ),
);

test("the usual rules are those of the design, and each says what it means", async () => {
  const rules = describeRules(await new Drawer(new MemoryStore()).rules());
  expect(rules.map(({ name, value }) => `${name}=${value}`)).toEqual([
    ...["collecting=on", "blanks=skip", "repeats=skip", "snippets=1000", "size=256 MB", "text-age=30 days"],
    ...["picture-age=7 days", "detect=on", "private-age=2 minutes", "gone-age=7 days", "never-from=none"],
  ]);
  for (const { sentence } of rules) expect(sentence).toMatch(/^[A-Z].*[a-zB]\.$/);
});

test.each([
  ["snippets=500", { snippets: 500 }],
  ["snippets=1,000,000", { snippets: 1_000_000 }],
  ["snippets=any", { snippets: null }],
  ["size=1.5 GB", { size: 1.5 * 2 ** 30 }],
  ["text-age=12 hours", { textAge: DAY / 2 }],
  ["private-age=1.5 seconds", { privateAge: 1500 }],
  ["picture-age=never", { pictureAge: null }],
  ["repeats=move", { repeats: "move" }],
  ["detect=OFF", { detect: false }],
])("the rule %s is read", (typed, rules) => {
  expect(parseRule(typed)).toEqual(rules);
  const [[key]] = Object.entries(rules) as [[keyof Rules, unknown]];
  const { name, value } = describeRules({ ...DEFAULT_RULES, ...(rules as Partial<Rules>) }).find(
    (one) => one.key === key,
  )!;
  expect(parseRule(`${name}=${value}`)).toEqual(rules);
});

test.each([
  ["colour=red", "There is no rule “colour”. The rules are: collecting, blanks,"],
  [
    "snippets=lots",
    "“lots” is nothing that snippets can be. Write snippets= and a number such as 1000, or any.",
  ],
  ["snippets=0", "“0” is nothing that snippets can be."],
  ["snippets=1.000", "“1.000” can be read as 1 or as 1000. Write 1 or 1000."],
  ["snippets=2,500", "“2,500” can be read as 2 or as 2500."],
  ["text-age=3", "Write text-age= and a time such as “2 minutes”"],
  ["repeats", "Say what repeats shall be. Write repeats= and skip, allow, move."],
])("the rule %s is refused: %s", (typed, message) => expect(() => parseRule(typed)).toThrow(message));

test.each<[Partial<Rules>, string]>([
  [
    { snippets: NaN },
    "“NaN” is nothing that the rule “snippets” can be. It can be a whole number above 0, or null",
  ],
  [{ textAge: -1 }, "“-1” is nothing that the rule “textAge” can be."],
  [{ repeats: "often" } as unknown as Partial<Rules>, 'It can be "skip", "allow", "move".'],
  [{ colour: 1 } as unknown as Partial<Rules>, "There is no rule “colour”."],
])("the library's rule %j is refused: %s", async (rules, message) => {
  const drawer = await spring({}, "one");
  await expect(drawer.setRules(rules)).rejects.toThrow(message);
  expect(await drawer.count()).toBe(1);
});

test("what would leave by a change of rules is told before", async () => {
  const drawer = await spring({}, "one", "two", "three");
  const leaving = async (rules: Partial<Rules>) => (await drawer.wouldLeave(rules)).map(({ text }) => text);
  expect([await leaving({ snippets: 1 }), await leaving({ textAge: 60_000 })]).toEqual([["one", "two"], []]);
  later(DAY);
  expect([await leaving({ textAge: 60_000 }), await drawer.count()]).toEqual([["one", "two", "three"], 3]);
});

test("each change of a rule answers in a sentence, and undo takes it back", async () => {
  const drawer = await spring({});
  expect(await said(drawer.setRules({ snippets: 500, repeats: "move" }))).toEqual([
    "A piece that is there already becomes the latest (it was skip).",
    "There are at most 500 snippets (it was 1000).",
  ]);
  expect(await said(drawer.setRules({ snippets: 500 }))).toEqual([
    "There are at most 500 snippets (as it was).",
  ]);
  expect(await said(drawer.undo())).toEqual(["Undone: changing the rule “repeats”, “snippets”."]);
  expect(await drawer.rules()).toMatchObject({ snippets: 1000, repeats: "skip" });
});

test("while collecting is paused nothing is collected, and that is said; other drawers go on", async () => {
  const drawer = await spring({}, "one");
  expect(await said(drawer.setRules({ collecting: false }))).toEqual([
    "Collecting is off: nothing is collected until it is resumed.",
  ]);
  await expect(drawer.collect([piece("two")])).rejects.toThrow(
    "Nothing was collected: collecting is paused in the drawer “spring”.",
  );
  await expect(drawer.append(piece("two"))).rejects.toThrow("paused");
  await new Drawer(drawer.store, "autumn").collect([piece("two")]);
  await drawer.setRules({ collecting: true });
  await drawer.collect([piece("three")]);
  expect(await textsOf(drawer)).toEqual(["one", "three"]);
});

test("past the limit the oldest that is not kept goes, by name; undo brings it back, and so does restore", async () => {
  const drawer = await spring({ snippets: 10 }, ...Array.from({ length: 8 }, (_, n) => `piece ${n + 1}`));
  await drawer.keep("1");
  await drawer.move("2", "end");
  const nine = await drawer.collect([piece("nine")]);
  expect(nine.notices.map(({ code }) => code)).toEqual(["collected", "nearly-full"]);
  expect(nine.notices[1]!.message).toBe(
    "Nearly full: 9 of at most 10 snippets. When it is full, the oldest that is not kept goes.",
  );
  const three = await drawer.collect([piece("ten"), piece("eleven"), piece("twelve")]);
  expect(three.collected.map(({ position }) => position)).toEqual([8, 9, 10]);
  expect(three.notices.at(-1)).toMatchObject({
    code: "made-room",
    message:
      "Made room: “piece 2”, “piece 3” left, the oldest here that were not kept. Undo brings them back.",
  });
  expect((await drawer.gone()).map(({ position, entry, by }) => [position, entry.text, by])).toEqual([
    [1, "piece 2", "collect"],
    [2, "piece 3", "collect"],
  ]);
  await drawer.undo();
  expect([await textsOf(drawer), await drawer.gone()]).toEqual([
    ["piece 1", "piece 3", "piece 4", "piece 5", "piece 6", "piece 7", "piece 8", "piece 2", "nine"],
    expect.arrayContaining([expect.objectContaining({ by: "undo" })]),
  ]);
  await drawer.redo();
  expect(await said(drawer.restore("/3/"))).toEqual([
    "Brought back, as 10: “piece 3”.",
    "Made room: “piece 4” left, the oldest here that was not kept. Undo brings it back.",
  ]);
  await expect(drawer.restore("9")).rejects.toThrow(
    "There is no snippet 9: what has left the drawer “spring” holds",
  );
});

test("what no limit can hold is refused whole, and nothing leaves for it", async () => {
  const drawer = await spring({ snippets: 3 }, "one", "two");
  await expect(drawer.collect(["a", "b", "c", "d"].map((text) => piece(text)))).rejects.toThrow(
    "Nothing was put in: the drawer “spring” takes at most 3 snippets and 256 MB, and 4 pieces at once are more than it takes.",
  );
  await drawer.keep("all");
  await drawer.collect([piece("three")]);
  await drawer.keep("all");
  await expect(drawer.collect([piece("four")])).rejects.toThrow(
    "there is no room, even without all that is not kept",
  );
  expect(await textsOf(drawer)).toEqual(["one", "two", "three"]);
  await drawer.setRules({ snippets: null, size: 2048 });
  await expect(drawer.collect([piece("x".repeat(3000))])).rejects.toThrow("2 KB");
});

test("a limit that is lowered makes room at once, and undo takes back both", async () => {
  const drawer = await spring({}, "one", "two", "three");
  const notices = await drawer.setRules({ snippets: 1 });
  expect(notices.map(({ code }) => code)).toEqual(["rule", "made-room"]);
  expect(await textsOf(drawer)).toEqual(["three"]);
  await drawer.undo();
  expect([await textsOf(drawer), (await drawer.rules()).snippets]).toEqual([["one", "two", "three"], 1000]);
});

test("blanks and repeats may be allowed, and a repeat may become the latest", async () => {
  const drawer = await spring({ blanks: "allow", repeats: "allow" }, "one", "one", " ");
  expect(await textsOf(drawer)).toEqual(["one", "one", ""]);
  const moving = await spring({ repeats: "move" }, "one", "two", "three");
  const { collected, notices } = await moving.collect([
    piece("one"),
    piece("four"),
    piece("two"),
    piece("four"),
  ]);
  expect(await textsOf(moving)).toEqual(["three", "one", "two", "four"]);
  expect(collected.map(({ position, entry }) => `${position} ${entry.text}`)).toEqual([
    "2 one",
    "3 two",
    "4 four",
  ]);
  expect(notices[0]!.message).toBe("“one” was here already, and is the latest now, as 2.");
  await moving.undo();
  expect(await textsOf(moving)).toEqual(["one", "two", "three"]);
});

test("text goes after its days, pictures after theirs, kept ones never; what comes back is young again", async () => {
  const { readPicture } = await import("drawer");
  const drawer = await spring({}, "old", "kept");
  await drawer.collect([{ ...readPicture(png, "sketch"), origin: {} }]);
  await drawer.keep("2");
  later(8 * DAY);
  await drawer.collect([piece("young")]);
  expect(await said(drawer.applyRetention())).toEqual([
    "Let go by age (pictures after 7 days): “sketch”. Undo brings it back for 7 days.",
  ]);
  expect(await textsOf(drawer)).toEqual(["old", "kept", "young"]);
  await drawer.undo();
  expect([await drawer.applyRetention(), await textsOf(drawer)]).toEqual([
    [],
    ["old", "kept", "sketch", "young"],
  ]);
  later(31 * DAY);
  expect(await said(drawer.applyRetention())).toEqual([
    "Let go by age (text after 30 days, pictures after 7 days): “old”, “sketch”. Undo brings them back for 7 days.",
  ]);
  expect((await drawer.gone()).map(({ by }) => by)).toEqual(["age", "age"]);
});

test("what left can be brought back for seven days, and is then forgotten, with a notice", async () => {
  const drawer = await drawerWith(new MemoryStore(), "one", "two");
  await drawer.applyRetention();
  await drawer.discard("1");
  later(6 * DAY);
  await drawer.applyRetention();
  expect((await drawer.gone()).length).toBe(1);
  later(8 * DAY);
  expect(await drawer.gone()).toEqual([]);
  expect(await said(drawer.applyRetention())).toEqual([
    "Forgot for good one snippet that had left more than 7 days ago.",
  ]);
  expect([await textsOf(drawer), await drawer.store.gone("spring")]).toEqual([["two"], []]);
});

test("emptying leaves what is kept, can be undone, and for good cannot", async () => {
  const drawer = await spring({}, "one", "two", "three");
  await drawer.keep("2");
  expect(await said(drawer.empty())).toEqual([
    "Emptied the drawer “spring” of 2 snippets. The one that is kept stays. Undo brings them back.",
  ]);
  await drawer.undo();
  expect(await textsOf(drawer)).toEqual(["one", "two", "three"]);
  expect(await said(drawer.emptyForGood())).toEqual([
    "Forgot for good: 2 snippets, with what had left and the log of the drawer “spring”. The one that is kept stays. Nothing brings it back.",
  ]);
  expect([await textsOf(drawer), await drawer.gone()]).toEqual([["two"], []]);
});

test("snippets move and are copied between drawers, each by its own rules, and undo takes it back where it was done", async () => {
  const drawer = await spring({}, "one", "two", "three");
  const letters = new Drawer(drawer.store, "letters");
  await letters.setRules({ snippets: 2 });
  await letters.collect([piece("dear all")]);
  expect((await drawer.moveInto("letters", "3 1")).map(({ code }) => code)).toEqual(["moved", "made-room"]);
  expect([await textsOf(drawer), await textsOf(letters)]).toEqual([["two"], ["three", "one"]]);
  await letters.label("1", "third");
  await expect(drawer.undo()).rejects.toThrow(
    "It has been changed since in the drawer “letters”; undo that first.",
  );
  await letters.undo();
  await drawer.undo();
  expect([await textsOf(drawer), await textsOf(letters)]).toEqual([["one", "two", "three"], ["dear all"]]);
  await drawer.copyInto("letters", "2");
  expect([await textsOf(drawer), await textsOf(letters)]).toEqual([
    ["one", "two", "three"],
    ["dear all", "two"],
  ]);
  await expect(drawer.moveInto("spring", "1")).rejects.toThrow("They are in the drawer “spring” already.");
  expect((await drawer.store.drawers()).map((one) => [one.drawer, one.count])).toEqual([
    ["letters", 2],
    ["spring", 3],
  ]);
});

test("labelling, keeping and releasing say what they did, many steps back", async () => {
  const drawer = await spring({}, "one", "two", "three");
  expect(await said(drawer.label("1..2", " Ring  counts "))).toEqual([
    "Labelled 2 snippets as “Ring counts”.",
  ]);
  expect(await said(drawer.keep("1 3"))).toEqual([
    "Kept 2 snippets: neither limits nor age nor emptying takes it out.",
  ]);
  expect(await said(drawer.keep("1"))).toEqual(["1, “Ring counts” (notes.txt) was kept already."]);
  expect((await drawer.pick("kept")).map(({ position }) => position)).toEqual([1, 3]);
  await drawer.release("3");
  const undone = [];
  for (let step = 0; step < 4; step++) undone.push(...(await said(drawer.undo())));
  expect(undone).toEqual([
    "Undone: releasing “three”.",
    "Undone: keeping “Ring counts”, “three”.",
    "Undone: labelling “Ring counts”, “Ring counts”.",
    "Undone: collecting “one”, “two”, “three”.",
  ]);
});

test("an act on a thousand and more snippets is one act", async () => {
  const drawer = await spring({ snippets: null }, ...Array.from({ length: 2500 }, (_, n) => `piece ${n}`));
  await drawer.empty();
  expect(await said(drawer.undo())).toEqual([
    "Undone: emptying the drawer of “piece 0”, “piece 1” and 2,498 more.",
  ]);
  expect(await drawer.count()).toBe(2500);
  expect(await said(drawer.redo())).toEqual([
    "Done again: emptying the drawer of “piece 0”, “piece 1” and 2,498 more.",
  ]);
  await drawer.undo();
  expect(await said(drawer.undo())).toEqual(["Undone: collecting “piece 0”, “piece 1” and 2,498 more."]);
  expect(await drawer.count()).toBe(0);
});
