import type { Command } from "commander";
import type { Content, Flow, Table } from "../../content/model.js";
import { columnsOf, fillGrid } from "../../content/spans.js";
import { masked, type Snippet } from "../../drawer/snippets.js";
import { writeHtml } from "../../formats/html/write.js";
import { cellText, writeText } from "../../formats/text/write.js";
import { answers, facts } from "../../messages/en/cli-answers.js";
import { commands } from "../../messages/en/cli-help.js";
import { listedSnippet, type CommonOptions } from "../answer.js";
import { columns, localTime, widest } from "../columns.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { print, remark, printJson } from "../terminal.js";

/** `drawer show PICK`: snippets whole, without putting them anywhere. */
export function add(program: Command): void {
  const says = commands.show;
  begin(program, "show")
    .option("--reveal", says.reveal)
    .action(async (pick: readonly string[], options: CommonOptions & { reveal?: boolean }) => {
      const snippets = await withDrawer(options.drawer, (drawer) => drawer.snippets(pick.join(" ")));
      const shown = options.reveal ? snippets : snippets.map(masked);
      if (options.json) printJson({ snippets: shown.map(whole), notices: [] });
      else shown.forEach((snippet, index) => print(`${index > 0 ? "\n" : ""}${readable(snippet)}`));
      if (shown.some(({ entry }) => entry.private) && !options.reveal) remark(`${answers.notRevealed()}\n`);
    });
}

function whole(snippet: Snippet): object {
  const { content, pictures } = snippet;
  return {
    ...listedSnippet(snippet),
    content,
    html: writeHtml(content, { picture: (hash) => pictures.get(hash) }),
  };
}

/** A line of facts, and the content as a terminal shows it best. */
function readable({ position, entry, content }: Snippet): string {
  const { document, title, address, at } = entry.origin;
  const marks = [entry.kept && facts.kept, entry.private && facts.private];
  const said = [
    entry.kind,
    entry.label,
    ...marks,
    document,
    at,
    title,
    address,
    facts.collected(localTime(entry.collectedAt)),
  ];
  return `${position}  ${said.filter(Boolean).join(", ")}\n\n${textOf(content)}\n`;
}

/** Content as a terminal shows it best: text as it is, tables with their columns aligned, pictures by what is known of them. */
function textOf(content: Content): string {
  return content.map(flowText).join("\n");
}

function flowText(flow: Flow): string {
  if (flow.type === "picture") return facts.picture(flow.alt, flow.width, flow.height);
  return flow.type === "table" ? grid(flow) : writeText([flow]);
}

function grid(table: Table): string {
  const rows = fillGrid(table, "", (cell) => cellText(cell.flows).replace(/\s*\n\s*/g, " / "));
  const lines = columns(rows, columnsOf(table) - 1);
  if (table.headerRows > 0) lines.splice(table.headerRows, 0, "─".repeat(widest(lines)));
  return (table.caption ? [writeText([{ type: "paragraph", runs: table.caption }]), ...lines] : lines).join(
    "\n",
  );
}
