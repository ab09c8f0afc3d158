import type { Content, Flow, Heading, Paragraph, Picture, Run } from "./model.js";
import { blankRuns } from "./runs.js";

/**
 * How one goes through content. What stands inside which type of flow is said here, in functions that do not compile
 * when a type is forgotten; readers, writers and layouts that need no more than "every flow" or "every line" use these.
 */

/** Whether any of the flows inside a flow passes: those of its items, of its cells, or its own. */
function someInside(flow: Flow, test: (flow: Flow) => boolean): boolean {
  switch (flow.type) {
    case "list":
      for (const item of flow.items) if (someFlow(item.flows, test)) return true;
      return false;
    case "quote":
      return someFlow(flow.flows, test);
    case "table":
      for (const row of flow.rows)
        for (const { flows } of row) if (flows.length > 0 && someFlow(flows, test)) return true;
      return false;
    case "paragraph":
    case "heading":
    case "code":
    case "picture":
    case "divider":
      return false;
  }
}

/** The line of runs that a flow has of its own, if any: its text, its caption, or the picture that it is. */
export function ownLine(flow: Flow): readonly Run[] | undefined {
  switch (flow.type) {
    case "paragraph":
    case "heading":
      return flow.runs;
    case "table":
      return flow.caption;
    case "picture":
      return [flow];
    case "list":
    case "quote":
    case "code":
    case "divider":
      return undefined;
    default:
      return flow satisfies never;
  }
}

/** Whether a flow is a line of text: a paragraph or a heading. */
export function isLine(flow: Flow | undefined): flow is Paragraph | Heading {
  return flow?.type === "paragraph" || flow?.type === "heading";
}

/** Whether any flow passes, those in items, quotes and cells included, but not those of notes; stops at the first. */
export function someFlow(content: Content, test: (flow: Flow) => boolean): boolean {
  // By index: every act asks every line of what it is about, and an iterator would cost more than the question.
  for (let at = 0; at < content.length; at++) {
    const flow = content[at]!;
    if (test(flow) || (flow.type !== "paragraph" && someInside(flow, test))) return true;
  }
  return false;
}

/**
 * Calls `visit` with every flow, those in items, quotes and cells included, but not those of notes, in reading order.
 * @param content what is gone through
 * @param visit is called with each flow, outer ones first
 */
export function eachFlow(content: Content, visit: (flow: Flow) => void): void {
  someFlow(content, (flow) => {
    visit(flow);
    return false;
  });
}

/** Whether any run of any line passes, those of captions and lone pictures included, but not those of notes; stops at the first. */
export function someRun(content: Content, test: (run: Run) => boolean): boolean {
  return someFlow(content, (flow) => {
    const line = ownLine(flow);
    if (line) for (let at = 0; at < line.length; at++) if (test(line[at]!)) return true;
    return false;
  });
}

/** Calls `visit` with every run of every line, of captions, lone pictures and notes too, in reading order. */
export function eachRun(content: Content, visit: (run: Run) => void): void {
  eachFlow(content, (flow) =>
    ownLine(flow)?.forEach((run) => {
      visit(run);
      if (run.type === "note") eachRun(run.flows, visit);
    }),
  );
}

/** The pictures of the content, in reading order. */
export function picturesOf(content: Content): Picture[] {
  const pictures: Picture[] = [];
  eachRun(content, (run) => {
    if (run.type === "picture") pictures.push(run);
  });
  return pictures;
}

/** Whether there is nothing to see in the content: no letter, no picture, no line. */
export function isBlank(content: Content): boolean {
  return !someFlow(content, showsItself);
}

/** Whether a flow shows something besides what stands inside it. */
function showsItself(flow: Flow): boolean {
  switch (flow.type) {
    case "divider":
    case "picture":
      return true;
    case "code":
      return flow.text.trim() !== "";
    case "paragraph":
    case "heading":
      return !blankRuns(flow.runs);
    case "table":
      return flow.caption !== undefined && !blankRuns(flow.caption);
    case "list":
    case "quote":
      return false;
    default:
      return flow satisfies never;
  }
}

