import fc from "fast-check";
import { parse5Adapter } from "../../dist/formats/html/parse5.js";
import { readHtml } from "drawer";

const SHEETS = [
  ...["", "p { color: #224466 }", ".x { font-weight: bold } td.x { color: red }"],
  "#ring b { font-style: italic }",
];
const ATTRIBUTES = [
  ...["", 'class="x"', 'id="ring"', 'align="right"', 'style="font-size: 20pt"', 'dir="rtl"', "hidden"],
  ...['style="orphans: 2; font-size: 9pt"', 'style="orphans: 2; font-size: 18pt"'],
  ...['style="caret-color: #000; color: #224466; font-size: 15pt"', 'href="https://merrow.example/tides"'],
];
const NAMES = ["p", "b", "a", "div", "span", "ul", "li", "table", "td", "h2", "blockquote", "pre", "font"];

interface Piece {
  readonly name: string;
  readonly attribute: string;
  readonly inside: Piece[];
}
const { piece } = fc.letrec<{ piece: Piece }>((tie) => ({
  piece: fc.record({
    name: fc.constantFrom(...NAMES),
    attribute: fc.constantFrom(...ATTRIBUTES),
    inside: fc.oneof({ maxDepth: 4 }, fc.constant<Piece[]>([]), fc.array(tie("piece"), { maxLength: 3 })),
  }),
}));
const html = ({ name, attribute, inside }: Piece): string =>
  `<${name} ${attribute}>wren ${inside.map(html).join("dunlin")}</${name}>`;
const page = fc
  .tuple(fc.constantFrom(...SHEETS), fc.constantFrom(...ATTRIBUTES), fc.array(piece, { maxLength: 4 }))
  .map(
    ([sheet, body, pieces]) =>
      `<html><head>${sheet && `<style>${sheet}</style>`}</head><body ${body}>${pieces.map(html).join("")}</body></html>`,
  );

test("a page is read the same, whatever pages were read before it", async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(page, { minLength: 2, maxLength: 5 }), async (pages) => {
      for (const text of pages) {
        // What is remembered is remembered for an adapter: one that is new knows nothing.
        const alone = await readHtml(text, { adapter: { ...parse5Adapter } });
        expect(await readHtml(text)).toEqual(alone);
      }
    }),
    { numRuns: 300 },
  );
});

test("more places than are remembered are all read", async () => {
  const lines = Array.from({ length: 3000 }, (_, at) => `<p class="c${at}"><b>wren ${at}</b></p>`);
  const { content } = await readHtml(`<style>.c2999 { color: red }</style>${lines.join("")}`);
  expect(content).toHaveLength(3000);
  expect(content[2999]).toMatchObject({
    runs: [{ text: "wren 2999", marks: { bold: true, color: "#ff0000" } }],
  });
});
