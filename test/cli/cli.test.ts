import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { commandHome } from "../support/command";

const { folder, drawer, all, snippets, seeded, fresh } = commandHome();
beforeEach(fresh);

const gather = () =>
  seeded(
    "collect demo/diary.docx --at p3 --at t1",
    "collect demo/ringing.xlsx --at Spring!A1:G1 --at Spring!A3:G3 --at Spring!A5:G5",
  );
const positions = async () => {
  return (await snippets()).map(({ position, beginning }) => `${position} ${beginning.split(" ")[0]}`);
};

test("look lists parts with their spots", async () => {
  expect(await all("look demo/diary.docx")).toMatch(/^p3 +paragraph +First wheatear/m);
  expect(await all("look demo/ringing.xlsx")).toEqual(
    expect.stringMatching(
      /^Spring!A1:G8 {2}sheet {2}8 rows, 7 columns: Date \| Ride \| .*\nCosts!A1:D4 {3}sheet {2}4 rows, 4 columns: .*\n$/,
    ),
  );
  expect(JSON.parse(await all("look demo/letter.html --json")).parts[0]).toEqual({
    spot: "p1",
    type: "paragraph",
    what: "paragraph",
    text: "Received 11 April",
  });
});

test("collects spots in the order given, and says what was taken", async () => {
  expect(await gather()).toMatch(/^Collected as 3: “Date \| Ride.*\(ringing\.xlsx, Spring!A1:G1\)\.$/m);
  expect(await positions()).toEqual(["1 First", "2 Species", "3 Date", "4 2031-04-08", "5 2031-04-09"]);
});

test.each<[string, string, readonly string[]]>([
  [
    "collect demo/ringing.xlsx --at Spring!A2:G4 --each row",
    "Spring!A2:G2 Spring!A3:G3 Spring!A4:G4",
    ["2031-04-08 | North", "2031-04-08 | Middle", "2031-04-09 | North"],
  ],
  ["collect demo/ringing.ods --at Spring!C2:C3 --each cell", "Spring!C2 Spring!C3", ["Chiffchaff", "Willow"]],
  ["collect demo/costs.csv --at A2:B3 --each row", "A2:B2 A3:B3", ["Larch plank", "Galvanised"]],
  ["collect demo/diary.odt --at p4..p6 --each item", "p5 p6", ["Rides open", "middle ride"]],
  [
    "collect demo/diary.docx --at t1 --each row",
    "t1!A1:C1 t1!A2:C2 t1!A3:C3 t1!A4:C4",
    ["Species", "Chiffchaff"],
  ],
  ["collect demo/diary.docx --at s1 --each paragraph", "p1 p2 p3", ["", "", "First wheatear"]],
])("%s: each is a snippet with its own spot, and what is blank is none", async (command, spots, begin) => {
  await all(command);
  const collected = await snippets();
  const at = collected.map(({ origin }) => origin.at);
  expect(at.slice(0, spots.split(" ").length).join(" ")).toBe(spots);
  begin.forEach((words, index) => expect(collected[index]!.beginning.startsWith(words)).toBe(true));
});

test("several spots are typed after one --at, before or after their file", async () => {
  await all("collect demo/diary.docx --at p3 t1 p5..p6", "collect --at p8 p9 demo/diary.docx --label Rings");
  await all("append --at p4 p13 demo/diary.docx");
  const collected = (await snippets()).map(({ origin }) => origin.at);
  expect(collected).toEqual(["p3", "t1", "p5..p6", "p8", "p9"]);
  expect((await snippets()).at(-1)!.text).toMatch(/Weigh[^]*Net round 1[^]*Forty years/);
  const { code, err } = await drawer(["collect", "demo/diary.docx", "--at", "p3", "p99"]);
  expect([code, err]).toEqual([1, expect.stringContaining("p99")]);
});

test("who takes a document by its paragraphs is told of the tables and pictures between them", async () => {
  const told = await all("collect demo/diary.docx --each paragraph");
  expect(told).toContain("1 table (t1) was not taken");
  expect(await all("collect demo/diary.docx --at s2 --each paragraph")).not.toContain("not taken");
});

