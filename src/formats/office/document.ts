import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import type { Content, Flow, NoteRun, Paragraph, Picture, Run } from "../../content/model.js";
import { notice, type Notice } from "../../content/notice.js";
import { mergeRuns } from "../../content/runs.js";
import { contentErrors, contentNotices } from "../../messages/en/content.js";
import { formatNotices } from "../../messages/en/formats.js";
import type { Asides } from "../asides.js";

/** What stands in the line for a picture that is in a form that is not read. */
export function missingPicture(description: string): string {
  return `[${description}]`;
}

/** Paragraphs in the style of captions: one that stands right before a table is the table's. */
export class Captions {
  readonly #marked = new WeakSet<Flow>();

  mark(flow: Flow): Flow {
    this.#marked.add(flow);
    return flow;
  }

  /** Takes the caption off the end of the flows, when one stands there. */
  take(flows: Flow[]): readonly Run[] | undefined {
    const last = flows.at(-1);
    if (last?.type !== "paragraph" || !this.#marked.has(last)) return undefined;
    flows.pop();
    return last.runs;
  }
}

/** What of a document can be left out, or be there in another form, and how it is told. */
const ASIDES = {
  comment: "left-out/comments",
  picture: "left-out/pictures",
  equation: "as-text/equations",
  diagram: "as-text/diagrams",
  number: "as-text/numbers",
  field: "left-out/fields",
  chunk: "left-out/inserted",
  hiddenSlide: "hidden-parts/slides",
  untitledSlide: "as-text/titles",
  speakerNotes: "as-text/speaker-notes",
  slideFurniture: "left-out/slide-furniture",
} as const;

/** Something of a document that was left out, or is there in another form. */
export type Aside = keyof typeof ASIDES;

/** Says how much of each was left out, or is there in another form. */
export function asideNotices(file: string, asides: readonly Aside[]): Notice[] {
  const kinds = Object.keys(ASIDES) as Aside[];
  return kinds.flatMap((kind) => {
    const count = asides.filter((each) => each === kind).length;
    return count === 0
      ? []
      : [notice({ ...contentNotices, ...formatNotices }, ASIDES[kind], { file, count })];
  });
}

/** Adds a paragraph in the style of quotes: those that follow each other are one quote. */
function addQuote(flows: Flow[], flow: Flow): void {
  const last = flows.at(-1);
  if (last?.type === "quote") flows[flows.length - 1] = { ...last, flows: [...last.flows, flow] };
  else flows.push({ type: "quote", flows: [flow] });
}

/** Adds a paragraph in the style of code: those that follow each other are the lines of one. A picture stays one. */
function addCode(flows: Flow[], flow: Paragraph | Picture): void {
  if (flow.type === "picture") {
    flows.push(flow);
    return;
  }
  const last = flows.at(-1);
  const text = flow.runs.map((run) => (run.type === "text" ? run.text : "\n")).join("");
  if (last?.type === "code") flows[flows.length - 1] = { ...last, text: `${last.text}\n${text}` };
  else flows.push({ type: "code", text });
}

/** Whether paragraphs in a style of this name are somebody else's words: word processors call it by several. */
export function isQuoteStyle(name: string): boolean {
  return /\bquot(?:e|ations?)\b|^block text$/i.test(name);
}

/** What the style of a paragraph says that it is. */
export interface ParagraphRole {
  /** A blank one that is drawn as a line across the page. */
  readonly isRule: boolean;
  readonly isQuote: boolean;
  readonly isCode: boolean;
  readonly isCaption: boolean;
}

/** Adds a paragraph as what its style says that it is. What is told of it belongs to what it became. */
export function addParagraph(
  flows: Flow[],
  flow: Paragraph | Picture,
  { isRule, isQuote, isCode, isCaption }: ParagraphRole,
  captions: Captions,
  asides: Asides<Aside>,
): void {
  const before = flows.at(-1);
  if (isRule) flows.push({ type: "divider" });
  else if (isQuote) addQuote(flows, flow);
  else if (isCode) addCode(flows, flow);
  else flows.push(isCaption ? captions.mark(flow) : flow);
  const last = flows.at(-1)!;
  if (last.type === "code") asides.standIn(last, before?.type === "code" ? before : undefined);
  else asides.standIn(flow);
}

/** A line as a flow: a picture that stands alone is one of its own. */
export function lineOf(
  runs: readonly Run[],
  layout: Pick<Paragraph, "align" | "direction">,
): Paragraph | Picture {
  const only = runs.length === 1 ? runs[0]! : undefined;
  return only?.type === "picture" ? only : { type: "paragraph", runs, ...layout };
}

/**
 * Refuses what is nested deeper than in any real document.
 * @throws DrawerError `too-large`
 */
export function checkDepth(depth: number, file: string, what: "tables" | "lists or tables"): void {
  const most = LIMITS.depth / 4;
  if (depth > most) throw new DrawerError(contentErrors, "too-large/nesting", { file, what, depth: most });
}

/** Adds a table, with the caption that stands right before it. What is told of either belongs to the table. */
export function addTable(
  flows: Flow[],
  captions: Captions,
  asides: Asides<Aside>,
  read: (caption: readonly Run[] | undefined) => Flow,
): void {
  const before = flows.at(-1);
  const caption = captions.take(flows);
  const table = asides.within(() => read(caption));
  flows.push(table);
  asides.standIn(table, caption && before);
}

/** A note that says what these flows say, without the space that parts its number from them. */
export function noteOf(flows: Content): NoteRun {
  const [first, ...rest] = flows;
  const [text, ...others] = first?.type === "paragraph" ? first.runs : [];
  if (first?.type !== "paragraph" || text?.type !== "text") return { type: "note", flows };
  const runs = mergeRuns([{ ...text, text: text.text.trimStart() }, ...others]);
  return { type: "note", flows: [{ ...first, runs }, ...rest] };
}

/** Says that a picture is not in a written file, and what stands in its place. */
export function pictureLeftOut(alt: string): Notice {
  return notice(formatNotices, "not-shown/picture", { alt });
}
