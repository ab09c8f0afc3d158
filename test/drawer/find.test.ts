import fc from "fast-check";
import { fold } from "../../dist/content/fold.js";
import { dayIn } from "../../dist/drawer/days.js";
import { contextOf, searchTerms } from "../../dist/drawer/find.js";
import { Drawer, MemoryStore, readText } from "../../dist/index.js";

const words = fc.array(
  fc.constantFrom(
    "Réti",
    "wheatear",
    "SEAWALL",
    "naïve",
    "Straße",
    "Ærø",
    "ебб",
    "עוף",
    "ﬁsh",
    "İzmir",
    "🐦",
    "e\u0301",
    "05:50",
    "a",
    "—",
    "ΟΔΟΣ",
  ),
  { minLength: 1, maxLength: 40 },
);

test.each([
  ["Réti", "reti"],
  ["Straße", "strasse"],
  ["Ærø", "aero"],
  ["ﬁsh", "fish"],
  ["Łódź", "lodz"],
  ["ΟΔΟΣ", "οδοσ"],
  ["e\u0301cole", "ecole"],
])("%s is searched as %s", (text, folded) => expect(fold(text)).toBe(folded));

test("folding twice is folding once, and folds the same as a whole as word by word", () => {
  fc.assert(
    fc.property(words, (list) => {
      const text = list.join(" ");
      expect(fold(fold(text))).toBe(fold(text));
      expect(list.map(fold).join(" ")).toBe(fold(text));
    }),
  );
});

test.each([
  ["", []],
  ["  ", []],
  ["wheat ear wheat", ["wheat", "ear"]],
  ['"on the seawall" Réti', ["on the seawall", "reti"]],
  ["“on  the” x", ["on the", "x"]],
  ['half "open', ["half", "open"]],
])("the words “%s” are the terms %j", (typed, terms) => expect(searchTerms(typed)).toEqual(terms));

test("whatever is looked for, what is marked is what was looked for, in order and apart, in a line that is short enough", () => {
  fc.assert(
    fc.property(
      words,
      fc.array(fc.nat(), { minLength: 1, maxLength: 3 }),
      fc.integer({ min: 30, max: 120 }),
      (list, picks, length) => {
        const terms = [...new Set(picks.map((pick) => fold(list[pick % list.length]!)))].filter(
          (term) => term !== "",
        );
        const { text, matches } = contextOf(list.join("  \n"), terms, length);
        expect(text.length).toBeLessThanOrEqual(length + 2);
        expect(text).not.toMatch(/\n| {2}/);
        let end = 0;
        for (const [from, to] of matches) {
          expect(from).toBeGreaterThanOrEqual(end);
          const marked = fold(text.slice(from, to));
          // One letter may be spelled with two: the whole of it is marked.
          expect(terms.some((term) => marked.includes(term) && marked.length <= term.length + 2)).toBe(true);
          end = to;
        }
        // The first place where any of them stands is in sight, unless the text was cut within it.
        if (terms.length > 0 && list.join(" ").length <= length) expect(matches.length).toBeGreaterThan(0);
      },
    ),
  );
});

test("a match deep in a long text is shown with what stands around it", () => {
  const text = `${"the tide came and went ".repeat(5000)}then a Wryneck sat by the hut${" and the tide went".repeat(5000)}`;
  const { text: shown, matches } = contextOf(text, ["wryneck"], 80);
  expect(shown).toMatch(/^….*then a Wryneck sat by the hut.*…$/);
  expect(matches.map(([from, to]) => shown.slice(from, to))).toEqual(["Wryneck"]);
});

test.each([
  ["yesterday", "2031-04-07", "2031-04-08", ""],
  ["wren Last  Week tern", "2031-03-31", "2031-04-07", "wren   tern"],
  ["heute", "2031-04-08", "2031-04-09", ""],
  ["2031-02-28 wren", "2031-02-28", "2031-03-01", "wren"],
  ["28.2.2031", "2031-02-28", "2031-03-01", ""],
  ["in 2031-02", "2031-02-01", "2031-03-01", "in"],
])("“%s” names the days from %s until %s", (words, from, until, rest) => {
  const local = (date: string) => new Date(`${date}T00:00`).getTime();
  const now = new Date("2031-04-08T23:59").getTime(); // a Tuesday
  expect(dayIn(words, now)).toEqual({ span: { from: local(from), until: local(until) }, rest });
});

test.each(["yesterdays", "2031-02-30", "31.4.2031", "05:50", "1.5", "wren"])("“%s” names no day", (words) =>
  expect(dayIn(words)).toBe(undefined),
);

test("what was collected on a day is found by it, with other words and by the word itself, the newest first also after undo", async () => {
  const drawer = new Drawer(new MemoryStore());
  const piece = (text: string) => ({ ...readText(text), origin: {} });
  for (const text of ["wren", "tern", "as was said yesterday", "knot"]) {
    await drawer.collect([piece(text)]);
    const { collectedAt } = (await drawer.list({ limit: 1 }))[0]!.entry;
    while (Date.now() <= Date.parse(collectedAt)) await new Promise((later) => setTimeout(later, 1));
  }
  await drawer.hide("4");
  const found = async (words: string) => (await drawer.find(words)).map(({ entry }) => entry.text);
  expect(await found("yesterday")).toEqual(["as was said yesterday"]);
  expect(await found("today")).toEqual(["as was said yesterday", "tern", "wren"]);
  expect(await found("today er")).toEqual(
    ["as was said yesterday", "tern"].filter((text) => text.includes("er")),
  );
  await drawer.discard("1");
  await drawer.undo();
  await drawer.empty();
  await drawer.undo();
  expect(await found("today")).toEqual(["as was said yesterday", "tern", "wren"]);
  expect(await found("e")).toEqual(["as was said yesterday", "tern", "wren"]);
});
