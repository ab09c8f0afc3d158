import fc from "fast-check";
import { contents } from "../support/contents";
import { runs } from "../support/counts";
import {
  CITATIONS,
  compose,
  eachFlow,
  LAYOUTS,
  readDelimited,
  readHtml,
  readText,
  recipeFor,
  runsText,
  STYLES,
  type Content,
  type List,
  type Recipe,
  type Table,
  findReadFormat,
  findWrittenFormat,
} from "drawer";
import { encodeContent } from "drawer/engine";

const text = (words: string): { content: Content } => ({ content: readText(words).content });
const html = async (markup: string) => ({ content: (await readHtml(markup)).content });
const csv = async (rows: string, header: boolean) => ({
  content: (await readDelimited(rows, { separator: ",", header })).content,
});

test("sequence puts pieces one after another, without the blank edges they came with", async () => {
  const pieces = [
    text("\n\none\n"),
    await html("<p><br></p><p>two</p><p>three<br></p><p></p>"),
    text("\n\n"),
    text("four"),
  ];
  expect(compose(pieces).text).toBe("one\ntwo\nthree\nfour");
  expect(compose([text("one\n\ntwo")]).text).toBe("one\n\ntwo");
  // An item that was taken from a deeper level is an item; one above it that says something stays.
  const deeper = [await html("<ul><li><ol><li>shut</li><li>open</li></ol></li></ul>")];
  expect(compose([...deeper, text("all day")]).text).toBe("1. shut\n2. open\nall day");
  expect(compose(deeper, { tidy: [] }).text).toContain("- 1. shut");
  const under = await html("<ul><li>north<ul><li>shut</li></ul></li></ul>");
  expect(compose([under]).text).toBe("- north\n  - shut");
  // What stood beside the empty level goes on after it, in the same list or with the number that it had.
  const beside = await html("<ul><li><ul><li>shut</li></ul></li><li>open</li></ul>");
  expect(compose([beside]).text).toBe("- shut\n- open");
  const counted = await html("<ol><li><ul><li>shut</li></ul></li><li>open</li></ol>");
  expect(compose([counted]).text).toBe("- shut\n2. open");
});

test("items that were taken one by one are one list again where they go on, and two where they do not", async () => {
  const lists = await html(
    `<ol start="4"><li>rings</li><li>nets</li><li>poles</li></ol><ul><li>shut</li><li>open</li></ul><ol type="a"><li>north</li><li>south</li></ol>`,
  );
  const items = lists.content.flatMap((flow) => {
    const { items, ...list } = flow as List;
    const start = list.start ?? 1;
    return items.map((item, at) => ({
      content: [{ ...list, ...(list.ordered && start + at > 1 && { start: start + at }), items: [item] }],
    }));
  });
  expect(compose(items).content).toEqual(lists.content);
  const [four, five, six, shut, open, a] = items;
  expect(compose([four!, six!, five!]).content).toHaveLength(3);
  expect(compose([five!, a!, shut!, open!]).content).toHaveLength(3);
  expect(compose([shut!, open!], { between: "blank" }).text).toBe("- shut\n\n- open");
  // What a piece has in two lists of its own stays so.
  const own = { content: [...shut!.content, ...open!.content] };
  expect(compose([own, open!]).content).toHaveLength(2);
  expect(compose([text("one"), four!, text("two"), five!]).markdown).toBe(
    "one\n\n4. rings\n\ntwo\n\n5. nets",
  );
});

