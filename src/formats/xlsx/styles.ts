import { getFormatFromId } from "numfmt";
import type { Align, Marks } from "../../content/model.js";
import { textProps } from "../docx/styles.js";
import { parseAlign, parseColor } from "../html/css-values.js";
import { attributeOf, childOf, childrenOf, parseXml, type Element } from "../office/xml.js";
import type { Parts } from "../office/zip.js";

/** How a cell looks: marks of all its text, its alignment and its background. */
export interface CellStyle extends Pick<Marks, "bold" | "italic" | "underline" | "strike" | "color"> {
  readonly align?: Align;
  readonly background?: string;
  /** Its number format code; nothing for `General`. */
  readonly format?: string;
}

const PLAIN: CellStyle = {};

/** The looks of a workbook's cells (ECMA-376 part 1, 18.8). */
export class XlsxStyles {
  readonly #formats: CellStyle[];

  constructor(parts: Parts, name: string) {
    const xml = parts.text(name);
    this.#formats = formatsOf(xml === undefined ? undefined : parseXml(xml, parts.file));
  }

  /** A look by its number; a plain one for a number that none has. Where a cell has none, that of 0 holds (18.3.1.4, `s`). */
  look(number = 0): CellStyle {
    return this.#formats[number] ?? PLAIN;
  }
}

function children(element: Element | undefined): Element[] {
  return element ? [...childrenOf(element)] : [];
}

function formatsOf(styles: Element | undefined): CellStyle[] {
  const fonts = children(childOf(styles, "fonts")).map((font) => fontLook(font));
  const fills = children(childOf(styles, "fills")).map((fill) => {
    const pattern = childOf(fill, "patternFill");
    return attributeOf(pattern, "patternType") === "solid" ? rgb(childOf(pattern, "fgColor")) : undefined;
  });
  const codes = new Map(
    children(childOf(styles, "numFmts")).map((format) => [
      attributeOf(format, "numFmtId"),
      attributeOf(format, "formatCode"),
    ]),
  );
  return children(childOf(styles, "cellXfs")).map((format) => {
    const id = attributeOf(format, "numFmtId") ?? "0";
    const code = codes.get(id) ?? getFormatFromId(Number(id)) ?? undefined;
    const background = fills[Number(attributeOf(format, "fillId") ?? -1)];
    const align = parseAlign(attributeOf(childOf(format, "alignment"), "horizontal") ?? "");
    return {
      ...fonts[Number(attributeOf(format, "fontId") ?? -1)],
      ...(align && { align }),
      ...(background && { background }),
      ...(code !== undefined && !/^general$/i.test(code) && { format: code }),
    };
  });
}

/** A font's properties have the names that runs of text have in documents. */
function fontLook(font: Element): CellStyle {
  const { bold, italic, strike } = textProps(font);
  const color = rgb(childOf(font, "color"));
  return {
    ...(bold && { bold }),
    ...(italic && { italic }),
    ...(childOf(font, "u") && attributeOf(childOf(font, "u"), "val") !== "none" && { underline: true }),
    ...(strike && { strike }),
    ...(color && color !== "#000000" && { color }),
  };
}

/** How a part of a cell's text looks (18.4.7). */
export function partMarks(look: Element): Marks {
  const { script } = textProps(look);
  return {
    ...fontLook(look),
    ...(script === "sub" && { sub: true }),
    ...(script === "sup" && { sup: true }),
  };
}

/** `AARRGGBB`; colours of the theme or of the old palette are left to the reader's program. */
function rgb(color: Element | undefined): string | undefined {
  const value = attributeOf(color, "rgb");
  return value === undefined ? undefined : parseColor(value.slice(-6));
}
