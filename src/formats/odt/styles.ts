import type { Align, Marker } from "../../content/model.js";
import type { NumberForm } from "../../content/number-forms.js";
import { parseColor, parseFont, parseSize } from "../html/css-values.js";
import { ODF_NUMBER_FORMS } from "../office/number-formats.js";
import { symbolText } from "../office/symbols.js";
import type { TextProps } from "../office/text-props.js";
import { attributeOf, childOf, childrenOf, type Element } from "../office/xml.js";

/** A style of an OpenDocument file, with all that it inherits. */
export interface OdfStyle {
  /** Its own name and those of the styles below it, in lower case, with `_20_` read as a space. */
  readonly names: readonly string[];
  readonly props: TextProps;
  readonly align?: Align | undefined;
  readonly rightToLeft?: boolean | undefined;
  readonly hasLineBelow?: boolean | undefined;
  /** Whether a heading that looks so has no number. */
  readonly isUnnumbered?: boolean | undefined;
  /** The background of a cell. */
  readonly background?: string | undefined;
  /** The name of the data style of a cell. */
  readonly dataStyle?: string | undefined;
  /** The width of a column, in points, where it was set. */
  readonly width?: number | undefined;
}

/** One level of a list style, or of the numbering of headings. */
export interface OdfLevel {
  readonly ordered: boolean;
  readonly start: number;
  readonly numbers: Marker["numbers"];
  readonly before: string;
  readonly after: string;
  /** How many levels' numbers stand in a number, its own included. */
  readonly shown: number;
  /** The bullet, where it is not ordered. */
  readonly bullet: string;
}

/** A level of a list whose style is not there. */
const BULLETS: OdfLevel = {
  ordered: false,
  start: 1,
  numbers: undefined,
  before: "",
  after: "",
  shown: 1,
  bullet: "•",
};

const NOTHING: OdfStyle = { names: [], props: {} };

/** The styles of an OpenDocument text (ODF 1.3 part 3, 16), those of its own and the automatic ones of its content. */
export class OdfStyles {
  readonly #elements = new Map<string, Element>();
  /** Styles as they are with those that they are based on, by family and name: each is asked for thousands of times. */
  readonly #resolved = new Map<string, Map<string | undefined, OdfStyle>>();
  /** How paragraphs look whose style is not there. */
  readonly #unnamed: OdfStyle;
  readonly #fonts = new Map<string, string>();
  readonly #lists = new Map<string, Map<number, OdfLevel>>();
  readonly #defaults = new Map<string, Element>();
  readonly #formats = new Map<string, Element>();
  #outline: ReadonlyMap<number, OdfLevel> = new Map();

  /**
   * @param roots the root elements of `styles.xml` and `content.xml`
   * @param hasHiddenText whether text can be hidden by its style: that in cells of sheets and on slides is shown all the same
   */
  constructor(
    roots: readonly Element[],
    readonly hasHiddenText = false,
  ) {
    for (const root of roots) {
      for (const font of childrenOf(childOf(root, "font-face-decls") ?? root)) {
        if (font.localName !== "font-face") continue;
        const family = parseFont(attributeOf(font, "font-family") ?? "");
        if (family) this.#fonts.set(attributeOf(font, "name") ?? "", family);
      }
      for (const part of ["styles", "automatic-styles"]) {
        for (const style of childrenOf(childOf(root, part) ?? root)) this.#keep(style);
      }
    }
    const standard = this.#defaults.get("paragraph");
    this.#unnamed = standard ? { ...NOTHING, ...this.#own(standard, NOTHING) } : NOTHING;
  }

