import { type Content, type Flow, type Paragraph, type Run, textRun } from "../content/model.js";
import { mergeRuns, runsText } from "../content/runs.js";

/** How full a line must be, against the longest around it, to have been broken because the page ended there. */
const FULL = 0.7;
/** Lines shorter than this at their longest are verse or a list, not a page of print. */
const PRINT_WIDTH = 32;
/** Lines longer than this are whole paragraphs: no page of print is as wide. */
const WIDEST_PRINT = 140;

/**
 * Puts lines that were broken by hard ends, as in a page of print, back into paragraphs: neighbouring lines that run as
 * full as the page, hyphens at their ends included. Lists and verse, whose lines end where they mean to, are left alone, and so are
 * paragraphs that each end a sentence.
 */
export function rejoined(content: Content): Content {
  const out: Flow[] = [];
  let group: Paragraph[] = [];
  const flush = () => {
    for (const line of rejoinGroup(group)) out.push(line);
    group = [];
  };
  for (const flow of content.flatMap(linesOfBreaks)) {
    if (flow.type === "paragraph" && runsText(flow.runs).trim() !== "") {
      // A line that is set otherwise than the one before does not go on with it.
      if (group.at(-1)?.align !== flow.align) flush();
      group.push(flow);
    } else {
      flush();
      out.push(flow);
    }
  }
  flush();
  return out;
}

/** A paragraph with breaks is as many lines; other flows are left as they are. */
function linesOfBreaks(flow: Flow): Flow[] {
  if (flow.type !== "paragraph" || !flow.runs.some((run) => run.type === "break")) return [flow];
  const lines: Run[][] = [[]];
  for (const run of flow.runs) {
    if (run.type === "break") lines.push([]);
    else lines.at(-1)!.push(run);
  }
  return lines.map((runs) => ({ ...flow, runs }));
}

function rejoinGroup(lines: readonly Paragraph[]): Paragraph[] {
  const texts = lines.map(({ runs }) => runsText(runs));
  const width = texts.reduce((most, text) => Math.max(most, text.trimEnd().length), 0);
  if (lines.length < 2 || width < PRINT_WIDTH || width > WIDEST_PRINT) return [...lines];
  const joined: Paragraph[] = [];
  let isBroken = false;
  lines.forEach((line, index) => {
    const last = joined.at(-1);
    const before = texts[index - 1]?.trimEnd() ?? "";
    const ends = SENTENCE_END.test(before);
    const goesOn =
      last &&
      before.length >= FULL * width &&
      !startsItem(texts[index]!) &&
      !(ends && before.length < 0.9 * width);
    if (goesOn && !ends) isBroken = true;
    if (goesOn) joined[joined.length - 1] = { ...last, runs: joinLines(last.runs, line.runs, texts[index]!) };
    else joined.push(line);
  });
  // Where each line ends a sentence, nothing was broken: they are paragraphs.
  return isBroken ? joined : [...lines];
}

const SENTENCE_END = /[.!?:。！？؟…]["”’»)]?$/;

/** Whether a line begins an item: a bullet, a dash, a number, or an indent. */
function startsItem(text: string): boolean {
  return /^(\s*([-–—•◦▪*·]|\(?\d{1,3}[.)]|[a-z][.)])\s|\s{2,}|\t)/.test(text);
}

function joinLines(before: readonly Run[], after: readonly Run[], next: string): Run[] {
  const last = before.at(-1);
  if (last?.type !== "text") return [...before, ...after];
  const text = last.text.trimEnd();
  // A hyphen before a small letter was put there by the end of the line; any other belongs to the word.
  const isSplit = /\p{L}[-\u00ad\u2010]$/u.test(text) && /^\p{Ll}/u.test(next);
  const kept = isSplit
    ? text.slice(0, -1)
    : /[-\u2010]$/.test(text) && !/\s[-\u2010]$/.test(text)
      ? text
      : text + " ";
  return mergeRuns([...before.slice(0, -1), textRun(kept, last.marks), ...after]);
}
