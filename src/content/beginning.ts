import { withoutControls } from "./controls.js";
import type { Cell, Content, Flow } from "./model.js";
import { runsText } from "./runs.js";
import { isLine } from "./traverse.js";

/**
 * The beginning of the content as one line of text, for lists and messages: line ends become spaces, flows are parted by
 * ` · `, cells by ` | `, rows by ` / `. Stops reading once it has `length` characters, so it is quick on content of any size.
 */
export function beginning(content: Content, length: number): string {
  const only = content.length === 1 ? content[0] : undefined;
  const text = isLine(only) ? oneLine(runsText(only.runs)) : beginningOf(content, length);
  if (text.length <= length) return text;
  const cut = text.slice(0, length - 1).replace(/[\uD800-\uDBFF]$/, "");
  return cut.trimEnd() + "…";
}

/** What stands in no plain line: control characters, white space other than spaces, and more than one of these. */
const UNEVEN = /[\u0000-\u001f\u007f-\u00a0\u1680\u2000-\u200a\u2028\u2029\u202f\u205f\u3000\ufeff]| {2}/;

function oneLine(text: string): string {
  return (UNEVEN.test(text) ? withoutControls(text).replace(/\s+/g, " ") : text).trim();
}

/** The content as one line, as far as it takes to have more than `length` characters. */
function beginningOf(content: Content, length: number): string {
  let text = "";
  let between = "";
  const add = (more: string) => {
    const next = oneLine(more);
    if (next !== "") {
      text += text === "" ? next : between + next;
      between = " · ";
    }
    return text.length > length;
  };
  const visit = (flow: Flow): boolean => {
    switch (flow.type) {
      case "paragraph":
      case "heading":
        return add(runsText(flow.runs));
      case "list":
        return flow.items.some((item) => item.flows.some(visit));
      case "quote":
        return flow.flows.some(visit);
      case "code":
        return add(flow.text);
      case "picture":
        return add(flow.alt === "" ? "picture" : flow.alt);
      case "divider":
        return add("—");
      case "table":
        return add(runsText(flow.caption ?? [])) || flow.rows.some(visitRow);
    }
  };
  const visitRow = (row: readonly Cell[], index: number): boolean => {
    if (index > 0) between = " / ";
    return row.some((cell, column) => {
      if (column > 0 && between !== " / ") between = " | ";
      return cell.flows.some(visit);
    });
  };
  content.some(visit);
  return text;
}
