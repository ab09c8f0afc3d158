import { Drawer, DrawerError, MemoryStore, readText, speak } from "drawer";
import { de } from "drawer/de";
import * as english from "../../dist/messages/en/page.js";
import { errors } from "../../dist/messages/en/errors.js";
import { notices } from "../../dist/messages/en/notices.js";

/** What only a command line, a folder on a disk, or a desktop meets. */
const NOT_ON_A_PAGE =
  /^(?:no-file|no-spot|bad-spot|store\/(?:open|link|newer|read-only|write)|damaged|no-clipboard|no-notifications|no-windows?|nothing\/selected$|not-pasted|bad-key|key-taken|exists|not-written|unreadable\/keys|waits\/writer|closed|read-only|recovered|trace\/(?:log|damaged)|dealing\/(?:clipboard|by-hand|offered)|placed(?:\/window|\/clipboard)?$|key\/)/;

test("each sentence that a page may say is there in German", () => {
  const missing = (english: object, german: object) =>
    Object.keys(english).filter((reason) => !(reason in german) && !NOT_ON_A_PAGE.test(reason));
  expect(missing(errors, de.errors)).toEqual([]);
  expect(missing(notices, de.notices)).toEqual([]);
});

test("the sentences of the elements say in German what they say in English, of the same data", () => {
  /** What stands in a sentence whatever the language: its data. */
  const DATA = {
    position: 3,
    turn: 2,
    count: 1234,
    most: 100,
    words: "tern",
    left: 1,
    of: 4,
    next: "wren",
    action: "A",
  };
  const heard: [string, string][] = [];
  const walk = (one: unknown, other: unknown, path: string): void => {
    if (typeof one === "function" && /^\(\{/.test(String(one))) {
      const say = (sentence: unknown) => (sentence as (data: typeof DATA) => string)(DATA);
      heard.push([say(one), say(other)]);
      for (const number of say(one).match(/\d+/g) ?? [])
        expect([path, say(other)]).toEqual([path, expect.stringContaining(number)]);
    } else if (typeof one === "string") heard.push([one, other as string]);
    else if (typeof one === "object") {
      expect([path, Object.keys(other as object).sort()]).toEqual([path, Object.keys(one!).sort()]);
      for (const [name, part] of Object.entries(one!))
        walk(part, (other as Record<string, unknown>)[name], `${path}.${name}`);
    }
  };
  walk(
    { ...english },
    Object.fromEntries(Object.keys(english).map((name) => [name, de[name as keyof typeof de]])),
    "",
  );
  expect(heard.length).toBeGreaterThan(100);
  expect(heard.filter(([one, other]) => one === other).map(([one]) => one)).toEqual([
    ...["↓ ↑", "← →", "P", "K", "C", "L", "Alt ↓, Alt ↑", "in"],
  ]);
});

test("what a drawer tells and refuses is said in the language that is spoken, and some words may be a page's own", async () => {
  speak(de);
  try {
    const drawer = new Drawer(new MemoryStore());
    const piece = { ...readText("First wheatear on the seawall"), origin: { document: "diary.docx" } };
    const { notices: told } = await drawer.collect([piece]);
    expect(told[0]!.message).toBe("Eingesammelt als 1: „First wheatear on the seawall“ (diary.docx).");
    await drawer.label("1", "Beginn");
    const [undone] = await drawer.undo();
    expect(undone!.message).toBe("Rückgängig gemacht: Benennen von „Beginn“.");
    await expect(drawer.snippets("7")).rejects.toThrow(
      "Es gibt kein Stück 7: in der Lade „main“ ist eines, 1.",
    );
    speak({ errors: { "nothing/undo": () => "Das war schon alles." } });
    expect(new DrawerError("nothing/undo", {}).message).toBe("Das war schon alles.");
    expect(new DrawerError("nothing/redo", {}).message).toBe("Es gibt nichts zu wiederholen.");
  } finally {
    const { many } = await import("../../dist/messages/en/phrases.js");
    speak({ ...english, many, notices, errors });
  }
});
