import { type Cell, type Content, paragraph, type Row, type Run, textRun } from "../../content/model.js";
import { notice } from "../../content/notice.js";
import { columnsOf } from "../../content/spans.js";
import { contentNotices } from "../../messages/en/content.js";
import type { LaidOut, Layout, Piece } from "../layout.js";
import { BLANK, filled, gridOf, hasSources, lineCell } from "./grid.js";
import { unaligned } from "./lines-of.js";

/**
 * Labels and their values, a row each. A snippet with a label is a pair; a table gives a row for each of its own, whose
 * first cell is the label; snippets without either pair up in turn: a label, then its value. A label that is left over
 * stands by itself. Captions stand above.
 */
export const pairs: Layout = {
  lay: layPairs,
  isTable: true,
  between: "none",
  renamesColumns: false,
};

function layPairs(pieces: readonly Piece[]): LaidOut {
  const rows: { cells: Row; source: readonly Run[] }[] = [];
  const captions: Content[] = [];
  let wide = 0;
  let waiting: { cell: Cell; source: readonly Run[] } | undefined;
  const flush = () => {
    if (waiting) rows.push({ cells: [waiting.cell, BLANK], source: waiting.source });
    waiting = undefined;
  };
  for (const { content: given, label, source = [] } of pieces) {
    const isTable = given.some((flow) => flow.type === "table");
    const content = isTable ? given : unaligned(given);
    if (isTable) {
      flush();
      const grid = gridOf(content);
      captions.push(grid.captions);
      if (columnsOf(grid.table) > 2) wide++;
      for (const cells of filled(grid.table.rows)) rows.push({ cells, source });
    } else if (label !== undefined) {
      flush();
      rows.push({ cells: [{ flows: [paragraph(label)] }, { flows: content }], source });
    } else if (waiting) {
      rows.push({ cells: [waiting.cell, { flows: content }], source: bothSources(waiting.source, source) });
      waiting = undefined;
    } else waiting = { cell: { flows: content }, source };
  }
  flush();
  const notices = wide > 0 ? [notice(contentNotices, "not-shown/pairs", { count: wide })] : [];
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
              rows: withSources ? table.map((row, at) => [...row, lineCell(rows[at]!.source)]) : table,
            },
          ]),
    ],
    notices,
  };
}

/** The sources of a label and of its value, each once. */
function bothSources(label: readonly Run[], value: readonly Run[]): readonly Run[] {
  if (value.length === 0 || JSON.stringify(label) === JSON.stringify(value)) return label;
  return label.length === 0 ? value : [...label, textRun("; "), ...value];
}
