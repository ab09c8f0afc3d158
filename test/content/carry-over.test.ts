import fc from "fast-check";
import { carryOver } from "../../dist/content/carry-over.js";
import { contents } from "../support/contents";
import { Drawer, MemoryStore, readMarkdown, readText, writeMarkdown, type Content, type Flow } from "drawer";

const back = async (flows: Content) => (await readMarkdown(writeMarkdown(flows))).content;
const shownOf = (before: Content) => Promise.all(before.map((flow) => back([flow])));

test("what nobody has touched is as it was, whatever the form has no place for", async () => {
  await fc.assert(
    fc.asyncProperty(contents, async (before) => {
      const shown = await shownOf(before);
      const { content: after, poorer } = carryOver(before, shown, shown.flat());
      expect([after, poorer]).toEqual([before, 0]);
    }),
    { numRuns: 60 },
  );
});

test("a word that is changed changes its flow alone; flows that come, go or move are where they were put", async () => {
  const added: Flow = {
    type: "paragraph",
    runs: [{ type: "text", text: "Seen again at noon, by two of us." }],
  };
  await fc.assert(
    fc.asyncProperty(contents, fc.nat(), async (before, at) => {
      const shown = await shownOf(before);
      const place = at % (before.length + 1);
      const edited = [...shown.slice(0, place).flat(), added, ...shown.slice(place).flat()];
      const { content: longer } = carryOver(before, shown, edited);
      expect(longer.filter((flow) => JSON.stringify(flow) === JSON.stringify(added))).toHaveLength(1);
      expect(longer.filter((flow) => before.includes(flow))).toEqual(before);
      // Taken out: the others stay as they were; what came to nothing in the form cannot be taken out in it.
      if (before.length === 0) return;
      const gone = at % before.length;
      const rest = before.filter((_, index) => index !== gone);
      const { content: shorter } = carryOver(
        before,
        shown,
        shown.filter((_, index) => index !== gone).flat(),
      );
      expect(shorter.filter((flow) => before.includes(flow)).length).toBeGreaterThanOrEqual(rest.length);
      expect(JSON.stringify(await Promise.all(shorter.map((flow) => back([flow]))))).toContain(
        JSON.stringify(await Promise.all(rest.map((flow) => back([flow])))).slice(1, -1),
      );
    }),
    { numRuns: 60 },
  );
});

test("other words are one act: undone and done again; refused when somebody else came between, nothing is left, or they are a secret", async () => {
  const drawer = new Drawer(new MemoryStore());
  await drawer.collect(
    ["Hihg water", "Wren"].map((text) => ({ ...readText(text), origin: { document: "diary.txt" } })),
  );
  await drawer.label("1", "Tide");
  const [{ entry }] = (await drawer.snippets("1")) as [Awaited<ReturnType<typeof drawer.snippets>>[number]];
  const { notices } = await drawer.rewrite({ id: entry.id }, readText("High water"), entry.content);
  expect(notices.map(({ message }) => message)).toEqual(["Snippet 1 says now: “Tide”."]);
  const said = async () =>
    (await drawer.list()).map(({ entry: { text, label, origin } }) => [text, label, origin.document]);
  expect(await said()).toEqual([
    ["High water", "Tide", "diary.txt"],
    ["Wren", undefined, "diary.txt"],
  ]);
  expect(await drawer.find("high")).toHaveLength(1);
  await expect(drawer.rewrite({ id: entry.id }, readText("Low"), entry.content)).rejects.toThrow(
    "changed elsewhere",
  );
  await expect(drawer.rewrite({ position: 1 }, readText(" \n"))).rejects.toThrow("nothing was left of it");
  await expect(drawer.rewrite({ position: 1 }, readText("4111 1111 1111 1111"))).rejects.toThrow(
    "look like a card number",
  );
  await drawer.undo();
  expect((await said())[0]![0]).toBe("Hihg water");
  await drawer.redo();
  expect((await said())[0]![0]).toBe("High water");
  expect((await drawer.rewrite({ position: 1 }, readText("High water"))).notices[0]!.code).toBe("rewritten");
  // What is private stays so, and is nowhere said.
  await drawer.hide("2");
  const told = await drawer.rewrite({ position: 2 }, readText("Wryneck at the hut"));
  expect(JSON.stringify([told.notices, await drawer.list(), await drawer.actions(9)])).not.toContain(
    "Wryneck",
  );
  expect(await drawer.find("wryneck")).toHaveLength(0);
  expect((await drawer.snippets("2"))[0]!.content).toEqual(readText("Wryneck at the hut").content);
  // A merged one can still be split into what it was.
  await drawer.unhide("2");
  await drawer.merge("all");
  await drawer.rewrite({ position: 1 }, readText("One"));
  await drawer.split({ position: 1 });
  expect((await said()).map(([text]) => text)).toEqual(["High water", "Wryneck at the hut"]);
});
