import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { demoFile } from "../support/demo";
import { corpusTest, sayMissing } from "../support/libreoffice";
import { compose, readHtml, readText } from "drawer";
import { putInto, readSource, takeOut } from "drawer/files";

sayMissing();
const bytes = (text: string) => new TextEncoder().encode(text);
const said = ({ data }: { data: Uint8Array }) => new TextDecoder().decode(data);
const pandoc = (from: string, to: string, input: string | Uint8Array) =>
  spawnSync("pandoc", ["-f", from, "-t", to, "--wrap=none"], { input, encoding: "utf8" }).stdout;
/** What pandoc reads in a page: its lines, without the marks of lists and quotes. */
const shown = (html: string) =>
  pandoc("html", "plain", html)
    .split("\n")
    .map((line) =>
      line
        .replace(/^(?:[\s>:]|[-*•] |(?:\d+|[a-z]|[ivx]+)[.)] )*/, "")
        .replace(/\s+/g, " ")
        .trim(),
    )
    .filter((line) => !/^[-\s]*$/.test(line));

corpusTest.each([
  ["letter.html", () => new TextDecoder().decode(demoFile("letter.html"))],
  [
    "a page of pandoc",
    () =>
      pandoc("markdown", "html", readFileSync("test/office/bulletin.md"))
        .replace(/<section[\s\S]*/, "")
        .replace(/<a href="#fn[\s\S]*?<\/a>/g, ""),
  ],
] as const)(
  "%s with a block at every spot, and without what stands there, is to pandoc what it was",
  async (name, make) => {
    const html = make();
    const was = shown(html);
    const block = compose([
      await readHtml("<p>PUT one</p><ul><li>PUT two</ul><table><tr><td>PUT three</table>"),
    ]);
    const source = await readSource(bytes(html), "a.html");
    const spots = source.parts().map(({ spot }) => spot);
    expect([name, spots.length > 10]).toEqual([name, true]);
    for (const [at, spot] of spots.entries()) {
      const made = said(
        await putInto(bytes(html), "a.html", spot, block, { put: at % 2 === 0 ? "after" : "before" }),
      );
      const now = shown(made);
      expect([spot, now.filter((line) => line.includes("PUT"))]).toEqual([
        spot,
        ["PUT one", "PUT two", "PUT three"],
      ]);
      expect(now.filter((line) => !line.includes("PUT"))).toEqual(was);
      // But for what was put there, the text of the page is the one it was.
      const put =
        /\s*<p>PUT[\s\S]*PUT three<\/p><\/td><\/tr><\/tbody><\/table>|\s*<p>PUT[\s\S]*?<\/table>/.exec(
          made,
        )![0];
      expect(made.replace(put, "").replace(/\s+/g, "")).toBe(html.replace(/\s+/g, ""));
      const out = shown(said(await takeOut(bytes(html), "a.html", [spot])));
      const gone = [...was];
      for (const line of out) if (gone.includes(line)) gone.splice(gone.indexOf(line), 1);
      const letters = (words: string) => words.replace(/[^\p{L}\p{N}]+/gu, "");
      const taken = letters(compose([source.at(spot)]).text);
      for (const line of gone)
        expect([spot, taken.includes(letters(line).slice(0, 12))]).toEqual([spot, true]);
    }
  },
);

test("items join a list, empty ones go, and a page that is not clear is left alone", async () => {
  const list = "<ul>\n  <li>one\n  <li>two<ul><li>in</li></ul></li>\n</ul>\n<p>end</p>";
  const items = compose([await readHtml("<ul><li>a<li>b</ul>")]);
  expect(said(await putInto(bytes(list), "a.html", "p1", items))).toBe(
    "<ul>\n  <li>one\n  <li>a</li><li>b</li>\n  <li>two<ul><li>in</li></ul></li>\n</ul>\n<p>end</p>",
  );
  expect(said(await takeOut(bytes(list), "a.html", ["p1..p3"]))).toBe("\n<p>end</p>");
  expect(said(await takeOut(bytes(list), "a.html", ["p3"]))).toBe(
    "<ul>\n  <li>one\n  <li>two</li>\n</ul>\n<p>end</p>",
  );
  const wren = compose([readText("wren")]);
  expect(said(await putInto(bytes(list), "a.html", "p4", wren, { put: "instead" }))).toContain(
    "</ul>\n<p>wren</p>",
  );
  const hidden = '<p>one</p><p style="display: none">not shown</p><p>two</p>';
  await expect(putInto(bytes(hidden), "a.html", "p1", wren)).rejects.toMatchObject({
    reason: "cannot-edit/form",
  });
});
