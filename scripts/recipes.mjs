// Makes docs/recipes.md: each layout and option with its input, the command, and what comes out, by running the commands
// on the sample data. `node scripts/recipes.mjs` writes it; with --print it goes to standard output.
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const home = mkdtempSync(join(tmpdir(), "drawer-recipes-"));

/** Runs a command as it would be typed, and gives what it answers. */
function drawer(words, input) {
  const { status, stdout, stderr } = spawnSync(process.execPath, ["dist/bin/main.js", ...words], {
    env: { ...process.env, DRAWER_HOME: home, TZ: "UTC", LC_ALL: "C.UTF-8" },
    encoding: "utf8",
    ...(input !== undefined && { input }),
  });
  if (status !== 0) throw new Error(`drawer ${words.join(" ")} ended with ${status}: ${stderr}`);
  return stdout + stderr.replace(/^(?=.)/gm, "# ");
}

const quoted = (word) => (/^[\w./:=-]+$/.test(word) ? word : `'${word}'`);

/** What lies in the drawer, in the order in which it was gathered. */
const GATHERED = [
  [["collect", "demo/diary.docx", "--at", "p3", "--at", "p4", "--at", "p5..p7"]],
  [
    [
      "collect",
      "demo/ringing.xlsx",
      "--at",
      "Spring!A1:E1",
      "--at",
      "Spring!A3:E3",
      "--at",
      "Spring!A5:E5",
      "--at",
      "Spring!C2:C4",
    ],
  ],
  [["collect", "demo/costs.csv", "--at", "A2:B4"]],
  [["collect"], "the tide table"],
  [["collect"], "https://merrow-spit.example/tides"],
  [["collect", "--label", "Warden on duty"], "North ride hut"],
  [
    ["collect"],
    "The causeway was shut at noon, and the tide was run-\nning hard over the stones by the old hide, so the\nwardens waited.\n\n\nThen they went.",
  ],
];

