import { readdirSync } from "node:fs";
import { actErrors } from "../../dist/messages/en/acts.js";
import * as composer from "../../dist/messages/en/composer.js";
import * as element from "../../dist/messages/en/element.js";
import * as panels from "../../dist/messages/en/panels.js";
import { Drawer, DrawerError, MemoryStore, readText, setLanguage } from "drawer";
import { de } from "drawer/de";

const english = { ...element, ...composer, ...panels };

/** Files of English sentences that have no German beside them yet: what only a command line and the window say. */
const ENGLISH_ONLY = ["cli-answers.ts", "cli-help.ts", "files.ts", "hub.ts", "rules.ts"];
/** Catalogues of which only some sentences are ever said on a page. */
const PARTIAL = [
  "cliErrors",
  "cliNotices",
  "desktopErrors",
  "filesErrors",
  "sqliteErrors",
  "sqliteNotices",
  "postgresErrors",
  "postgresNotices",
];

/** All catalogues of a kind, or all but some. */
async function sentences(kind: "Errors" | "Notices", without: readonly string[] = []): Promise<object> {
  const modules = await Promise.all(
    readdirSync("dist/messages/en")
      .filter((file) => file.endsWith(".js"))
      .map(async (file) => (await import(`../../dist/messages/en/${file}`)) as Record<string, object>),
  );
  const catalogues = modules
    .flatMap((module) => Object.entries(module))
    .filter(([name]) => name.endsWith(kind) && !without.includes(name));
  return Object.assign({}, ...catalogues.map(([, catalogue]) => catalogue)) as object;
}

test("German has the files of English, one for one, but for those that are still to come", () => {
  const english = readdirSync("src/messages/en").filter((file) => !ENGLISH_ONLY.includes(file));
  const german = readdirSync("src/messages/de").filter((file) => file !== "index.ts");
  expect(german.sort()).toEqual(english.sort());
});

test("each sentence that a page may say is there in German", async () => {
  const missing = (english: object, german: object) =>
    Object.keys(english).filter((reason) => !(reason in german));
  expect(missing(await sentences("Errors", PARTIAL), de.errors)).toEqual([]);
  expect(missing(await sentences("Notices", PARTIAL), de.notices)).toEqual([]);
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
    english,
    Object.fromEntries(Object.keys(english).map((name) => [name, de[name as keyof typeof de]])),
    "",
  );
  expect(heard.length).toBeGreaterThan(100);
  expect(heard.filter(([one, other]) => one === other).map(([one]) => one)).toEqual([
    ...["in", "↓ ↑", "← →", "P", "S", "E", "K", "C", "L", "A", "Alt ↓, Alt ↑"],
  ]);
});

test("what a drawer tells and refuses is said in the language that is spoken, and some words may be a page's own", async () => {
  setLanguage(de);
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
    setLanguage({ errors: { "nothing/undo": () => "Das war schon alles." } });
    expect(new DrawerError(actErrors, "nothing/undo", {}).message).toBe("Das war schon alles.");
    expect(new DrawerError(actErrors, "nothing/redo", {}).message).toBe("Es gibt nichts zu wiederholen.");
  } finally {
    const { many } = await import("../../dist/messages/en/phrases.js");
    setLanguage({ ...english, many, notices: await sentences("Notices"), errors: await sentences("Errors") });
  }
});
