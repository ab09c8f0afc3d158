import { drawerWith, piece, textsOf } from "../support/pieces";
import { Drawer, MemoryStore, pickOf, type Dealt } from "drawer";

const five = ["one", "two", "three", "four", "five"];
const spring = () => drawerWith(new MemoryStore(), ...five);

test.each([
  ["3", "three"],
  ["2..4", "two three four"],
  ["4..2", "four three two"],
  ["4..", "four five"],
  ["..2", "one two"],
  ["first last", "one five"],
  ["last last-1", "five four"],
  ["last,1", "five one"],
  ["all !3", "one two four five"],
  ["!1 !2..4", "five"],
  ["1 1", "one one"],
  ["text !last", "one two three four"],
  ["from:notes.txt !2..5", "one"],
  ['from:"notes.txt" !2..5', "one"],
  ["table", ""],
])("the pick %s gives %s", async (pick, texts) => {
  const drawer = await spring();
  expect((await drawer.pick(pick)).map(({ entry }) => entry.text).join(" ")).toBe(texts);
});

test.each([
  ["9", "There is no snippet 9: the drawer “spring” holds 5 snippets, 1 to 5."],
  ["2..9", "There is no snippet 9: the drawer “spring” holds 5 snippets, 1 to 5."],
  ["last-5", "There is no snippet last-5: the drawer “spring” holds 5 snippets, 1 to 5."],
  ["three", "“three” is not a pick."],
  ["1...", "“1...” is not a pick."],
  ["..", "“..” is not a pick."],
  ["", "The pick is empty."],
])("the pick “%s” is refused: %s", async (pick, message) => {
  await expect((await spring()).pick(pick)).rejects.toThrow(message);
});

test("a snippet is spoken of by its id wherever it stands, and no other is taken for it when it has left", async () => {
  const drawer = await spring();
  const list = await drawer.list();
  const pick = pickOf([list[3]!, list[0]!, list[2]!]);
  await drawer.discard("2");
  await drawer.move("1", "end");
  expect((await drawer.pick(pick)).map(({ entry }) => entry.text)).toEqual(["four", "one", "three"]);
  expect((await drawer.pick(`all !${pickOf([list[0]!])}`)).map(({ position }) => position)).toEqual([
    1, 2, 3,
  ]);
  await drawer.discard(pickOf([list[2]!]));
  await expect(drawer.discard(pick)).rejects.toThrow("That snippet is not in the drawer “spring” any more.");
  await expect(drawer.move("1", { id: list[2]!.entry.id })).rejects.toThrow("not in the drawer");
  expect(await textsOf(drawer)).toEqual(["four", "five", "one"]);
  await drawer.restore(pickOf([list[1]!]));
  expect((await textsOf(drawer)).sort()).toEqual(["five", "four", "one", "two"]);
});

test("blanks and repeats are skipped, and said; nothing is replaced", async () => {
  const drawer = await drawerWith(new MemoryStore(), "one");
  const { collected, notices } = await drawer.collect([piece(""), piece("one"), piece("two"), piece(" \n ")]);
  expect(collected.map(({ position }) => position)).toEqual([2]);
  expect(notices.map(({ code }) => code).sort()).toEqual(["blank", "blank", "collected", "repeat"]);
  expect(await textsOf(drawer)).toEqual(["one", "two"]);
});

test("moving puts snippets before another, in the order they were picked", async () => {
  const drawer = await spring();
  await drawer.move("5 4", { position: 2 });
  expect(await textsOf(drawer)).toEqual(["one", "five", "four", "two", "three"]);
  const [notice] = await drawer.move("1..2", "end");
  expect(await textsOf(drawer)).toEqual(["four", "two", "three", "one", "five"]);
  expect(notice!.message).toBe("Moved: “one” is now 4; “five” is now 5.");
  await drawer.move("2", { position: 2 });
  expect(await textsOf(drawer)).toEqual(["four", "two", "three", "one", "five"]);
});

test("undo and redo say what they did, and end where there is nothing left", async () => {
  const drawer = await drawerWith(new MemoryStore(), "one");
  await drawer.discard("1");
  expect((await drawer.undo())[0]!.message).toBe("Undone: discarding “one”.");
  expect((await drawer.redo())[0]!.message).toBe("Done again: discarding “one”.");
  await expect(drawer.redo()).rejects.toThrow("There is nothing to do again.");
  await drawer.undo();
  await drawer.undo();
  await expect(drawer.undo()).rejects.toThrow("There is nothing to undo.");
});

