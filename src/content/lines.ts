import type { Content, Run } from "./model.js";

/** What each line of content says, a row of a table a line: words alone, without marks of lists, notes and pictures. */
export function linesIn(content: Content): string[] {
  return content.flatMap((flow) => {
    switch (flow.type) {
      case "paragraph":
      case "heading":
        return [words(flow.runs)];
      case "list":
        return flow.items.flatMap((item) => linesIn(item.flows));
      case "quote":
        return linesIn(flow.flows);
      case "table":
        return [
          ...(flow.caption ? [words(flow.caption)] : []),
          ...flow.rows.map((row) => row.flatMap((cell) => linesIn(cell.flows)).join("\t")),
        ];
      case "code":
        return [flow.text];
      case "picture":
      case "divider":
        return [];
      default:
        return flow satisfies never;
    }
  });
}

function words(runs: readonly Run[]): string {
  return runs.map((run) => (run.type === "text" ? run.text : run.type === "break" ? "\n" : " ")).join("");
}
