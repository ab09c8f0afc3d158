import type { ReadDocument } from "../format.js";
import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { type Address, safeLink } from "../../content/address.js";
import { makeCell, makeTable } from "../../content/make-table.js";
import {
  type Cell,
  type Content,
  type Flow,
  type Item,
  type Paragraph,
  type Picture,
  type Row,
  type Run,
  textRun,
} from "../../content/model.js";
import { blankRuns, mergeRuns } from "../../content/runs.js";
import { picturesOf } from "../../content/traverse.js";
import type { Notice } from "../../content/notice.js";
import { marksFrom, type TextProps } from "../office/text-props.js";
import { attributeOf, childOf, childrenOf, parseXml, type Element } from "../office/xml.js";
import { locked, unzip, type Parts } from "../office/zip.js";
import { addCode, addQuote, Captions, keepPicture, leftOut } from "../office/document.js";
import { OdfStyles, type OdfStyle } from "./styles.js";

/**
 * Reads the main text of an odt (OpenDocument 1.3): headings, paragraphs, lists with their numbering, tables with merged
 * cells, links, pictures, and how text looks where it differs from the document's plain text. Notes, comments, headers
 * and footers are not part of the main text.
 *
 * @throws DrawerError `unreadable`, `locked`, `too-large`
 */
export function readOdt(bytes: Uint8Array, file: string): ReadDocument {
  const parts = unzip(bytes, file, (name) =>
    /^(content|styles|meta)\.xml$|^META-INF\/manifest\.xml$|^Pictures\//.test(name),
  );
  if (parts.text("META-INF/manifest.xml")?.includes("encryption-data")) throw locked(file);
  const root = parseXml(parts.needed("content.xml"), file);
  const body = childOf(childOf(root, "body"), "text");
  if (!body) throw new DrawerError("unreadable/not-one", { file, what: "odt" });
  const styles = parts.text("styles.xml");
  const reader = new OdtReader(parts, new OdfStyles(styles ? [parseXml(styles, file), root] : [root]), file);
  const content = reader.flows(body, 0);
  const used = new Map(picturesOf(content).map(({ hash }) => [hash, reader.pictures.get(hash)!]));
  const title = titleOf(parts, file);
  return { content, pictures: used, notices: reader.notices(), ...(title && { title }) };
}

function titleOf(parts: Parts, file: string): string | undefined {
  const meta = parts.text("meta.xml");
  return meta
    ? childOf(childOf(parseXml(meta, file), "meta"), "title")?.textContent?.trim() || undefined
    : undefined;
}

/** Where a list stands: its style, its depth from 1, and the running numbers of each list that may be continued. */
interface ListPlace {
  readonly style: string | undefined;
  readonly level: number;
}

/** Drawn things that text may stand in, by their elements (ODF 1.3 part 3, 10.3 and 10.4). */
const SHAPES =
  /^(frame|g|custom-shape|rect|ellipse|circle|line|polyline|polygon|regular-polygon|path|connector|caption|measure)$/;

/** Reads the flows of OpenDocument text, wherever it stands. */
export class OdtReader {
  readonly pictures = new Map<string, Uint8Array>();
  readonly captions = new Captions();
  /** The number that the last item of each outermost list had, by its id and by its style. */
  readonly #lastNumbers = new Map<string, number>();
  readonly #leftOut = { notes: 0, comments: 0, pictures: 0, equations: 0 };
  /** Boxes and shapes with text that are anchored in what is being read: they follow it. */
  #boxes: Element[] = [];

  constructor(
    readonly parts: Parts,
    readonly styles: OdfStyles,
    readonly file: string,
  ) {}