test("rows that follow each other among other pieces are one table where it is asked for, each value under its own name", async () => {
  const rows = ["Day,Ride,Ring,Note", "8 April,North,AB1,", "9 April,,AB2,wet", "10 April,South,,"];
  const [head, ...others] = await Promise.all(rows.map((row, at) => csv(row, at === 0)));
  const range = await csv("11 April,North,AB3,\n12 April,Heath,AB4,", false);
  const apart = await csv("1,2\n3,4", false);
  const pieces = [text("Rings:"), head!, ...others, range, text("Poles:"), range, apart];
  const { markdown, notices } = compose(pieces, { tidy: ["edges", "tables"] });
  expect(markdown.replace(/ +/g, " ")).toBe(
    "Rings:\n\n| Day | Ride | Ring | Note |\n| --- | --- | --- | --- |\n| 8 April | North | AB1 | |\n| 9 April | | AB2 | wet |\n| 10 April | South | | |\n| 11 April | North | AB3 | |\n| 12 April | Heath | AB4 | |\n\nPoles:" +
      "\n\n| | | |\n| --- | --- | --- |\n| 11 April | North | AB3 |\n| 12 April | Heath | AB4 |\n\n| | |\n| --- | --- |\n| 1 | 2 |\n| 3 | 4 |",
  );
  expect(notices).toEqual([]);
  expect(compose(pieces).content.filter(({ type }) => type === "table")).toHaveLength(7);
});

test("a lone cell lands as its text, a range without its blank edges", async () => {
  expect(compose([await html("<table><tr><td sdval=23>23</table>")]).html).toBe("<p>23</p>");
  const range = await csv(",,\n,a,b\n,,c\n,,\n", false);
  expect(compose([range]).csv).toBe("a,b\n,c\n");
});

test("lines and lists take each piece by its lines, and keep what is nested nested", async () => {
  const pieces = [
    await html("<h2>Rides</h2>"),
    await html("<ul><li>north<ul><li>shut</li></ul></li></ul>"),
    await csv("8 April,North,,14", false),
    await html("<p>wind <b>south</b></p><p>force 3</p>"),
  ];
  expect(compose(pieces, { as: "lines" }).text).toBe(
    "Rides\nnorth\nshut\n8 April, North, 14\nwind south\nforce 3",
  );
  expect(compose(pieces, { as: "bullets" }).markdown).toBe(
    "- Rides\n- north\n  - shut\n- 8 April, North, 14\n- wind **south**\n\n  force 3",
  );
  expect(compose(pieces, { as: "numbers" }).text).toMatch(/^1\. Rides\n2\. north\n {3}- shut\n3\. 8 April/);
});

test("rows of one sheet become one table with one header", async () => {
  const pieces = [
    await csv("Ride,New\nNorth,14\n", true),
    await csv("South,1\n", false),
    await csv("New,Ride,Net\n6,Middle,4\n", true),
  ];
  const [table] = compose(pieces, { as: "rows" }).content as [Table];
  expect(table.headerRows).toBe(1);
  expect(compose(pieces, { as: "rows" }).csv).toBe("Ride,New,Net\nNorth,14,\nSouth,1,\nMiddle,6,4\n");
});

test("rows keep blank cells in their places, merged cells their width, and text a row of its own", async () => {
  const merged = await html("<table><tr><td colspan=2>All rides<td>23</table>");
  const pieces = [await csv("Date,Ride,New\n", true), await csv(",North,\n", false), merged, text("a note")];
  const block = compose(pieces, { as: "rows" });
  expect(block.csv).toBe("Date,Ride,New\n,North,\nAll rides,,23\na note,,\n");
  expect((block.content[0] as Table).rows[2]![0]!.colspan).toBe(2);
});

test("an unknown layout is refused by name", () => {
  expect(() => compose([], { as: "spiral" } as unknown as Recipe)).toThrow("There is no layout “spiral”.");
});

/** The words of a content's runs and code, in order; signs that a layout may change at their ends are no part of them. */
function wordsOf(content: Content): string[] {
  const words: string[] = [];
  eachFlow(content, (flow) => {
    if (flow.type === "code") words.push(...flow.text.split(/\s+/));
    else if (flow.type === "paragraph" || flow.type === "heading") {
      for (const run of flow.runs)
        if (run.type === "text" && run.marks?.link === run.text) words.push(run.text);
      words.push(...runsText(flow.runs).split(/\s+/));
    }
  });
  return words.map((word) => word.replace(/[.,]+$/, "")).filter((word) => word !== "");
}

