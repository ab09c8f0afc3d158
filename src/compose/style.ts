import type { Cell, Content, Flow, Marks, Run } from "../content/model.js";
import { mergeRuns } from "../content/table.js";
import type { StyleName } from "./recipe.js";

/** The marks that say something, whatever the look of the place: emphasis and links. */
const MEANT: readonly (keyof Marks)[] = [
  "bold",
  "italic",
  "underline",
  "strike",
  "code",
  "sub",
  "sup",
  "link",
];

/**
 * Gives content the look that is wanted. `own` leaves it. `host` leaves emphasis, links, lists and tables, and takes off
 * colour, background, font, size and alignment, so that the place it lands in gives its own. `bare` leaves text alone:
 * no marks, no headings; lists and tables stay what they are, because their order is part of what they say.
 */
export function styled(content: Content, style: StyleName): Content {
  return style === "own" ? content : content.map((flow) => styledFlow(flow, style));
}

function styledFlow(flow: Flow, style: "host" | "bare"): Flow {
  switch (flow.type) {
    case "paragraph":
    case "heading": {
      const { align: _, ...rest } = flow;
      const runs = styledRuns(flow.runs, style);
      if (style === "bare" && rest.type === "heading") {
        const { level: __, ...line } = rest;
        return { ...line, type: "paragraph", runs };
      }
      return { ...rest, runs };
    }
    case "list":
      return { ...flow, items: flow.items.map(({ flows }) => ({ flows: styled(flows, style) })) };
    case "quote":
      return { ...flow, flows: styled(flow.flows, style) };
    case "table": {
      const { widths: _, ...rest } = flow;
      const rows = flow.rows.map((row) => row.map((cell) => styledCell(cell, style)));
      return { ...rest, rows, ...(flow.caption && { caption: styledRuns(flow.caption, style) }) };
    }
    case "code":
    case "picture":
    case "divider":
      return flow;
  }
}

/** Figures stand on the right wherever they land; that is not decoration. */
function styledCell({ background: _, align, ...cell }: Cell, style: "host" | "bare"): Cell {
  return { ...cell, flows: styled(cell.flows, style), ...(align && cell.value && { align }) };
}

function styledRuns(runs: readonly Run[], style: "host" | "bare"): Run[] {
  return mergeRuns(
    runs.map((run): Run => {
      if (run.type !== "text" || !run.marks) return run;
      const kept = style === "bare" ? [] : MEANT.filter((mark) => run.marks![mark] !== undefined);
      if (kept.length === 0) return { type: "text", text: run.text };
      return { ...run, marks: Object.fromEntries(kept.map((mark) => [mark, run.marks![mark]])) };
    }),
  );
}