test("each line of standard input is a snippet; what a file cannot be taken by is refused, and nothing is collected", async () => {
  await drawer(["collect", "--each", "line"], "one\n\n  \ntwo\n");
  expect((await snippets()).map(({ beginning, origin }) => [beginning, origin.at])).toEqual([
    ["one", "l1"],
    ["two", "l4"],
  ]);
  for (const [words, message] of [
    ["demo/ringing.xlsx --each item", "is not taken by the item, but by the row or cell"],
    ["demo/diary.docx --at p1 --each item", "has no item at p1 that holds anything"],
    ["demo/diary.docx --each line", "is not taken by the line"],
    ["demo/diary.docx --each word", "row, cell, paragraph, item, line"],
  ]) {
    const { code, err } = await drawer(["collect", ...words!.split(" ")]);
    expect([code, err]).toEqual([expect.any(Number), expect.stringContaining(message!)]);
    expect(code).not.toBe(0);
  }
  expect(await snippets()).toHaveLength(2);
});

test.each([
  ["html", readFileSync("demo/clipboard/web-sentence/clip.html"), "High water **11:48**; the causeway"],
  ["markdown", "# Tides\n\n* a **b**\n", "# Tides\n\n- a **b**"],
  ["csv", 'a,b\n1,"2\n3"\n', "| a | b |\n| --- | --- |\n| 1 | 2<br>3 |"],
  ["tsv", "a\tb\nc\td\n", "|  |  |\n| --- | --- |\n| a | b |\n| c | d |"],
  ["text", "plain\nlines\n", "plain\n\nlines"],
])("takes %s from standard input", async (type, input, markdown) => {
  expect(await drawer(["collect", "--type", type], input)).toMatchObject({ code: 0, err: "" });
  expect((await all("place 1 --out markdown")).startsWith(markdown)).toBe(true);
});

test("tells standard input's type from its content", async () => {
  const kinds = [];
  for (const input of [
    readFileSync("demo/clipboard/cells-range/clip.html"),
    "a\tb\nc\td\n",
    "https://merrow-spit.example/",
    "words",
  ]) {
    const { out } = await drawer(["collect", "--json"], input);
    kinds.push(JSON.parse(out).snippets[0].kind);
  }
  expect(kinds).toEqual(["table", "table", "link", "text"]);
});

test("moves, discards, undoes and redoes, each in a process of its own", async () => {
  await gather();
  await all("move 5 --before 1", "discard 2");
  expect(await positions()).toEqual(["1 2031-04-09", "2 Species", "3 Date", "4 2031-04-08"]);
  expect(await all("undo")).toMatch(/^Undone: discarding “First wheatear/);
  expect(await all("redo")).toMatch(/^Done again: discarding/);
  await all("undo", "undo");
  expect(await positions()).toEqual(["1 First", "2 Species", "3 Date", "4 2031-04-08", "5 2031-04-09"]);
});

