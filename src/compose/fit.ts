import { type Cell, type Content, paragraph, type Row, type Run, textRun } from "../content/model.js";
import { withNotesAtEnd, withNotesInline } from "../content/notes.js";
import { notice, type Notice } from "../content/notice.js";
import { runsText } from "../content/runs.js";
import { withAddressesShown } from "../content/shown-addresses.js";
import { eachRun } from "../content/traverse.js";
import { addressesLeftOut, picturesInText } from "../formats/left-out.js";
import { writeText } from "../formats/text/write.js";
import { contentNotices } from "../messages/en/content.js";
import { withoutNotices, type LaidOut } from "./layout.js";
import { gridOf } from "./layouts/grid.js";
import { inlineOf, linesOf } from "./layouts/lines-of.js";
import type { Fit } from "./options.js";

/**
 * Makes content fit what it lands in: a `page` takes all; `plain` takes lines of text; a `line` one line of it; a `cell`
 * everything inside one sheet cell, its lines as lines of the cell; `cells` a grid; an `address` only the address.
 */
export function fitted(whole: Content, fit: Fit): LaidOut {
  if (fit === "page") return withoutNotices(whole);
  // Nothing but a page has a place for notes.
  const noted =
    fit === "line" ? withNotesInline(whole) : withNotesAtEnd(whole, fit === "cells" ? "paragraphs" : "list");
  // A line or a cell is a value, which an address in it would make another.
  const content = fit === "plain" ? withAddressesShown(noted) : noted;
  switch (fit) {
    case "plain":
      return asText(
        noted,
        content.length === 0
          ? []
          : writeText(content)
              .split("\n")
              .map((line) => paragraph(line)),
        "cells",
      );
    case "line": {
      const text = runsText(inlineOf(content));
      return asText(
        content,
        text.trim() === "" ? [] : [paragraph(text.replace(/\s+/g, " ").trim())],
        "lines",
      );
    }
    case "cell":
      return withoutNotices(
        content.length === 0 ? [] : [{ type: "table", headerRows: 0, rows: [[oneCell(content)]] }],
      );
    case "cells":
      return withoutNotices(grid(content));
    case "address":
      return addresses(content);
  }
}

/** Text in place of content; what it cannot show is said. */
function asText(content: Content, text: Content, addressless: "cells" | "lines"): LaidOut {
  return { content: text, notices: [...picturesInText(content), ...addressesLeftOut(content, addressless)] };
}

/** All of the content in one cell. A lone cell stays what it is, with its value. */
function oneCell(content: Content): Cell {
  const only = content.length === 1 ? content[0]! : undefined;
  if (only?.type === "table" && only.rows.length === 1 && only.rows[0]!.length === 1)
    return only.rows[0]![0]!;
  const runs: Run[] = [];
  for (const line of cellLines(content)) {
    if (runs.length > 0) runs.push({ type: "break" });
    for (const run of line) runs.push(run);
  }
  return { flows: [{ type: "paragraph", runs }] };
}

/** The lines of a cell; lists keep their bullets and numbers, which a cell can show no other way. */
function cellLines(content: Content): (readonly Run[])[] {
  return content.flatMap((flow) =>
    flow.type === "list"
      ? writeText([flow])
          .split("\n")
          .map((line) => [textRun(line)])
      : linesOf([flow]).map(({ runs }) => runs),
  );
}

/** The content as one grid, captions as rows above it. */
function grid(content: Content): Content {
  const { table, captions } = gridOf(content);
  const above = captions.map((caption): Row => [{ flows: [caption] }]);
  if (above.length === 0) return table.rows.length === 0 ? [] : [table];
  return [{ type: "table", headerRows: 0, rows: [...above, ...table.rows] }];
}

/** Every address in the content, each once, a line each; a notice when there is none. */
function addresses(content: Content): LaidOut {
  const found = new Set<string>();
  eachRun(content, (run) => {
    if (run.type !== "text") return;
    if (run.marks?.link !== undefined) found.add(run.marks.link);
    else
      for (const address of run.text.match(/https?:\/\/[^\s<>"')\]]+[^\s<>"')\].,;:!?]/g) ?? [])
        found.add(address);
  });
  const words = inlineOf(content)
    .map((run) => (run.type === "text" ? run.text : ""))
    .join("")
    .trim();
  const isAll = found.size === 1 && found.has(words);
  const notices: Notice[] =
    isAll || content.length === 0
      ? []
      : [notice(contentNotices, "not-shown/address", { isNone: found.size === 0 })];
  return { content: [...found].map((address) => paragraph(address)), notices };
}