/** What is wanted and does not follow, word after word, in what is found. */
function missing(wanted: readonly string[], found: string): string[] {
  let at = 0;
  return wanted.filter((word) => {
    const next = found.indexOf(word, at);
    if (next >= 0) at = next + word.length;
    return next < 0;
  });
}

/** Layouts whose words may stand in another order than the pieces', or once for several. */
const REORDERED: readonly string[] = ["rows", "columns", "link"];

const recipes = fc.record(
  {
    as: fc.constantFrom(...LAYOUTS),
    between: fc.constantFrom("newline", "blank", "space", "semicolon", " / "),
    style: fc.constantFrom(...STYLES),
    cite: fc.constantFrom(...CITATIONS),
    fit: fc.constantFrom(
      "page" as const,
      "plain" as const,
      "line" as const,
      "cell" as const,
      "cells" as const,
    ),
    before: fc.constant("→ "),
  },
  { requiredKeys: ["as"] },
);

test("every word of every piece stands in the block, in order, whatever the recipe; and the pieces stay as they are", () => {
  fc.assert(
    fc.property(fc.array(contents, { maxLength: 4 }), recipes, (pieces, recipe) => {
      const before = pieces.map((content) => encodeContent(content));
      const wanted = pieces.flatMap(wordsOf);
      const block = compose(
        pieces.map((content, at) => ({ content, origin: { document: `${at}.docx` } })),
        recipeFor(recipe, recipe.as),
      );
      const found = wordsOf(block.content).join(" ");
      if (REORDERED.includes(recipe.as)) expect(wanted.filter((word) => !found.includes(word))).toEqual([]);
      else expect(missing(wanted, found)).toEqual([]);
      expect(pieces.map((content) => encodeContent(content))).toEqual(before);
      expect([block.text, block.html]).toEqual([block.text, block.html]);
    }),
    runs(50, 3000),
  );
});

const diary = { document: "diary.docx", at: "p3" };
const both = async () => [
  { ...(await html("<p><b>wheatear</b> on the <span style='color:red'>seawall</span></p>")), origin: diary },
  { ...text("nine birds."), label: "Round 1" },
];

test.each<[Recipe, string]>([
  [{ as: "joined" }, "**wheatear** on the seawall nine birds."],
  [{ as: "joined", between: "semicolon" }, "**wheatear** on the seawall; nine birds."],
  [{ as: "joined", between: "blank" }, "**wheatear** on the seawall\\\n\\\nnine birds."],
  [{ as: "sentence", locale: "de" }, "**wheatear** on the seawall und nine birds."],
  [{ as: "sentence", locale: "ja" }, "**wheatear** on the seawall、nine birds."],
  [{ between: "* * *" }, "**wheatear** on the seawall\n\n\\* \\* \\*\n\nnine birds."],
  [{ before: "» ", after: "!" }, "» **wheatear** on the seawall!\n\n» nine birds.!"],
  [{ style: "bare" }, "wheatear on the seawall\n\nnine birds."],
  [{ cite: "inline" }, "**wheatear** on the seawall (diary.docx, p3)\n\nnine birds."],
  [{ cite: "notes" }, "**wheatear** on the seawall[^1]\n\nnine birds.\n\n[^1]: diary.docx, p3"],
  [{ cite: "list" }, "**wheatear** on the seawall\n\nnine birds.\n\n- diary.docx, p3"],
  [{ as: "quotes" }, "> **wheatear** on the seawall\n>\n> — diary.docx, p3\n\n> nine birds."],
  [{ as: "columns" }, "|  | Round 1 |\n| --- | --- |\n| **wheatear** on the seawall | nine birds. |"],
  [{ as: "pairs" }, "|  |  |\n| --- | --- |\n| **wheatear** on the seawall |  |\n| Round 1 | nine birds. |"],
  [{ fit: "line" }, "wheatear on the seawall nine birds."],
])("the recipe %j gives %s", async (recipe, markdown) => {
  expect(compose(await both(), recipe).markdown).toBe(markdown);
});

