import { type Address, safeLink } from "../../content/address.js";
import { defined } from "../../content/defined.js";
import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { ListBuilder } from "../../content/list-builder.js";
import { makeCell, makeTable } from "../../content/make-table.js";
import {
  type Cell,
  type Content,
  type Flow,
  type Paragraph,
  type Picture,
  type Row,
  type Run,
  paragraph,
  textRun,
} from "../../content/model.js";
import { blankRuns, mergeRuns } from "../../content/runs.js";
import { contentErrors } from "../../messages/en/content.js";
import { formatErrors } from "../../messages/en/formats.js";
import { Asides } from "../asides.js";
import type { ReadDocument } from "../format.js";
import { parseColor } from "../html/css-values.js";
import {
  addCode,
  addQuote,
  addTable,
  type Aside,
  Captions,
  documentOf,
  keepPicture,
  noteOf,
} from "../office/document.js";
import { runInFont, symbolText } from "../office/symbols.js";
import { marksFrom, type TextProps } from "../office/text-props.js";
import { attributeOf, childOf, childrenOf, descendantsOf, parseXml, type Element } from "../office/xml.js";
import { unzip, type Parts } from "../office/zip.js";
import { chartWords, descendantsOutside, diagramWords, isRule, outermost } from "./drawing.js";
import { linkOf, OpenFields, withPlace } from "./fields.js";
import { mathText } from "./math.js";
import { DocxNotes } from "./notes.js";
import { DocxNumbering } from "./numbering.js";
import {
  DocxStyles,
  paragraphProps,
  textProps,
  withProps,
  type DocxStyle,
  type ListPlace,
} from "./styles.js";

/**
 * Reads the main text of a docx (ECMA-376, Office Open XML): headings, paragraphs, lists with their numbering, tables
 * with merged cells, links, pictures, and how text looks where it differs from the document's plain text. Deleted and
 * hidden text is left out; comments, headers and footers are not part of the main text, notes are.
 *
 * @throws DrawerError `unreadable`, `locked`, `too-large`
 */
export function readDocx(bytes: Uint8Array, file: string): ReadDocument {
  const parts = unzip(bytes, file, (name) => /^(word\/|_rels\/|docProps\/core\.xml$)/.test(name));
  const main = mainPart(parts);
  const reader = new DocxReader(parts, main, file);
  const body = childOf(parseXml(parts.needed(main), file), "body");
  if (!body) throw new DrawerError(formatErrors, "unreadable/not-one", { file, what: "docx" });
  const content = reader.flows(body, 0);
  return documentOf(content, reader.pictures, reader.asides, file, titleOf(parts, file));
}

