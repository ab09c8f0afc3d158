import { symbolText } from "./symbols.js";
import { mathText } from "./math.js";
import type { ReadDocument } from "../format.js";
import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { ListBuilder } from "../../content/list-builder.js";
import { type Address, safeLink } from "../../content/address.js";
import { makeCell, makeTable } from "../../content/make-table.js";
import {
  type Cell,
  type Content,
  type Flow,
  type Paragraph,
  type Picture,
  type Row,
  type Run,
  textRun,
} from "../../content/model.js";
import { blankRuns, mergeRuns } from "../../content/runs.js";
import { picturesOf } from "../../content/traverse.js";
import type { Notice } from "../../content/notice.js";
import { parseColor } from "../html/css-values.js";
import { marksFrom, type TextProps } from "../office/text-props.js";
import { attributeOf, childOf, childrenOf, descendantsOf, parseXml, type Element } from "../office/xml.js";
import { unzip, type Parts } from "../office/zip.js";
import { addCode, addQuote, Captions, keepPicture, leftOut } from "../office/document.js";
import { DocxNumbering } from "./numbering.js";
import { DocxStyles, paragraphProps, textProps, type DocxStyle, type ParagraphProps } from "./styles.js";

/**
 * Reads the main text of a docx (ECMA-376, Office Open XML): headings, paragraphs, lists with their numbering, tables
 * with merged cells, links, pictures, and how text looks where it differs from the document's plain text. Deleted and
 * hidden text is left out; notes, comments, headers and footers are not part of the main text.
 *
 * @throws DrawerError `unreadable`, `locked`, `too-large`
 */
export function readDocx(bytes: Uint8Array, file: string): ReadDocument {
  const parts = unzip(bytes, file, (name) => /^(word\/|_rels\/|docProps\/core\.xml$)/.test(name));
  const main = mainPart(parts);
  const reader = new DocxReader(parts, main, file);
  const body = childOf(parseXml(parts.needed(main), file), "body");
  if (!body) throw new DrawerError("unreadable/not-one", { file, what: "docx" });
  const content = reader.flows(body, 0);
  const used = new Map(picturesOf(content).map(({ hash }) => [hash, reader.pictures.get(hash)!]));
  const title = titleOf(parts, file);
  return { content, pictures: used, notices: reader.notices(), ...(title && { title }) };
}

