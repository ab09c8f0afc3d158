import { readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { commandHome } from "../support/command";

const { folder, drawer, all, snippets, fresh, home } = commandHome();
beforeEach(fresh);

const collect = async (...texts: string[]) => {
  for (const text of texts) await drawer(["collect"], text);
};
/** Collects many at once, each from a file of its own. */
const collectMany = async (texts: readonly string[]) => {
  const files = texts.map((text, n) => {
    const file = join(folder, `${n}.txt`);
    writeFileSync(file, text);
    return file;
  });
  await all(`collect ${files.join(" ")}`);
};
const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));

/** The files of the home in which any of these words stand, in UTF-8 or UTF-16, however they are folded. */
function traces(...words: string[]): string[] {
  const forms = words
    .flatMap((word) => [word, word.toLowerCase()])
    .flatMap((word) => [Buffer.from(word), Buffer.from(word, "utf16le")]);
  const files = (readdirSync(home(), { recursive: true }) as string[]).map((name) => join(home(), name));
  return files.filter(
    (file) => statSync(file).isFile() && forms.some((form) => readFileSync(file).includes(form)),
  );
}

test("finds words and shows them in context, by kind and document, the newest first", async () => {
  await all("collect demo/diary.docx --at p3 --at t1", "collect demo/letter.html");
  await collect("Réti saw the wheatear go");
  expect(await all("list --find reti")).toBe(
    "4  text  Réti saw the wheatear go\n1 snippet in the drawer “main” with “reti”, the newest first.\n",
  );
  const positions = async (line: string) => (await snippets(line)).map((one) => one.position);
  expect(await positions("list --find wheatear")).toEqual([4, 3, 1]);
  expect(await positions("list --find wheatear --from diary.docx")).toEqual([1]);
  expect(await positions("list --find chiff --kind table")).toEqual([2]);
  expect(await positions("list --from letter.html")).toEqual([3]);
  expect(await all("list --find zebra")).toBe("Nothing in the drawer “main” holds “zebra”.\n");
  expect(await all("place /wheatear/ --as lines --between newline")).toMatch(/^First wheatear.*\nRéti/s);
});

test("lists what has left, how and when, and brings it back by its number", async () => {
  await collect("one", "two", "three");
  await all("keep 3", "discard 1", "empty");
  const gone = await all("list --gone");
  expect(gone).toMatch(
    /^1 {2}text {2}one +discarded \d{4}-.*\n2 {2}text {2}two +emptied .*\n2 snippets have left the drawer “main”\./,
  );
  expect(await all("restore 2")).toBe("Brought back, as 2: “two”.\n");
  expect(await all("list --limit all")).toMatch(/^1 {2}text {2}kept {2}three\n2 {2}text {8}two\n/);
  expect((await drawer(["restore", "7"])).err).toMatch(
    /^drawer: There is no snippet 7: what has left the drawer “main” holds one snippet/,
  );
});

test("shows its rules, changes them in words, and says in every list when collecting is paused", async () => {
  expect(await all("rules")).toMatch(/^collecting +on .*\n(.*\n){10}Rules of the drawer “main”/);
  expect(await all("rules snippets=2 private-age=never")).toBe(
    "There are at most 2 snippets (it was 1000).\nSecrets stay until they are discarded (it was 2 minutes).\n",
  );
  await collect("one", "two");
  expect((await drawer(["collect"], "three")).out).toMatch(/\nMade room: “one” left/);
  expect(await all("rules")).toMatch(/^snippets +2 .*\(usually 1000\)$/m);
  await all("pause");
  for (const list of ["list", "list --gone", "list --find two"])
    expect(await all(list)).toMatch(/ Collecting is paused; “drawer resume” turns it on\.\n$/);
  expect(await drawer(["collect"], "four")).toMatchObject({
    code: 1,
    out: "",
    err: "drawer: Nothing was collected: collecting is paused in the drawer “main”. Resume it first. “drawer resume” does that.\n",
  });
  expect(await all("resume")).toBe("Collecting is on.\n");
  expect(await drawer(["rules", "snippets=few"])).toMatchObject({ code: 2, out: "" });
  expect(await all("list --limit 1")).toMatch(
    /^2 {2}text {2}three\n1 of 2 snippets in the drawer “main”. “--limit all” lists all.\n$/,
  );
});