test("host takes the place's look and leaves what is meant", async () => {
  expect(compose(await both(), { style: "host" }).html).toBe(
    "<p><strong>wheatear</strong> on the seawall</p><p>nine birds.</p>",
  );
});

test("a page is cited with its address and the day on which it was collected, and once", () => {
  const page = {
    origin: { title: "Tides", address: "https://merrow-spit.example/" },
    collectedAt: "2031-04-08T05:50:00.000Z",
  };
  const block = compose(
    [
      { ...text("a"), ...page },
      { ...text("b"), ...page },
    ],
    { cite: "notes" },
  );
  expect(block.text).toBe("a[1]\nb[1]\n1. Tides, https://merrow-spit.example/, 2031-04-08");
});

test("texts and addresses become links, in either order and many at once; what is alone is said", () => {
  const [a, b, x, y] = [
    text("tide table"),
    text("the hide"),
    text("https://a.example/t"),
    text("https://a.example/h"),
  ];
  const linked = "[tide table](https://a.example/t)\n\n[the hide](https://a.example/h)";
  for (const pick of [
    [a, x, b, y],
    [x, a, y, b],
    [a, b, x, y],
    [x, y, a, b],
  ])
    expect(compose(pick, { as: "link" }).markdown).toBe(linked);
  const alone = compose([a, x, b], { as: "link" });
  expect([alone.text, alone.notices.map(({ message }) => message)]).toEqual([
    "tide table (https://a.example/t)\nthe hide",
    ["One text has no partner to make a link with."],
  ]);
});

test("a column of five lands in one cell with five lines, from both flavours; a grid lands as a grid", async () => {
  const column = await csv("Chiffchaff\nWillow warbler\nGoldcrest\nWryneck\nRéti\n", false);
  const cell = compose([column], { as: "lines", fit: "cell" });
  expect(cell.text).toBe('"Chiffchaff\nWillow warbler\nGoldcrest\nWryneck\nRéti"');
  expect(cell.html).toBe(
    "<table><tbody><tr><td>Chiffchaff<br>Willow warbler<br>Goldcrest<br>Wryneck<br>Réti</td></tr></tbody></table>",
  );
  expect(compose([await csv("a,b\nc,d\n", false), text("e")], { fit: "cells" }).text).toBe("a\tb\nc\td\ne\t");
  expect(
    compose([await html("<p>See <a href='https://a.example/t'>the table</a>, or https://b.example/x.</p>")], {
      fit: "address",
    }).text,
  ).toBe("https://a.example/t\nhttps://b.example/x");
});

test("print that was broken by hard ends is rejoined, hyphens and all; lists and verse are not", () => {
  const tidy = (words: string, ...ways: readonly ("edges" | "lines" | "spaces" | "repeats" | "rejoin")[]) =>
    compose([text(words)], { tidy: ways }).text;
  const print =
    "The causeway was shut at noon, and the tide was run-\nning hard over the stones of the north-\nEast wall, so that\nthe wardens waited until it had fallen by an hour and a\nhalf.\n\nThen they went.";
  expect(tidy(print, "rejoin")).toContain("was running hard over the stones of the north-East wall");
  expect(tidy(print, "rejoin")).toMatch(/half\.\n\nThen they went\.$/);
  for (const kept of [
    "- the first of the items, quite long\n- the second of the items, as long",
    "Over the spit\nthe wheatears sit",
    "First wheatear on the seawall at 05:50, and the tide past low.\nNet round 1 began at 06:10, nine birds in the heath rides.",
    `${"One paragraph of a document that ends without a stop ".repeat(4)}\n${"Another one ".repeat(18)}`,
  ])
    expect(tidy(kept, "rejoin")).toBe(kept);
  expect(tidy("a  b\n\n\nc\nc", "lines", "spaces", "repeats")).toBe("a b\nc");
  expect(tidy("\n a\n")).toBe("\n a\n");
});

test("tables of 200,000 rows and picks of as many are nothing special", async () => {
  const long = await csv("a,b\n" + "c,d\n".repeat(200_000), true);
  for (const recipe of [{ as: "rows" }, { as: "pairs" }, { fit: "cells" }] as const) {
    expect(compose([long, long], recipe).csv.length).toBeGreaterThan(1_600_000);
  }
});

