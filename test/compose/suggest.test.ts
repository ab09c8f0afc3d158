import fc from "fast-check";
import { compose, readText, suggest, type Piece, type Suggestion } from "drawer";

const text = (words: string): Piece => readText(words);
/** Rows of cells; a first row of names is a header. */
function table(csv: string): Piece {
  const rows = csv.split("\n").map((row) =>
    row.split(",").map((value) => ({
      flows: [{ type: "paragraph" as const, runs: [{ type: "text" as const, text: value }] }],
    })),
  );
  return { content: [{ type: "table", headerRows: /^(Date|Ride|New|Item),/.test(csv) ? 1 : 0, rows }] };
}
const LONG = "First wheatear on the seawall, a male, very tired after the crossing";
const PRINT = `The tide was the lowest of the year, and the sand\nlay bare as far as the wreck, where the terns had\ngathered since the morning in their hundreds.`;

/** What is asked for, by its name. */
const asked = (pieces: readonly Piece[], recipe = {}): string | undefined => suggest(pieces, recipe)?.name;

const CASES: readonly [string | undefined, string, readonly Piece[], object?][] = [
  [
    "table",
    "a header and rows",
    [table("Date,Ride,Species"), table("8 April,North,Wren"), table("9 April,South,Dunnock")],
  ],
  [
    "table",
    "columns in another order",
    [table("Ride,New\nNorth,14\nSouth,2"), table("New,Ride\n6,Middle\n7,Heath")],
  ],
  [
    undefined,
    "tables of other things",
    [table("Ride,New\nNorth,14\nSouth,2"), table("Item,Price\nNet,40\nRope,12")],
  ],
  [undefined, "rows of other widths", [table("a,b"), table("1,2,3")]],
  [undefined, "one table", [table("Ride,New\nNorth,14")]],
  [
    "tables",
    "rows among others",
    [text("Rides"), table("8 April,North"), table("9 April,South"), text("End")],
  ],
  [undefined, "rows that are apart", [table("8 April,North"), text("and"), table("9 April,South")]],
  ["link", "a text and an address", [text("Tides"), text("https://merrow-spit.example/tides")]],
  ["link", "an address and a text", [text("mailto:hut@merrow-spit.example"), text("The hut")]],
  [
    "link",
    "two texts and two addresses",
    [text("A"), text("B"), text("https://a.example/"), text("https://b.example/")],
  ],
  [undefined, "an address that finds no text", [text("A"), text("B"), text("https://a.example/")]],
  [undefined, "a text of two lines and an address", [text("A\nB"), text("https://a.example/")]],
  ["once", "the same piece twice", [text(LONG), text("Wind NW"), text(LONG)]],
  [undefined, "the same figure twice", [text("14"), text("14")]],
  [undefined, "with repeats taken off already", [text(LONG), text(LONG)], { tidy: ["repeats"] }],
  ["rejoined", "a page of print", [text(PRINT)]],
  [
    undefined,
    "paragraphs that each end a sentence",
    [text(`${LONG} from the south.\nNet round 1 began at 06:10, nine birds in the heath rides and a gale.`)],
  ],
  [undefined, "verse", [text("Grey gulls\nover the bar\nand the tide\ncoming in")]],
  ["cells", "values that land in a sheet", [text("AB12345"), text("Wren"), text("adult")], { fit: "cells" }],
  [undefined, "values that land on a page", [text("AB12345"), text("Wren"), text("adult")]],
  [undefined, "a layout that was chosen", [table("Date,Ride"), table("8 April,North")], { as: "columns" }],
  [undefined, "nothing", []],
  [undefined, "blank pieces", [text(""), text(" ")]],
];
test("each asks for what it tells, and nothing else", () => {
  for (const [name, what, pieces, recipe] of CASES)
    expect([what, asked(pieces, recipe)]).toEqual([what, name]);
});
/** Pieces of every sort that can ask for something, and of some that cannot. */
const cell = fc.constantFrom("North", "South", "14", "2", "Wren", "8 April");
const rowsOf = (header: string) =>
  fc
    .array(fc.tuple(cell, cell), { minLength: 0, maxLength: 3 })
    .map((rows) => table([header, ...rows.map((row) => row.join(","))].join("\n")));
const piece: fc.Arbitrary<Piece> = fc.oneof(
  fc
    .constantFrom(LONG, PRINT, "Tides", "adult", "14", "https://merrow-spit.example/tides", "Two\nlines")
    .map(text),
  fc.constantFrom("Ride,New", "New,Ride", "Item,Price").chain(rowsOf),
  fc.tuple(cell, cell).map((row) => table(row.join(","))),
  fc.constantFrom<Piece>(
    {
      content: [
        {
          type: "list",
          ordered: false,
          items: [{ flows: text("reeds").content }, { flows: text("gorse").content }],
        },
      ],
    },
    { content: [{ type: "quote", flows: text("so they say").content }] },
  ),
);
const words = ({ text: all }: { readonly text: string }) =>
  all.split(/[\s(),]+/).filter((word) => word !== "");

test("what is suggested loses no word, is not suggested again, and comes to an end", () => {
  const heard = new Set<string>();
  fc.assert(
    fc.property(
      fc.oneof(
        fc.array(piece, { maxLength: 6 }),
        fc.array(cell.map(text), { minLength: 2, maxLength: 6 }),
        fc.array(fc.constantFrom("Tides", "https://merrow-spit.example/tides").map(text), { maxLength: 4 }),
      ),
      fc.constantFrom({}, { fit: "cells" as const }, { as: "bullets" as const }),
      (pieces, recipe) => {
        const before = new Set(words(compose(pieces, recipe)));
        const taken: string[] = [];
        for (
          let suggestion: Suggestion | undefined;
          (suggestion = suggest(pieces, suggestion?.recipe ?? recipe));
        ) {
          heard.add(suggestion.name);
          expect(taken).not.toContain(suggestion.name);
          taken.push(suggestion.name);
          const after = new Set(words(compose(pieces, suggestion.recipe)));
          // Words that were broken at the end of a line are whole; of all others none is missing.
          if (suggestion.name !== "rejoined")
            expect([...before].filter((word) => !after.has(word))).toEqual([]);
          recipe = suggestion.recipe as typeof recipe;
        }
      },
    ),
    { numRuns: 300 },
  );
  expect([...heard].sort()).toEqual(["cells", "link", "once", "rejoined", "table", "tables"]);
});
