import fc from "fast-check";
import { withFigures } from "../../dist/content/figures.js";
import { contents, plainContents } from "../support/contents";
import { runs } from "../support/counts";
import {
  safeLink,
  compose,
  paragraph,
  readDelimited,
  readHtml,
  readMarkdown,
  readText,
  runsText,
  writeDelimited,
  writeHtml,
  writeMarkdown,
  writeText,
  type Content,
  type Marks,
  type Run,
  type Table,
} from "drawer";
import { mapContent } from "drawer/format";

test("text that is placed alone goes out character for character", () => {
  fc.assert(
    fc.property(fc.string({ unit: "grapheme", maxLength: 200 }), (raw) => {
      const text = raw.replace(/[\u0000\r\uFEFF]/g, "");
      expect(writeText(readText(text).content)).toBe(text);
    }),
  );
});

test("content written as HTML reads back the same", async () => {
  await fc.assert(
    fc.asyncProperty(contents, async (content) => {
      // The figures of a table whose source knows no types are numbers.
      const typed = mapContent(content, {
        flow: (flow) => [flow.type === "table" ? withFigures(flow) : flow],
      });
      expect((await readHtml(writeHtml(content))).content).toEqual(typed);
    }),
  );
});

test("what Markdown can say reads back the same", async () => {
  await fc.assert(
    fc.asyncProperty(plainContents, async (content) => {
      expect((await readMarkdown(writeMarkdown(content))).content).toEqual(content);
    }),
  );
});

test("a block gives the same content in every format", async () => {
  const content: Content = (
    await readHtml("<p>a <b>b</b></p><ol start=3><li>c</li></ol><table><tr><td>d<td>e</table>")
  ).content;
  const block = compose([{ content }]);
  expect(block.text).toBe("a b\n3. c\nd\te");
  expect(block.markdown).toBe("a **b**\n\n3. c\n\n|  |  |\n| --- | --- |\n| d | e |");
  expect(block.csv).toBe("a b\n3. c\nd,e\n");
  expect(block.tsv).toBe("a b\n3. c\nd\te\n");
});

test.each([
  ["=1+1", "'=1+1"],
  ["@home", "'@home"],
  ["-x", "'-x"],
  [" =1", "' =1"],
  ["'=1", "''=1"],
  ["''@a", "'''@a"],
  ["+44 1", "+44 1"],
  ["-5,00 €", "-5,00 €"],
  ["-3 kg", "-3 kg"],
  ["- 5 EUR", "- 5 EUR"],
  ["+49 (0)431 12", "+49 (0)431 12"],
  ["- offen", "- offen"],
  ["- offen (siehe unten)", "- offen (siehe unten)"],
  ["+49-431-12", "'+49-431-12"],
  ["-2+3", "'-2+3"],
  ["- x(1)", "'- x(1)"],
  ["-1E5", "'-1E5"],
  ["a;=1", "a;'=1"],
  ["'tis", "'tis"],
  ["007", "007"],
])(
  "the cell %s is written as %s where a sheet might run it, and reads back as it was",
  async (cell, guarded) => {
    const table: Table = { type: "table", headerRows: 0, rows: [[{ flows: [paragraph(cell)] }]] };
    expect(writeDelimited([table], "\t").text).toBe(`${guarded}\n`);
    const [read] = (await readDelimited(`${guarded}\n`, { separator: "\t" })).content as [Table];
    expect(read.rows[0]![0]!.flows).toEqual([paragraph(cell)]);
    expect(writeDelimited([table], "\t", { guard: false }).text).toBe(`${cell}\n`);
  },
);

/** Lines of every ASCII mark, of addresses and of words, in runs with looks that Markdown has and has not. */
const marked = fc
  .array(
    fc.tuple(
      fc.oneof(
        { weight: 4, arbitrary: fc.string({ unit: "grapheme-ascii", minLength: 1, maxLength: 6 }) },
        fc.constantFrom(
          "https://u.example/~a_b",
          "https://u.example/a*b*(c)",
          "see www.u_u.example/_x_.",
          "!",
          "``",
        ),
        fc.constantFrom(
          "a",
          "tide",
          "<",
          "&",
          "&lt",
          "img src=x>",
          "lt;",
          "http",
          "://u.example",
          "[x]",
          "(y)",
        ),
      ),
      fc.constantFrom<Marks>(
        ...([
          {},
          {},
          { bold: true },
          { italic: true },
          { code: true },
          { color: "#b03020" },
          { size: 9 },
        ] as const),
        ...([
          { code: true, color: "#14606a" },
          { link: safeLink("https://merrow-spit.example/(a)_b")! },
          { sup: true },
        ] as const),
      ),
    ),
    { minLength: 1, maxLength: 6 },
  )
  .map((parts) => parts.map(([text, marks]): Run => ({ type: "text", text, marks })));

/** What a line says, and which of it is code or linked; bare addresses may have become links to themselves. */
function says(runs: readonly Run[]): string[] {
  const text = runsText(runs).replace(/\s+/g, " ").trim();
  const of = (name: "code" | "link") =>
    runs
      .filter((run) => run.type === "text" && run.marks?.[name] && run.text.trim() !== "")
      .map((run) => (run as { text: string }).text.replace(/\s+/g, " "));
  const isOwn = (run: Run) => run.type === "text" && run.marks?.link === "https://merrow-spit.example/(a)_b";
  return [
    text,
    of("code").join("").replace(/\s/g, ""),
    runsText(runs.filter(isOwn)).replace(/\s+/g, " ").trim(),
  ];
}

test("a line of any marks and addresses says the same in Markdown, read by our reader", async () => {
  await fc.assert(
    fc.asyncProperty(marked, async (runs) => {
      const { content } = await readMarkdown(writeMarkdown([{ type: "paragraph", runs }]));
      const read = content.flatMap((flow) =>
        flow.type === "paragraph" ? flow.runs : [{ type: "text", text: `?${flow.type}` } as const],
      );
      expect(says(read)).toEqual(says(runs));
    }),
    runs(500, 15_000),
  );
});

test("a line that begins from right to left says so in HTML, wherever it stands; others say nothing", async () => {
  const { content } = await readHtml(
    "<p>עברית עם wren</p><p>wren עם</p><ul><li>سنونو</li><li>tern</li></ul><table><tr><td>עוף</td><td>12</td></tr></table>",
  );
  expect(writeHtml(content).match(/<\w+ dir="auto">./gu)).toEqual([
    '<p dir="auto">ע',
    '<li dir="auto">س',
    '<td dir="auto">ע',
  ]);
});
