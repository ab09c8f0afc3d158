import fc from "fast-check";
import {
  compose,
  readHtml,
  readMarkdown,
  readText,
  writeHtml,
  writeMarkdown,
  writeText,
  type Content,
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

test("a comma-separated cell that a sheet would run is guarded, and reads back as it was", async () => {
  const cells = ["=1+1", "@home", "+44 1", "-3", "-x", "'=1", "''@a", "'tis", " =1", "007"];
  const { content } = await readDelimited(cells.map((cell) => `"${cell}"`).join("\n"), {
    separator: ",",
    header: false,
  });
  const guarded = writeDelimited(content, ",").text;
  expect(guarded.split("\n").slice(0, -1)).toEqual(
    ["=1+1", "@home", "+44 1", "-3", "-x", "'=1", "''@a", "'tis", " =1", "007"].map(
      (cell) => guardedForm[cell] ?? cell,
    ),
  );
  expect((await readDelimited(guarded, { separator: ",", header: false })).content).toEqual(content);
  expect(writeDelimited(content, ",", { guard: false }).text).not.toContain("'=1+1");
});
