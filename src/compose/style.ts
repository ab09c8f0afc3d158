import { type Cell, type Content, type Flow, type Marks, type Run } from "../content/model.js";
import { mergeRuns } from "../content/runs.js";
import { isLine, mapContent } from "../content/traverse.js";
import type { StyleName } from "./options.js";

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
  if (style === "own") return content;
  return mapContent(content, {
    flow: (flow) => [withoutLayout(flow, style)],
    runs: (line) => styledRuns(line, style),
  });
}

/** A flow without alignment, widths and backgrounds of its own; bare, a heading is a line. */
function withoutLayout(flow: Flow, style: "host" | "bare"): Flow {
  if (flow.type === "table") {
    const { widths: _, ...rest } = flow;
    return { ...rest, rows: flow.rows.map((row) => row.map(withoutCellLayout)) };
  }
  if (!isLine(flow)) return flow;
  const { align: _, ...rest } = flow;
  if (style === "host" || rest.type === "paragraph") return rest;
  const { level: __, ...line } = rest;
  return { ...line, type: "paragraph" };
}

/** Figures stand on the right wherever they land; that is not decoration. */
function withoutCellLayout({ background: _, align, ...cell }: Cell): Cell {
  return { ...cell, ...(align && cell.value && { align }) };
}

function styledRuns(line: readonly Run[], style: "host" | "bare"): Run[] {
  return mergeRuns(
    line.map((run): Run => {
      if (run.type !== "text" || !run.marks) return run;
      const kept = style === "bare" ? [] : MEANT.filter((mark) => run.marks![mark] !== undefined);
      const { marks, ...rest } = run;
      return kept.length === 0
        ? rest
        : { ...rest, marks: Object.fromEntries(kept.map((mark) => [mark, marks![mark]])) };
    }),
  );
}