  notices(): Notice[] {
    return leftOut(this.file, this.#leftOut);
  }

  /**
   * The flows of a body, an item or a cell.
   * @param around the style of a sheet's cell, which its text has too
   */
  flows(parent: Element, depth: number, list?: ListPlace, around?: OdfStyle): Content {
    if (depth > LIMITS.depth / 4) {
      throw new DrawerError("too-large/nesting", {
        file: this.file,
        what: "lists or tables",
        depth: LIMITS.depth / 4,
      });
    }
    const flows: Flow[] = [];
    for (const child of childrenOf(parent)) {
      switch (child.localName ?? "") {
        case "p":
          this.#paragraph(child, flows, around);
          break;
        case "h":
          this.#heading(child, flows);
          break;
        case "list":
          flows.push(this.#list(child, depth, list));
          break;
        case "table":
          flows.push(this.#table(child, depth, this.captions.take(flows)));
          break;
        case "section":
        case "index-body":
        case "table-of-content":
          for (const flow of this.flows(child, depth, list)) flows.push(flow);
          break;
        default:
          // What is anchored to a page stands beside the paragraphs; in a sheet it stands over the cells.
          if (around === undefined && SHAPES.test(child.localName ?? "")) this.#anchored(child, flows);
      }
      for (const box of this.#boxes.splice(0)) flows.push(...this.flows(box, depth + 1));
    }
    return flows;
  }

  #anchored(shape: Element, flows: Flow[]): void {
    const runs: Run[] = [];
    this.#shape(shape, runs);
    for (const run of runs) flows.push(run.type === "picture" ? run : { type: "paragraph", runs: [run] });
  }

  #paragraph(element: Element, flows: Flow[], around: OdfStyle | undefined): void {
    const style = around ?? this.styles.get("paragraph", attributeOf(element, "style-name"));
    const runs = this.#runs(
      element,
      style,
      around ? this.styles.get("table-cell", "Default").props : this.styles.plain,
    );
    const only = runs.length === 1 ? runs[0]! : undefined;
    const flow: Paragraph | Picture =
      only?.type === "picture" ? only : { type: "paragraph", runs, ...layoutOf(style) };
    if (blankRuns(runs) && style.hasLineBelow) flows.push({ type: "divider" });
    else if (style.names.some((name) => /\bquot(e|ations?)\b/.test(name))) addQuote(flows, flow);
    else if (style.names.some((name) => /\bpreformatted\b/.test(name))) addCode(flows, flow);
    else flows.push(style.names.includes("caption") ? this.captions.mark(flow) : flow);
  }

  #heading(element: Element, flows: Flow[]): void {
    const style = this.styles.get("paragraph", attributeOf(element, "style-name"));
    const level = Math.min(6, Math.max(1, Number(attributeOf(element, "outline-level") ?? 1))) as
      1 | 2 | 3 | 4 | 5 | 6;
    flows.push({ type: "heading", level, runs: this.#runs(element, style, style.props), ...layoutOf(style) });
  }

  #runs(element: Element, style: OdfStyle, base: TextProps): Run[] {
    const runs: Run[] = [];
    this.#inline(element, style.props, base, undefined, runs);
    return mergeRuns(trimmed(runs));
  }

  #inline(parent: Element, props: TextProps, base: TextProps, link: Address | undefined, runs: Run[]): void {
    const marks = marksFrom(props, base, link);
    for (let node = parent.firstChild; node; node = node.nextSibling) {
      if (node.nodeType === 3 || node.nodeType === 4) {
        // White space folds across elements (ODF 1.3 part 3, 6.1.2).
        const last = runs.at(-1);
        const before = last?.type === "text" ? last.text.at(-1) : last ? "x" : " ";
        const text = (node.nodeValue ?? "").replace(/[ \t\r\n]+/g, " ");
        const shown = before === " " && text.startsWith(" ") ? text.slice(1) : text;
        if (shown !== "" && !props.hidden) runs.push(textRun(shown, marks));
        continue;
      }
      if (node.nodeType !== 1) continue;
      const child = node as Element;
      switch (child.localName ?? "") {
        case "span": {
          const own = this.styles.get("text", attributeOf(child, "style-name")).props;
          this.#inline(child, { ...props, ...own }, base, link, runs);
          break;
        }
        case "a":
          this.#inline(child, props, base, safeLink(attributeOf(child, "href") ?? "") ?? link, runs);
          break;
        case "s":
          runs.push(textRun("\u0000".repeat(Math.min(10_000, Number(attributeOf(child, "c") ?? 1))), marks));
          break;
        case "tab":
          runs.push(textRun("\t", marks));
          break;
        case "line-break":
          runs.push({ type: "break" });
          break;
        case "note":
          this.#leftOut.notes++;
          break;
        case "annotation":
          this.#leftOut.comments++;
          break;
        case "ruby-text":
          if (child.textContent) runs.push(textRun(`(${child.textContent})`, marks));
          break;
        case "annotation-end":
        case "tracked-changes":
        case "bookmark":
        case "soft-page-break":
        case "title":
        case "desc":
          break;
        default:
          if (SHAPES.test(child.localName ?? "")) this.#shape(child, runs);
          else this.#inline(child, props, base, link, runs);
      }
    }
  }

