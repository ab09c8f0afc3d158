import { ListBuilder } from "../../content/list-builder.js";
import type { Flow, Heading, Marker, Run } from "../../content/model.js";
import { mergeRuns, runsText } from "../../content/runs.js";
import { itemMark, type ItemMark } from "./markers.js";
import type { Box, OutlineTitle } from "./page-facts.js";
import { lettersWide, type Piece } from "./pieces.js";
import { joinLines, runsOfLine, type Rejoined } from "./runs.js";
import { sizeOf, type Segment } from "./segments.js";

/** What is known of a document when a part of it is made to paragraphs. */
export interface Setting {
  /** The size of most of its text. */
  readonly bodySize: number;
  readonly outline: readonly OutlineTitle[];
  readonly rejoined: Rejoined;
}

/** A line of text. */
interface Line {
  readonly pieces: readonly Piece[];
  readonly runs: readonly Run[];
  readonly text: string;
  readonly left: number;
  readonly right: number;
  readonly y: number;
  readonly size: number;
  readonly mark?: ItemMark | undefined;
}

/** Lines in which text is this much larger than the body's are headings. */
const HEADING = 1.12;
/** Longer ones are text in large letters. */
const HEADING_LENGTH = 200;
/** So many lines further down an item may still be one of the same list. */
const ITEM_LINES = 8;
/** A block of so many lines shows itself how far its lines may run. */
const SHOWS_WIDTH = 5;
/** A word of which only that is known how wide it may be would have had room when there was so much more. */
const SURELY = 1.1;
/** Levels of headings by how much larger they are than the body's text. */
const LEVELS: readonly (readonly [ratio: number, level: Heading["level"]])[] = [
  [1.75, 1],
  [1.3, 2],
  [HEADING, 3],
];

/** Lines that stand below each other, as paragraphs, headings, lists and code. */
export function flowsOfRows(
  rows: readonly (readonly Segment[])[],
  within: Pick<Box, "left" | "right">,
  setting: Setting,
): Flow[] {
  const lines = confirmed(rows.map(lineOf));
  const leading = usualLeading(lines);
  const edges = lines.length < SHOWS_WIDTH ? within : narrowed(within, lines);
  const groups: Line[][] = [];
  for (const line of lines) {
    const last = groups.at(-1);
    if (last && goesOn(last, line, leading, edges, setting)) last.push(line);
    else groups.push([line]);
  }
  return asFlows(groups, setting);
}

/** How far the lines of a block run: something else beside them may run further. */
function narrowed(
  { left, right }: Pick<Box, "left" | "right">,
  lines: readonly Line[],
): Pick<Box, "left" | "right"> {
  return {
    left: Math.max(left, Math.min(...lines.map((line) => line.left))),
    right: Math.min(right, Math.max(...lines.map((line) => line.right))),
  };
}

function lineOf(row: readonly Segment[]): Line {
  const pieces = row.flatMap((segment) => segment.pieces);
  const runs = runsOfLine(pieces);
  const text = runsText(runs);
  return {
    ...{ pieces, runs, text },
    left: Math.min(...row.map((each) => each.left)),
    right: Math.max(...row.map((each) => each.right)),
    y: row[0]!.y,
    size: sizeOf(pieces),
  };
}

/** Lines with the marks of items that they begin with. A mark that text may begin with too counts where another one agrees. */
function confirmed(lines: readonly Line[]): Line[] {
  const marks = lines.map(({ text }) => itemMark(text));
  const agrees = (at: number, other: number): boolean => {
    const [mark, next] = [marks[at]!, marks[other]];
    if (!next || next.ordered !== mark.ordered || Math.abs(lines[at]!.left - lines[other]!.left) > 12)
      return false;
    if (!mark.ordered) return lines[at]!.text[0] === lines[other]!.text[0];
    if (next.after !== mark.after || next.before !== mark.before) return false;
    return mark.numbers.some((one) =>
      next.numbers.some((two) => one.form === two.form && two.number - one.number === Math.sign(other - at)),
    );
  };
  return lines.map((line, at) => {
    const mark = marks[at];
    if (!mark) return line;
    if (!mark.isDoubtful) return { ...line, mark };
    // A dash further in than the item that it follows is one of a list in it.
    const above = marks
      .slice(0, at)
      .findLastIndex((each, other) => each !== undefined && at - other <= ITEM_LINES);
    if (!mark.ordered && above >= 0 && line.left > lines[above]!.left + line.size / 2)
      return { ...line, mark };
    const near = lines.map((_, other) => other).filter((other) => other !== at && Math.abs(other - at) <= 40);
    const other = near.find((each) => agrees(at, each));
    if (other === undefined) return line;
    const forms = marks[other]!.numbers.map(({ form }) => form);
    return { ...line, mark: { ...mark, numbers: mark.numbers.filter(({ form }) => forms.includes(form)) } };
  });
}

