import { compose, readHtml } from "../dist/index.js";
import { compare, head, median } from "./measure.mjs";

/** Snippets of formatted text. */
async function texts(count) {
  const { content } = await readHtml(
    "<p>First <b>wheatear</b> on the seawall at <font color=red>05:50</font>; wind <i>south-east</i>.</p>",
  );
  return Array.from({ length: count }, () => ({ content }));
}

/** Ranges of ten rows under a header, whose columns come in two orders. */
async function ranges(count) {
  const read = async (names) =>
    (
      await readHtml(
        `<table><tr>${names.map((name) => `<th>${name}`).join("")}${`<tr>${names.map((name) => `<td>${name} 1`).join("")}`.repeat(10)}</table>`,
      )
    ).content;
  const [one, other] = [
    await read(["Date", "Ride", "Species", "New"]),
    await read(["Species", "New", "Date", "Ride"]),
  ];
  return Array.from({ length: count }, (_, index) => ({ content: index % 2 ? other : one }));
}

/** Composing, against joining and stacking what is ready. */
export async function run() {
  head("10,000 snippets of formatted text, against Array.join of their ready strings");
  const many = await texts(10_000);
  const html = many.map((snippet) => compose([snippet]).html);
  const text = many.map((snippet) => compose([snippet]).text);
  await compare(
    "compose to HTML",
    () => compose(many).html,
    () => html.join(""),
  );
  await compare(
    "compose to text",
    () => compose(many).text,
    () => text.join("\n"),
  );

  head("1,000 ranges of 10 rows matched by header, against stacking plain arrays and writing them as CSV");
  const stacked = await ranges(1000);
  const arrays = stacked.map((_, index) =>
    Array.from({ length: 10 }, () =>
      index % 2 ? ["Species 1", "New 1", "Date 1", "Ride 1"] : ["Date 1", "Ride 1", "Species 1", "New 1"],
    ),
  );
  const plain = () => {
    const rows = [["Date", "Ride", "Species", "New"]];
    arrays.forEach((range, index) => {
      for (const row of range) rows.push(index % 2 ? [row[2], row[3], row[0], row[1]] : row);
    });
    return rows
      .map((row) =>
        row.map((cell) => (/[",\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell)).join(","),
      )
      .join("\n");
  };
  await compare("compose as rows to CSV", () => compose(stacked, { as: "rows" }).csv, plain);

  console.log("\nMore snippets: milliseconds to compose them to HTML, and per 10,000");
  for (const count of [10_000, 20_000, 50_000, 100_000]) {
    const snippets = await texts(count);
    const taken = [];
    for (let i = 0; i < 7; i++) {
      const start = performance.now();
      void compose(snippets).html;
      if (i > 1) taken.push(performance.now() - start);
    }
    console.log(
      `${String(count).padStart(8)} ${median(taken).toFixed(0).padStart(8)} ms ${((median(taken) / count) * 10_000).toFixed(1).padStart(8)} ms`,
    );
  }
}
