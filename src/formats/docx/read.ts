import { safeLink } from "../../content/address.js";
import { defined } from "../../content/defined.js";
import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { ListBuilder } from "../../content/list-builder.js";
import { type Content, type Flow, type Run, paragraph, textRun } from "../../content/model.js";
import type { Reading } from "../../content/notice.js";
import { blankRuns, mergeRuns } from "../../content/runs.js";
import { formatErrors } from "../../messages/en/formats.js";
import { Asides } from "../asides.js";
import type { ReadDocument, ReadOptions } from "../format.js";
import {
  addParagraph,
  addTable,
  type Aside,
  Captions,
  checkDepth,
  isQuoteStyle,
  missingPicture,
  lineOf,
  noteOf,
  type ParagraphRole,
} from "../office/document.js";
import { elementStream } from "../office/element-stream.js";
import { DocumentPictures, openDocument } from "../office/open-document.js";
import { mainPart, relationsOf, type Relation, titleOf } from "../office/relations.js";
import { TextBudget } from "../office/text-budget.js";
import { attributeOf, childOf, childrenOf, descendantsOf, parseXml, type Element } from "../office/xml.js";
import { Parts } from "../office/zip.js";
import { readChunks } from "./chunks.js";
import { chartWords, descendantsOutside, diagramWords, isRule, outermost } from "./drawing.js";
import { OpenFields } from "./fields.js";
import { type LineHost, LineReader, type OpenParagraph } from "./line-reader.js";
import { DocxNotes } from "./notes.js";
import { DocxNumbering } from "./numbering.js";
import { DocxStyles, paragraphProps, withProps, type DocxStyle, type ListPlace } from "./styles.js";
import { readTable } from "./table.js";

/**
 * Reads the main text of a docx (ECMA-376, Office Open XML): headings, paragraphs, lists with their numbering, tables
 * with merged cells, links, pictures, and how text looks where it differs from the document's plain text. Deleted and
 * hidden text is left out; comments, headers and footers are not part of the main text, notes are.
 *
 * @throws DrawerError `unreadable`, `locked`, `too-large`
 */
export async function readDocx(
  bytes: Uint8Array,
  file: string,
  { onProgress, places = false, isInserted = false }: ReadOptions = {},
): Promise<ReadDocument> {
  const parts = new Parts(bytes, file, onProgress);
  const main = mainPart(parts, "word/document.xml");
  const chunks = isInserted ? NO_CHUNKS : await readChunks(parts, relationsOf(parts, main), readDocx);
  const reader = new DocxReader(parts, main, chunks, file);
  let hasBody = false;
  const stream = elementStream(
    parts.pieces(main),
    file,
    {
      isOpened({ localName }, depth) {
        // Some programs write another body after the first, which word processors show too.
        hasBody ||= depth === 1 && localName === "body";
        return (
          depth === 0 || (depth === 1 && localName === "body") || (depth > 1 && isTransparent(localName))
        );
      },
      take: (element) => hasBody && reader.take(element),
    },
    LIMITS.elements,
    places,
  );
  while (!hasBody && !stream.isRead) stream.readOn();
  if (!hasBody) throw new DrawerError(formatErrors, "unreadable/not-one", { file, what: "docx" });
  const told = [...chunks.values()].flatMap(({ notices }) => notices);
  return openDocument(stream, reader, file, titleOf(parts), told);
}

const NO_CHUNKS: ReadonlyMap<string, Reading> = new Map();

class DocxReader implements LineHost {
  /** The flows of the document, as far as it has been read. */
  readonly flows: Flow[] = [];
  readonly #openLists = new ListBuilder();
  readonly pictures: DocumentPictures;
  readonly captions = new Captions();
  readonly asides = new Asides<Aside>();
  readonly styles: DocxStyles;
  readonly #lines = new LineReader(this);
  readonly #budget: TextBudget;
  /** Pictures that float over the page, anchored to a line. */
  readonly #floating = new WeakSet<Run>();
  readonly #numbering: DocxNumbering;
  readonly #notes: DocxNotes;
  readonly #folder: string;
  readonly #relationsByPart = new Map<string, ReadonlyMap<string, Relation>>();
  #relations: ReadonlyMap<string, Relation>;
  /** The text of paragraphs whose end was deleted: it begins the next one. */
  #held: Run[] = [];
  #isInNote = false;

