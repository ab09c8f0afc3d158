import { readFileSync } from "node:fs";
import { payload } from "../support/demo";
import {
  isBlank,
  kindOf,
  readDelimited,
  readFlavours,
  writeDelimited,
  writeMarkdown,
  writeText,
  type Table,
} from "drawer";

const read = async (name: string) => (await readFlavours(payload(name))).content;

/** What each real copy must come out as. */
const EXPECTED: Record<string, string> = {
  "page-paragraph-3":
    "First **wheatear** on the seawall at 05:50; wind *south-east*, force 3, and the tide <u>an hour past low</u>.",
  "page-paragraph-4": "Net round 1 began at 06:10 — nine birds in the heath rides.",
  "page-paragraph-5": "- Rides open: north and middle",
  "page-table":
    "| Species | New | Retrap |\n| --- | --- | --- |\n| Chiffchaff | 14 | 3 |\n| Willow warbler | 6 | 0 |\n| Goldcrest | 2 | 11 |",
  "web-sentence":
    "High water **11:48**; the causeway is **shut 10:30 to 13:10**. More at " +
    "[the tide table](https://merrow-spit.example/tides?month=4&station=2).",
  "web-table-row": "|  |  |  |\n| --- | --- | --- |\n| 9 | 12:21 | 06:07 |",
  "cells-one-number": "|  |\n| --: |\n| 23 |",
  "cells-one-two-lines": "|  |\n| --- |\n| net 4<br>net 5 after 09:00 |",
};

test.each(Object.entries(EXPECTED))("%s keeps what matters", async (name, markdown) => {
  expect(writeMarkdown(await read(name))).toBe(markdown);
});

test("a whole page keeps headings, nested lists, quotes, tables and line breaks", async () => {
  const content = await read("page-whole");
  expect(content.map(({ type }) => type).join(" ")).toBe(
    "heading heading paragraph paragraph list list heading paragraph quote table paragraph",
  );
  expect(writeText(content)).toContain(
    "- Rides open: north and middle\n  - middle ride shut at 09:00, wind\n- South ride",
  );
  expect(writeText(content)).toContain("Boardwalk plank 31 is loose.\nDo not lean on the rail.");
});

test("a web page's defaults are not formatting, what differs from them is", async () => {
  const content = await read("web-whole");
  const marks = JSON.stringify(content).match(/"marks":\{[^}]*\}/g);
  expect([...new Set(marks)].sort()).toEqual([
    '"marks":{"bold":true,"color":"#b03020","background":"#fff3d6"}',
    '"marks":{"bold":true}',
    '"marks":{"italic":true}',
    '"marks":{"link":"https://merrow-spit.example/tides?month=4&station=2"}',
  ]);
  const table = content.find((flow) => flow.type === "table") as Table;
  expect([table.headerRows, table.rows[1]![0]!.rowspan, table.caption]).toEqual([
    1,
    2,
    [{ type: "text", text: "Station 2" }],
  ]);
  expect(content).toContainEqual({ type: "code", text: "gauge  1  0.42\ngauge  2  0.39" });
});

test("a sheet's range keeps typed values, formats, and texts that only look like formulas", async () => {
  const [table] = (await read("cells-range")) as [Table];
  expect(table.headerRows).toBe(1);
  expect(table.rows[1]!.map(({ value }) => value)).toEqual([
    { type: "date", date: "2031-04-08", format: "YYYY-MM-DD" },
    undefined,
    undefined,
    { type: "number", number: 14 },
    { type: "number", number: 3 },
    { type: "number", number: 58.5, format: "0.0" },
    undefined,
  ]);
  expect(table.rows[5]!.at(-1)).toEqual({
    flows: [{ type: "paragraph", runs: [{ type: "text", text: "=not a formula" }] }],
  });
  const ours = await readDelimited(writeDelimited([table], "\t").text, { separator: "\t" });
  expect(ours).toEqual(await readDelimited(payload("cells-range").tsv!, { separator: "\t" }));
});

test("merged cells keep their width and a sum its percentage", async () => {
  const [table] = (await read("cells-merged-row")) as [Table];
  expect(table.rows[0]!.map(({ colspan = 1 }) => colspan)).toEqual([3, 1, 1, 1, 1]);
  expect(table.rows[0]![3]!.value).toEqual({ type: "number", number: 0.621621621621622, format: "0.0%" });
});

test("a blank cell is blank, whatever is offered beside it", async () => {
  expect(isBlank(await read("cells-one-blank"))).toBe(true);
});

test("a lone address is a link, and only a safe one", async () => {
  const kind = async (text: string) => kindOf((await readFlavours({ text })).content);
  expect(await kind("https://merrow-spit.example/tides")).toBe("link");
  expect(await kind("javascript:alert(1)")).toBe("text");
});

const sketch = new Uint8Array(readFileSync("demo/sketches/tide.png"));
test.each([
  [
    "an image that is copied in a browser",
    '<meta charset="utf-8"><img src="https://merrow-spit.example/tide.png" alt="The tide">',
    true,
  ],
  [
    "the same in a link, between spaces",
    '<html><body>\n<!--StartFragment--><a href="https://merrow-spit.example/"><img alt="The tide" src=tide.png></a>&nbsp;<!--EndFragment--></body></html>',
    true,
  ],
  [
    "words beside an image",
    '<p>Tide <img src="https://merrow-spit.example/tide.png" alt="The tide"></p>',
    false,
  ],
  ["two images", '<img src="a.png" alt="The tide"><img src="b.png" alt="b">', false],
  ["a table, with a picture of it", "<table><tr><td>The tide</table>", false],
])(
  "of %s, the picture that is offered beside it is taken where it is all of it",
  async (_, html, isPicture) => {
    const { content, pictures, notices } = await readFlavours({ html, text: "", picture: sketch });
    expect(kindOf(content) === "picture").toBe(isPicture);
    expect([...pictures.values()]).toEqual(isPicture ? [sketch] : []);
    expect(JSON.stringify(content)).toContain("The tide");
    // What could not be had is told.
    expect(notices.length > 0).toBe(!isPicture && html.includes("<img"));
  },
);
