import fc from "fast-check";
import { fold } from "../../dist/content/fold.js";
import { contextOf, searchTerms } from "../../dist/drawer/find.js";

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
