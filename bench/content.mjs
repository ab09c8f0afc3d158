import { readFileSync, readdirSync } from "node:fs";
import { parse } from "parse5";
import { readHtml, writeDelimited, writeHtml, writeMarkdown, writeText } from "../dist/index.js";
import { compare, head, median } from "./measure.mjs";

const payload = (name) => readFileSync(`demo/clipboard/${name}/clip.html`, "utf8");

/** The range of the sample sheet with so many rows, as a sheet puts it on the clipboard. */
function range(rows) {
  const html = payload("cells-range");
  const [header, ...body] = html.match(/<tr>[\s\S]*?<\/tr>/g);
  const before = html.slice(0, html.indexOf("<tr>"));
  return (
    before +
    header +
    Array.from({ length: rows }, (_, index) => body[index % body.length]).join("\n") +
    "</table></body></html>"
  );
}

/** Does something so often that it takes a few milliseconds. */
const times = (count, deed) => async () => {
  for (let i = 0; i < count; i++) await deed();
};

/** Content in and out, against the bare parser and against writing the same content as JSON. */
export async function run() {
  const options = { runs: 25, warmup: 8 };
  head("HTML to content, against the bare parser (parse5) alone");
  for (const name of readdirSync("demo/clipboard")) {
    const html = payload(name);
    const count = Math.max(1, Math.round(60_000 / html.length));
    await compare(
      `read ${name} (${html.length} characters, ${count} times)`,
      times(count, () => readHtml(html)),
      times(count, () => parse(html)),
      options,
    );
  }
  const sheet = range(1000);
  await compare(
    "read a range of 1,000 rows",
    () => readHtml(sheet),
    () => parse(sheet),
    options,
  );

  head("Content written, against JSON.stringify of the same content");
  for (const [name, html] of [
    ["page-whole", payload("page-whole")],
    ["web-whole", payload("web-whole")],
    ["a range of 1,000 rows", sheet],
  ]) {
    const { content } = await readHtml(html);
    const count = Math.max(1, Math.round(300_000 / html.length));
    const json = times(count, () => JSON.stringify(content));
    await compare(
      `write ${name} as HTML`,
      times(count, () => writeHtml(content)),
      json,
      options,
    );
    await compare(
      `write ${name} as text`,
      times(count, () => writeText(content)),
      json,
      options,
    );
    await compare(
      `write ${name} as TSV`,
      times(count, () => writeDelimited(content, "\t")),
      json,
      options,
    );
    await compare(
      `write ${name} as Markdown`,
      times(count, () => writeMarkdown(content)),
      json,
      options,
    );
  }

  console.log("\nDoubling the rows of a range: milliseconds to read it, and per 1,000 rows");
  for (const rows of [1000, 2000, 4000, 8000]) {
    const html = range(rows);
    const taken = [];
    for (let i = 0; i < 7; i++) {
      const start = performance.now();
      await readHtml(html);
      if (i > 1) taken.push(performance.now() - start);
    }
    console.log(
      `${String(rows).padStart(6)} rows ${median(taken).toFixed(0).padStart(8)} ms ${((median(taken) / rows) * 1000).toFixed(1).padStart(8)} ms`,
    );
  }
}
