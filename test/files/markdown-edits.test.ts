import { spawnSync } from "node:child_process";
import fc from "fast-check";
import { runs } from "../support/counts";
import { corpusTest, sayMissing } from "../support/libreoffice";
import { compose, readHtml, readText } from "drawer";
import { putInto, readSource, takeOut } from "drawer/files";

sayMissing();
const bytes = (text: string) => new TextEncoder().encode(text);
const said = ({ data }: { data: Uint8Array }) => new TextDecoder().decode(data);

let number = 0;
const word = fc.stringMatching(/^[a-z]{2,6}$/).map((letters) => `${letters}${++number % 1000}`);
const BLOCKS: fc.Arbitrary<string>[] = [
  word.map((words) => `${words} *${words}*\nmore of it`),
  word.map((words) => `## ${words}`),
  fc.array(word, { minLength: 1, maxLength: 3 }).map((items) => items.map((item) => `- ${item}`).join("\n")),
  fc
    .array(word, { minLength: 1, maxLength: 3 })
    .map((items) => items.map((item, at) => `${at + 1}. ${item}\n   - in ${item}`).join("\n")),
  word.map((words) => `> ${words}\n>\n> second ${words}`),
  word.map((words) => `| a${words} | b |\n|---|---|\n| 1 | 2 |`),
  word.map((words) => `\`\`\`\n${words}\n\n  code\n\`\`\``),
  word.map((words) => `- ${words}\n\n  second ${words}`),
];
const document = fc
  .array(fc.oneof(...BLOCKS), { minLength: 2, maxLength: 6 })
  .map((blocks) => `${blocks.join("\n\n<!-- -->\n\n")}\n`);
/** Without comments, which stand between lists that would be one. */
const plain = document.map((text) => text.replaceAll("<!-- -->\n\n", "between lines\n\n"));
const flat = (text: string) =>
  text
    .split("\n")
    .map((line) => line.replace(/^(?:[\s>]|[-*•] |\d+\. )*/, "").trim())
    .filter(Boolean);
const textOf = async (text: string) => compose([(await readSource(bytes(text), "a.md")).at()]).text;

const check = (judge: (text: string) => Promise<string> | string, numRuns: { numRuns: number }) =>
  fc.assert(
    fc.asyncProperty(
      plain,
      fc.double({ min: 0, max: 0.999, noNaN: true }),
      fc.boolean(),
      async (text, share, isBefore) => {
        const parts = (await readSource(bytes(text), "a.md")).parts();
        const { spot } = parts[Math.floor(share * parts.length)]!;
        const block = compose([await readHtml("<p>PUT one</p><ul><li>PUT two</ul>")]);
        const put = said(
          await putInto(bytes(text), "a.md", spot, block, { put: isBefore ? "before" : "after" }),
        );
        const [was, now] = [flat(await judge(text)), flat(await judge(put))];
        expect(now.filter((line) => line.includes("PUT"))).toEqual(["PUT one", "PUT two"]);
        expect(now.filter((line) => !line.includes("PUT"))).toEqual(was);
        // What was there stays as it was written, line by line.
        const lines = put.split("\n");
        let at = 0;
        for (const line of text.split("\n"))
          at = lines.indexOf(line, at) + 1 || expect(line).toBe("in its place") || 0;
        const out = said(await takeOut(bytes(text), "a.md", [spot]));
        const gone = flat(await textOf(text));
        for (const line of flat(await textOf(out))) gone.splice(gone.indexOf(line), 1);
        const taken = (await readSource(bytes(text), "a.md")).at(spot);
        expect(gone).toEqual(flat(compose([taken]).text));
      },
    ),
    numRuns,
  );

test("a block goes into Markdown and comes out, and every other line stays, as we read it", async () => {
  await check(textOf, runs(60, 1000));
});

corpusTest("pandoc reads the same with the block in it", async () => {
  await check(
    (text) =>
      spawnSync("pandoc", ["-f", "gfm", "-t", "plain", "--wrap=none"], { input: text, encoding: "utf8" })
        .stdout,
    runs(12, 100),
  );
});

corpusTest(
  "items that are put beside one are of its list, marked and numbered as it is, as pandoc shows them",
  async () => {
    const plainOf = (text: string) =>
      spawnSync("pandoc", ["-f", "commonmark", "-t", "plain", "--wrap=none"], {
        input: text,
        encoding: "utf8",
      }).stdout;
    const html = (markup: string) => readHtml(markup).then((reading) => compose([reading]));
    const numbers = await html("<ol><li>rings<ul><li>new</ul><li>nets</ol>");
    const bullets = await html("<ul><li>shut<li>open</ul>");
    for (const [host, block, put, expected] of [
      ["9) north\n10) south\n", numbers, "after", "9) north\n10) rings\n    - new\n11) nets\n10) south\n"],
      ["3. north\n4. south\n", numbers, "before", "3. rings\n   - new\n4. nets\n3. north\n4. south\n"],
      ["* north\n* south\n", bullets, "after", "* north\n* shut\n* open\n* south\n"],
      ["> + north\n> + south\n", bullets, "after", "> + north\n> + shut\n> + open\n> + south\n"],
    ] as const) {
      const made = said(await putInto(bytes(host), "a.md", "p1", block, { put }));
      expect(made).toBe(expected);
      // One list: without a second one there is no blank line or other mark in it.
      expect(plainOf(made).trim().split("\n")).toHaveLength(made.trim().split("\n").length);
    }
  },
);

test("line ends, encoding marks and what is not known for sure", async () => {
  const windows = "\uFEFF# A\r\n\r\none\r\n\r\ntwo\r\n";
  const put = await putInto(bytes(windows), "a.md", "p2", compose([readText("wren")]));
  expect(new TextDecoder("utf-8", { ignoreBOM: true }).decode(put.data)).toBe(
    "\uFEFF# A\r\n\r\none\r\n\r\nwren\r\n\r\ntwo\r\n",
  );
  const html = "one\n\n<div><p>in it</p><p>and more</p></div>\n\ntwo\n";
  await expect(putInto(bytes(html), "a.md", "p1", compose([readText("wren")]))).rejects.toMatchObject({
    reason: "cannot-edit/form",
  });
  const front = "---\ntitle: x\n---\n\none\n\ntwo\n";
  expect(said(await takeOut(bytes(front), "a.md", ["p1"]))).toBe("---\ntitle: x\n---\n\ntwo\n");
  const items = compose([await readHtml("<ul><li>more<li>last</ul>")]);
  expect(said(await putInto(bytes("- one\n- two\n"), "a.md", "p1", items))).toBe(
    "- one\n- more\n- last\n- two\n",
  );
  expect(said(await putInto(bytes("one\n\ntwo\n"), "a.md", "p1", items, { put: "instead" }))).toBe(
    "- more\n- last\n\ntwo\n",
  );
});