test("undoes and redoes whatever was done, many steps, and the log tells it", async () => {
  await collect("one", "two");
  await all(
    "label 1 first",
    "keep 2",
    "merge 1..2",
    "rules snippets=5",
    "recipe save r --as bullets",
    "discard 1",
  );
  const undone = [];
  for (let step = 0; step < 8; step++) undone.push(await all("undo"));
  expect(undone.join("")).toBe(
    [
      ...[
        "Undone: discarding “one · two”.",
        "Undone: changing the recipe “r”.",
        "Undone: changing the rule “snippets”.",
      ],
      ...[
        "Undone: merging “one · two”.",
        "Undone: keeping “two”.",
        "Undone: labelling “first”.",
        "Undone: collecting “two”.",
        "Undone: collecting “one”.",
      ],
      "",
    ].join("\n"),
  );
  expect((await drawer(["undo"])).err).toBe("drawer: There is nothing to undo.\n");
  for (let step = 0; step < 8; step++) await all("redo");
  expect(await all("list --gone")).toMatch(/^1 {2}text {2}kept {2}one · two +discarded/);
  const { log } = JSON.parse(await all("log --json --limit 99")) as { log: { operation: string }[] };
  expect(log.map(({ operation }) => operation)).toEqual([
    ...Array(8).fill("redo"),
    ...Array(8).fill("undo"),
    "discard",
    "recipe",
    "rule",
    "merge",
    "keep",
    "label",
    "collect",
    "collect",
  ]);
  expect(await all("log --limit 1")).toMatch(
    /^\d{4}-\d\d-\d\d \d\d:\d\d {2}doing again: discarding “one · two”\n$/,
  );
});

test("drawers are listed, and snippets move and are copied between them", async () => {
  await collect("one", "two");
  await all("move 2 --into letters", "move 1 --into letters --as-copy", "pause --drawer letters");
  expect(await all("drawers")).toBe(
    "letters       2 snippets  1 KB  paused\nmain          1 snippet   1 KB\n",
  );
  expect(await all("list --drawer letters")).toMatch(/^1 {2}text {2}two\n2 {2}text {2}one\n/);
  await all("undo", "undo");
  expect(await all("list")).toMatch(/^1 {2}text {2}one\n2 {2}text {2}two\n/);
});

test("a private snippet is masked everywhere, revealed on demand, and leaves no byte when its time is over", async () => {
  await collect("the tide table");
  const secret = "swordfish seven Áron";
  const answer = await drawer(["collect", "--private", "--label", "Hut"], secret);
  expect(answer.out).toBe(
    "Collected as 2, private: it is shown nowhere, and stays until you say. If that is wrong, take the privacy off (hide --not in a command).\n",
  );
  expect((await drawer(["collect"], "Card 4111 1111 1111 1111")).out).toMatch(
    /^Collected as 3, private: it looks like a card number/,
  );
  const shown = await all(
    "list",
    "list --json",
    "show all",
    "log",
    "list --find swordfish",
    "discard 3",
    "list --gone",
    "undo",
  );
  expect(shown + (await all("show all --json"))).not.toMatch(/swordfish|4111/);
  expect(await all("show 2 --reveal")).toMatch(/^2 {2}text, Hut, private, .*\n\nswordfish seven Áron\n$/);
  expect(await all("place 2")).toBe(`${secret}\n`);
  expect(await all(`export ${join(folder, "open.jsonl")}`)).toBe(
    "Exported one snippet of the drawer “main”.\n2 private snippets were left out.\n",
  );
  expect(traces("swordfish")).not.toEqual([]);
  // What a person made private stays; when it is to go is said.
  await all("hide 2 --not", "rules private-age=1s", "hide 2 --for 1s");
  await wait(1100);

  const { err, out } = await drawer(["list", "--drawer", "letters"]);
  expect([err, out]).toEqual([
    "A private snippet is gone for good in the drawer “main”, as its time is over.\n",
    "The drawer “letters” is empty.\n",
  ]);
  expect(traces("swordfish", "Áron", "Aron", "4111 1111", "seven")).toEqual([]);
  expect(await all("list")).toMatch(/^1 {2}text {2}the tide table\n1 snippet /);
});

test("what was found and then hidden leaves no byte either", async () => {
  await collectMany([...Array.from({ length: 70 }, (_, n) => `filler ${n}`), "the swordfish hides"]);
  await all(
    "append demo/notes.md --to 71",
    "list --find swordfish",
    "move 71 --before 1",
    "label 1 sword",
    "label 1 --remove",
    "hide 1 --for 1s",
  );
  await wait(1100);
  await all("list");
  expect(traces("swordfish", "sword", "ordfis")).toEqual([]);
  expect(await all("list --find 69")).toMatch(/^70 {2}text {2}filler 69 /);
});

