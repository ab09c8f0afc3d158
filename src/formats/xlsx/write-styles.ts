import type { CellMarks } from "../office/cell-text.js";
import { element } from "../office/odf.js";

/** How a cell of a workbook looks. What is left out is as in any cell. */
export interface WrittenLook {
  readonly format?: string | undefined;
  readonly bold?: boolean | undefined;
  readonly italic?: boolean | undefined;
  /** `#rrggbb`, as the background. */
  readonly color?: string | undefined;
  readonly background?: string | undefined;
  readonly align?: string | undefined;
  /** Whether it shows its lines one below the other. */
  readonly wraps?: boolean | undefined;
}

/** Numbers from this one are free for formats of a file's own (ECMA-376 part 1, 18.8.30). */
const FIRST_OWN_FORMAT = 164;
/** The built-in formats that are written by their numbers. */
const BUILT_IN: ReadonlyMap<string, number> = new Map([["@", 49]]);
/** The fills that every workbook begins with (18.8.21). */
const FILLS = [
  '<fill><patternFill patternType="none"/></fill>',
  '<fill><patternFill patternType="gray125"/></fill>',
];

/** The looks of a workbook's cells (ECMA-376 part 1, 18.8): those that are alike have one number. */
export class WrittenStyles {
  readonly #looks = new Map<string, number>();
  readonly #fonts = new Numbered([fontXml({})]);
  readonly #fills = new Numbered(FILLS);
  readonly #formats = new Map<string, number>();
  readonly #cells: string[] = [];

  constructor() {
    this.numberOf({});
  }

  /** The number of a look. */
  numberOf(look: WrittenLook): number {
    const { format, bold, italic, color, background, align, wraps } = look;
    const key = `${format}|${bold}|${italic}|${color}|${background}|${align}|${wraps}`;
    let number = this.#looks.get(key);
    if (number === undefined) {
      number = this.#cells.push(this.#cellXml(look)) - 1;
      this.#looks.set(key, number);
    }
    return number;
  }

  #cellXml({ format, bold, italic, color, background, align, wraps }: WrittenLook): string {
    const [font, fill] = [
      this.#fonts.numberOf(fontXml({ bold, italic, color })),
      background === undefined ? 0 : this.#fills.numberOf(fillXml(background)),
    ];
    const number = format === undefined ? 0 : this.#formatNumber(format);
    const isAligned = align !== undefined || wraps === true;
    return element(
      "xf",
      {
        ...{ numFmtId: number, fontId: font, fillId: fill, borderId: 0, xfId: 0 },
        applyNumberFormat: number > 0 ? 1 : undefined,
        applyFont: font > 0 ? 1 : undefined,
        applyFill: fill > 0 ? 1 : undefined,
        applyAlignment: isAligned ? 1 : undefined,
      },
      isAligned ? element("alignment", { horizontal: align, wrapText: wraps ? 1 : undefined }) : "",
    );
  }

  #formatNumber(format: string): number {
    const known = BUILT_IN.get(format) ?? this.#formats.get(format);
    if (known !== undefined) return known;
    const number = FIRST_OWN_FORMAT + this.#formats.size;
    this.#formats.set(format, number);
    return number;
  }

  /** The part of the workbook. */
  get xml(): string {
    const formats = [...this.#formats].map(([formatCode, numFmtId]) =>
      element("numFmt", { numFmtId, formatCode }),
    );
    return element(
      "styleSheet",
      { xmlns: "http://schemas.openxmlformats.org/spreadsheetml/2006/main" },
      (formats.length > 0 ? counted("numFmts", formats) : "") +
        counted("fonts", this.#fonts.all) +
        counted("fills", this.#fills.all) +
        counted("borders", ["<border><left/><right/><top/><bottom/><diagonal/></border>"]) +
        counted("cellStyleXfs", ['<xf numFmtId="0" fontId="0" fillId="0" borderId="0"/>']) +
        counted("cellXfs", this.#cells) +
        counted("cellStyles", ['<cellStyle name="Normal" xfId="0" builtinId="0"/>']),
    );
  }
}

/** Elements that are written once, and named by their numbers. */
class Numbered {
  readonly #numbers: Map<string, number>;

  constructor(first: readonly string[]) {
    this.#numbers = new Map(first.map((xml, number) => [xml, number]));
  }

  numberOf(xml: string): number {
    const known = this.#numbers.get(xml) ?? this.#numbers.size;
    this.#numbers.set(xml, known);
    return known;
  }

  get all(): string[] {
    return [...this.#numbers.keys()];
  }
}

function counted(name: string, elements: readonly string[]): string {
  return element(name, { count: elements.length }, elements.join(""));
}

/** How text in a cell may look. */
type Font = Omit<{ readonly [Name in keyof CellMarks]?: boolean | undefined }, "color"> &
  Pick<WrittenLook, "color">;

/** A font of the workbook (18.8.22). */
function fontXml(marks: Font): string {
  return element("font", {}, fontFacts(marks, "name"));
}

/** How a part of a cell's text looks (18.4.7). */
export function partLookXml(marks: CellMarks): string {
  return element("rPr", {}, fontFacts(marks, "rFont"));
}

/**
 * The properties of a font, in the order that the schema has them in.
 * @param nameTag the element that names the font: the two kinds of looks have one each, and the rest in common
 */
function fontFacts(
  { bold, italic, underline, strike, color, sub, sup }: Font,
  nameTag: "name" | "rFont",
): string {
  const raised = sup ? "superscript" : sub ? "subscript" : undefined;
  return (
    (bold ? "<b/>" : "") +
    (italic ? "<i/>" : "") +
    (strike ? "<strike/>" : "") +
    (underline ? "<u/>" : "") +
    (raised === undefined ? "" : element("vertAlign", { val: raised })) +
    '<sz val="11"/>' +
    (color === undefined ? "" : element("color", { rgb: argb(color) })) +
    element(nameTag, { val: "Calibri" }) +
    '<family val="2"/>'
  );
}

function fillXml(color: string): string {
  const inner = element("fgColor", { rgb: argb(color) }) + '<bgColor indexed="64"/>';
  return element("fill", {}, element("patternFill", { patternType: "solid" }, inner));
}

function argb(color: string): string {
  return `FF${color.slice(1).toUpperCase()}`;
}