/** How far apart lines of a paragraph usually are, in their size. */
function usualLeading(lines: readonly Line[]): number {
  const steps = lines
    .slice(1)
    .map((line, at) => (line.y - lines[at]!.y) / line.size)
    .filter((step) => step > 0.8 && step < 2.2)
    .sort((a, b) => a - b);
  const usual = steps[Math.floor(steps.length / 4)] ?? 1.25;
  // A few lines do not show how far apart they usually are.
  return Math.max(1, steps.length < 4 ? Math.min(usual, 1.5) : usual);
}

/** Whether a line goes on with the paragraph before it. */
function goesOn(
  before: readonly Line[],
  line: Line,
  leading: number,
  within: Pick<Box, "left" | "right">,
  { bodySize }: Setting,
): boolean {
  const last = before.at(-1)!;
  const first = before[0]!;
  if (line.mark) return false;
  if (Math.abs(line.size - last.size) > 0.08 * last.size) return false;
  const step = line.y - last.y;
  if (isBroken(last, line) && step > 0 && step < 2.5 * line.size) return true;
  if (step < 0.5 * line.size || step > leading * line.size * 1.22 + 0.5) return false;
  if (isAll(last, "isMonospace") && isAll(line, "isMonospace")) return true;
  if (isAll(last, "isMonospace") !== isAll(line, "isMonospace")) return false;
  const isRightToLeft = last.pieces[0]!.isRightToLeft;
  const margin = isRightToLeft ? within.left : within.right;
  const end = isRightToLeft ? last.left : last.right;
  const isCentred = isInMiddle(last, within) && isInMiddle(line, within);
  const isLarge = line.size > bodySize * HEADING;
  // A line that had room for the next word ended its paragraph.
  const room = Math.abs(margin - end);
  if (!isCentred && !isLarge && room > SURELY * firstWordWidth(line) + 0.3 * line.size) return false;
  if (isCentred || isLarge || isRightToLeft) return true;
  const indent = line.left - last.left;
  if (first.mark) return line.left >= first.left - 1;
  // A first line further in begins a paragraph; so does one that comes out again from an indented passage.
  if (indent > 0.7 * line.size) return false;
  return indent > -0.7 * line.size || before.length === 1;
}

/** Whether a word is broken between two lines. */
function isBroken(last: Line, line: Line): boolean {
  return /\p{L}[-\u00ad\u2010]$/u.test(last.text) && /^\p{Ll}/u.test(line.text);
}

function isAll({ pieces }: Line, look: "isMonospace"): boolean {
  return pieces.every((piece) => piece[look]);
}

function isInMiddle({ left, right, size }: Line, within: Pick<Box, "left" | "right">): boolean {
  const [before, after] = [left - within.left, within.right - right];
  return before > 2 * size && Math.abs(before - after) < size;
}

/** How wide the first word of a line is, as far as that is to be known. */
function firstWordWidth({ text, left, right }: Line): number {
  const word = /^\S+/.exec(text)?.[0] ?? "";
  return text === "" ? 0 : ((right - left) * lettersWide(word)) / lettersWide(text);
}

