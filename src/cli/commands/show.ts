import type { Command } from "commander";
import { columnsOf, placeCells } from "../../content/measure.js";
import type { Content, Table } from "../../content/model.js";
import { writeHtml } from "../../content/write/html.js";
import { cellText, writeText } from "../../content/write/text.js";
import { answerJson, listed, type CommonOptions } from "../answer.js";
import { columns, widest } from "../columns.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";

/** `drawer show PICK`: snippets whole, without putting them anywhere. */
export function add(program: Command): void {
  begin(program, "show <pick...>", "snippets whole, without placing them").action(
    async (pick: readonly string[], options: CommonOptions) => {
      const snippets = await withDrawer(options.drawer, (drawer) => drawer.snippets(pick.join(" ")));
      if (options.json) {
        answerJson(
          snippets.map((snippet) => ({
            ...listed(snippet),
            content: snippet.content,
            html: writeHtml(snippet.content, { picture: (hash) => snippet.pictures.get(hash) }),
          })),
        );
        return;
      }
      snippets.forEach(({ position, entry, content }, index) => {
        const { document, title, address, at } = entry.origin;
        const facts = [
          entry.kind,
          entry.label,
          document,
          at,
          title,
          address,
          `collected ${localTime(entry.collectedAt)}`,
        ];
        const head = `${position}  ${facts.filter(Boolean).join(", ")}`;
        process.stdout.write(`${index > 0 ? "\n" : ""}${head}\n\n${readable(content)}\n`);
      });
    },
  );
}

function localTime(iso: string): string {
  return new Date(iso).toLocaleString("sv-SE", { dateStyle: "short", timeStyle: "short" });
}

/** Content as a terminal shows it best: text as it is, tables with their columns aligned. */
function readable(content: Content): string {
  return content.map((flow) => (flow.type === "table" ? grid(flow) : writeText([flow]))).join("\n");
}

function grid(table: Table): string {
  const covered: number[] = [];
  const width = columnsOf(table);
  const rows = table.rows.map((row) => {
    const line = Array.from({ length: width }, () => "");
    for (const { cell, column } of placeCells(row, covered))
      line[column] = cellText(cell.flows).replace(/\s*\n\s*/g, " / ");
    return line;
  });
  const lines = columns(rows, width - 1);
  if (table.headerRows > 0) lines.splice(table.headerRows, 0, "─".repeat(widest(lines)));
  return (table.caption ? [writeText([{ type: "paragraph", runs: table.caption }]), ...lines] : lines).join(
    "\n",
  );
}
