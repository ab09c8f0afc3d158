import { readdirSync } from "node:fs";
import { Drawer, DrawerError, MemoryStore, readText, speak } from "drawer";
import { de } from "drawer/de";
import { drawerErrors } from "../../dist/messages/en/errors/drawer.js";
import * as english from "../../dist/messages/en/page.js";

/** Rooms whose sentences only a command line, a folder on a disk, or a desktop says. */
const NOT_ON_A_PAGE = ["cli", "desktop", "files", "sqlite"];

/** The sentences of rooms: of all but some. */
async function sentences(kind: "Errors" | "Notices", without: readonly string[] = []): Promise<object> {
  const folder = `dist/messages/en/${kind.toLowerCase()}`;
  const rooms = readdirSync(folder).flatMap((file) => /^(\w+)\.js$/.exec(file)?.[1] ?? []);
  const catalogues = await Promise.all(
    rooms
      .filter((room) => !without.includes(room))
      .map(async (room) => {
        const module = (await import(`../../${folder}/${room}.js`)) as Record<string, object>;
        return module[`${room}${kind}`]!;
      }),
  );
  return Object.assign({}, ...catalogues) as object;
}

test("each sentence that a page may say is there in German", async () => {
  const missing = (english: object, german: object) =>
    Object.keys(english).filter((reason) => !(reason in german));
  expect(missing(await sentences("Errors", NOT_ON_A_PAGE), de.errors)).toEqual([]);
  expect(missing(await sentences("Notices", NOT_ON_A_PAGE), de.notices)).toEqual([]);
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
    expect(new DrawerError(drawerErrors, "nothing/undo", {}).message).toBe("Das war schon alles.");
    expect(new DrawerError(drawerErrors, "nothing/redo", {}).message).toBe("Es gibt nichts zu wiederholen.");
  } finally {
    const { many } = await import("../../dist/messages/en/phrases.js");
    speak({ ...english, many, notices: await sentences("Notices"), errors: await sentences("Errors") });
  }
});
