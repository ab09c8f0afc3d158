import { type Address, safeLink } from "../../content/address.js";
import { defined } from "../../content/defined.js";
import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import {
  type Content,
  type Flow,
  type Heading,
  type Marks,
  type Paragraph,
  type Run,
  paragraph,
  textRun,
} from "../../content/model.js";
import { blankRuns } from "../../content/runs.js";
import { formatErrors } from "../../messages/en/formats.js";
import { Asides } from "../asides.js";
import type { ReadDocument, ReadOptions } from "../format.js";
import { mathText, type MathTree } from "../mathml.js";
import {
  addParagraph,
  addTable,
  type Aside,
  Captions,
  checkDepth,
  isQuoteStyle,
  missingPicture,
  type ParagraphRole,
  lineOf,
  noteOf,
} from "../office/document.js";
import { elementStream } from "../office/element-stream.js";
import { odfParts } from "../office/odf-parts.js";
import { DocumentPictures, openDocument } from "../office/open-document.js";
import { TextBudget } from "../office/text-budget.js";
import { marksFrom, type TextProps } from "../office/text-props.js";
import { attributeOf, childOf, childrenOf, descendantsOf, parseXml, Element } from "../office/xml.js";
import type { Parts } from "../office/zip.js";
import { type ListPlace, readLists, type ListHost, labelled } from "./list.js";
import { OdtNumbering } from "./numbering.js";
import { OdfLine } from "./odf-line.js";
import { OdfStyles, type OdfStyle } from "./styles.js";
import { readTable } from "./table.js";

/**
 * Reads the main text of an odt (OpenDocument 1.3): headings, paragraphs, lists with their numbering, tables with merged
 * cells, links, pictures, and how text looks where it differs from the document's plain text. Comments, headers and
 * footers are not part of the main text, notes are.
 *
 * @throws DrawerError `unreadable`, `locked`, `too-large`
 */
export function readOdt(
  bytes: Uint8Array,
  file: string,
  { onProgress, places = false }: ReadOptions = {},
): ReadDocument {
  const parts = odfParts(bytes, file, onProgress);
  /** What stands before the text: the styles of the file. */
  const head = new Element("document-content", []);
  const styles = parts.text("styles.xml");
  let reader: OdtReader | undefined;
  const stream = elementStream(
    parts.pieces(CONTENT),
    file,
    {
      isOpened({ localName }, depth) {
        if (depth === 2 && localName === "text")
          reader = new OdtReader(
            parts,
            new OdfStyles(styles ? [parseXml(styles, file), head] : [head], true),
            file,
          );
        return depth === 0 || (depth === 1 && localName === "body") || (depth === 2 && localName === "text");
      },
      take: (element) => (reader ? reader.take(element) : head.append(element)),
    },
    LIMITS.elements,
    places,
  );
  while (!reader && !stream.isRead) stream.readOn();
  if (!reader) throw new DrawerError(formatErrors, "unreadable/not-one", { file, what: "odt" });
  return openDocument(stream, reader, file, titleOf(parts, file));
}

const CONTENT = "content.xml";

/** The title of an OpenDocument file, where it says one. */
export function titleOf(parts: Parts, file: string): string | undefined {
  const meta = parts.text("meta.xml");
  return meta
    ? childOf(childOf(parseXml(meta, file), "meta"), "title")?.textContent.trim() || undefined
    : undefined;
}

/** Where an element stands that is read into flows. */
interface BlockPlace {
  readonly depth: number;
  /** Whether it is the first of those that stand beside it. */
  readonly isFirst: boolean;
  readonly list?: ListPlace | undefined;
  /** The style of a sheet's cell around it. */
  readonly around?: OdfStyle | undefined;
}

/** Drawn things that text may stand in, by their elements (ODF 1.3 part 3, 10.3 and 10.4). */
const SHAPES =
  /^(frame|g|custom-shape|rect|ellipse|circle|line|polyline|polygon|regular-polygon|path|connector|caption|measure)$/;