  #keep(style: Element): void {
    const family = attributeOf(style, "family") ?? "";
    const name = attributeOf(style, "name") ?? "";
    if (style.localName === "style") this.#elements.set(`${family} ${name}`, style);
    else if (style.localName === "default-style") this.#defaults.set(family, style);
    else if (/^(number|percentage|currency|date|time|boolean|text)-style$/.test(style.localName)) {
      this.#formats.set(name, style);
    } else if (style.localName === "list-style") this.#lists.set(name, levelsOf(style));
    else if (style.localName === "outline-style") this.#outline = levelsOf(style);
  }

  /** How plain text looks. */
  get plain(): TextProps {
    return this.get("paragraph", "Standard").props;
  }

  /** A style by its family and name; what the family looks like by default for a name that is not there. */
  get(family: string, name: string | undefined, depth = 0): OdfStyle {
    const resolved = this.#resolvedOf(family);
    const known = resolved.get(name);
    if (known) return known;
    const element = this.#elements.get(`${family} ${name ?? ""}`);
    if (!element || depth > 20) return family === "paragraph" ? this.#unnamed : NOTHING;
    const parent = this.get(family, attributeOf(element, "parent-style-name"), depth + 1);
    const own = this.#own(element, parent);
    const readable = (attributeOf(element, "display-name") ?? name ?? "")
      .replaceAll("_20_", " ")
      .toLowerCase();
    const style = { ...own, names: [readable, ...parent.names] };
    resolved.set(name, style);
    return style;
  }

  #resolvedOf(family: string): Map<string | undefined, OdfStyle> {
    let resolved = this.#resolved.get(family);
    if (!resolved) this.#resolved.set(family, (resolved = new Map<string | undefined, OdfStyle>()));
    return resolved;
  }

  /** Whether a table style hides its table. */
  isHiddenTable(name: string | undefined): boolean {
    const style = this.#elements.get(`table ${name ?? ""}`);
    return attributeOf(style && childOf(style, "table-properties"), "display") === "false";
  }

  /** The country that the file is at home in (ISO 3166); nothing when it does not say. */
  get country(): string | undefined {
    const defaults = this.#defaults.get("table-cell") ?? this.#defaults.get("paragraph");
    return attributeOf(defaults && childOf(defaults, "text-properties"), "country");
  }

  /** A data style by its name: how values are shown. */
  dataStyle(name: string): Element | undefined {
    return this.#formats.get(name);
  }

  /** A level of a list style, counting from 1; a bullet when the style is not there. */
  level(list: string | undefined, level: number): OdfLevel {
    return this.#lists.get(list ?? "")?.get(level) ?? BULLETS;
  }

  /** How headings of a level are numbered, counting from 1. */
  outline(level: number): OdfLevel {
    return this.#outline.get(level) ?? BULLETS;
  }

  #own(element: Element, parent: OdfStyle): OdfStyle {
    const paragraph = childOf(element, "paragraph-properties");
    const writing = attributeOf(paragraph, "writing-mode");
    const rightToLeft = writing === undefined ? parent.rightToLeft : /^rl/.test(writing);
    const align = attributeOf(paragraph, "text-align");
    const border = attributeOf(paragraph, "border-bottom");
    const listStyle = attributeOf(element, "list-style-name");
    const cell = childOf(element, "table-cell-properties");
    const column = childOf(element, "table-column-properties");
    const isFitted = attributeOf(column, "use-optimal-column-width") === "true";
    const width = isFitted ? undefined : attributeOf(column, "column-width");
    return {
      names: parent.names,
      props: { ...parent.props, ...this.#textProps(childOf(element, "text-properties"), parent.props) },
      rightToLeft,
      align: align === undefined ? parent.align : alignOf(align, rightToLeft === true),
      isUnnumbered: listStyle === undefined ? parent.isUnnumbered : listStyle === "",
      hasLineBelow: border === undefined ? parent.hasLineBelow : border !== "none",
      background: cell ? parseColor(attributeOf(cell, "background-color") ?? "") : parent.background,
      dataStyle: attributeOf(element, "data-style-name") ?? parent.dataStyle,
      width: width === undefined ? parent.width : parseSize(width, 12),
    };
  }

  #textProps(element: Element | undefined, parent: TextProps): TextProps {
    if (!element) return {};
    const props: { -readonly [K in keyof TextProps]: TextProps[K] } = {};
    const read = (name: string, use: (value: string) => void) => {
      const value = attributeOf(element, name);
      if (value !== undefined) use(value);
    };
    read("font-weight", (value) => (props.bold = value === "bold" || Number(value) >= 600));
    read("font-style", (value) => (props.italic = value !== "normal"));
    read("text-underline-style", (value) => (props.underline = value !== "none"));
    read("text-line-through-style", (value) => (props.strike = value !== "none"));
    read("text-line-through-type", (value) => (props.strike = value !== "none"));
    read("text-position", (value) => (props.script = scriptOf(value)));
    read("color", (value) => (props.color = parseColor(value) ?? "auto"));
    read("use-window-font-color", (value) => value === "true" && (props.color = "auto"));
    read("background-color", (value) => (props.background = parseColor(value) ?? "none"));
    read("font-size", (value) => {
      const size = parseSize(value, parent.size ?? 12);
      if (size) props.size = size;
    });
    read("font-family", (value) => this.#font(props, parseFont(value)));
    read("font-name", (value) => this.#font(props, this.#fonts.get(value)));
    if (this.hasHiddenText) read("display", (value) => (props.hidden = value === "none"));
    return props;
  }

  #font(props: { font?: string }, font: string | undefined): void {
    if (font) props.font = font;
  }
}

function alignOf(value: string, rightToLeft: boolean): Align | undefined {
  if (value === "center" || value === "justify") return value;
  const side = value === "end" ? (rightToLeft ? "left" : "right") : value === "start" ? undefined : value;
  return side === (rightToLeft ? "left" : "right") ? side : undefined;
}

/** `super 58%`, `sub 58%`, or how much the text is raised. */
function scriptOf(value: string): "sub" | "sup" | "none" {
  if (value.startsWith("super")) return "sup";
  if (value.startsWith("sub")) return "sub";
  const raised = Number.parseFloat(value);
  return raised > 0 ? "sup" : raised < 0 ? "sub" : "none";
}

/** A way to write numbers, by its sample. */
function numbersOf(sample: string, isRepeated: boolean): NumberForm | undefined {
  const form = ODF_NUMBER_FORMS.get(sample);
  return isRepeated && (form === "lower-alpha" || form === "upper-alpha") ? `${form}-repeated` : form;
}

function levelsOf(style: Element): Map<number, OdfLevel> {
  const levels = new Map<number, OdfLevel>();
  for (const level of childrenOf(style)) {
    const facts = (name: string) => attributeOf(level, name) ?? "";
    const isNumber = /^(list|outline)-level-style-number$|^outline-level-style$/.test(level.localName);
    levels.set(Number(facts("level")), {
      ordered: isNumber && facts("num-format") !== "",
      start: Number(facts("start-value") || 1),
      numbers: numbersOf(facts("num-format"), facts("num-letter-sync") === "true"),
      before: facts("num-prefix"),
      after: facts("num-suffix"),
      shown: Number(facts("display-levels") || 1),
      bullet: bulletOf(level),
    });
  }
  return levels;
}

/** A bullet; a place in a symbol font is the sign that stands there. */
function bulletOf(level: Element): string {
  const sign = attributeOf(level, "bullet-char") ?? "";
  const code = sign.codePointAt(0) ?? 0;
  if (code < 0xf000 || code > 0xf0ff) return sign;
  const font = attributeOf(childOf(level, "text-properties"), "font-name") ?? "";
  return symbolText(/wingdings/i.test(font) ? "Wingdings" : "Symbol", code);
}