/** The part that the package names as its document; `word/document.xml` by custom. */
function mainPart(parts: Parts): string {
  const rels = parts.text("_rels/.rels");
  const target = rels && /Type="[^"]*\/officeDocument"[^>]*Target="\/?([^"]+)"/.exec(rels)?.[1];
  return target && parts.bytes(target) ? target : "word/document.xml";
}

function titleOf(parts: Parts, file: string): string | undefined {
  const core = parts.text("docProps/core.xml");
  return core ? childOf(parseXml(core, file), "title")?.textContent.trim() || undefined : undefined;
}

/** A paragraph while its runs are read. */
interface OpenParagraph {
  readonly base: TextProps;
  readonly style: DocxStyle;
  readonly link: Address | undefined;
  readonly runs: Run[];
  readonly fields: OpenFields;
  /** Where the ends of pages and columns part it, by how many runs stand before each. */
  readonly parts: number[];
  /** The boxes of text that are anchored in it. */
  readonly boxes: Element[];
  /** The words of charts and diagrams that are anchored in it. */
  readonly words: string[];
  /** Lines across the page that are anchored in it. */
  readonly rules: Element[];
}

/** What a part of the file says of the others that it uses, by the names it has for them. */
type Relations = ReadonlyMap<string, string>;

class DocxReader {
  readonly pictures = new Map<string, Uint8Array>();
  readonly captions = new Captions();
  readonly asides = new Asides<Aside>();
  readonly #styles: DocxStyles;
  readonly #numbering: DocxNumbering;
  readonly #notes: DocxNotes;
  readonly #folder: string;
  readonly #relationsByPart = new Map<string, Relations>();
  #relations: Relations;
  /** The text of paragraphs whose end was deleted: it begins the next one. */
  #held: Run[] = [];
  #isInNote = false;

  constructor(
    readonly parts: Parts,
    main: string,
    readonly file: string,
  ) {
    this.#folder = main.slice(0, main.lastIndexOf("/") + 1);
    const part = (name: string) => this.#xml(this.#folder + name);
    this.#styles = new DocxStyles(part("styles.xml"));
    this.#numbering = new DocxNumbering(part("numbering.xml"));
    this.#notes = new DocxNotes(part("footnotes.xml"), part("endnotes.xml"));
    this.#relations = this.#relationsOf(main.slice(this.#folder.length));
  }

  #xml(name: string): Element | undefined {
    const text = this.parts.text(name);
    return text === undefined ? undefined : parseXml(text, this.file);
  }

  #relationsOf(part: string): Relations {
    const known = this.#relationsByPart.get(part);
    if (known) return known;
    const root = this.#xml(`${this.#folder}_rels/${part}.rels`);
    const relations = new Map<string, string>();
    for (const relation of root ? childrenOf(root) : [])
      relations.set(attributeOf(relation, "Id") ?? "", attributeOf(relation, "Target") ?? "");
    this.#relationsByPart.set(part, relations);
    return relations;
  }

  /** The name in the file of the part that a relation leads to. */
  #partAt(id: string | undefined): string {
    const target = this.#addressAt(id) ?? "";
    return target.startsWith("/") ? target.slice(1) : this.#folder + target;
  }

  #addressAt(id: string | undefined): string | undefined {
    return this.#relations.get(id ?? "");
  }

  /** The flows of a body or a cell. Neighbouring paragraphs of a list become one list. */
  flows(parent: Element, depth: number): Content {
    if (depth > LIMITS.depth / 4) {
      throw new DrawerError(contentErrors, "too-large/nesting", {
        file: this.file,
        what: "tables",
        depth: LIMITS.depth / 4,
      });
    }
    const flows: Flow[] = [];
    const lists = new ListBuilder();
    this.#blocks(parent, depth, flows, lists);
    flows.push(...lists.take());
    if (this.#held.length > 0) flows.push({ type: "paragraph", runs: mergeRuns(this.#held.splice(0)) });
    return flows;
  }

  #blocks(parent: Element, depth: number, flows: Flow[], lists: ListBuilder): void {
    for (const child of childrenOf(parent)) {
      switch (child.localName) {
        case "p":
          this.#paragraph(child, depth, flows, lists);
          break;
        case "tbl":
          flows.push(...lists.take());
          addTable(flows, this.captions, this.asides, (caption) => this.#table(child, depth, caption));
          break;
        case "sdt":
        case "sdtContent":
        case "customXml":
        case "ins":
        case "moveTo":
          this.#blocks(child, depth, flows, lists);
          break;
        case "AlternateContent": {
          const choice = childOf(child, "Choice") ?? childOf(child, "Fallback");
          if (choice) this.#blocks(choice, depth, flows, lists);
        }
      }
    }
  }

  #paragraph(element: Element, depth: number, flows: Flow[], lists: ListBuilder): void {
    const pPr = childOf(element, "pPr");
    const style = this.#styles.get(attributeOf(childOf(pPr, "pStyle"), "val"));
    const props = withProps(style, paragraphProps(pPr));
    const isHeading = props.outline !== undefined;
    const line: OpenParagraph = {
      base: isHeading || this.#isInNote ? style.props : this.#styles.plain,
      style,
      link: undefined,
      runs: this.#held.splice(0),
      fields: new OpenFields(),
      parts: [],
      boxes: [],
      words: [],
      rules: [],
    };
    this.#inline(element, line);
    const isJoined = childOf(childOf(pPr, "rPr"), "del") !== undefined;
    const isDropCap = /^(drop|margin)$/.test(attributeOf(childOf(pPr, "framePr"), "dropCap") ?? "");
    if (isJoined) this.#held = line.runs;
    else if (isDropCap) this.#held = line.runs.map(withoutSize);
    else if (line.rules.length === 0 || !blankRuns(line.runs)) {
      for (const runs of partsOf(line)) this.#line(runs, props, flows, lists);
    }
    for (const _ of line.rules) this.#add({ type: "divider" }, flows, lists);
    for (const words of line.words) this.#add(paragraph(words), flows, lists);
    for (const box of line.boxes) flows.push(...lists.take(), ...this.flows(box, depth + 1));
  }

  /** Adds a flow that belongs to no list. */
  #add(flow: Flow, flows: Flow[], lists: ListBuilder): void {
    flows.push(...lists.take(), flow);
    this.asides.standIn(flow);
  }

  /** A paragraph, or a part of one that was parted by the end of a page. */
  #line(runs: Run[], props: DocxStyle, flows: Flow[], lists: ListBuilder): void {
    const layout = {
      ...(props.align && { align: props.align }),
      ...(props.rightToLeft && { direction: "rtl" as const }),
    };
    const label = props.list && this.#labelOf(props.list, props.id);
    if (props.outline !== undefined) {
      const level = Math.min(props.outline + 1, 6) as 1 | 2 | 3 | 4 | 5 | 6;
      const numbered =
        typeof label === "object" && !blankRuns(runs)
          ? mergeRuns([textRun(`${label.text} `), ...runs])
          : runs;
      this.#add({ type: "heading", level, runs: numbered, ...layout }, flows, lists);
      return;
    }
    const only = runs.length === 1 ? runs[0]! : undefined;
    const flow: Paragraph | Picture =
      only?.type === "picture" ? only : { type: "paragraph", runs, ...layout };
    const isQuote = /\bquot(e|ations?)\b/.test(props.name);
    if (label === "unmarked" && lists.extend(props.list?.level ?? 0, [flow])) {
      this.asides.standIn(flow);
      return;
    }
    if (label && label !== "unmarked") {
      lists.add({ ...label, key: label.list, flows: [isQuote ? { type: "quote", flows: [flow] } : flow] });
      this.asides.standIn(flow);
      return;
    }
    const before = flows.at(-1);
    flows.push(...lists.take());
    if (blankRuns(runs) && props.hasRule) flows.push({ type: "divider" });
    else if (isQuote) addQuote(flows, flow);
    else if (/\b(preformatted|code|source)\b/.test(props.name)) addCode(flows, flow);
    else flows.push(props.name === "caption" ? this.captions.mark(flow) : flow);
    const last = flows.at(-1)!;
    if (last.type === "code") this.asides.standIn(last, before);
    else this.asides.standIn(flow);
  }

  /** What stands before a paragraph of a list, and where in the list it stands; nothing for one of no list. */
  #labelOf({ id, level }: ListPlace, style: string | undefined) {
    if (id === undefined || id === "0") return undefined;
    const at = level ?? this.#numbering.levelOfStyle(id, style ?? "") ?? 0;
    const label = this.#numbering.next(id, at);
    return label ? { ...label, level: at } : "unmarked";
  }

  #inline(parent: Element, line: OpenParagraph): void {
    for (const child of childrenOf(parent)) {
      switch (child.localName) {
        case "r":
          this.#run(child, line);
          break;
        case "hyperlink": {
          const target = this.#addressAt(attributeOf(child, "id"));
          const anchor = attributeOf(child, "anchor");
          const address = target && withPlace(target, anchor);
          this.#inline(child, { ...line, link: address === undefined ? line.link : safeLink(address) });
          break;
        }
        case "fldSimple":
          this.#inline(child, { ...line, link: linkOf(attributeOf(child, "instr") ?? "") ?? line.link });
          break;
        case "oMath":
        case "oMathPara":
          this.asides.add("equation");
          line.runs.push(textRun(mathText(child).trim()));
          break;
        case "ins":
        case "moveTo":
        case "smartTag":
        case "sdt":
        case "sdtContent":
        case "customXml":
        case "bdo":
        case "dir":
          this.#inline(child, line);
      }
    }
  }

  #run(run: Element, line: OpenParagraph): void {
    const rPr = childOf(run, "rPr");
    const link = line.link ?? line.fields.link;
    // A link's own colour and underline, which its character style gives, are how links look.
    const named = this.#styles.character(attributeOf(childOf(rPr, "rStyle"), "val"));
    const { color: _, underline: __, ...withoutLinkLook } = named;
    const props: TextProps = {
      ...line.style.props,
      ...(link === undefined ? named : withoutLinkLook),
      ...textProps(rPr),
    };
    if (props.hidden) return;
    const marks = marksFrom(props, line.base, link);
    const add = (text: string) => {
      if (!line.fields.isShown) return;
      line.runs.push(runInFont(text, props.font, marks));
      line.fields.show();
    };
    this.#runParts(run, line, add);
  }

  #runParts(parent: Element, line: OpenParagraph, add: (text: string) => void): void {
    for (const child of childrenOf(parent)) {
      switch (child.localName) {
        case "t":
          add(child.textContent);
          break;
        case "tab":
        case "ptab":
          add("\t");
          break;
        case "noBreakHyphen":
          add("\u2011");
          break;
        case "sym":
        case "symEx":
          add(symbolOf(child));
          break;
        case "ruby": {
          this.#inline(childOf(child, "rubyBase") ?? child, line);
          const reading = descendantsOf(child, "rt").flatMap((rt) => descendantsOf(rt, "t"));
          if (reading.length > 0) add(`(${reading.map((text) => text.textContent).join("")})`);
          break;
        }
        case "commentReference":
          this.asides.add("comment");
          break;
        case "br":
          if (/^(page|column)$/.test(attributeOf(child, "type") ?? "")) line.parts.push(line.runs.length);
          else line.runs.push({ type: "break" });
          break;
        case "cr":
          line.runs.push({ type: "break" });
          break;
        case "fldChar":
          this.#fieldMark(child, line, add);
          break;
        case "instrText":
          line.fields.instruct(child.textContent);
          break;
        case "footnoteReference":
        case "endnoteReference":
          this.#note(child, line);
          break;
        case "drawing":
        case "pict":
        case "object":
          this.#picture(child, line);
          break;
        case "AlternateContent": {
          const choice = childOf(child, "Choice") ?? childOf(child, "Fallback");
          if (choice) this.#runParts(choice, line, add);
        }
      }
    }
  }

  #fieldMark(mark: Element, line: OpenParagraph, add: (text: string) => void): void {
    const choice = line.fields.take(mark);
    if (choice !== undefined) add(choice);
  }

  /** A note comes along with the line that calls it. */
  #note(reference: Element, line: OpenParagraph): void {
    const note = this.#notes.find(reference);
    if (!note || this.#isInNote || !line.fields.isShown) return;
    const outside = { relations: this.#relations, held: this.#held };
    [this.#relations, this.#held, this.#isInNote] = [this.#relationsOf(note.part), [], true];
    const flows = this.asides.within(() => this.flows(note.element, 1));
    [this.#relations, this.#held, this.#isInNote] = [outside.relations, outside.held, false];
    line.runs.push(noteOf(flows));
  }

  #picture(drawing: Element, line: OpenParagraph): void {
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
    const bytes = this.parts.bytes(this.#partAt(attributeOf(blip, "embed") ?? attributeOf(blip, "id")));
    const described = descendantsOf(drawing, "docPr")[0];
    const alt = attributeOf(described, "descr") || attributeOf(described, "title") || "";
    const picture = bytes && keepPicture(bytes, alt, this.pictures);
    const clicked = attributeOf(descendantsOf(drawing, "hlinkClick")[0], "id");
    const link = line.link ?? line.fields.link ?? safeLink(this.#addressAt(clicked) ?? "");
    if (picture) line.runs.push({ ...picture, ...defined({ link }) });
    else {
      this.asides.add("picture");
      if (alt !== "") line.runs.push(textRun(alt));
    }
  }

  #table(element: Element, depth: number, caption: readonly Run[] | undefined): Flow {
    const rows: {
      cells: { cell: Cell; column: number; span: number; merge: "restart" | "continue" | undefined }[];
      header: boolean;
    }[] = [];
    for (const row of rowsOf(element)) {
      const trPr = childOf(row, "trPr");
      const skipped = Math.min(1000, Number(attributeOf(childOf(trPr, "gridBefore"), "val") ?? 0));
      let column = skipped;
      const header = childOf(trPr, "tblHeader");
      const cells = cellsOf(row).map((tc) => {
        const tcPr = childOf(tc, "tcPr");
        const span = Math.min(1000, Math.max(1, Number(attributeOf(childOf(tcPr, "gridSpan"), "val") ?? 1)));
        const vMerge = childOf(tcPr, "vMerge");
        const merge =
          vMerge && (attributeOf(vMerge, "val") === "restart" ? ("restart" as const) : ("continue" as const));
        const background = parseColor(attributeOf(childOf(tcPr, "shd"), "fill") ?? "");
        const cell = makeCell(this.flows(tc, depth + 1), {
          ...(span > 1 && { colspan: span }),
          ...(background && background !== "#ffffff" && { background }),
        });
        column += span;
        return { cell, column: column - span, span, merge };
      });
      if (skipped > 0) {
        const blank: Cell = { flows: [], ...(skipped > 1 && { colspan: skipped }) };
        cells.unshift({ cell: blank, column: 0, span: skipped, merge: undefined });
      }
      rows.push({
        cells,
        header: header !== undefined && !/^(0|false|off)$/.test(attributeOf(header, "val") ?? "1"),
      });
    }
    let headerRows = 0;
    while (headerRows < rows.length && rows[headerRows]!.header) headerRows++;
    const spanned: Row[] = rows.map(({ cells }, index) =>
      cells
        .filter(({ merge }) => merge !== "continue")
        .map(({ cell, column, merge }) => {
          if (merge !== "restart") return cell;
          let down = 1;
          while (
            rows[index + down]?.cells.some((below) => below.column === column && below.merge === "continue")
          )
            down++;
          return down > 1 ? { ...cell, rowspan: down } : cell;
        }),
    );
    // Only a fixed layout means its widths; otherwise they are what some program last worked out.
    const isFixed = attributeOf(childOf(childOf(element, "tblPr"), "tblLayout"), "type") === "fixed";
    const grid = childOf(element, "tblGrid");
    const widths = grid
      ? [...childrenOf(grid)].map((column) => Number(attributeOf(column, "w") ?? 0) / 20)
      : [];
    return makeTable(spanned, headerRows, {
      ...(isFixed && widths.every((width) => width > 0) && { widths }),
      ...(caption && { caption }),
    });
  }
}

/** A symbol as text, by the table of its font. */
function symbolOf(symbol: Element): string {
  const place = Number.parseInt(attributeOf(symbol, "char") ?? "", 16);
  return symbolText(attributeOf(symbol, "font") ?? "", place);
}

/** The lines of a paragraph, parted at the ends of pages and columns; blank ones beside others are left out. */
function partsOf({ runs, parts }: OpenParagraph): Run[][] {
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

function rowsOf(table: Element): Element[] {
  return [...unwrapped(table, "tr")];
}

function cellsOf(row: Element): Element[] {
  return [...unwrapped(row, "tc")];
}

/** Children of that name, those inside content controls and insertions too. */
function* unwrapped(parent: Element, name: string): Generator<Element> {
  for (const child of childrenOf(parent)) {
    if (child.localName === name) yield child;
    else if (/^(sdt|sdtContent|ins|customXml)$/.test(child.localName)) yield* unwrapped(child, name);
  }
}