/** What {@link mapContent} makes of each part; a part without a function stays as it is. */
export interface ContentMap {
  /** What stands in a flow's place. It is called before what is inside the flow is mapped. */
  readonly flow?: (flow: Flow) => Content;
  /** A line's new runs: of a paragraph, a heading or a caption. */
  readonly runs?: (runs: readonly Run[]) => readonly Run[];
}

/** Content with every flow and every line changed, those in items, quotes, cells and notes included. */
export function mapContent(content: Content, map: ContentMap): Content {
  return mapFlows(content, map, new Map());
}

/** What each note has become, so that a note that is called twice stays one. */
type MappedNotes = Map<Content, Content>;

function mapFlows(content: Content, map: ContentMap, notes: MappedNotes): Content {
  const { flow: replace } = map;
  if (!replace) return content.map((flow) => mapInside(flow, map, notes));
  return content.flatMap((flow) => replace(flow).map((each) => mapInside(each, map, notes)));
}

function mapInside(flow: Flow, map: ContentMap, notes: MappedNotes): Flow {
  const runs = (line: readonly Run[]) => mapLine(line, map, notes);
  switch (flow.type) {
    case "paragraph":
    case "heading":
      return { ...flow, runs: runs(flow.runs) };
    case "list":
      return {
        ...flow,
        items: flow.items.map((item) => ({ ...item, flows: mapFlows(item.flows, map, notes) })),
      };
    case "quote":
      return { ...flow, flows: mapFlows(flow.flows, map, notes) };
    case "table": {
      const rows = flow.rows.map((row) =>
        row.map((cell) => ({ ...cell, flows: mapFlows(cell.flows, map, notes) })),
      );
      return { ...flow, rows, ...(flow.caption && { caption: runs(flow.caption) }) };
    }
    case "code":
    case "picture":
    case "divider":
      return flow;
  }
}

function mapLine(line: readonly Run[], map: ContentMap, notes: MappedNotes): readonly Run[] {
  const noteOf = (flows: Content) => {
    if (!notes.has(flows)) notes.set(flows, mapFlows(flows, map, notes));
    return notes.get(flows)!;
  };
  const mapped = line.some((run) => run.type === "note")
    ? line.map((run) => (run.type === "note" ? { ...run, flows: noteOf(run.flows) } : run))
    : line;
  return map.runs ? map.runs(mapped) : mapped;
}

/** The content with its last line changed, also where that stands in a list or a quote; nothing where it ends otherwise. */
export function mapLastLine(
  content: Content,
  change: (runs: readonly Run[]) => readonly Run[],
): Content | undefined {
  const last = content.at(-1);
  const inner = last && lastInside(last, change);
  return inner && [...content.slice(0, -1), inner];
}

function lastInside(flow: Flow, change: (runs: readonly Run[]) => readonly Run[]): Flow | undefined {
  switch (flow.type) {
    case "paragraph":
    case "heading":
      return { ...flow, runs: change(flow.runs) };
    case "quote": {
      const flows = mapLastLine(flow.flows, change);
      return flows && { ...flow, flows };
    }
    case "list": {
      const item = flow.items.at(-1);
      const flows = item && mapLastLine(item.flows, change);
      return flows && { ...flow, items: [...flow.items.slice(0, -1), { ...item, flows }] };
    }
    case "table":
    case "code":
    case "picture":
    case "divider":
      return undefined;
    default:
      return flow satisfies never;
  }
}

/** The addresses that the links of content lead to, each once, in order. */
export function addressesOf(content: Content): string[] {
  const found = new Set<string>();
  eachRun(content, (run) => {
    if (run.type === "text" && run.marks?.link !== undefined) found.add(run.marks.link);
  });
  return [...found];
}