  constructor(
    readonly parts: Parts,
    main: string,
    readonly chunks: ReadonlyMap<string, Reading>,
    readonly file: string,
  ) {
    this.pictures = new DocumentPictures(parts);
    this.#folder = main.slice(0, main.lastIndexOf("/") + 1);
    this.#budget = new TextBudget(file);
    const part = (name: string) => this.#xml(this.#folder + name);
    this.styles = new DocxStyles(part("styles.xml"));
    this.#numbering = new DocxNumbering(part("numbering.xml"));
    this.#notes = new DocxNotes(part("footnotes.xml"), part("endnotes.xml"));
    this.#relations = this.#relationsOf(main.slice(this.#folder.length));
  }

  #xml(name: string): Element | undefined {
    const text = this.parts.text(name);
    return text === undefined ? undefined : parseXml(text, this.file);
  }

  #relationsOf(part: string): ReadonlyMap<string, Relation> {
    const known = this.#relationsByPart.get(part) ?? relationsOf(this.parts, this.#folder + part);
    this.#relationsByPart.set(part, known);
    return known;
  }

  /** The name in the file of the part that a relation leads to. */
  #partAt(id: string | undefined): string {
    return this.#relations.get(id ?? "")?.part ?? "";
  }

  addressAt(id: string | undefined): string | undefined {
    return this.#relations.get(id ?? "")?.target;
  }

  /** Reads the next element of the document's body. */
  take(element: Element): void {
    this.#block(element, 0, this.flows, this.#openLists);
  }

  /** Ends what is open at the end of the document. */
  end(): void {
    this.#end(this.flows, this.#openLists);
  }

  /** The flows of a cell, a box or a note. Neighbouring paragraphs of a list become one list. */
  #flowsIn(parent: Element, depth: number): Content {
    checkDepth(depth, this.file, "tables");
    const flows: Flow[] = [];
    const lists = new ListBuilder();
    this.#blocks(parent, depth, flows, lists);
    this.#end(flows, lists);
    return flows;
  }

  #end(flows: Flow[], lists: ListBuilder): void {
    flows.push(...lists.take());
    if (this.#held.length > 0) flows.push({ type: "paragraph", runs: mergeRuns(this.#held.splice(0)) });
  }

  #blocks(parent: Element, depth: number, flows: Flow[], lists: ListBuilder): void {
    for (const child of childrenOf(parent)) this.#block(child, depth, flows, lists);
  }

  #block(element: Element, depth: number, flows: Flow[], lists: ListBuilder): void {
    if (isTransparent(element.localName)) this.#blocks(element, depth, flows, lists);
    switch (element.localName) {
      case "p":
        this.#paragraph(element, depth, flows, lists);
        break;
      case "tbl":
        flows.push(...lists.take());
        this.asides.meet(element);
        addTable(flows, this.captions, this.asides, (caption) =>
          readTable(element, caption, (cell) => this.#flowsIn(cell, depth + 1)),
        );
        break;
      case "altChunk":
        this.#chunk(element, flows, lists);
        break;
      case "AlternateContent": {
        const choice = childOf(element, "Choice") ?? childOf(element, "Fallback");
        if (choice) this.#blocks(choice, depth, flows, lists);
      }
    }
  }

  /** A document that stands whole in this one. */
  #chunk(element: Element, flows: Flow[], lists: ListBuilder): void {
    this.asides.meet(element);
    const chunk = this.chunks.get(attributeOf(element, "id") ?? "");
    if (!chunk) {
      this.asides.add("chunk");
      return;
    }
    this.#budget.spendContent(chunk.content);
    this.pictures.add(chunk.pictures);
    // Flows of their own, as the same one may stand in it again.
    for (const flow of chunk.content) this.#add({ ...flow }, flows, lists);
  }

  #paragraph(element: Element, depth: number, flows: Flow[], lists: ListBuilder): void {
    this.asides.meet(element, this.#held.length > 0);
    const pPr = childOf(element, "pPr");
    const style = this.styles.get(attributeOf(childOf(pPr, "pStyle"), "val"));
    const props = withProps(style, paragraphProps(pPr));
    const isHeading = props.outline !== undefined;
    const line: OpenParagraph = {
      base: isHeading || this.#isInNote ? style.props : this.styles.plain,
      style,
      link: undefined,
      runs: this.#held.splice(0),
      fields: new OpenFields(),
      parts: [],
      boxes: [],
      words: [],
      rules: [],
    };
    this.#lines.read(element, line);
    const isJoined = childOf(childOf(pPr, "rPr"), "del") !== undefined;
    const isDropCap = /^(drop|margin)$/.test(attributeOf(childOf(pPr, "framePr"), "dropCap") ?? "");
    if (isJoined) this.#held = line.runs;
    else if (isDropCap) this.#held = line.runs.map(withoutSize);
    else if (line.rules.length === 0 || !blankRuns(line.runs)) {
      for (const runs of partsOf(line)) this.#line(runs, props, flows, lists);
    }
    for (const _ of line.rules) this.#add({ type: "divider" }, flows, lists);
    for (const words of line.words) this.#add(paragraph(words), flows, lists);
    for (const box of line.boxes) flows.push(...lists.take(), ...this.#flowsIn(box, depth + 1));
  }

  /** Adds a flow that belongs to no list. */
  #add(flow: Flow, flows: Flow[], lists: ListBuilder): void {
    flows.push(...lists.take(), flow);
    this.asides.standIn(flow);
  }

  /** A paragraph, or a part of one that was parted by the end of a page. */
  #line(runs: Run[], props: DocxStyle, flows: Flow[], lists: ListBuilder): void {
    this.#budget.spendLine(runs);
    const layout = {
      ...(props.align && { align: props.align }),
      ...(props.rightToLeft && { direction: "rtl" as const }),
    };
    const label = props.list && this.#labelOf(props.list, props.id);
    if (props.outline !== undefined) {
      const level = Math.min(props.outline + 1, 6) as 1 | 2 | 3 | 4 | 5 | 6;
      // What floats beside a heading is no part of it.
      const words = runs.filter((run) => !this.#floating.has(run));
      const numbered =
        typeof label === "object" && !blankRuns(words)
          ? mergeRuns([textRun(`${label.text} `), ...words])
          : words;
      if (words.length > 0 || runs.length === 0)
        this.#add({ type: "heading", level, runs: numbered, ...layout }, flows, lists);
      for (const run of runs)
        if (run.type === "picture" && this.#floating.has(run)) this.#add(lineOf([run], {}), flows, lists);
      return;
    }
    const flow = lineOf(runs, layout);
    const role = this.#roleOf(props.name);
    if (label === "unmarked" && lists.extend(props.list?.level ?? 0, [flow])) {
      this.asides.standIn(flow);
      return;
    }
    if (label && label !== "unmarked") {
      // Where the way to write numbers changes within a list, another begins that goes on counting.
      const key = label.ordered ? `${label.list} ${JSON.stringify(label.marker ?? "")}` : label.list;
      lists.add({ ...label, key, flows: [role.isQuote ? { type: "quote", flows: [flow] } : flow] });
      this.asides.standIn(flow);
      return;
    }
    flows.push(...lists.take());
    const isRule = props.hasRule === true && blankRuns(runs);
    addParagraph(flows, flow, isRule ? { ...role, isRule } : role, this.captions, this.asides);
  }

  readonly #roles = new Map<string, ParagraphRole>();

  /** What the name of its style says that a paragraph is. */
  #roleOf(style: string): ParagraphRole {
    let role = this.#roles.get(style);
    if (!role) {
      const isCode = /\b(preformatted|code|source)\b/.test(style);
      role = { isRule: false, isQuote: isQuoteStyle(style), isCode, isCaption: style === "caption" };
      this.#roles.set(style, role);
    }
    return role;
  }

  /** What stands before a paragraph of a list, and where in the list it stands; nothing for one of no list. */
  #labelOf({ id, level }: ListPlace, style: string | undefined) {
    if (id === undefined || id === "0") return undefined;
    const at = level ?? this.#numbering.levelOfStyle(id, style ?? "") ?? 0;
    const label = this.#numbering.next(id, at);
    if (label?.isPlain) this.asides.add("number");
    this.#budget.spend(label?.text.length ?? 0);
    return label ? { ...label, level: at } : "unmarked";
  }

  /** A note comes along with the line that calls it. */
  note(reference: Element, line: OpenParagraph): void {
    const note = this.#notes.find(reference);
    if (!note || this.#isInNote || !line.fields.isShown) return;
    const outside = { relations: this.#relations, held: this.#held };
    [this.#relations, this.#held, this.#isInNote] = [this.#relationsOf(note.part), [], true];
    const flows = this.asides.within(() => this.#flowsIn(note.element, 1));
    [this.#relations, this.#held, this.#isInNote] = [outside.relations, outside.held, false];
    line.runs.push(noteOf(flows));
  }

  picture(drawing: Element, line: OpenParagraph): void {
    if (isRule(drawing)) line.rules.push(drawing);
    // A group may hold several pictures and boxes of text; what stands in a box belongs to the box.
    line.boxes.push(...outermost(drawing, "txbxContent"));
    for (const name of ["blip", "imagedata"])
      for (const blip of descendantsOutside(drawing, name, "txbxContent"))
        this.#keepPicture(drawing, blip, line);
    for (const chart of descendantsOf(drawing, "chart"))
      this.#diagram(attributeOf(chart, "id"), chartWords, line);
    for (const relations of descendantsOf(drawing, "relIds"))
      this.#diagram(attributeOf(relations, "dm"), diagramWords, line);
  }

  #diagram(id: string | undefined, wordsOf: (root: Element) => string[], line: OpenParagraph): void {
    const root = this.#xml(this.#partAt(id));
    this.asides.add("diagram");
    if (root) line.words.push(...wordsOf(root));
  }

  #keepPicture(drawing: Element, blip: Element, line: OpenParagraph): void {
    const described = descendantsOf(drawing, "docPr")[0];
    const alt = attributeOf(described, "descr") || attributeOf(described, "title") || "";
    const part = this.#partAt(attributeOf(blip, "embed") ?? attributeOf(blip, "id"));
    const picture = this.pictures.keep(part, alt);
    const clicked = attributeOf(descendantsOf(drawing, "hlinkClick")[0], "id");
    const link = line.link ?? line.fields.link ?? safeLink(this.addressAt(clicked) ?? "");
    if (picture) {
      const run = { ...picture, ...defined({ link }) };
      if (descendantsOf(drawing, "anchor").length > 0) this.#floating.add(run);
      line.runs.push(run);
    } else {
      this.asides.add("picture");
      if (alt !== "") line.runs.push(textRun(missingPicture(alt)));
    }
  }
}

/** Whether an element stands around blocks and is none itself. */
function isTransparent(name: string): boolean {
  return TRANSPARENT.has(name);
}

const TRANSPARENT = new Set(["sdt", "sdtContent", "customXml", "ins", "moveTo"]);

/** The lines of a paragraph, parted at the ends of pages and columns; blank ones beside others are left out. */
function partsOf({ runs, parts }: OpenParagraph): Run[][] {
  if (parts.length === 0) return [mergeRuns(runs)];
  const ends = [...parts, runs.length];
  const lines = ends.map((end, index) => mergeRuns(runs.slice(index === 0 ? 0 : ends[index - 1], end)));
  const filled = lines.filter((line) => !blankRuns(line));
  return filled.length > 0 ? filled : [lines[0]!];
}

function withoutSize(run: Run): Run {
  if (run.type !== "text" || !run.marks) return run;
  const { size: _, sub: __, sup: ___, ...marks } = run.marks;
  return textRun(run.text, marks);
}