  /** A shape: a picture stands in the line, text follows the paragraph, a group is its parts. */
  #shape(shape: Element, runs: Run[]): void {
    if (shape.localName === "g") {
      for (const child of childrenOf(shape)) if (SHAPES.test(child.localName ?? "")) this.#shape(child, runs);
      return;
    }
    if (shape.localName === "frame") this.#frame(shape, runs);
    else this.#boxes.push(shape);
  }

  #frame(frame: Element, runs: Run[]): void {
    const alt = (childOf(frame, "desc") ?? childOf(frame, "title"))?.textContent ?? "";
    const image = childOf(frame, "image");
    const box = childOf(frame, "text-box");
    if (box) {
      this.#boxes.push(box);
      return;
    }
    if (!image) return;
    const bytes = this.parts.bytes((attributeOf(image, "href") ?? "").replace(/^\.\//, ""));
    const picture = bytes && keepPicture(bytes, alt, this.pictures);
    if (picture) runs.push(picture);
    else {
      this.#leftOut.pictures++;
      if (alt !== "") runs.push(textRun(alt));
    }
  }

  #list(element: Element, depth: number, parent?: ListPlace): Flow {
    const style = attributeOf(element, "style-name") ?? parent?.style;
    const level = (parent?.level ?? 0) + 1;
    const facts = this.styles.level(style, level);
    const continues =
      attributeOf(element, "continue-list") ??
      (attributeOf(element, "continue-numbering") === "true" ? `style ${style}` : undefined);
    const items: Item[] = [];
    let start =
      continues === undefined ? facts.start : (this.#lastNumbers.get(continues) ?? facts.start - 1) + 1;
    for (const child of childrenOf(element)) {
      if (child.localName !== "list-item" && child.localName !== "list-header") continue;
      const value = attributeOf(child, "start-value");
      if (items.length === 0 && value !== undefined) start = Number(value);
      items.push({ flows: this.flows(child, depth + 1, { style, level }) });
    }
    if (level === 1) {
      const last = start + items.length - 1;
      this.#lastNumbers.set(`style ${style}`, last);
      const id = attributeOf(element, "id");
      if (id !== undefined) this.#lastNumbers.set(id, last);
    }
    return { type: "list", ordered: facts.ordered, ...(facts.ordered && start !== 1 && { start }), items };
  }

  #table(element: Element, depth: number, caption: readonly Run[] | undefined): Flow {
    const rows: Row[] = [];
    const widths: number[] = [];
    let headerRows = 0;
    const visit = (parent: Element, header: boolean): void => {
      for (const child of childrenOf(parent)) {
        if (child.localName === "table-column") {
          const { width } = this.styles.get("table-column", attributeOf(child, "style-name"));
          const times = Math.min(1000, Number(attributeOf(child, "number-columns-repeated") ?? 1));
          for (let i = 0; width && i < times; i++) widths.push(width);
        } else if (child.localName === "table-row") {
          rows.push(this.#row(child, depth));
          if (header) headerRows++;
        } else if (child.localName === "table-header-rows") visit(child, true);
        else if (/^table-(rows|row-group|columns|header-columns|column-group)$/.test(child.localName ?? ""))
          visit(child, header);
      }
    };
    visit(element, false);
    return makeTable(rows, headerRows, { widths, ...(caption && { caption }) });
  }

  #row(row: Element, depth: number): Row {
    const cells: Cell[] = [];
    for (const element of childrenOf(row)) {
      if (element.localName !== "table-cell") continue;
      const count = (name: string, most: number) =>
        Math.min(most, Math.max(1, Number(attributeOf(element, name) ?? 1)));
      const colspan = count("number-columns-spanned", 1000);
      const rowspan = count("number-rows-spanned", 65534);
      const { background } = this.styles.get("table-cell", attributeOf(element, "style-name"));
      const cell = makeCell(this.flows(element, depth + 1), {
        ...(colspan > 1 && { colspan }),
        ...(rowspan > 1 && { rowspan }),
        ...(background && background !== "#ffffff" && { background }),
      });
      for (let i = count("number-columns-repeated", 1000); i > 0; i--) cells.push(cell);
    }
    return cells;
  }
}

function layoutOf(style: OdfStyle) {
  return {
    ...(style.align && { align: style.align }),
    ...(style.rightToLeft && { direction: "rtl" as const }),
  };
}

/** Without the space that folding left at the end; and spaces that were written as elements are spaces now. */
function trimmed(runs: readonly Run[]): Run[] {
  const last = runs.at(-1);
  const kept =
    last?.type === "text" && last.text.endsWith(" ")
      ? [...runs.slice(0, -1), { ...last, text: last.text.slice(0, -1) }]
      : runs;
  return kept.map((run) =>
    run.type === "text" && run.text.includes("\u0000")
      ? { ...run, text: run.text.replaceAll("\u0000", " ") }
      : run,
  );
}