test("emptied for good, nothing stays: not in the database, its log, its index, or beside it", async () => {
  await collectMany([
    ...Array.from({ length: 70 }, (_, n) => `swordfish ${n} ${"by the long groyne ".repeat(n * 5)}`),
    "kept tern",
  ]);
  await all(
    "keep last",
    "discard 1..5",
    "merge 6 7",
    "deal 1..9",
    "next",
    "list --find groyne",
    "label 3 swordfishery",
    "undo",
    "empty",
    "undo",
    "place all --to " + join(folder, "placed.txt"),
  );
  await collect("the other swordfish");
  expect(traces("swordfish")).not.toEqual([]);
  expect(await all("empty --for-good")).toMatch(
    /^Forgot for good: 70 snippets, with what had left and the log of the drawer “main”. The one that is kept stays./,
  );
  expect(traces("swordfish", "groyne", "ordfis", "swordfishery")).toEqual([]);
  expect(await all("list")).toMatch(/^1 {2}text {2}kept {2}kept tern /);
  expect([(await drawer(["undo"])).code, await all("log")]).toEqual([
    1,
    "Nothing was done in the drawer “main” that is still known.\n",
  ]);
});

test("exports into a drawer file and imports it whole, or refuses it with a reason", async () => {
  const file = join(folder, "spring.jsonl");
  await all(
    "collect demo/diary.docx --at p3 --at t1",
    "collect demo/sketches/wheatear.png",
    "label 1 First",
    "keep 2",
    "merge 1 3",
  );
  expect(await all(`export ${file}`)).toBe("Exported 2 snippets of the drawer “main”.\n");
  expect((await drawer(["export", file])).err).toMatch(/is there already and was left as it is/);
  expect(await all(`import ${file} --drawer second`)).toBe(
    "Imported 2 snippets from “spring.jsonl” into the drawer “second”.\n",
  );
  for (const command of ["place all --out html", "place all --out markdown"])
    expect(await all(`${command} --drawer second`)).toBe(await all(command));
  expect(await all("split 1 --drawer second")).toMatch(
    /^Split into 2: 1, “First” \(diary.docx, p3\); 2, “wheatear” \(wheatear.png\)/,
  );
  expect(await all("undo --drawer second", `import ${file} --drawer second`)).toMatch(
    /^Imported 0 snippets .*\n2 were there already and were left out.\n$/,
  );
  const [header, ...lines] = readFileSync(file, "utf8").trimEnd().split("\n");
  const refused = async (text: string) => {
    writeFileSync(join(folder, "bad.jsonl"), text);
    const { code, err } = await drawer(["import", join(folder, "bad.jsonl"), "--drawer", "third"]);
    return `${code} ${err.trim()}`;
  };
  expect([
    await refused([header!.replace('"version":1', '"version":2'), ...lines].join("\n")),
    await refused([header, lines[0]].join("\n")),
    await refused([header, lines[0], '{"content":[]}'].join("\n")),
    await refused([header, lines[0]!.replace("paragraph", "script"), lines[1]].join("\n")),
    await refused([header, lines[0], "half a li"].join("\n")),
    await refused(
      [header, ...lines.map((line) => line.replace(/("[0-9a-f]{64}":")..../, "$1AAAA"))].join("\n"),
    ),
    await refused("words"),
    await refused("{}"),
    await refused(""),
  ]).toEqual([
    "1 drawer: “bad.jsonl” was written by a newer Drawer (version 2 of the form; this one reads 1). Nothing was imported. Update Drawer first.",
    "1 drawer: Nothing was imported: “bad.jsonl” should hold 2 snippets and holds 1; it was cut short or changed. Export it again.",
    "1 drawer: Nothing was imported: “bad.jsonl”, line 3, is no snippet: must have required property 'origin'.",
    expect.stringMatching(
      /^1 drawer: Nothing was imported: “bad.jsonl”, line 2, is no snippet: value of tag "type" must be in oneOf, at \/content\/\d+\.$/,
    ),
    "1 drawer: Nothing was imported: “bad.jsonl”, line 3, is not JSON.",
    expect.stringMatching(
      /^1 drawer: Nothing was imported: “bad.jsonl”, line 2, has a picture that is damaged/,
    ),
    "1 drawer: Nothing was imported: “bad.jsonl”, line 1, is no drawer file: its first line is not JSON.",
    "1 drawer: “bad.jsonl” is no drawer file. To take it in as a document, use “collect”.",
    "1 drawer: “bad.jsonl” is empty, and so no drawer file.",
  ]);
  expect(await all("list --drawer third")).toBe("The drawer “third” is empty.\n");
});