/** Groups of lines as flows. */
function asFlows(groups: readonly Line[][], setting: Setting): Flow[] {
  const flows: Flow[] = [];
  const lists = new ListBuilder();
  // Where the marks of the lists stand that are open.
  const lefts: number[] = [];
  for (const group of groups) {
    const [first] = group as [Line];
    const { mark } = first;
    if (mark) {
      while (lefts.length > 0 && lefts.at(-1)! > first.left + 0.4 * first.size) lefts.pop();
      if (lefts.length === 0 || first.left > lefts.at(-1)! + 0.4 * first.size) lefts.push(first.left);
      const [numbered] = mark.numbers;
      lists.add({
        level: lefts.length - 1,
        key: `${mark.ordered}${mark.before}${mark.after}`,
        ordered: mark.ordered,
        ...(numbered && { number: numbered.number }),
        marker: markerOf(mark),
        flows: [{ type: "paragraph", runs: withoutMark(joined(group, setting), mark.length) }],
      });
      continue;
    }
    flows.push(...lists.take());
    lefts.length = 0;
    flows.push(asFlow(group, setting));
  }
  flows.push(...lists.take());
  return flows;
}

/** How the items of a list are marked, where that is not the usual way. */
export function markerOf({ ordered, numbers, before, after }: ItemMark): Marker | undefined {
  const form = numbers[0]?.form;
  if (!ordered || (form === undefined && before === "" && after === ".")) return undefined;
  return {
    ...(form && { numbers: form }),
    ...(before !== "" && { before }),
    ...(after !== "." && { after }),
  };
}

/** Runs without so many letters at their beginning. */
export function withoutMark(runs: readonly Run[], length: number): Run[] {
  let left = length;
  return mergeRuns(
    runs.map((run) => {
      if (run.type !== "text" || left === 0) return run;
      const cut = Math.min(left, run.text.length);
      left -= cut;
      return { ...run, text: run.text.slice(cut) };
    }),
  );
}

function joined(lines: readonly Line[], { rejoined }: Setting): Run[] {
  return lines
    .slice(1)
    .reduce<Run[]>((runs, line) => joinLines(runs, line.runs, rejoined), [...lines[0]!.runs]);
}

function asFlow(lines: readonly Line[], setting: Setting): Flow {
  if (lines.length > 1 && lines.every((line) => isAll(line, "isMonospace"))) return code(lines);
  const runs = joined(lines, setting);
  const level = headingLevel(runsText(runs), lines[0]!.size, setting);
  return level ? { type: "heading", level, runs: unbold(runs) } : { type: "paragraph", runs };
}

/** Lines in letters of one width are kept letter by letter. */
function code(lines: readonly Line[]): Flow {
  const left = Math.min(...lines.map((line) => line.left));
  const text = lines.map((line) => {
    const letter = (line.right - line.left) / Math.max(1, line.text.length);
    return " ".repeat(Math.round((line.left - left) / letter)) + line.text;
  });
  return { type: "code", text: text.join("\n") };
}

/** How high a heading a text is: as the outline says, or its letters do; nothing when it is none. */
export function headingLevel(
  text: string,
  size: number,
  { bodySize, outline }: Setting,
): Heading["level"] | undefined {
  const plain = plainTitle(text);
  const titled = outline.find(({ title }) => plainTitle(title) === plain);
  if (titled) return Math.min(6, titled.level) as Heading["level"];
  if (text.length > HEADING_LENGTH || !/\p{L}|\d/u.test(text)) return undefined;
  return LEVELS.find(([ratio]) => size >= ratio * bodySize)?.[1];
}

function plainTitle(text: string): string {
  return text.replace(/[\s\u00ad]+/g, "").toLowerCase();
}

/** Headings are bold by being headings. */
export function unbold(runs: readonly Run[]): Run[] {
  if (!runs.every((run) => run.type !== "text" || run.marks?.bold || run.text.trim() === ""))
    return [...runs];
  return mergeRuns(
    runs.map((run) => {
      if (run.type !== "text" || !run.marks) return run;
      const { bold: _, ...marks } = run.marks;
      return Object.keys(marks).length > 0 ? { ...run, marks } : { type: "text", text: run.text };
    }),
  );
}