/** Reads the flows of OpenDocument text, wherever it stands. */
export class OdtReader {
  /** The flows of the document, as far as it has been read. */
  readonly flows: Flow[] = [];
  readonly pictures: DocumentPictures;
  #isBegun = false;
  readonly captions = new Captions();
  readonly asides = new Asides<Aside>();
  readonly #numbering: OdtNumbering;
  /** What is anchored in what is being read and follows it: the text of boxes and shapes, the words of charts. */
  #anchored: (() => Content)[] = [];
  readonly #budget: TextBudget;
  /** Whether it is a heading. */
  #isHeading = false;
  #isInNote = false;

  constructor(
    readonly parts: Parts,
    readonly styles: OdfStyles,
    readonly file: string,
  ) {
    this.pictures = new DocumentPictures(parts);
    this.#numbering = new OdtNumbering(styles);
    this.#budget = new TextBudget(file);
  }

  /** Reads the next element of the document's text. */
  take(element: Element): void {
    this.#block(element, this.flows, { depth: 0, isFirst: !this.#isBegun });
    this.#isBegun = true;
  }

  /**
   * The flows of an item, a cell, a note or a section.
   * @param around the style of a sheet's cell, which its text has too
   */
  flowsIn(parent: Element, depth: number, list?: ListPlace, around?: OdfStyle): Content {
    checkDepth(depth, this.file, "lists or tables");
    const flows: Flow[] = [];
    let isFirst = true;
    for (const child of childrenOf(parent)) {
      this.#block(child, flows, { depth, isFirst, list, around });
      isFirst = false;
    }
    return flows;
  }

  #block(element: Element, flows: Flow[], { depth, isFirst, list, around }: BlockPlace): void {
    switch (element.localName) {
      case "p":
        this.asides.meet(element);
        this.#paragraph(element, flows, around);
        break;
      case "h":
        this.asides.meet(element);
        this.#heading(element, flows);
        break;
      case "list":
        for (const flow of readLists(this.#listHost(depth), element, isFirst, list)) flows.push(flow);
        break;
      case "table":
        this.asides.meet(element);
        addTable(flows, this.captions, this.asides, (caption) =>
          readTable(element, this.styles, caption, (cell) => this.flowsIn(cell, depth + 1)),
        );
        break;
      case "section":
      case "numbered-paragraph":
      case "index-title":
      case "index-body":
      case "table-of-content":
      case "illustration-index":
      case "table-index":
      case "object-index":
      case "user-index":
      case "alphabetical-index":
      case "bibliography":
        for (const flow of this.flowsIn(element, depth, list)) flows.push(flow);
        break;
      default:
        // What is anchored to a page stands beside the paragraphs; in a sheet it stands over the cells.
        if (around === undefined && SHAPES.test(element.localName)) {
          this.asides.meet(element);
          this.#beside(element, flows);
        }
    }
    if (this.#anchored.length > 0) for (const read of this.#anchored.splice(0)) flows.push(...read());
  }

  #listHost(depth: number): ListHost {
    const { asides } = this;
    const flowsOf = (item: Element, place: ListPlace) => this.flowsIn(item, depth + 1, place);
    return { numbering: this.#numbering, asides, flowsOf };
  }

  #beside(shape: Element, flows: Flow[]): void {
    const line = new OdfLine(false);
    this.#shape(shape, undefined, line);
    for (const run of line.runs) {
      const flow: Flow = run.type === "picture" ? run : { type: "paragraph", runs: [run] };
      flows.push(flow);
      this.asides.standIn(flow);
    }
  }

  #paragraph(element: Element, flows: Flow[], around: OdfStyle | undefined): void {
    const style = around ?? this.styles.get("paragraph", attributeOf(element, "style-name"));
    const plain = around ? this.styles.get("table-cell", "Default").props : this.styles.plain;
    const base = this.#isInNote ? style.props : plain;
    const runs = this.#runs(element, style, base, around !== undefined);
    const role = this.#roleOf(style);
    const isRule = style.hasLineBelow === true && blankRuns(runs);
    const shown = isRule ? { ...role, isRule } : role;
    addParagraph(flows, lineOf(runs, layoutOf(style)), shown, this.captions, this.asides);
  }

  readonly #roles = new WeakMap<OdfStyle, ParagraphRole>();

