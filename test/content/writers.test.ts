import fc from "fast-check";
import {
  compose,
  paragraph,
  readDelimited,
  readHtml,
  readMarkdown,
  readText,
  writeDelimited,
  writeHtml,
  writeMarkdown,
  writeText,
  type Content,
  type Table,
} from "drawer";
import { contents, plainContents } from "../support/contents";

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
      expect((await readHtml(writeHtml(content))).content).toEqual(content);
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
  ["-3", "-3"],
  ["+44 1", "+44 1"],
  ["'tis", "'tis"],
  ["007", "007"],
])(
  "the cell %s is written as %s where a sheet might run it, and reads back as it was",
  async (cell, guarded) => {
    const table: Table = { type: "table", headerRows: 0, rows: [[{ flows: [paragraph(cell)] }]] };
    expect(writeDelimited([table], ",").text).toBe(`${guarded}\n`);
    expect((await readDelimited(`${guarded}\n`, { separator: "," })).content).toEqual([table]);
    expect(writeDelimited([table], ",", { guard: false }).text).toBe(`${cell}\n`);
  },
);
