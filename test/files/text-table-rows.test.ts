import { spawnSync } from "node:child_process";
import { corpusTest, sayMissing } from "../support/libreoffice";
import { compose, readDelimited } from "drawer";
import { putInto } from "drawer/files";

sayMissing();

/** The rows that pandoc finds in the table of a file, each cell as its text. */
function rowsIn(format: string, text: string): string[][] {
  const { stdout } = spawnSync("pandoc", ["-f", format, "-t", "json"], { input: text, encoding: "utf8" });
  const rows: string[][] = [];
  const textOf = (node: unknown): string => {
    if (Array.isArray(node)) return node.map(textOf).join("");
    if (typeof node !== "object" || node === null) return "";
    const { t, c } = node as { t?: string; c?: unknown };
    return t === "Str" ? (c as string) : t === "Space" || t === "LineBreak" ? " " : textOf(c);
  };
  const walk = (node: unknown): void => {
    if (Array.isArray(node)) return node.forEach(walk);
    if (typeof node !== "object" || node === null) return;
    const { t, c } = node as { t?: string; c?: unknown[] };
    if (t !== "Table") return Object.values(node).forEach(walk);
    const [, , , head, bodies, foot] = c as [unknown, unknown, unknown, Row[][], Row[][][], Row[][]];
    for (const row of [...head[1]!, ...bodies.flatMap((body) => [...body[2]!, ...body[3]!]), ...foot[1]!])
      rows.push((row as unknown as [unknown, unknown[][]])[1].map((cell) => textOf(cell[4])));
  };
  walk(JSON.parse(stdout));
  return rows;
}
type Row = unknown;

const TABLES = {
  "lines of cells.html":
    '<p>Before</p>\r\n<table class="x">\r\n  <thead>\r\n    <tr>\r\n      <th scope="col">Species</th>\r\n      <th>New</th>\r\n      <th>Ride</th>\r\n    </tr>\r\n  </thead>\r\n  <tbody>\r\n    <tr id="a">\r\n      <th scope="row">Wren</th>\r\n      <td class="n" data-x="&quot;1&quot;">3</td>\r\n      <td>North</td>\r\n    </tr>\r\n    <tr><th>Robin</th><td>4</td><td>South</td></tr>\r\n  </tbody>\r\n</table>\r\n<p>After</p>\r\n',
  "in a quote.html":
    "<blockquote><p>x</p><table><tr><td>Species</td><td>New</td><td>Ride</td></tr><tr><td>Wren<table><tr><td>in</td></tr></table></td><td>3</td><td>North</td></tr><tr><td>Robin</td><td>4</td><td>South</td></tr></table></blockquote>",
  "edges.md":
    "# Birds\n\n| Species | New | Ride |\n|---|---:|---|\n| Wren | 3 | North |\n| Robin | 4 | South |\n\nEnd.\n",
  "no edges.md": "Species | New | Ride\r\n--- | --- | ---\r\nWren | 3 | North\r\nRobin | 4 | South\r\n",
  "in a quote.md":
    "> | Species | New | Ride |\n> |---|---|---|\n> | Wren | 3 | North |\n> | Robin | 4 | South |",
};

corpusTest.each(Object.entries(TABLES))(
  "rows come below any row of a table, under the names of its columns, and all else stays: %s",
  async (name, text) => {
    const format = name.endsWith(".md") ? "gfm" : "html";
    const was = rowsIn(format, text).filter((row) => row.length === 3);
    expect(was).toHaveLength(3);
    const { content } = await readDelimited('Ride,New,Species\nHut,7,"Knot | tern"\nHut,8,"a <b>"\n', {
      separator: ",",
      header: true,
    });
    for (const [at, rows] of [
      [1, "A1:C1"],
      [2, "A1:C2"],
      [3, "A1:C3"],
    ] as const) {
      const { data, notices } = await putInto(
        new TextEncoder().encode(text),
        name,
        `t1!${rows}`,
        compose([{ content }]),
        { put: "after" },
      );
      expect(notices.map(({ reason }) => reason)).toContain("appended/columns");
      const made = new TextDecoder().decode(data);
      const now = rowsIn(format, made).filter((row) => row.length === 3);
      expect(now.slice(at, at + 2)).toEqual([
        ["Knot | tern", "7", "Hut"],
        ["a <b>", "8", "Hut"],
      ]);
      expect([...now.slice(0, at), ...now.slice(at + 2)]).toEqual(was);
      // What was there is as it was written, around what has come.
      let from = 0;
      while (made[from] === text[from] && from < text.length) from++;
      expect(made.endsWith(text.slice(from))).toBe(true);
    }
  },
);

test("a row like one of merged cells is not made, and one that is like another takes nothing from it that is its own", async () => {
  const block = compose([await readDelimited("Species,New\nKnot,7\n", { separator: ",", header: true })]);
  const put = (html: string, cells: string) =>
    putInto(new TextEncoder().encode(html), "a.html", `t1!${cells}`, block, { put: "after" });
  const merged = "<table><tr><td rowspan=2>Species<td>New<tr><td>3<tr><td colspan=2>all</table>";
  for (const cells of ["A1:B1", "A1:B2", "A1:B3"])
    await expect(put(merged, cells)).rejects.toMatchObject({ reason: "cannot-edit/merged" });
  // Ends that are not written.
  const open = "<table><tr><th>Species<th>New\n<tr class=a><td align=right>Wren<td>3\n</table>";
  const below = new TextDecoder().decode((await put(open, "A1:B2")).data);
  expect(below).toBe(
    open.replace("\n</table>", '\n<tr class="a"><td align="right">Knot</td><td>7</td></tr>\n</table>'),
  );
  const own = '<table><tr><th>Species<th>New<tr id=a><td id=b class="n" sdval="3">Wren<td>3</table>';
  const { data } = await put(own, "A1:B2");
  expect(new TextDecoder().decode(data)).toContain('<tr><td class="n">Knot</td><td>7</td></tr></table>');
});
