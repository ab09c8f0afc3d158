import { defined } from "../../content/defined.js";
import type { Flow, List, Paragraph, Run, Table } from "../../content/model.js";
import { runsText } from "../../content/runs.js";
import { columnsOf } from "../../content/spans.js";
import { joinLines, type Rejoined } from "./runs.js";

/** Adds flows after others that end where a column or a page does: what goes on there is one with its beginning. Returns the flow that was changed. */
export function addGoingOn(flows: Flow[], added: readonly Flow[], rejoined: Rejoined): Flow | undefined {
  const last = flows.at(-1);
  const [first, ...rest] = added;
  const joined = last && first && textGoingOn(last, first, rejoined);
  if (!joined) {
    flows.push(...added);
    return undefined;
  }
  flows[flows.length - 1] = joined;
  // The rest of a list whose item has gone on.
  if (joined.type === "list" && rest[0]?.type === "list" && continuesList(joined, rest[0])) {
    const whole: List = { ...joined, items: [...joined.items, ...rest[0].items] };
    flows[flows.length - 1] = whole;
    flows.push(...rest.slice(1));
    return whole;
  }
  flows.push(...rest);
  return joined;
}

/** Text with what follows it, where that goes on with it; nothing where it does not. */
function textGoingOn(last: Flow, first: Flow, rejoined: Rejoined): Flow | undefined {
  if (last.type === "list" && first.type === "list" && last.ordered && continuesList(last, first))
    return { ...last, items: [...last.items, ...first.items] };
  if (first.type === "paragraph") return sentenceGoingOn(last, first, rejoined);
  return undefined;
}

function sentenceGoingOn(last: Flow, first: Paragraph, rejoined: Rejoined): Flow | undefined {
  if (last.type === "paragraph") {
    const runs = runsGoingOn(last.runs, first.runs, rejoined);
    return runs && { ...last, runs };
  }
  if (last.type !== "list") return undefined;
  const item = last.items.at(-1)!;
  const end = item.flows.at(-1);
  const joined = end && sentenceGoingOn(end, first, rejoined);
  return (
    joined && {
      ...last,
      items: [...last.items.slice(0, -1), { flows: [...item.flows.slice(0, -1), joined] }],
    }
  );
}

function runsGoingOn(before: readonly Run[], after: readonly Run[], rejoined: Rejoined): Run[] | undefined {
  const [text, next] = [runsText(before).trimEnd(), runsText(after)];
  const isOpen = !/[.!?:;…]["”’»)\]]*$/.test(text);
  if (!isOpen || !/^[\p{Ll}(„“"«]/u.test(next)) return undefined;
  return joinLines(before, after, rejoined);
}

/** Whether a list counts on from another. */
function continuesList(last: List, first: List): boolean {
  const key = ({ ordered, marker }: List) => JSON.stringify(defined({ ordered, marker }));
  return (
    key(last) === key(first) &&
    (!last.ordered || (first.start ?? 1) === (last.start ?? 1) + last.items.length)
  );
}

/** A table whose rows go on on the next page: as many columns, with its names of columns repeated or not. */
export function tableGoingOn(last: Table, first: Table): Table | undefined {
  if (columnsOf(last) !== columnsOf(first)) return undefined;
  const { headerRows } = first;
  const same = (row: number) => JSON.stringify(last.rows[row]) === JSON.stringify(first.rows[row]);
  // Names of columns are repeated at the top of a page, whether they look like a header or not.
  const names = Math.max(1, headerRows);
  const isRepeated = Array.from({ length: names }, (_, row) => row).every(same);
  if (!isRepeated && headerRows > 0) return undefined;
  return { ...last, rows: [...last.rows, ...first.rows.slice(isRepeated ? names : 0)] };
}
