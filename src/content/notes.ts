import { withMark } from "./marker.js";
import { type Content, type Flow, type NoteRun, type Run, textRun } from "./model.js";
import { isLine, mapContent, someRun } from "./traverse.js";

/** How notes are shown where there is no place for them: under everything else, or in brackets in their line. */

/** The numbers of notes, in the order in which they are called. The same note called again keeps its number. */
export class NoteNumbers {
  readonly #numbers = new Map<Content, number>();

  /** The number of a note. */
  numberOf({ flows }: NoteRun): number {
    let number = this.#numbers.get(flows);
    if (number === undefined) this.#numbers.set(flows, (number = this.#numbers.size + 1));
    return number;
  }

  /** What the notes say, from the first on; those that are called while one goes through them included. */
  bodies(): Iterable<Content> {
    return this.#numbers.keys();
  }
}

/**
 * Content whose notes stand at its end, and `[1]`, raised, in the lines where they are called.
 * @param as whether they are a numbered list, or each a paragraph that begins with its number, where lists lose theirs
 */
export function withNotesAtEnd(content: Content, as: "list" | "paragraphs" = "list"): Content {
  if (!hasNotes(content)) return content;
  const numbers = new NoteNumbers();
  const called = (flows: Content) =>
    replaceNotes(flows, (note) => [textRun(`[${numbers.numberOf(note)}]`, { sup: true })]);
  const body = called(content);
  const items: { flows: Content }[] = [];
  for (const flows of numbers.bodies()) items.push({ flows: called(flows) });
  if (as === "paragraphs")
    return [...body, ...items.flatMap(({ flows }, at) => withMark(`${at + 1}. `, flows))];
  return [...body, { type: "list", ordered: true, items }];
}

/** Content whose notes stand in their lines, in brackets. */
export function withNotesInline(content: Content): Content {
  return hasNotes(content) ? replaceNotes(content, inBrackets) : content;
}

function inBrackets({ flows }: NoteRun): Run[] {
  const lines = withNotesInline(flows)
    .filter(isLine)
    .map(({ runs }) => runs);
  const runs = lines.flatMap((line, index): Run[] => (index === 0 ? [...line] : [textRun(" "), ...line]));
  return [textRun(" ("), ...runs, textRun(")")];
}

/** Whether any note is called in the content. */
export function hasNotes(content: Content): boolean {
  return someRun(content, isNote);
}

function isNote(run: Run): run is NoteRun {
  return run.type === "note";
}

function replaceNotes(content: Content, replace: (note: NoteRun) => Run[]): Content {
  const line = (runs: readonly Run[]) => runs.flatMap((run) => (isNote(run) ? replace(run) : [run]));
  // Before what is inside a flow is mapped, so that notes are the ones that the content holds, in reading order.
  const flow = (flow: Flow): Content => {
    if (isLine(flow) && flow.runs.some(isNote)) return [{ ...flow, runs: line(flow.runs) }];
    if (flow.type === "table" && flow.caption?.some(isNote))
      return [{ ...flow, caption: line(flow.caption) }];
    return [flow];
  };
  return mapContent(content, { flow });
}
