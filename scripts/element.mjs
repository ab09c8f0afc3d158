// Writes what dist/custom-elements.json says of the element into docs/embedding.md. Prints it with --print.
import { readFileSync, writeFileSync } from "node:fs";

const { modules } = JSON.parse(readFileSync("dist/custom-elements.json", "utf8"));
const element = modules[0].declarations.find(({ tagName }) => tagName === "snippet-drawer");
const cell = (text = "") => text.replaceAll("|", "\\|").replaceAll("\n", " ");
const rows = (kind, entries) =>
  (entries ?? []).map(({ name, description }) => `| ${kind} | \`${name}\` | ${cell(description)} |`);
const attributes = new Set(element.attributes.map(({ name }) => name));
const members = element.members.filter(({ name }) => !attributes.has(name));

export const table = [
  "| | name | what it is |",
  "|---|---|---|",
  ...rows("attribute", element.attributes),
  ...rows(
    "property",
    members.filter(({ kind }) => kind === "field"),
  ),
  ...rows(
    "method",
    members.filter(({ kind }) => kind === "method"),
  ),
  ...rows("event", element.events),
  ...rows("slot", element.slots),
  ...rows("part", element.cssParts),
  ...rows("custom property", element.cssProperties),
].join("\n");

const path = "docs/embedding.md";
const marked = /(<!-- element -->)[\s\S]*?(<!-- end of element -->)/;
if (process.argv.includes("--print")) console.log(table);
else writeFileSync(path, readFileSync(path, "utf8").replace(marked, `$1\n\n${table}\n\n$2`));
