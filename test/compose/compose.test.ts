import fc from "fast-check";
import {
  compose,
  eachFlow,
  encodeContent,
  LAYOUTS,
  readDelimited,
  readHtml,
  readText,
  runsText,
  type Content,
  type Recipe,
  type Table,
} from "drawer";
import { contents } from "../support/contents";

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

/** The words of a content's runs and code, in order. */
function wordsOf(content: Content): string[] {
  const words: string[] = [];
  eachFlow(content, (flow) => {
    if (flow.type === "code") words.push(...flow.text.split(/\s+/));
    else if (flow.type === "paragraph" || flow.type === "heading")
      words.push(...runsText(flow.runs).split(/\s+/));
  });
  return words.map((word) => word.replace(/,$/, "")).filter((word) => word !== "");
}

test("every word of every piece stands in the block, in order, and the pieces stay as they are", () => {
  fc.assert(
    fc.property(fc.array(contents, { maxLength: 4 }), fc.constantFrom(...LAYOUTS), (pieces, as) => {
      const before = pieces.map((content) => encodeContent(content));
      const wanted = pieces.flatMap(wordsOf);
      const found = wordsOf(
        compose(
          pieces.map((content) => ({ content })),
          { as },
        ).content,
      );
      // A header that stands over several tables is said once.
      if (as === "rows") expect(new Set(found)).toEqual(new Set(wanted));
      else expect(found).toEqual(wanted);
      expect(pieces.map((content) => encodeContent(content))).toEqual(before);
    }),
  );
});
