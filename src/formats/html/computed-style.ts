import { type Address, safeLink } from "../../content/address.js";
import type { Align, Direction, Marks } from "../../content/model.js";
import type { Declaration } from "./tree-adapter.js";
import { parseAlign, parseColor, parseFont, parseFontStep, parseSize } from "./css-values.js";

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

type Draft = { -readonly [K in keyof ComputedStyle]: ComputedStyle[K] };

/** Sizes of headings before any style sheet, in points, as browsers have them. */
const HEADING_SIZES = [24, 18, 14.04, 12, 9.96, 8.04];

/** What each element's name says about its look. */
const ELEMENTS: Readonly<Record<string, (look: Draft) => void>> = {
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
  sub: (look) => void (look.script = "sub"),
  sup: (look) => void (look.script = "sup"),
  mark: (look) => void (look.background = "#ffff00"),
  small: (look) => void (look.size = parseSize("smaller", look.size)!),
  big: (look) => void (look.size = parseSize("larger", look.size)!),
  center: (look) => void (look.align = "center"),
  pre: (look) => void (look.space = "pre"),
};

function bold(look: Draft): void {
  look.bold = true;
}
function italic(look: Draft): void {
  look.italic = true;
}
function underline(look: Draft): void {
  look.underline = true;
}
function strike(look: Draft): void {
  look.strike = true;
}
function code(look: Draft): void {
  look.code = true;
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

/** The look inside an element, given the look around it. */
export function computeStyle(around: ComputedStyle, element: Styled): ComputedStyle {
  const look: Draft = { ...around };
  if (!element.isInline) look.background = undefined;
  const heading = /^h([1-6])$/.exec(element.name);
  if (heading) {
    look.bold = true;
    look.size = HEADING_SIZES[Number(heading[1]) - 1]!;
  }
  ELEMENTS[element.name]?.(look);
  fromAttributes(look, element, around);
  for (const { property, value } of element.declarations) {
    if (value.length <= 1000) PROPERTIES[property]?.(look, value, around, element);
  }
  for (const { property, value } of element.ordinary) {
    if (property === "color") look.baseColor = parseColor(value);
    else if (property === "font-family") look.baseFont = parseFont(value);
    else if (property === "font-size") look.baseSize = parseSize(value, around.size) ?? look.baseSize;
  }
  if (heading || element.name === "th") {
    look.baseBold = look.bold;
    look.baseFont = look.font;
    look.baseSize = look.size;
  }
  if (element.name === "table" || element.name === "blockquote") {
    look.baseColor = look.color;
    look.baseFont = look.font;
    look.baseSize = look.size;
  }
  if (element.name === "a") fromAnchor(look, element, around);
  return look;
}

function fromAttributes(look: Draft, element: Styled, around: ComputedStyle): void {
  const direction = element.attribute("dir")?.toLowerCase();
  if (direction === "rtl" || direction === "ltr") setDirection(look, direction);
  if (element.attribute("hidden") !== undefined) look.hidden = true;
  if (!element.isInline) {
    const align = element.attribute("align");
    if (align && element.name !== "table" && element.name !== "img") setAlign(look, align);
  }
  if (element.name === "font") {
    const color = element.attribute("color");
    if (color) look.color = parseColor(color) ?? around.color;
    const face = element.attribute("face");
    if (face) look.font = parseFont(face) ?? around.font;
    const size = element.attribute("size");
    if (size) look.size = parseFontStep(size) ?? around.size;
  }
  if (element.name === "body") {
    const color = element.attribute("text");
    if (color) look.color = parseColor(color);
  }
}

/** A link's own colour and underline are how links look, not formatting of this text. */
function fromAnchor(look: Draft, element: Styled, around: ComputedStyle): void {
  const href = element.attribute("href");
  if (href === undefined) return;
  look.link = safeLink(href);
  look.color = around.color;
  look.underline = around.underline;
}

const PROPERTIES: Readonly<
  Record<string, (look: Draft, value: string, around: ComputedStyle, element: Styled) => void>
> = {
  "font-weight"(look, value) {
    if (/^(bold|bolder)$/i.test(value)) look.bold = true;
    else if (/^(normal|lighter)$/i.test(value)) look.bold = false;
    else if (/^\d{1,4}$/.test(value)) look.bold = Number(value) >= 600;
  },
  "font-style"(look, value) {
    if (/^(italic|oblique)/i.test(value)) look.italic = true;
    else if (/^normal/i.test(value)) look.italic = false;
  },
  "text-decoration": decoration,
  "text-decoration-line": decoration,
  "text-underline"(look, value, around) {
    look.underline = around.underline || !/^none$/i.test(value);
  },
  "vertical-align"(look, value, _around, element) {
    if (!element.isInline) return;
    if (/^sub$/i.test(value)) look.script = "sub";
    else if (/^super$/i.test(value)) look.script = "sup";
    else if (/^baseline$/i.test(value)) look.script = undefined;
  },
  color(look, value) {
    if (/^(inherit|currentcolor)$/i.test(value)) return;
    look.color = parseColor(value);
  },
  background,
  "background-color": background,
  "font-family"(look, value) {
    look.font = parseFont(value) ?? look.font;
  },
  "font-size"(look, value, around) {
    look.size = parseSize(value, around.size) ?? look.size;
  },
  "text-align"(look, value) {
    setAlign(look, value);
  },
  direction(look, value) {
    if (/^(rtl|ltr)$/i.test(value)) setDirection(look, value.toLowerCase() as Direction);
  },
  "white-space"(look, value) {
    const folds = value.toLowerCase();
    look.space = /^(pre|pre-wrap|break-spaces)$/.test(folds)
      ? "pre"
      : folds === "pre-line"
        ? folds
        : "normal";
  },
  "white-space-collapse"(look, value) {
    look.space = /^(preserve|break-spaces)$/i.test(value)
      ? "pre"
      : /^preserve-breaks$/i.test(value)
        ? "pre-line"
        : "normal";
  },
  font(look, value, around) {
    const parts =
      /^(.{0,80}?)(\d[\d.]{0,6}(?:px|pt|pc|r?em|%)|(?:xx?-)?(?:small|large)|medium)(?:\s*\/\s*\S{1,20})?\s+(.+)$/i.exec(
        value,
      );
    if (!parts) return;
    look.bold = /\b(bold|bolder|[6-9]00)\b/i.test(parts[1]!);
    look.italic = /\b(italic|oblique)\b/i.test(parts[1]!);
    look.size = parseSize(parts[2]!, around.size) ?? look.size;
    look.font = parseFont(parts[3]!) ?? look.font;
  },
  display(look, value) {
    look.hidden = /^none$/i.test(value);
  },
  visibility(look, value) {
    look.hidden = /^(hidden|collapse)$/i.test(value);
  },
  "mso-hide"(look, value) {
    if (/^all$/i.test(value)) look.hidden = true;
  },
};

/** A decoration reaches through everything inside; `none` takes away only the element's own. */
function decoration(look: Draft, value: string, around: ComputedStyle): void {
  look.underline = around.underline || /\bunderline\b/i.test(value);
  look.strike = around.strike || /\bline-through\b/i.test(value);
}

function background(look: Draft, value: string, around: ComputedStyle, element: Styled): void {
  if (!element.isInline) return;
  const color = parseColor(value) ?? parseColor(value.split(/\s(?![^(]*\))/)[0]!);
  look.background = color ?? around.background;
}

function setAlign(look: Draft, value: string): void {
  const align = parseAlign(value);
  look.align = align === (look.direction === "rtl" ? "right" : "left") ? undefined : align;
}

function setDirection(look: Draft, direction: Direction): void {
  look.direction = direction === "rtl" ? "rtl" : look.direction ? "ltr" : undefined;
}

const marksOfLook = new WeakMap<ComputedStyle, Marks>();

/** The marks of text that looks so. The same look always gives the same object. */
export function marksOf(look: ComputedStyle): Marks {
  const known = marksOfLook.get(look);
  if (known) return known;
  const marks: { -readonly [K in keyof Marks]: Marks[K] } = {};
  if (look.bold && !look.baseBold) marks.bold = true;
  if (look.italic) marks.italic = true;
  if (look.underline) marks.underline = true;
  if (look.strike) marks.strike = true;
  if (look.code) marks.code = true;
  if (look.script) marks[look.script] = true;
  if (look.color && look.color !== look.baseColor) marks.color = look.color;
  if (look.background) marks.background = look.background;
  if (look.font && look.font !== look.baseFont && !look.code) marks.font = look.font;
  if (look.size !== look.baseSize && !look.code && !look.script) marks.size = look.size;
  if (look.link) marks.link = look.link;
  marksOfLook.set(look, marks);
  return marks;
}