/** Sections: a heading, what it is, and commands. */
const SECTIONS = [
  [
    "As: sequence",
    "Each piece as it is, one after another. This is what happens when nothing is said. Items of a list that were taken one by one are one list again, where their numbers go on.",
    ["1 3 5"],
  ],
  ["As: lines", "Every paragraph, item and row is a line of its own.", ["3 5 7", "--as", "lines"]],
  [
    "As: joined",
    "One paragraph. What stands between is a space, or what you say.",
    ["9 11", "--as", "joined"],
    ["5 6", "--as", "joined", "--between", " / "],
  ],
  [
    "As: sentence",
    "The parts of one sentence, by the words and signs of a language.",
    ["9 11 2", "--as", "sentence", "--locale", "en-GB"],
    ["9 11 2", "--as", "sentence", "--locale", "de"],
  ],
  [
    "As: bullets and numbers",
    "Every piece is an item; what is nested stays nested, and the rows of a table are items.",
    ["2 3 6", "--as", "bullets"],
    ["3 7", "--as", "numbers"],
  ],
  [
    "As: rows",
    "Everything stacked into one table. The header is recognised once; columns go under columns of the same name, in any case, with or without spaces and accents. A header that was picked by itself names the columns of the rows that follow it, from the same sheet or of the same width. `--columns` says what else a column is called; `--header yes` or `no` says what the tables do not.",
    ["4..6", "--as", "rows", "--out", "csv"],
    ["4..6 8", "--as", "rows", "--columns", "New=Ringed", "--cite", "inline", "--out", "csv"],
  ],
  ["As: columns", "Side by side in one table.", ["7 8", "--as", "columns", "--out", "markdown"]],
  [
    "As: pairs",
    "Labels and values: from labels, from tables, whose first cells are the labels, or from snippets in turn.",
    ["8 11", "--as", "pairs", "--out", "markdown"],
    ["9 2", "--as", "pairs", "--out", "markdown"],
  ],
  [
    "As: link",
    "A text and an address make a link, in either order, many at once.",
    ["9 10", "--as", "link", "--out", "markdown"],
  ],
  ["As: quotes", "Each with where it came from.", ["1 2", "--as", "quotes", "--out", "markdown"]],
  [
    "Between, before, after",
    "A name (`newline blank space comma semicolon tab nothing`), or any text; `\\n` and `\\t` are understood. A name goes on on the same line, another text stands on a line of its own; a layout whose pieces stand by themselves refuses it. In a table, text around a piece stands in its first and last cells.",
    ["1 2", "--between", "* * *"],
    ["9 11", "--between", "comma"],
    ["9 11", "--before", "[ ] "],
  ],
  [
    "Style",
    "`own` keeps the source's look; `host` takes that of the place, and keeps emphasis, links, lists and tables; `bare` is text alone.",
    ["1", "--out", "html"],
    ["1", "--style", "host", "--out", "html"],
    ["1", "--style", "bare", "--out", "html"],
  ],
  [
    "Tidy",
    "The edges of pieces are tidied unless you say `none`: blank lines, rows and columns go, and levels of a list above the items that were taken. By name also blank `lines` inside, runs of `spaces`, `repeats`, broken lines `rejoin`ed, and `tables` that follow each other as pieces, and are rows of one, put into one.",
    ["12"],
    ["12", "--tidy", "rejoin", "--tidy", "lines"],
  ],
  [
    "Cite",
    "Where each piece came from: in brackets, by numbers, or as a list. The same source is named once. In a table, sources and numbers stand in a column.",
    ["1 2", "--cite", "inline"],
    ["1 2", "--cite", "notes", "--out", "markdown"],
    ["1 2", "--cite", "list", "--out", "markdown"],
  ],
  [
    "Fit: line, plain",
    "One line; or lines of plain text.",
    ["3 9", "--fit", "line"],
    ["1 3", "--fit", "plain", "--out", "html"],
  ],
  [
    "Fit: cell, cells",
    "Everything inside one sheet cell, its lines as lines of the cell; or a grid.",
    ["7", "--as", "lines", "--fit", "cell"],
    ["7", "--as", "lines", "--fit", "cell", "--out", "html"],
    ["6 9", "--fit", "cells"],
  ],
  ["Fit: address", "Only the address of whatever holds one.", ["9 10", "--as", "link", "--fit", "address"]],
];

let page = `# Recipes

A recipe says how a block is made of the snippets that you picked. This page is made by running the commands on the sample
data (\`node scripts/recipes.mjs\`), so what stands here is what comes out.

\`\`\`console
`;
for (const [words, input] of GATHERED) {
  const piped = input === undefined ? "" : `printf '${input.replaceAll("\n", "\\n")}' | `;
  drawer(words, input);
  page += `$ ${piped}drawer ${words.map(quoted).join(" ")}\n`;
}
page += `$ drawer list\n${drawer(["list"])}\`\`\`\n`;
for (const [title, says, ...commands] of SECTIONS) {
  page += `\n## ${title}\n\n${says}\n\n\`\`\`console\n`;
  page += commands
    .map(([pick, ...options]) => {
      const words = ["place", ...pick.split(" "), ...options];
      return `$ drawer ${words.map(quoted).join(" ")}\n${drawer(words)}`;
    })
    .join("\n");
  page += "```\n";
}
page += `
## Kept by name

\`\`\`console
`;
for (const words of [
  ["recipe", "save", "roundup", "--as", "bullets", "--cite", "list"],
  ["place", "1", "2", "--recipe", "roundup", "--out", "markdown"],
  ["recipe"],
]) {
  page += `$ drawer ${words.map(quoted).join(" ")}\n${drawer(words)}`;
}
page += "```\n";
rmSync(home, { recursive: true, force: true });

if (process.argv.includes("--print")) process.stdout.write(page);
else writeFileSync("docs/recipes.md", page);
