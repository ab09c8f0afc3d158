import { defined } from "../../content/defined.js";
import type { Align } from "../../content/model.js";
import { parseColor, parseFont } from "../html/css-values.js";
import type { TextProps } from "../office/text-props.js";
import { attributeOf, childOf, childrenOf, type Element } from "../office/xml.js";

/** Where paragraphs stand in a list; what a style does not say, the style below it does. */
export interface ListPlace {
  readonly id?: string | undefined;
  readonly level?: number | undefined;
}

/** A paragraph or character style of a docx, with all that it inherits. */
export interface DocxStyle {
  readonly id?: string;
  readonly name: string;
  readonly props: TextProps;
  readonly align?: Align | undefined;
  readonly rightToLeft?: boolean | undefined;
  /** 0 to 8 for a heading. */
  readonly outline?: number | undefined;
  readonly list?: ListPlace | undefined;
  /** Whether a line stands below or above it: where it has no text, it is a line across the page. */
  readonly hasRule?: boolean | undefined;
}

/** What paragraph properties say, of a style or of a paragraph itself. */
export type ParagraphProps = Omit<DocxStyle, "id" | "name" | "props">;

/** The styles of a docx (ECMA-376 part 1, 17.7). */
export class DocxStyles {
  readonly #elements = new Map<string, Element>();
  readonly #styles = new Map<string, DocxStyle>();
  readonly #defaults: TextProps;
  readonly #normal: string | undefined;

  constructor(root: Element | undefined) {
    this.#defaults = textProps(childOf(childOf(childOf(root, "docDefaults"), "rPrDefault"), "rPr"));
    if (!root) return;
    for (const style of childrenOf(root)) {
      const id = style.localName === "style" ? attributeOf(style, "styleId") : undefined;
      if (id === undefined) continue;
      this.#elements.set(id, style);
      if (attributeOf(style, "type") !== "paragraph") continue;
      if (attributeOf(style, "default") === "1" || id === "Normal") this.#normal = id;
    }
  }