test("a block written as text ends its last line, also when that line is blank", async () => {
  const block = compose([readText("one\n")], { tidy: [] });
  expect([block.text, (await block.to("text")).data]).toEqual(["one\n", "one\n\n"]);
  expect((await compose([], {}).to("text")).data).toBe("");
  expect([findWrittenFormat("xhtml"), findReadFormat("xhtml"), findWrittenFormat("md")]).toEqual([
    undefined,
    "html",
    "markdown",
  ]);
});

test.each<[name: string, recipe: Recipe, text: string]>([
  [
    "as it is",
    {},
    "Ask the Hut (https://merrow-spit.example/hut) or mail@spit.example, +49 431 12\nNames\tLinks\nHut\tthe page",
  ],
  ["on one line", { fit: "line" }, "Ask the Hut or mail@spit.example, +49 431 12 Names, Links Hut, the page"],
  [
    "as text alone",
    { style: "bare" },
    "Ask the Hut or mail@spit.example, +49 431 12\nNames\tLinks\nHut\tthe page",
  ],
  [
    "as bullets",
    { as: "bullets" },
    "- Ask the Hut (https://merrow-spit.example/hut) or mail@spit.example, +49 431 12\n  - Names, Links\n  - Hut, the page (https://merrow-spit.example/)",
  ],
])(
  "in text, %s, a link shows its address where its words do not, and in cells that is told",
  async (_name, recipe, text) => {
    const { content } = await readHtml(
      `<p>Ask <a href="https://merrow-spit.example/hut">the <b>Hut</b></a> or <a href="mailto:mail@spit.example">mail@spit.example</a>,
     <a href="tel:+4943112">+49 431 12</a></p>
     <table><tr><td>Names</td><td>Links</td></tr><tr><td>Hut</td><td><a href="https://merrow-spit.example/">the page</a></td></tr></table>`,
    );
    const block = compose([{ content }], recipe);
    const told = async (format: "text" | "csv") =>
      (await block.to(format)).notices.map(({ code, reason }) => `${code} ${reason}`);
    expect(block.text).toBe(text);
    expect((await block.to("text")).data).toBe(`${block.text}\n`);
    const isCells = recipe.fit === undefined && recipe.style === undefined && recipe.as === undefined;
    expect((await told("csv")).includes("left-out left-out/addresses")).toBe(isCells);
    expect((await told("text")).includes("left-out left-out/addresses")).toBe(isCells);
  },
);

test("a piece that was centred does not make a bullet, a pair or a cell that is", async () => {
  const { content } = await readHtml(
    '<p style="text-align: center">Merrow Spit</p><h2 align="right">Spring</h2>',
  );
  for (const as of ["bullets", "numbers", "rows", "columns", "pairs", "sentence", "joined"] as const)
    expect(compose([{ content }, { content }], { as }).html).not.toMatch(/align/);
  expect(compose([{ content }], { as: "lines" }).html).toMatch(/center/);
});

test("lists whose numbers HTML cannot say are told; those that a browser knows are not", async () => {
  const told = async (style: string) => {
    const { content } = await readHtml(`<ol style="list-style-type: ${style}"><li>Ringing<li>Weighing</ol>`);
    const { notices } = await compose([{ content }]).to("html");
    return notices.map(({ reason }) => reason);
  };
  expect(await told("lower-roman")).toEqual([]);
  const circled: Content = [
    {
      ...{ type: "list", ordered: true, marker: { numbers: "circled-decimal" } },
      items: [{ flows: (await readHtml("<p>Ringing")).content }],
    },
  ];
  const bracketed: Content = [{ ...(circled[0] as List), marker: { after: ")" } }];
  for (const content of [circled, bracketed])
    expect((await compose([{ content }]).to("html")).notices.map(({ reason }) => reason)).toEqual([
      "not-shown/numbers",
    ]);
});
