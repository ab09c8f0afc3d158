import type { Align } from "../../content/model.js";
import { parseColor, parseFont, parseSize } from "../html/css-values.js";
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
  /** The background of a cell. */
  readonly background?: string | undefined;
  /** The name of the data style of a cell. */
  readonly dataStyle?: string | undefined;
  /** The width of a column, in points. */
  readonly width?: number | undefined;
}

/** One level of a list style. */
export interface OdfLevel {
  readonly ordered: boolean;
  readonly start: number;
}

const NOTHING: OdfStyle = { names: [], props: {} };

/** The styles of an OpenDocument text (ODF 1.3 part 3, 16), those of its own and the automatic ones of its content. */
export class OdfStyles {
  readonly #elements = new Map<string, Element>();
  readonly #resolved = new Map<string, OdfStyle>();
  readonly #fonts = new Map<string, string>();
  readonly #lists = new Map<string, Map<number, OdfLevel>>();
  readonly #defaults = new Map<string, Element>();
  readonly #formats = new Map<string, Element>();

  /** @param roots the root elements of `styles.xml` and `content.xml` */
  constructor(roots: readonly Element[]) {
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
  }

  #keep(style: Element): void {
    const family = attributeOf(style, "family") ?? "";
    const name = attributeOf(style, "name") ?? "";
    if (style.localName === "style") this.#elements.set(`${family} ${name}`, style);
    else if (style.localName === "default-style") this.#defaults.set(family, style);
    else if (/^(number|percentage|currency|date|time|boolean|text)-style$/.test(style.localName ?? "")) {
      this.#formats.set(name, style);
    } else if (style.localName === "list-style") this.#lists.set(name, levelsOf(style));
  }

  /** How plain text looks. */
  get plain(): TextProps {
    return this.get("paragraph", "Standard").props;
  }

  /** A style by its family and name; what the family looks like by default for a name that is not there. */
  get(family: string, name: string | undefined, depth = 0): OdfStyle {
    const key = `${family} ${name ?? ""}`;
    const known = this.#resolved.get(key);
    if (known) return known;
    const element = this.#elements.get(key);
    if (!element || depth > 20) {
      const standard = this.#defaults.get(family);
      return standard && family === "paragraph" ? { ...NOTHING, ...this.#own(standard, NOTHING) } : NOTHING;
    }
    const parent = this.get(family, attributeOf(element, "parent-style-name"), depth + 1);
    const own = this.#own(element, parent);
    const readable = (attributeOf(element, "display-name") ?? name ?? "")
      .replaceAll("_20_", " ")
      .toLowerCase();
    const style = { ...own, names: [readable, ...parent.names] };
    this.#resolved.set(key, style);
    return style;
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
    return this.#lists.get(list ?? "")?.get(level) ?? { ordered: false, start: 1 };
  }

  #own(element: Element, parent: OdfStyle): OdfStyle {
    const paragraph = childOf(element, "paragraph-properties");
    const writing = attributeOf(paragraph, "writing-mode");
    const rightToLeft = writing === undefined ? parent.rightToLeft : /^rl/.test(writing);
    const align = attributeOf(paragraph, "text-align");
    const border = attributeOf(paragraph, "border-bottom");
    const cell = childOf(element, "table-cell-properties");
    const width = attributeOf(childOf(element, "table-column-properties"), "column-width");
    return {
      names: parent.names,
      props: { ...parent.props, ...this.#textProps(childOf(element, "text-properties"), parent.props) },
      rightToLeft,
      align: align === undefined ? parent.align : alignOf(align, rightToLeft === true),
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
    read("display", (value) => (props.hidden = value === "none"));
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

function levelsOf(style: Element): Map<number, OdfLevel> {
  const levels = new Map<number, OdfLevel>();
  for (const level of childrenOf(style)) {
    const at = Number(attributeOf(level, "level"));
    const ordered = level.localName === "list-level-style-number" && attributeOf(level, "num-format") !== "";
    levels.set(at, { ordered, start: Number(attributeOf(level, "start-value") ?? 1) });
  }
  return levels;
}