test("merging makes one of several where the first stood; splitting makes the same several of it, origins and all", async () => {
  const drawer = await spring();
  const before = await drawer.list();
  const { notices } = await drawer.merge("4 2 3", { as: "bullets" });
  expect(notices[0]!.message).toBe("Merged 4, 2, 3 into 2: “four · two · three”. Split makes them 3 again.");
  expect(await textsOf(drawer)).toEqual(["one", "four · two · three", "five"]);
  await drawer.split({ position: 2 });
  expect(await textsOf(drawer)).toEqual(["one", "four", "two", "three", "five"]);
  const said = [await drawer.undo(), await drawer.redo(), await drawer.undo(), await drawer.undo()].map(
    ([notice]) => notice!.message,
  );
  expect(said).toEqual([
    ...["Undone: splitting “four · two · three”.", "Done again: splitting “four · two · three”."],
    ...["Undone: splitting “four · two · three”.", "Undone: merging “four · two · three”."],
  ]);
  expect(await drawer.list()).toEqual(before);
  await expect(drawer.split({ position: 1 })).rejects.toThrow("Snippet 1 is of one piece");
  await expect(drawer.merge("3")).rejects.toThrow("“3” is one snippet: merging takes two or more.");
});

test("appending adds to the end, a stray collect never takes it away, and splitting gives each piece back", async () => {
  const drawer = await drawerWith(new MemoryStore(), "one", "two");
  await drawer.append(piece("more", "letter.txt"), { position: 1 }, "comma");
  await drawer.append(piece("and more", "page.txt"), { position: 1 });
  await drawer.collect([piece("stray"), piece("")]);
  expect(await textsOf(drawer)).toEqual(["one, more · and more", "two", "stray"]);
  await expect(drawer.append(piece(" "))).rejects.toThrow("Nothing appended: notes.txt is blank.");
  await drawer.split({ position: 1 });
  expect((await drawer.list()).map(({ entry }) => `${entry.text} ${entry.origin.document}`)).toEqual([
    ...["one notes.txt", "more letter.txt", "and more page.txt", "two notes.txt", "stray notes.txt"],
  ]);
});

test("what was merged of merged snippets splits step by step", async () => {
  const drawer = await spring();
  await drawer.merge("1..2");
  await drawer.merge("1..2");
  await drawer.split({ position: 1 });
  expect(await textsOf(drawer)).toEqual(["one · two", "three", "four", "five"]);
  await drawer.split({ position: 1 });
  expect(await textsOf(drawer)).toEqual(five);
});

test("a deal hands out one at a time, in order, whatever is collected or discarded meanwhile", async () => {
  const store = new MemoryStore();
  const drawer = await drawerWith(store, "one", "two", "three");
  await expect(drawer.dealNext()).rejects.toThrow("Nothing is being dealt.");
  await drawer.deal("all");
  const said = async (step: Promise<Dealt | undefined>) => {
    const dealt = await step;
    return dealt && `${dealt.snippet.entry.text} ${dealt.number} of ${dealt.of}`;
  };
  expect([
    await said(drawer.dealNext()),
    await said(drawer.dealNext()),
    await said(drawer.dealBack()),
    await said(drawer.dealNext()),
  ]).toEqual([...["one 1 of 3", "two 2 of 3", "one 1 of 3", "two 2 of 3"]]);
  await drawer.collect([piece("stray")]);
  await drawer.discard("3");
  const later = new Drawer(store, "spring");
  expect(await later.dealStatus()).toEqual({ left: 1, of: 3 });
  expect([await said(later.dealNext()), await said(later.dealNext()), await said(later.dealNext())]).toEqual([
    "three 3 of 3",
    undefined,
    undefined,
  ]);
  await drawer.deal("2 1");
  expect(await drawer.dealSkip()).toEqual({ left: 1, of: 2 });
  expect(await said(drawer.dealPeek())).toBe("one 2 of 2");
  expect(await said(drawer.dealNext())).toBe("one 2 of 2");
  expect(await drawer.dealPeek()).toBeUndefined();
  expect(await drawer.dealReturn()).toEqual({ left: 1, of: 2 });
  expect(await said(drawer.dealNext())).toBe("one 2 of 2");
});

test("recipes are kept with their drawer, by name", async () => {
  const drawer = await drawerWith(new MemoryStore(), "one", "two");
  expect(await drawer.saveRecipe("roundup", { as: "bullets", cite: "notes" })).toBe(false);
  expect(await drawer.saveRecipe("roundup", { as: "numbers" })).toBe(true);
  expect([await drawer.recipes(), await drawer.recipe("roundup")]).toEqual([["roundup"], { as: "numbers" }]);
  await expect(drawer.saveRecipe("two words", {})).rejects.toThrow("a name of one word");
  await drawer.removeRecipe("roundup");
  await expect(drawer.recipe("roundup")).rejects.toThrow(
    "There is no recipe “roundup” in the drawer “spring”. None is kept yet",
  );
});

test("a pick that gives nothing says why", async () => {
  const empty = new Drawer(new MemoryStore(), "spring");
  await expect(empty.snippets("all")).rejects.toThrow(
    "The drawer “spring” is empty. Collect something first.",
  );
  await expect((await spring()).discard("table")).rejects.toThrow(
    "Nothing in the drawer “spring” matches “table”.",
  );
});