test("shows one whole, and places nothing by it", async () => {
  await gather();
  expect(await all("show 2")).toMatch(
    /^2 {2}table, diary\.docx, t1, Field diary, collected \d{4}-\d\d-\d\d \d\d:\d\d\n\nSpecies +New +Retrap\n─+\nChiffchaff +14 +3\n/,
  );
  const [shown] = JSON.parse(await all("show 1 --json")).snippets;
  expect(shown).toMatchObject({
    position: 1,
    kind: "text",
    origin: { document: "diary.docx", at: "p3" },
    notes: [],
  });
  expect(shown.html).toContain("<strong>wheatear</strong>");
  expect(shown.content[0].type).toBe("paragraph");
  // Of what a terminal cannot show it says that it is there; words in quotation marks stand in single ones in a message.
  expect(await all("collect demo/diary.docx --at p13")).toMatch(/: “‘Forty years .*…” \(diary/);
  expect(await all("show last")).toContain("\n“Forty years");
  expect(await all("collect demo/sketches/wheatear.png", "show last")).toMatch(
    /\n\n\[picture, \d+ × \d+: “wheatear”\]\n$/,
  );
});

test("three rows of a sheet placed as rows are one table with one header, as the sheet showed them", async () => {
  await gather();
  const csv =
    'Date,Ride,Species,New,Retrap,Wing mm,Remarks\n2031-04-08,Middle,Willow warbler,6,0,66.0,"pale, ""northern"" type"\n2031-04-09,South,Wryneck,1,0,88.0,\n';
  expect(await all("place 3..5 --as rows --out csv")).toBe(csv);
  expect(await all("place 3..last --as rows --out html")).toMatch(
    /^<table><thead>.*<\/thead><tbody>.*sdval="47946".*<\/tbody><\/table>\n$/,
  );
});

test.each([
  [
    "place 1 3..5 --as bullets --out markdown",
    /^- First \*\*wheatear\*\*.*\n- Date, Ride.*\n- 2031-04-08, Middle.*\n- 2031-04-09, South, Wryneck, 1, 0, 88\.0\n$/,
  ],
  ["place last last-1 --as numbers", /^1\. 2031-04-09.*\n2\. 2031-04-08.*\n$/],
  ["place all --as lines", /^First wheatear(.*\n){8}$/],
  ["place 1..2 --as sequence --out tsv", /^First.*\nSpecies\tNew\tRetrap\n/],
])("%s", async (line, expected) => {
  await gather();
  expect(await all(line)).toMatch(expected);
});

test("merges, appends and splits, each in a process of its own", async () => {
  await gather();
  expect(await all("merge 3..5 --as rows")).toMatch(/^Merged 3, 4, 5 into 3: “Date \| Ride/);
  expect(await all("place last --out csv")).toMatch(/^Date,Ride.*\n2031-04-08.*\n2031-04-09.*\n$/);
  expect((await drawer(["append", "--to", "1", "--between", "\\n\\n"], "and the terns")).out).toMatch(
    /^Appended to 1: “and the terns”/,
  );
  expect(await all("place 1")).toMatch(/past low\.\n\nand the terns\n$/);
  await all("split 3", "split 1");
  expect(await positions()).toEqual([
    "1 First",
    "2 and",
    "3 Species",
    "4 Date",
    "5 2031-04-08",
    "6 2031-04-09",
  ]);
  expect(JSON.parse(await all("merge 1..2 --json"))).toMatchObject({
    snippets: [{ position: 1, kind: "text" }, { position: null }, { position: null }],
    notices: [{ code: "merged" }],
  });
});

test("deals one at a time, in processes of their own, and says how far it is", async () => {
  await all("collect demo/diary.docx --at p8 --at p9 --at p10", "deal all");
  const step = async (line: string) => {
    const { out, err } = await drawer(line.split(" "));
    return `${out.trim()} | ${err.trim()}`;
  };
  expect([await step("next"), await step("next"), await step("back"), await step("next")]).toEqual([
    ...["Check rings | 1 of 3.", "Weigh | 2 of 3.", "Check rings | 1 of 3.", "Weigh | 2 of 3."],
  ]);
  const to = join(folder, "dealt.txt");
  writeFileSync(to, "Steps");
  expect([await step(`next --to ${to}`), await step("next")]).toEqual([
    " | 3 of 3, the last.",
    " | All have been handed out.",
  ]);
  expect(readFileSync(to, "utf8")).toBe("Steps\nRelease at the ride\n");
  // A loop ends where nothing is left, and does not take a refusal for it.
  expect([(await drawer(["next"])).code, (await drawer(["next", "--drawer", "none"])).code]).toEqual([3, 1]);
});

test("twelve that ask for the next at once get twelve snippets, as the deal's recipe makes them", async () => {
  await drawer(["collect", "--type", "text"], "one");
  for (let n = 2; n <= 12; n++) await drawer(["collect", "--type", "text"], `piece ${n}`);
  await all("deal all --as numbers");
  const answers = await Promise.all(Array.from({ length: 12 }, () => drawer(["next"])));
  const handed = answers.map(({ out }) => out.trim().replace(/^1\. /, ""));
  expect(handed.sort()).toEqual(["one", ...Array.from({ length: 11 }, (_, n) => `piece ${n + 2}`)].sort());
  expect(answers.every(({ out }) => out.startsWith("1. "))).toBe(true);
  expect((await drawer(["next"])).code).toBe(3);
});

test("keeps recipes by name and places by them", async () => {
  await gather();
  expect(await all("recipe save roundup --as bullets --cite list")).toBe(
    "Kept the recipe “roundup”: --as bullets --cite list.\n",
  );
  expect(await all("place 1 --recipe roundup --as numbers --out markdown")).toMatch(
    /^1\. First.*\n\n- diary\.docx, p3\n$/,
  );
  expect(await all("recipe")).toBe("roundup  --as bullets --cite list\n");
  await all("--drawer other recipe save roundup --as numbers");
  expect(await all("--drawer other recipe show roundup")).toBe("The recipe “roundup”: --as numbers.\n");
  expect(await all("recipe show roundup")).toBe("The recipe “roundup”: --as bullets --cite list.\n");
  await all("recipe remove roundup");
  expect(await drawer(["place", "1", "--recipe", "roundup"])).toMatchObject({
    code: 1,
    err: expect.stringContaining("There is no recipe “roundup”"),
  });
});

test("places into a new file whole, never over another unless told to, and leaves nothing beside it", async () => {
  await gather();
  const to = (name: string) => join(folder, name);
  await all(`place all --to ${to("bulletin.html")}`, `place 1 --to ${to("note.md")}`);
  const page = readFileSync(to("bulletin.html"), "utf8");
  expect(page).toMatch(/^<!DOCTYPE html>[\s\S]*<title>bulletin<\/title>[\s\S]*<strong>wheatear<\/strong>/);
  const refused = await drawer(["place", "1", "--to", to("bulletin.html")]);
  expect(refused).toMatchObject({ code: 1, out: "" });
  expect(refused.err).toContain("is there already and was left as it is");
  expect(readFileSync(to("bulletin.html"), "utf8")).toBe(page);
  await all(`place 1 --to ${to("bulletin.html")} --overwrite`);
  expect(readFileSync(to("bulletin.html"), "utf8")).not.toBe(page);
  const nowhere = await drawer(["place", "1", "--to", to("no/where.txt")]);
  expect(nowhere).toMatchObject({ code: 1, err: expect.stringContaining("there is no such folder") });
  expect(readdirSync(folder).filter((name) => name.endsWith(".part"))).toEqual([]);
});

test("places into documents and workbooks, which read back", async () => {
  await gather();
  for (const ending of ["docx", "odt", "xlsx", "ods"]) {
    const to = join(folder, `bulletin.${ending}`);
    expect(await all(`place all --as rows --to ${to}`)).toMatch(/^Placed 5 snippets in/);
    expect(await all(`look ${to}`)).toMatch(
      ending.endsWith("s") || ending === "xlsx" ? /^Sheet1!A1:G\d/m : /^t1 +table \d × 7/m,
    );
  }
});

test("drawers are apart, and every command answers with JSON", async () => {
  await all("collect demo/notes.md --label notes", "collect demo/letter.html --drawer letters");
  const [only] = await snippets();
  expect(only).toMatchObject({
    position: 1,
    label: "notes",
    kept: false,
    private: false,
    origin: { document: "notes.md" },
  });
  expect(await snippets("list --drawer letters")).toHaveLength(1);
  expect(JSON.parse(await all("place 1 --json"))).toEqual({
    block: {
      format: "text",
      text: expect.any(String),
      html: expect.any(String),
      markdown: expect.any(String),
    },
    notices: [],
  });
  expect(JSON.parse(await all("discard 1 --json"))).toEqual({
    snippets: [{ ...only, position: null }],
    notices: [{ code: "discarded", message: expect.any(String) }],
  });
  expect(JSON.parse(await all("undo --json"))).toMatchObject({
    snippets: [only],
    notices: [{ code: "undone" }],
  });
});

writeFileSync(join(folder, "cut.docx"), readFileSync("demo/diary.docx").subarray(0, 4000));

test.each([
  [1, "collect missing.docx", "“missing.docx” cannot be read: there is no such file."],
  [1, "collect demo", "“demo” cannot be read: it is a folder."],
  [1, "collect demo/diary.docx --at p3 --at p99", "“diary.docx” has no p99"],
  [1, `collect ${join(folder, "cut.docx")}`, "“cut.docx” is damaged or cut short."],
  [1, "collect package.json", "Drawer does not read “.json” files"],
  [1, "place 9", "There is no snippet 9"],
  [1, "place 1 --to out.xyz", "does not end in a format that Drawer writes"],
  [1, "redo", "There is nothing to do again."],
  [1, "split 1", "Snippet 1 is of one piece"],
  [1, "merge 1", "merging takes two or more"],
  [2, "place 1 --tidy shelves", "There is no way to tidy “shelves”."],
  [2, "place 1 --as sentence --locale x", "“x” is not the name of a language."],
  [2, "place three", "“three” is not a pick."],
  [2, "place 1 --as spiral", "There is no layout “spiral”."],
  [2, "place 1 --out pdf", "There is no output “pdf”."],
  [2, "collect demo/diary.docx --at third", "“third” is not a spot of a document."],
  [2, "collect demo/notes.md --type scroll", "There is no type “scroll”."],
  [2, "collect demo/notes.md demo/letter.html --at p1", "Spots belong to one file"],
  [2, "move 1", "Say where to"],
  [2, "list --limit few", "Write a whole number"],
  [2, "place", "Missing required argument"],
  [2, "gather", "Unknown command 'gather'"],
  [2, "list --colour", "Unknown option '--colour'"],
])("exit %i: drawer %s", async (code, line, message) => {
  await all("collect demo/notes.md");
  const answer = await drawer(line.split(" "));
  expect(answer).toEqual({ code, out: "", err: expect.stringContaining(message) });
  expect(answer.err).toMatch(/^drawer: [^\n]+\n$/);
  expect(await positions()).toEqual(["1 Notes"]);
});

test("what is locked up in a home is for its owner alone", async () => {
  await all("collect demo/notes.md");
  const home = readdirSync(folder).find((name) => existsSync(join(folder, name, "drawers.db")))!;
  expect([
    statSync(join(folder, home)).mode & 0o777,
    statSync(join(folder, home, "drawers.db")).mode & 0o777,
  ]).toEqual([0o700, 0o600]);
});

test("the tour runs, ends with the finished bulletin, and leaves no home behind", async () => {
  const out = await all("demo");
  const bulletin = /The finished bulletin lies in (.*bulletin\.html)/.exec(out)![1]!;
  expect(readFileSync(bulletin, "utf8")).toMatch(/wheatear[\s\S]*<table>/);
  expect(readdirSync(join(bulletin, ".."))).toEqual(["bulletin.html"]);
});

test("acts answer programs with the snippets they made or touched, as they are now or as they left", async () => {
  const long = `First ${"wheatear ".repeat(80)}end`;
  await drawer(["collect"], long);
  await all("collect demo/costs.csv --at A1:B2", "collect demo/letter.html --at p1");
  const touched = async (line: string) =>
    (await snippets(line)).map(({ position, kind }) => `${position} ${kind}`);
  expect((await snippets())[0]).toMatchObject({ text: long, beginning: expect.stringMatching(/^First.*…$/) });
  expect(await touched("keep 1 3")).toEqual(["1 text", "3 text"]);
  expect(await touched("label 2 Costs")).toEqual(["2 table"]);
  expect(await touched("move 3 --before 1")).toEqual(["1 text"]);
  expect(await touched("merge 1 2")).toEqual(["1 text", "null text", "null text"]);
  expect(await touched("undo")).toEqual(["1 text", "2 text", "null text"]);
  expect(await touched("empty")).toEqual(["null table"]);
  expect(await touched("restore 1")).toEqual(["3 table"]);
  expect(await touched("move 3 --into letters")).toEqual(["1 table"]);
  expect((await snippets("list --gone")).length + (await snippets("list --find wheatear")).length).toBe(1);
  expect(JSON.parse(await all("list --find wheatear --json")).snippets[0].context.matches[0]).toEqual([
    6, 14,
  ]);
});

test("a block answers programs in the format, with the options and to the file that were said", async () => {
  await drawer(["collect", "--type", "csv"], "Sum,Of\n=1+1,-5\n");
  const placed = async (line: string) => JSON.parse(await all(`place 1 --json ${line}`));
  expect((await placed("--out csv")).block).toEqual({ format: "csv", text: "Sum,Of\n'=1+1,-5\n" });
  expect(await placed("--out csv --no-guard")).toEqual({
    block: { format: "csv", text: "Sum,Of\n=1+1,-5\n" },
    notices: [],
  });
  const { format, data } = (await placed("--out xlsx")).block;
  expect([format, Buffer.from(data, "base64").subarray(0, 2).toString()]).toEqual(["xlsx", "PK"]);
  const file = join(folder, "sums.csv");
  expect(await placed(`--to ${file}`)).toMatchObject({ to: file, block: { format: "csv" } });
  expect((await drawer(["place", "1", "--json", "--to", file])).code).toBe(1);
  expect((await placed(`--to ${file} --overwrite --no-guard`)).notices[0].code).toBe("placed");
  expect(readFileSync(file, "utf8")).toContain("\n=1+1");
});

test("picks are forgiving: any case, ranges with a hyphen, documents, days, and what is left out in words", async () => {
  await all(
    "collect demo/diary.docx --at p3 --at p4",
    "collect demo/notes.md",
    "collect demo/costs.csv --at A1",
  );
  const picked = async (pick: string) => (await snippets(`show ${pick}`)).map(({ position }) => position);
  expect([await picked("1-3"), await picked("3-2"), await picked("First LAST")]).toEqual([
    [1, 2, 3],
    [3, 2],
    [1, 4],
  ]);
  expect([await picked("all not:3"), await picked("ALL not:from:Diary.DOCX")]).toEqual([
    [1, 2, 4],
    [3, 4],
  ]);
  expect([await picked("today !2"), await picked("since:2031-04-08,1")]).toEqual([[1, 3, 4], [1]]);
  expect((await drawer(["show", "yesterday"])).err).toContain("matches “yesterday”");
  for (const [words, near] of [
    [["place", "tabel"], "table"],
    [["place", "1", "--as", "Bullets"], "bullets"],
    [["place", "1", "--out", "xlxs"], "xlsx"],
    [["list", "--drawer", "mian"], "main"],
  ] as const)
    expect((await drawer(words)).err).toContain(`Did you mean “${near}”?`);
});

test("files are read by what they are, whatever they are called, and - is standard input and output", async () => {
  const named = (name: string, from: string) => {
    writeFileSync(join(folder, name), readFileSync(from));
    return join(folder, name);
  };
  const told = (name: string, format: string) =>
    `“${name}” is ${format} by its content, and was read as that. If that is wrong, say what it is (--type in a command).\n`;
  expect(await all(`collect ${named("diary.txt", "demo/diary.docx")} --at p3`)).toBe(
    `${told("diary.txt", "docx")}Collected as 1: “First wheatear on the seawall at 05:50…” (diary.txt, p3).\n`,
  );
  expect(await all(`look ${named("letter.xls", "demo/letter.html")}`)).toContain(told("letter.xls", "html"));
  expect(await all(`collect ${named("sheet", "demo/ringing.xlsx")} --at A1`)).toContain(
    told("sheet", "xlsx"),
  );
  expect((await drawer(["collect", "-", "--json"], "led in")).out).toContain('"origin":{}');
  expect(await all("place last --to -")).toBe("led in\n");
  const { out, err } = await drawer(["export", "-"]);
  expect(err).toBe("Exported 3 snippets of the drawer “main”.\n");
  expect((await drawer(["import", "-", "--drawer", "copy"], out)).out).toBe(
    "Imported 3 snippets from “standard input” into the drawer “copy”.\n",
  );
});

test("edit puts what one's editor has left in place of the words; what was typed and refused is kept in a file", async () => {
  await gather();
  const editor = join(folder, "editor.mjs");
  const inEditor = async (change: string, position = "1") => {
    writeFileSync(
      editor,
      `import { readFileSync, writeFileSync } from "node:fs";
       const [file] = process.argv.slice(2);
       const text = readFileSync(file, "utf8");
       writeFileSync(file, (${change})(text));`,
    );
    process.env["EDITOR"] = `'${process.execPath}' '${editor}'`;
    try {
      return await drawer(["edit", position]);
    } finally {
      delete process.env["EDITOR"];
    }
  };
  const before = await all("place 2 --out html");
  const { out } = await inEditor("(text) => text.replace('Goldcrest', 'Firecrest')", "2");
  expect(out).toMatch(/^Snippet 2 says now: “Species \| New.*”\.$/m);
  expect(await all("place 2 --out text")).toContain("Firecrest");
  expect((await inEditor("(text) => text", "2")).out).toBe(
    "Nothing to change: snippet 2 says that already.\n",
  );
  expect((await inEditor("(text) => text + '\\n\\nSeen at noon.'")).out).toMatch(/^Snippet 1 says now/);
  // The paragraph that was not touched has its looks still.
  expect(await all("place 1 --out html")).toMatch(/color: #b03020.*<p>Seen at noon\.<\/p>/s);
  const refused = await inEditor("() => ' '");
  expect([refused.code, refused.err]).toEqual([1, expect.stringContaining("What you typed is in ")]);
  expect(readFileSync(/in (\S+)\.\n$/.exec(refused.err)![1]!, "utf8")).toBe(" ");
  expect((await drawer(["edit", "1"])).err).toContain("Set EDITOR");
  await all("undo", "undo");
  expect(await all("place 2 --out html")).toBe(before);
  expect((await drawer(["edit", "last", "--with", "-"], "- *one*\n")).code).toBe(0);
  expect(await all("place last --out markdown")).toBe("- *one*\n");
});
