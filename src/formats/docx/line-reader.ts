import { type Address, safeLink } from "../../content/address.js";
import { type Marks, type Run, textRun } from "../../content/model.js";
import type { Asides } from "../asides.js";
import type { Aside } from "../office/document.js";
import { runInFont, symbolText } from "../office/symbols.js";
import { marksFrom, type TextProps } from "../office/text-props.js";
import { attributeOf, childOf, childrenOf, descendantsOf, type Element } from "../office/xml.js";
import { linkOf, type OpenFields, withPlace } from "./fields.js";
import { mathText } from "./math.js";
import { type DocxStyle, type DocxStyles, textProps } from "./styles.js";

/** A paragraph while its runs are read. */
export interface OpenParagraph {
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

/** What reading a line needs of the document that it stands in. */
export interface LineHost {
  readonly asides: Asides<Aside>;
  readonly styles: DocxStyles;
  /** The address that a relation leads to. */
  addressAt(id: string | undefined): string | undefined;
  /** Reads a note into the line that calls it. */
  note(reference: Element, line: OpenParagraph): void;
  /** Reads what is drawn: pictures, boxes of text, charts. */
  picture(drawing: Element, line: OpenParagraph): void;
}

/** How a run looks, beside the text of the document. */
interface Look {
  readonly base: TextProps;
  readonly props: TextProps;
  readonly marks: Marks;
}

/** Reads the runs of paragraphs: their text and its marks, fields, links, and what is anchored in them. */
export class LineReader {
  constructor(readonly host: LineHost) {}

  /** Reads what stands in a paragraph, or in a part of it. */
  read(parent: Element, line: OpenParagraph): void {
    for (const child of childrenOf(parent)) {
      switch (child.localName) {
        case "r":
          this.#run(child, line);
          break;
        case "hyperlink": {
          const target = this.host.addressAt(attributeOf(child, "id"));
          const anchor = attributeOf(child, "anchor");
          const address = target && withPlace(target, anchor);
          this.read(child, { ...line, link: address === undefined ? line.link : safeLink(address) });
          break;
        }
        case "fldSimple":
          this.read(child, { ...line, link: linkOf(attributeOf(child, "instr") ?? "") ?? line.link });
          break;
        case "oMath":
        case "oMathPara":
          this.host.asides.add("equation");
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
          this.read(child, line);
      }
    }
  }

  #run(run: Element, line: OpenParagraph): void {
    const rPr = childOf(run, "rPr");
    const link = line.link ?? line.fields.link;
    const { props, marks } = link === undefined ? this.#lookOf(rPr, line) : this.#lookAnew(rPr, line, link);
    if (props.hidden) return;
    const add = (text: string) => {
      if (!line.fields.isShown) return;
      line.runs.push(runInFont(text, props.font, marks));
      line.fields.show();
    };
    this.#runParts(run, line, add);
  }

  /** What runs look like, by the style of their paragraph and by what they say of themselves: few differ, and there are many. */
  readonly #looks = new WeakMap<TextProps, Map<string, Look>>();

  #lookOf(rPr: Element | undefined, line: OpenParagraph): Look {
    const around = line.style.props;
    let within = this.#looks.get(around);
    if (!within) this.#looks.set(around, (within = new Map<string, Look>()));
    const said = saidBy(rPr);
    let look = within.get(said);
    if (look?.base !== line.base) within.set(said, (look = this.#lookAnew(rPr, line, undefined)));
    return look;
  }

  #lookAnew(rPr: Element | undefined, line: OpenParagraph, link: Address | undefined): Look {
    // A link's own colour and underline, which its character style gives, are how links look.
    const named = this.host.styles.character(attributeOf(childOf(rPr, "rStyle"), "val"));
    const { color: _, underline: __, ...withoutLinkLook } = named;
    const props: TextProps = {
      ...line.style.props,
      ...(link === undefined ? named : withoutLinkLook),
      ...textProps(rPr),
    };
    return { base: line.base, props, marks: marksFrom(props, line.base, link) };
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
          this.read(childOf(child, "rubyBase") ?? child, line);
          const reading = descendantsOf(child, "rt").flatMap((rt) => descendantsOf(rt, "t"));
          if (reading.length > 0) add(`(${reading.map((text) => text.textContent).join("")})`);
          break;
        }
        case "commentReference":
          this.host.asides.add("comment");
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
          this.host.note(child, line);
          break;
        case "drawing":
        case "pict":
        case "object":
          this.host.picture(child, line);
          break;
        case "AlternateContent": {
          const choice = childOf(child, "Choice") ?? childOf(child, "Fallback");
          if (choice) this.#runParts(choice, line, add);
        }
      }
    }
  }

  #fieldMark(mark: Element, line: OpenParagraph, add: (text: string) => void): void {
    const choice = line.fields.take(mark, () => this.host.asides.add("field"));
    if (choice !== undefined) add(choice);
  }
}

/** What a run says of its look, in a text that differs when that does. */
function saidBy(rPr: Element | undefined): string {
  let said = "";
  // No part of a file holds this control character (XML 1.0, 2.2).
  for (const child of rPr?.children ?? [])
    if (typeof child !== "string")
      said += `${child.localName}\u0001${child.attributes.join("\u0001")}\u0001\u0001`;
  return said;
}

/** A symbol as text, by the table of its font. */
function symbolOf(symbol: Element): string {
  const place = Number.parseInt(attributeOf(symbol, "char") ?? "", 16);
  return symbolText(attributeOf(symbol, "font") ?? "", place);
}
