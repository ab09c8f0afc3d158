import { type Cell, type Content, paragraph, type Row } from "../../content/model.js";
import { columnsOf } from "../../content/spans.js";
import { notice } from "../../content/notice.js";
import type { Layout } from "../layout.js";
import { BLANK, filled, gridOf, hasSources, textCell } from "./grid.js";

/**
 * Labels and their values, a row each. A snippet with a label is a pair; a table gives a row for each of its own, whose
 * first cell is the label; snippets without either pair up in turn: a label, then its value. A label that is left over
 * stands by itself. Captions stand above.
 */
export const pairs: Layout = (pieces) => {
  const rows: { cells: Row; source: string }[] = [];
  const captions: Content[] = [];
  let wide = 0;
  let waiting: { cell: Cell; source: string } | undefined;
  const flush = () => {
    if (waiting) rows.push({ cells: [waiting.cell, BLANK], source: waiting.source });
    waiting = undefined;
  };
  for (const { content, label, source = "" } of pieces) {
    if (content.some((flow) => flow.type === "table")) {
      flush();
      const grid = gridOf(content);
      captions.push(grid.captions);
      if (columnsOf(grid.table) > 2) wide++;
      for (const cells of filled(grid.table.rows)) rows.push({ cells, source });
    } else if (label !== undefined) {
      flush();
      rows.push({ cells: [{ flows: [paragraph(label)] }, { flows: content }], source });
    } else if (waiting) {
      const sources = [...new Set([waiting.source, source])].filter(Boolean).join("; ");
      rows.push({ cells: [waiting.cell, { flows: content }], source: sources });
      waiting = undefined;
    } else waiting = { cell: { flows: content }, source };
  }
  flush();
  const notices = wide > 0 ? [notice("not-shown/pairs", { count: wide })] : [];
  const table = filled(rows.map(({ cells }) => cells));
  const withSources = hasSources(pieces);
  return {
    content: [
      ...captions.flat(),
      ...(rows.length === 0
        ? []
        : [
            {
              type: "table" as const,
              headerRows: 0,
              rows: withSources ? table.map((row, at) => [...row, textCell(rows[at]!.source)]) : table,
            },
          ]),
    ],
    notices,
  };
};