/** The part that the package names as its document; `word/document.xml` by custom. */
function mainPart(parts: Parts): string {
  const rels = parts.text("_rels/.rels");
  const target = rels && /Type="[^"]*\/officeDocument"[^>]*Target="\/?([^"]+)"/.exec(rels)?.[1];
  return target && parts.bytes(target) ? target : "word/document.xml";
}

function titleOf(parts: Parts, file: string): string | undefined {
  const core = parts.text("docProps/core.xml");
  return core ? childOf(parseXml(core, file), "title")?.textContent?.trim() || undefined : undefined;
}

/** A paragraph while its runs are read. */
interface OpenParagraph {
  readonly base: TextProps;
  readonly style: DocxStyle;
  readonly link: Address | undefined;
  readonly runs: Run[];
  /** Complex fields that are open: the instruction, and whether the result has begun (17.16.18). */
  readonly fields: { instruction: string; isResult: boolean }[];
  /** Where the ends of pages and columns part it, by how many runs stand before each. */
  readonly parts: number[];
  /** The boxes of text that are anchored in it. */
  readonly boxes: Element[];
}

class DocxReader {
  readonly pictures = new Map<string, Uint8Array>();
  readonly captions = new Captions();
  readonly #styles: DocxStyles;
  readonly #numbering: DocxNumbering;
  readonly #targets = new Map<string, string>();
  readonly #folder: string;
  readonly #leftOut = { notes: 0, comments: 0, pictures: 0, equations: 0 };
  /** The text of paragraphs whose end was deleted: it begins the next one. */
  #held: Run[] = [];

  constructor(
    readonly parts: Parts,
    main: string,
    readonly file: string,
  ) {
    this.#folder = main.slice(0, main.lastIndexOf("/") + 1);
    const xml = (name: string) => {
      const text = parts.text(this.#folder + name);
      return text === undefined ? undefined : parseXml(text, file);
    };
    this.#styles = new DocxStyles(xml("styles.xml"));
    this.#numbering = new DocxNumbering(xml("numbering.xml"));
    const rels = xml(`_rels/${main.slice(this.#folder.length)}.rels`);
    for (const relation of rels ? childrenOf(rels) : []) {
      this.#targets.set(attributeOf(relation, "Id") ?? "", attributeOf(relation, "Target") ?? "");
    }
  }

  notices(): Notice[] {
    return leftOut(this.file, this.#leftOut);
  }

  /** The flows of a body or a cell. Neighbouring paragraphs of a list become one list. */
  flows(parent: Element, depth: number): Content {
    if (depth > LIMITS.depth / 4) {
      throw new DrawerError("too-large/nesting", {
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
      switch (child.localName ?? "") {
        case "p":
          this.#paragraph(child, depth, flows, lists);
          break;
        case "tbl":
          flows.push(...lists.take());
          flows.push(this.#table(child, depth, this.captions.take(flows)));
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
    const props: ParagraphProps & DocxStyle = { ...style, ...paragraphProps(pPr) };
    const isHeading = props.outline !== undefined;
    const line: OpenParagraph = {
      base: isHeading ? style.props : this.#styles.plain,
      style,
      link: undefined,
      runs: this.#held.splice(0),
      fields: [],
      parts: [],
      boxes: [],
    };
    this.#inline(element, line);
    const isJoined = childOf(childOf(pPr, "rPr"), "del") !== undefined;
    if (isJoined) this.#held = line.runs;
    else {
      const parts = partsOf(line);
      for (const runs of parts) this.#line(runs, props, pPr, flows, lists);
    }
    for (const box of line.boxes) {
      flows.push(...lists.take(), ...this.flows(box, depth + 1));
    }
  }

  /** A paragraph, or a part of one that was parted by the end of a page. */
  #line(
    runs: Run[],
    props: ParagraphProps & DocxStyle,
    pPr: Element | undefined,
    flows: Flow[],
    lists: ListBuilder,
  ): void {
    const layout = {
      ...(props.align && { align: props.align }),
      ...(props.rightToLeft && { direction: "rtl" as const }),
    };
    if (props.outline !== undefined) {
      const level = Math.min(props.outline + 1, 6) as 1 | 2 | 3 | 4 | 5 | 6;
      flows.push(...lists.take(), { type: "heading", level, runs, ...layout });
      return;
    }
    const only = runs.length === 1 ? runs[0]! : undefined;
    const flow: Paragraph | Picture =
      only?.type === "picture" ? only : { type: "paragraph", runs, ...layout };
    if (props.list) {
      const { id, level } = props.list;
      lists.add({ level, key: id, ...this.#numbering.next(id, level), flows: [flow] });
      return;
    }
    flows.push(...lists.take());
    if (blankRuns(runs) && childOf(childOf(pPr, "pBdr"), "bottom")) flows.push({ type: "divider" });
    else if (/\bquot(e|ations?)\b/.test(props.name)) addQuote(flows, flow);
    else if (/\b(preformatted|code|source)\b/.test(props.name)) addCode(flows, flow);
    else flows.push(props.name === "caption" ? this.captions.mark(flow) : flow);
  }

  #inline(parent: Element, line: OpenParagraph): void {
    for (const child of childrenOf(parent)) {
      switch (child.localName ?? "") {
        case "r":
          this.#run(child, line);
          break;
        case "hyperlink": {
          const target = this.#targets.get(attributeOf(child, "id") ?? "");
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
          this.#leftOut.equations++;
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
    const link = line.link ?? linkOf(line.fields.find(({ isResult }) => isResult)?.instruction ?? "");
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
      if (line.fields.every(({ isResult }) => isResult)) line.runs.push(textRun(text, marks));
    };
    for (const child of childrenOf(run)) {
      switch (child.localName ?? "") {
        case "t":
          add(child.textContent ?? "");
          break;
        case "tab":
        case "ptab":
          add("\t");
          break;
        case "noBreakHyphen":
          add("\u2011");
          break;
        case "sym":
          add(symbolOf(child));
          break;
        case "ruby": {
          this.#inline(childOf(child, "rubyBase") ?? child, line);
          const reading = descendantsOf(child, "rt").flatMap((rt) => descendantsOf(rt, "t"));
          if (reading.length > 0) add(`(${reading.map((text) => text.textContent).join("")})`);
          break;
        }
        case "commentReference":
          this.#leftOut.comments++;
          break;
        case "br":
          if (/^(page|column)$/.test(attributeOf(child, "type") ?? "")) line.parts.push(line.runs.length);
          else line.runs.push({ type: "break" });
          break;
        case "cr":
          line.runs.push({ type: "break" });
          break;
        case "fldChar":
          fieldChar(attributeOf(child, "fldCharType"), line);
          break;
        case "instrText": {
          const field = line.fields.at(-1);
          if (field && !field.isResult) field.instruction += child.textContent ?? "";
          break;
        }
        case "footnoteReference":
        case "endnoteReference":
          this.#leftOut.notes++;
          break;
        case "drawing":
        case "pict":
        case "object":
          this.#picture(child, line);
          break;
        case "AlternateContent": {
          const choice = childOf(child, "Choice") ?? childOf(child, "Fallback");
          for (const drawing of choice ? childrenOf(choice) : [])
            if (/^(drawing|pict|object)$/.test(drawing.localName ?? "")) this.#picture(drawing, line);
        }
      }
    }
  }

  #picture(drawing: Element, line: OpenParagraph): void {
    // A group may hold several pictures and boxes of text; what stands in a box belongs to the box.
    const boxes = outermost(drawing, "txbxContent");
    line.boxes.push(...boxes);
    for (const name of ["blip", "imagedata"])
      for (const blip of descendantsOutside(drawing, name, "txbxContent"))
        this.#keepPicture(drawing, blip, line);
  }

  #keepPicture(drawing: Element, blip: Element, line: OpenParagraph): void {
    const target = this.#targets.get(attributeOf(blip, "embed") ?? attributeOf(blip, "id") ?? "") ?? "";
    const bytes = this.parts.bytes(target.startsWith("/") ? target.slice(1) : this.#folder + target);
    const described = descendantsOf(drawing, "docPr")[0];
    const alt = attributeOf(described, "descr") || attributeOf(described, "title") || "";
    const picture = bytes && keepPicture(bytes, alt, this.pictures);
    if (picture) line.runs.push(picture);
    else {
      this.#leftOut.pictures++;
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
      let column = Number(attributeOf(childOf(trPr, "gridBefore"), "val") ?? 0);
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

function fieldChar(type: string | undefined, line: OpenParagraph): void {
  if (type === "begin") line.fields.push({ instruction: "", isResult: false });
  else if (type === "separate" && line.fields.length > 0) line.fields.at(-1)!.isResult = true;
  else if (type === "end") line.fields.pop();
}

/** The address of a HYPERLINK field. */
function linkOf(instruction: string): Address | undefined {
  const address = /^\s*HYPERLINK\s+"([^"]+)"/i.exec(instruction)?.[1];
  const place = /\s\\l\s+"([^"]+)"/i.exec(instruction)?.[1];
  return address === undefined ? undefined : safeLink(withPlace(address, place));
}

/** An address with the place in its page, where one is named. */
function withPlace(address: string, place: string | undefined): string {
  return place ? `${address.split("#")[0]}#${place}` : address;
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

/** The descendants of a name that stand in no other of that name. */
function outermost(element: Element, name: string): Element[] {
  return [...childrenOf(element)].flatMap((child) =>
    child.localName === name ? [child] : outermost(child, name),
  );
}

/** The descendants of a name that do not stand inside an element of another name. */
function descendantsOutside(element: Element, name: string, other: string): Element[] {
  return [...childrenOf(element)]
    .filter(({ localName }) => localName !== other)
    .flatMap((child) => [
      ...(child.localName === name ? [child] : []),
      ...descendantsOutside(child, name, other),
    ]);
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
    else if (/^(sdt|sdtContent|ins|customXml)$/.test(child.localName ?? "")) yield* unwrapped(child, name);
  }
}
