import {
  type Cell,
  type Content,
  type Flow,
  type Paragraph,
  type Run,
  textRun,
} from "../../content/model.js";
import { notice, type Notice } from "../../content/notice.js";
import { mergeRuns } from "../../content/runs.js";
import { eachFlow, isLine, mapContent } from "../../content/traverse.js";
import { contentNotices } from "../../messages/en/content.js";

/** What stands between the cells of a row when the row becomes a line of text. */
const BETWEEN_CELLS = ", ";

/**
 * The lines of some content, each as a paragraph that keeps its marks: a heading, a list item, a table row and a line
 * of code are a line each. Blank lines are kept as they are; blank cells of a row are passed over.
 */
export function linesOf(content: Content): Paragraph[] {
  return content.flatMap((flow) => flowLines(flow));
}

function flowLines(flow: Flow): Paragraph[] {
  switch (flow.type) {
    case "paragraph":
      return [flow];
    case "heading": {
      const { type: _, level: __, ...rest } = flow;
      return [{ type: "paragraph", ...rest }];
    }
    case "list":
      return flow.items.flatMap((item) => linesOf(item.flows));
    case "quote":
      return linesOf(flow.flows);
    case "code":
      return flow.text.split("\n").map((line) => lineOf([textRun(line, { code: true })]));
    case "picture":
      return [lineOf([flow])];
    case "divider":
      return [];
    case "table": {
      const caption = flow.caption ? [lineOf(flow.caption)] : [];
      return [...caption, ...flow.rows.map(rowLine)];
    }
  }
}

function lineOf(runs: readonly Run[]): Paragraph {
  return { type: "paragraph", runs };
}

function rowLine(cells: readonly Cell[]): Paragraph {
  const runs: Run[] = [];
  for (const cell of cells) {
    const inner = joined(linesOf(cell.flows));
    if (inner.length === 0) continue;
    if (runs.length > 0) runs.push(textRun(BETWEEN_CELLS));
    for (const run of inner) runs.push(run);
  }
  return lineOf(runs);
}

/** Content whose lines stand as the layout has them, whatever alignment their sources gave them. */
export function unaligned(content: Content): Content {
  return mapContent(content, {
    flow: (flow) => {
      if (!isLine(flow)) return [flow];
      const { align: _, ...line } = flow;
      return [line];
    },
  });
}

/** All of some content in one line: line ends become spaces. */
export function inlineOf(content: Content): Run[] {
  return mergeRuns(joined(linesOf(content)));
}

/** The runs of several lines on one line; line ends become spaces. */
function joined(lines: readonly Paragraph[]): Run[] {
  const runs: Run[] = [];
  for (const { runs: line } of lines) {
    if (runs.length > 0 && line.length > 0) runs.push(textRun(" "));
    for (const run of line) runs.push(run.type === "break" ? textRun(" ") : run);
  }
  return runs;
}

/** Says that lines across the page were left out, where the pieces had any and the layout cannot show them. */
export function dividersLeftOut(contents: readonly Content[]): Notice[] {
  let dividers = 0;
  for (const content of contents) eachFlow(content, (flow) => void (flow.type === "divider" && dividers++));
  if (dividers === 0) return [];
  return [notice(contentNotices, "not-shown/dividers", { count: dividers })];
}