  /** How plain text of this document looks. */
  get plain(): TextProps {
    return this.get(this.#normal).props;
  }

  /** A style by its id; the default style for no id or one that is not there. */
  get(id: string | undefined): DocxStyle {
    const known = this.#elements.has(id ?? "") ? id! : this.#normal;
    return known === undefined ? { name: "", props: this.#defaults } : this.#resolve(known, 0);
  }

  /** What a character style says by itself. */
  character(id: string | undefined): TextProps {
    return id !== undefined && this.#elements.has(id) ? this.#own(id, 0) : {};
  }

  #own(id: string, depth: number): TextProps {
    const element = this.#elements.get(id);
    if (!element || depth > 20) return {};
    const parent = attributeOf(childOf(element, "basedOn"), "val");
    return {
      ...(parent !== undefined && this.#own(parent, depth + 1)),
      ...textProps(childOf(element, "rPr")),
    };
  }

  #resolve(id: string, depth: number): DocxStyle {
    const known = this.#styles.get(id);
    if (known) return known;
    const element = this.#elements.get(id)!;
    const parentId = attributeOf(childOf(element, "basedOn"), "val");
    const parent: DocxStyle =
      parentId !== undefined && this.#elements.has(parentId) && depth < 20
        ? this.#resolve(parentId, depth + 1)
        : { name: "", props: this.#defaults };
    const style: DocxStyle = {
      ...withProps(parent, paragraphProps(childOf(element, "pPr"))),
      id,
      name: (attributeOf(childOf(element, "name"), "val") ?? id).toLowerCase(),
      props: { ...parent.props, ...textProps(childOf(element, "rPr")) },
    };
    const heading = /^heading ([1-9])$/.exec(style.name);
    const resolved = heading ? { ...style, outline: Number(heading[1]) - 1 } : style;
    this.#styles.set(id, resolved);
    return resolved;
  }
}

const ALIGNS: Readonly<Record<string, Align | undefined>> = {
  center: "center",
  both: "justify",
  distribute: "justify",
};

/** What a paragraph says of itself that says nothing. */
const NO_PROPS: ParagraphProps = {};

/** Reads `pPr`. A property that is not there is left out, so that it can be laid over another. */
export function paragraphProps(pPr: Element | undefined): ParagraphProps {
  if (!pPr || pPr.children.every(isPlain)) return NO_PROPS;
  const props: { -readonly [K in keyof ParagraphProps]: ParagraphProps[K] } = {};
  for (const child of childrenOf(pPr)) {
    const value = attributeOf(child, "val");
    if (child.localName === "bidi") props.rightToLeft = isOn(value);
    else if (child.localName === "outlineLvl") props.outline = Number(value) < 9 ? Number(value) : undefined;
    else if (child.localName === "numPr") {
      const id = attributeOf(childOf(child, "numId"), "val");
      const level = attributeOf(childOf(child, "ilvl"), "val");
      props.list = defined({ id, level: level === undefined ? undefined : Number(level) });
    } else if (child.localName === "pBdr") props.hasRule = hasRule(pPr);
    else if (child.localName === "jc" && value !== undefined) props.align = ALIGNS[value] ?? sideOf(value);
  }
  // `start` and `end`, and for paragraphs from right to left `left` and `right` too, are meant along the text.
  if (props.rightToLeft && (props.align === "left" || props.align === "right")) {
    props.align = props.align === "left" ? undefined : "left";
  }
  if (!props.rightToLeft && props.align === "left") props.align = undefined;
  return props;
}

/** Whether paragraph properties draw a line below or above. */
function hasRule(pPr: Element | undefined): boolean {
  const borders = childOf(pPr, "pBdr");
  return ["bottom", "top"].some((side) => {
    const border = childOf(borders, side);
    return border !== undefined && !/^(nil|none)$/.test(attributeOf(border, "val") ?? "");
  });
}

/** What most paragraphs name and nothing else: their style, and how their end looks. */
function isPlain(child: Element | string): boolean {
  return typeof child === "string" || child.localName === "pStyle" || child.localName === "rPr";
}

/** A style with these properties laid over it. */
export function withProps<Style extends ParagraphProps>(style: Style, props: ParagraphProps): Style {
  if (props === NO_PROPS) return style;
  return { ...style, ...props, ...(props.list && { list: { ...style.list, ...props.list } }) };
}

function sideOf(value: string): Align | undefined {
  return value === "right" || value === "end"
    ? "right"
    : value === "left" || value === "start"
      ? "left"
      : undefined;
}

/** Reads `rPr`. */
export function textProps(rPr: Element | undefined): TextProps {
  if (!rPr) return {};
  const props: { -readonly [K in keyof TextProps]: TextProps[K] } = {};
  for (const child of childrenOf(rPr)) {
    const value = attributeOf(child, "val");
    switch (child.localName) {
      case "b":
        props.bold = isOn(value);
        break;
      case "i":
        props.italic = isOn(value);
        break;
      case "u":
        props.underline = value !== undefined && value !== "none";
        break;
      case "strike":
      case "dstrike":
        props.strike = isOn(value);
        break;
      case "vanish":
        props.hidden = isOn(value);
        break;
      case "vertAlign":
        props.script = value === "superscript" ? "sup" : value === "subscript" ? "sub" : "none";
        break;
      case "position":
        props.script = Number(value) > 0 ? "sup" : Number(value) < 0 ? "sub" : "none";
        break;
      case "color":
        props.color = value === "auto" ? "auto" : (parseColor(value ?? "") ?? "auto");
        break;
      case "highlight":
        props.background = value === "none" ? "none" : (HIGHLIGHTS[value ?? ""] ?? "none");
        break;
      case "shd":
        props.background ??= parseColor(attributeOf(child, "fill") ?? "") ?? "none";
        break;
      case "sz":
        if (Number(value) > 0) props.size = Number(value) / 2;
        break;
      case "rFonts": {
        const font = parseFont(attributeOf(child, "ascii") ?? attributeOf(child, "cs") ?? "");
        if (font !== undefined) props.font = font;
      }
    }
  }
  return props;
}

function isOn(value: string | undefined): boolean {
  return value === undefined || !/^(0|false|off)$/.test(value);
}

const HIGHLIGHTS: Readonly<Record<string, string>> = {
  black: "#000000",
  blue: "#0000ff",
  cyan: "#00ffff",
  green: "#00ff00",
  magenta: "#ff00ff",
  red: "#ff0000",
  yellow: "#ffff00",
  white: "#ffffff",
  darkBlue: "#00008b",
  darkCyan: "#008b8b",
  darkGreen: "#006400",
  darkMagenta: "#800080",
  darkRed: "#8b0000",
  darkYellow: "#808000",
  darkGray: "#a9a9a9",
  lightGray: "#d3d3d3",
};
