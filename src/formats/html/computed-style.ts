import type { Address } from "../../content/address.js";
import type { Align, Direction, Marks } from "../../content/model.js";
import {
  parseAlign,
  parseBackground,
  parseColor,
  parseFont,
  parseFontStep,
  parseSize,
} from "./css-values.js";
import type { Declaration } from "./tree-adapter.js";

/**
 * How text looks at one place of an HTML tree: what an element hands down to what stands in it. `base…` is what text
 * there looks like anyway (the page's own font, a heading's boldness, the size its
 * tables are set in), which is not formatting and becomes no mark.
 */
export interface ComputedStyle {
  readonly bold: boolean;
  readonly italic: boolean;
  readonly underline: boolean;
  readonly strike: boolean;
  readonly code: boolean;
  readonly script: "sub" | "sup" | undefined;
  readonly color: string | undefined;
  readonly background: string | undefined;
  readonly font: string | undefined;
  readonly size: number;
  readonly link: Address | undefined;
  readonly space: "normal" | "pre" | "pre-line";
  readonly align: Align | undefined;
  readonly direction: Direction | undefined;
  /** Nothing of it is shown. */
  readonly hidden: boolean;
  readonly baseBold: boolean;
  readonly baseColor: string | undefined;
  readonly baseFont: string | undefined;
  readonly baseSize: number;
}

/** The look of an empty page. */
export const PLAIN_STYLE: ComputedStyle = {
  bold: false,
  italic: false,
  underline: false,
  strike: false,
  code: false,
  script: undefined,
  color: undefined,
  background: undefined,
  font: undefined,
  size: 12,
  link: undefined,
  space: "normal",
  align: undefined,
  direction: undefined,
  hidden: false,
  baseBold: false,
  baseColor: undefined,
  baseFont: undefined,
  baseSize: 12,
};

type MutableStyle = { -readonly [K in keyof ComputedStyle]: ComputedStyle[K] };

/** Sizes of headings before any style sheet, in points, as browsers have them. */
const HEADING_SIZES: Readonly<Record<string, number>> = {
  h1: 24,
  h2: 18,
  h3: 14.04,
  h4: 12,
  h5: 9.96,
  h6: 8.04,
};

/** What each element's name says about its look. */
const ELEMENTS: Readonly<Record<string, (style: MutableStyle) => void>> = {
  b: bold,
  strong: bold,
  th: bold,
  i: italic,
  em: italic,
  cite: italic,
  dfn: italic,
  var: italic,
  address: italic,
  u: underline,
  ins: underline,
  s: strike,
  strike,
  del: strike,
  code,
  kbd: code,
  samp: code,
  tt: code,
  sub: (style) => void (style.script = "sub"),
  sup: (style) => void (style.script = "sup"),
  mark: (style) => void (style.background = "#ffff00"),
  small: (style) => void (style.size = parseSize("smaller", style.size)!),
  big: (style) => void (style.size = parseSize("larger", style.size)!),
  center: (style) => void (style.align = "center"),
  pre: (style) => void (style.space = "pre"),
};

function bold(style: MutableStyle): void {
  style.bold = true;
}
function italic(style: MutableStyle): void {
  style.italic = true;
}
function underline(style: MutableStyle): void {
  style.underline = true;
}
function strike(style: MutableStyle): void {
  style.strike = true;
}
function code(style: MutableStyle): void {
  style.code = true;
}

/** Whether an element's name alone changes how text in it looks. */
export function isPresentationalAttribute(name: string): boolean {
  return name in ELEMENTS || /^(h[1-6]|th|table|blockquote)$/.test(name);
}

/** What the cascade needs to know of an element. */
export interface Styled {
  readonly name: string;
  attribute(name: string): string | undefined;
  /** Declarations of style sheets and of the `style` attribute, the weakest first. */
  readonly declarations: readonly Declaration[];
  /** Declarations that hold for every element of its name: how plain text looks there. */
  readonly ordinary: readonly Declaration[];
  /** Whether its background colours text, and not an area of the page. */
  readonly isInline: boolean;
}

/** The look inside an element, given the look around it. Where a link goes is put in by who knows the link. */
export function computeStyle(around: ComputedStyle, element: Styled): ComputedStyle {
  const style: MutableStyle = { ...around };
  if (!element.isInline) style.background = undefined;
  const headingSize = HEADING_SIZES[element.name];
  if (headingSize !== undefined) {
    style.bold = true;
    style.size = headingSize;
  }
  ELEMENTS[element.name]?.(style);
  fromAttributes(style, element, around);
  for (const { property, value } of element.declarations) {
    if (value.length <= 1000) PROPERTIES[property]?.(style, value, around, element);
  }
  for (const { property, value } of element.ordinary) {
    if (property === "color") style.baseColor = parseColor(value);
    else if (property === "font-family") style.baseFont = parseFont(value);
    else if (property === "font-size") style.baseSize = parseSize(value, around.size) ?? style.baseSize;
  }
  if (headingSize !== undefined || element.name === "th") {
    style.baseBold = style.bold;
    style.baseFont = style.font;
    style.baseSize = style.size;
  }
  if (element.name === "table" || element.name === "blockquote") {
    style.baseColor = style.color;
    style.baseFont = style.font;
    style.baseSize = style.size;
  }
  if (element.name === "a" && element.attribute("href") !== undefined) asLink(style, around);
  return style;
}