  /** What the names of its style say that a paragraph is. */
  #roleOf(style: OdfStyle): ParagraphRole {
    let role = this.#roles.get(style);
    if (!role) {
      const { names } = style;
      role = {
        isRule: false,
        isQuote: names.some(isQuoteStyle),
        isCode: names.some((name) => /\bpreformatted\b/.test(name)),
        isCaption: names.includes("caption"),
      };
      this.#roles.set(style, role);
    }
    return role;
  }

  #heading(element: Element, flows: Flow[]): void {
    const style = this.styles.get("paragraph", attributeOf(element, "style-name"));
    const outline = Math.max(1, Number(attributeOf(element, "outline-level") ?? 1));
    const isNumbered = attributeOf(element, "is-list-header") !== "true" && !style.isUnnumbered;
    const label = isNumbered ? this.#numbering.heading(element, outline) : undefined;
    const level = Math.min(6, outline) as 1 | 2 | 3 | 4 | 5 | 6;
    this.#isHeading = true;
    const runs = this.#runs(element, style, style.props);
    this.#isHeading = false;
    const heading: Heading = { type: "heading", level, runs, ...layoutOf(style) };
    flows.push(label?.ordered ? labelled(heading, label.text) : heading);
    this.asides.standIn(flows.at(-1)!);
  }

  #runs(element: Element, style: OdfStyle, base: TextProps, isInCell = false): Run[] {
    const line = new OdfLine(isInCell);
    this.#inline(element, style.props, base, undefined, line);
    const runs = line.end();
    this.#budget.spendLine(runs);
    return runs;
  }

  /** What spans look like, by what is around them and their style: few differ, and there are many. */
  readonly #spans = new WeakMap<TextProps, Map<string | undefined, TextProps>>();
  readonly #marks = new WeakMap<TextProps, { base: TextProps; link: Address | undefined; marks: Marks }>();

  #propsOfSpan(around: TextProps, style: string | undefined): TextProps {
    let within = this.#spans.get(around);
    if (!within) this.#spans.set(around, (within = new Map<string | undefined, TextProps>()));
    let props = within.get(style);
    if (!props) within.set(style, (props = { ...around, ...this.styles.get("text", style).props }));
    return props;
  }

  #marksOf(props: TextProps, base: TextProps, link: Address | undefined): Marks {
    const known = this.#marks.get(props);
    if (known?.base === base && known.link === link) return known.marks;
    const marks = marksFrom(props, base, link);
    this.#marks.set(props, { base, link, marks });
    return marks;
  }

  #inline(
    parent: Element,
    props: TextProps,
    base: TextProps,
    link: Address | undefined,
    line: OdfLine,
  ): void {
    const marks = this.#marksOf(props, base, link);
    for (const child of parent.children) {
      if (typeof child === "string") {
        if (!props.hidden) line.addText(child, props.font, marks);
        continue;
      }
      switch (child.localName) {
        case "span": {
          this.#inline(child, this.#propsOfSpan(props, attributeOf(child, "style-name")), base, link, line);
          break;
        }
        case "a":
          this.#inline(child, props, base, safeLink(attributeOf(child, "href") ?? "") ?? link, line);
          break;
        case "s": {
          const spaces = Math.min(10_000, Number(attributeOf(child, "c") ?? 1));
          this.#budget.spend(spaces);
          line.addSpaces(spaces, marks);
          break;
        }
        case "tab":
          line.add(textRun("\t", marks));
          break;
        case "line-break":
          line.add({ type: "break" });
          break;
        case "note":
          this.#note(child, line);
          break;
        case "annotation":
          this.asides.add("comment");
          break;
        case "hidden-text":
          if (attributeOf(child, "is-hidden") === "false") line.add(textRun(child.textContent, marks));
          break;
        case "fieldmark": {
          const chosen = chosenEntry(child);
          if (chosen !== undefined) line.add(textRun(chosen, marks));
          break;
        }
        case "ruby-text":
          if (child.textContent) line.add(textRun(`(${child.textContent})`, marks));
          break;
        case "annotation-end":
        case "tracked-changes":
        case "bookmark":
        case "soft-page-break":
        case "script":
        case "number":
          break;
        default:
          if (SHAPES.test(child.localName)) this.#shape(child, link, line);
          else this.#inline(child, props, base, link, line);
      }
    }
  }

  /** A note comes along with the line that calls it. */
  #note(note: Element, line: OdfLine): void {
    const body = childOf(note, "note-body");
    if (!body || this.#isInNote) return;
    const anchored = this.#anchored;
    [this.#anchored, this.#isInNote] = [[], true];
    const flows = this.asides.within(() => this.flowsIn(body, 1));
    [this.#anchored, this.#isInNote] = [anchored, false];
    line.add(noteOf(flows));
  }

  /** A shape: a picture stands in the line, text follows the paragraph, a group is its parts. */
  #shape(shape: Element, link: Address | undefined, line: OdfLine): void {
    if (shape.localName === "g") {
      for (const child of childrenOf(shape)) if (SHAPES.test(child.localName)) this.#shape(child, link, line);
      return;
    }
    if (shape.localName === "frame") this.#frame(shape, link, line);
    else this.#anchored.push(() => this.flowsIn(shape, 1));
  }

  #frame(frame: Element, link: Address | undefined, line: OdfLine): void {
    const box = childOf(frame, "text-box");
    if (box) {
      this.#anchored.push(() => this.flowsIn(box, 1));
      return;
    }
    const object = childOf(frame, "object");
    if (object && this.#object(attributeOf(object, "href") ?? "", line)) return;
    const image = childOf(frame, "image");
    const alt = (childOf(frame, "desc") ?? childOf(frame, "title"))?.textContent ?? "";
    if (!image && alt === "") return;
    const picture = this.pictures.keep((attributeOf(image, "href") ?? "").replace(/^\.\//, ""), alt);
    if (picture) {
      const run = { ...picture, ...defined({ link }) };
      // What floats beside a heading is no part of it.
      const isBeside = this.#isHeading && attributeOf(frame, "anchor-type") !== "as-char";
      if (isBeside) this.#anchored.push(() => [lineOf([run], {})]);
      else line.add(run);
    } else {
      this.asides.add("picture");
      if (alt !== "") line.add(textRun(missingPicture(alt)));
    }
  }

  /** An equation as text in the line, a chart by its words below it. Returns whether the object is one of them. */
  #object(href: string, line: OdfLine): boolean {
    const xml = this.parts.text(`${href.replace(/^\.\/|\/$/g, "")}/content.xml`);
    const root = xml === undefined ? undefined : parseXml(xml, this.file);
    if (root?.localName === "math") {
      this.asides.add("equation");
      line.add(textRun(mathText(MATH_TREE, root).trim()));
      return true;
    }
    const chart = childOf(childOf(root, "body"), "chart");
    if (!chart) return false;
    this.asides.add("diagram");
    this.#anchored.push(() => chartWords(chart).map((words) => paragraph(words)));
    return true;
  }
}

/** The entry that was chosen in a form's list. */
function chosenEntry(field: Element): string | undefined {
  const values = (name: RegExp) =>
    [...childrenOf(field)]
      .filter((param) => name.test(attributeOf(param, "name") ?? ""))
      .map((param) => attributeOf(param, "value"));
  return values(/Dropdown_ListEntry$/)[Number(values(/Dropdown_Selected$/)[0] ?? 0)];
}

/** The words of a chart: its titles, and the first row and the first column of its table, each once. */
function chartWords(chart: Element): string[] {
  const words = new Set<string>();
  for (const title of ["title", "subtitle"].flatMap((name) => descendantsOf(chart, name)))
    words.add(title.textContent.trim());
  descendantsOf(chart, "table-row").forEach((row, index) =>
    descendantsOf(row, "table-cell").forEach((cell, column) => {
      if (index === 0 || column === 0) words.add(cell.textContent.trim());
    }),
  );
  words.delete("");
  return [...words];
}

const MATH_TREE: MathTree<Element> = {
  name: (element) => element.localName,
  children: (element) => [...childrenOf(element)],
  text: (element) => element.textContent,
};

const NO_LAYOUT = {};

function layoutOf(style: OdfStyle): Pick<Paragraph, "align" | "direction"> {
  if (!style.align && !style.rightToLeft) return NO_LAYOUT;
  return {
    ...(style.align && { align: style.align }),
    ...(style.rightToLeft && { direction: "rtl" as const }),
  };
}