function fromAttributes(style: MutableStyle, element: Styled, around: ComputedStyle): void {
  const direction = element.attribute("dir")?.toLowerCase();
  if (direction === "rtl" || direction === "ltr") setDirection(style, direction);
  if (element.attribute("hidden") !== undefined) style.hidden = true;
  if (!element.isInline) {
    const align = element.attribute("align");
    if (align && element.name !== "table" && element.name !== "img") setAlign(style, align);
  }
  if (element.name === "font") {
    const color = element.attribute("color");
    if (color) style.color = parseColor(color) ?? around.color;
    const face = element.attribute("face");
    if (face) style.font = parseFont(face) ?? around.font;
    const size = element.attribute("size");
    if (size) style.size = parseFontStep(size) ?? around.size;
  }
  if (element.name === "body") {
    const color = element.attribute("text");
    if (color) style.color = parseColor(color);
  }
}

/** A link's own colour and underline are how links look, not formatting of this text. */
function asLink(style: MutableStyle, around: ComputedStyle): void {
  style.color = around.color;
  style.underline = around.underline;
}

const PROPERTIES: Readonly<
  Record<string, (style: MutableStyle, value: string, around: ComputedStyle, element: Styled) => void>
> = {
  "font-weight"(style, value) {
    if (/^(bold|bolder)$/i.test(value)) style.bold = true;
    else if (/^(normal|lighter)$/i.test(value)) style.bold = false;
    else if (/^\d{1,4}$/.test(value)) style.bold = Number(value) >= 600;
  },
  "font-style"(style, value) {
    if (/^(italic|oblique)/i.test(value)) style.italic = true;
    else if (/^normal/i.test(value)) style.italic = false;
  },
  "text-decoration": decoration,
  "text-decoration-line": decoration,
  "text-underline"(style, value, around) {
    style.underline = around.underline || !/^none$/i.test(value);
  },
  "vertical-align"(style, value, _around, element) {
    if (!element.isInline) return;
    if (/^sub$/i.test(value)) style.script = "sub";
    else if (/^super$/i.test(value)) style.script = "sup";
    else if (/^baseline$/i.test(value)) style.script = undefined;
  },
  color(style, value) {
    if (/^(inherit|currentcolor)$/i.test(value)) return;
    style.color = parseColor(value);
  },
  background,
  "background-color": background,
  "font-family"(style, value) {
    style.font = parseFont(value) ?? style.font;
  },
  "font-size"(style, value, around) {
    style.size = parseSize(value, around.size) ?? style.size;
  },
  "text-align"(style, value) {
    setAlign(style, value);
  },
  direction(style, value) {
    if (/^(rtl|ltr)$/i.test(value)) setDirection(style, value.toLowerCase() as Direction);
  },
  "white-space"(style, value) {
    const folds = value.toLowerCase();
    style.space = /^(pre|pre-wrap|break-spaces)$/.test(folds)
      ? "pre"
      : folds === "pre-line"
        ? folds
        : "normal";
  },
  "white-space-collapse"(style, value) {
    style.space = /^(preserve|break-spaces)$/i.test(value)
      ? "pre"
      : /^preserve-breaks$/i.test(value)
        ? "pre-line"
        : "normal";
  },
  font(style, value, around) {
    const parts =
      /^(.{0,80}?)(\d[\d.]{0,6}(?:px|pt|pc|r?em|%)|(?:xx?-)?(?:small|large)|medium)(?:\s*\/\s*\S{1,20})?\s+(.+)$/i.exec(
        value,
      );
    if (!parts) return;
    style.bold = /\b(bold|bolder|[6-9]00)\b/i.test(parts[1]!);
    style.italic = /\b(italic|oblique)\b/i.test(parts[1]!);
    style.size = parseSize(parts[2]!, around.size) ?? style.size;
    style.font = parseFont(parts[3]!) ?? style.font;
  },
  display(style, value) {
    style.hidden = /^none$/i.test(value);
  },
  visibility(style, value) {
    style.hidden = /^(hidden|collapse)$/i.test(value);
  },
  "mso-hide"(style, value) {
    if (/^all$/i.test(value)) style.hidden = true;
  },
};

/** A decoration reaches through everything inside; `none` takes away only the element's own. */
function decoration(style: MutableStyle, value: string, around: ComputedStyle): void {
  style.underline = around.underline || /\bunderline\b/i.test(value);
  style.strike = around.strike || /\bline-through\b/i.test(value);
}

function background(style: MutableStyle, value: string, around: ComputedStyle, element: Styled): void {
  if (!element.isInline) return;
  style.background = parseBackground(value) ?? around.background;
}

function setAlign(style: MutableStyle, value: string): void {
  const align = parseAlign(value);
  style.align = align === (style.direction === "rtl" ? "right" : "left") ? undefined : align;
}

function setDirection(style: MutableStyle, direction: Direction): void {
  style.direction = direction === "rtl" ? "rtl" : style.direction ? "ltr" : undefined;
}

const marksOfLook = new WeakMap<ComputedStyle, Marks>();

/** The marks of text that looks so. The same look always gives the same object. */
export function marksOf(style: ComputedStyle): Marks {
  const known = marksOfLook.get(style);
  if (known) return known;
  const marks: { -readonly [K in keyof Marks]: Marks[K] } = {};
  if (style.bold && !style.baseBold) marks.bold = true;
  if (style.italic) marks.italic = true;
  if (style.underline) marks.underline = true;
  if (style.strike) marks.strike = true;
  if (style.code) marks.code = true;
  if (style.script) marks[style.script] = true;
  if (style.color && style.color !== style.baseColor) marks.color = style.color;
  if (style.background) marks.background = style.background;
  if (style.font && style.font !== style.baseFont && !style.code) marks.font = style.font;
  if (style.size !== style.baseSize && !style.code && !style.script) marks.size = style.size;
  if (style.link) marks.link = style.link;
  marksOfLook.set(style, marks);
  return marks;
}
