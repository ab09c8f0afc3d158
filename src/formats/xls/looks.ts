import { type ByteWriter, longString, RECORD, record, shortString } from "./records.js";

/** How a cell looks. */
export interface CellLook {
  readonly bold: boolean;
  readonly italic: boolean;
  /** `#rrggbb`. */
  readonly color: string | undefined;
  readonly background: string | undefined;
  readonly align: "left" | "center" | "right" | undefined;
  readonly wraps: boolean;
  /** The code of its number format; `General` for none. */
  readonly format: string;
}

const PLAIN: CellLook = {
  ...{ bold: false, italic: false, color: undefined, background: undefined, align: undefined },
  ...{ wraps: false, format: "General" },
};

/** How many looks a workbook must have before those of cells: 15 of styles, and that of a plain cell ([MS-XLS] 2.4.353). */
const BEFORE = 15;
/** Format codes of a workbook's own begin here; 0 is General, 49 is text ([MS-XLS] 2.4.126). */
const OWN_FORMATS = 164;
const KNOWN_FORMATS = new Map([
  ["General", 0],
  ["@", 49],
]);
/** The colours of a workbook's own: their first number, and how many there are ([MS-XLS] 2.4.188). */
const PALETTE = { first: 8, count: 56 };
/** The colour of text, and of the ground, where none is chosen ([MS-XLS] 2.5.161). */
const AUTOMATIC = { text: 0x7fff, ground: 0x41 };
/** The font of cells that are bold, italic or coloured, which have to name one: that of a new sheet of LibreOffice, in points. */
const FONT = { name: "Liberation Sans", height: 10 };
const ALIGNED = { left: 1, center: 2, right: 3 } as const;
/** Text stands at the bottom of its cell. */
const BOTTOM = 2 << 4;

/** The numbers of things that are alike: each gets one when it is first met. */
class Numbered<Thing> {
  readonly all: Thing[] = [];
  readonly #numbers = new Map<string, number>();

  of(thing: Thing): number {
    const key = JSON.stringify(thing);
    const known = this.#numbers.get(key);
    if (known !== undefined) return known;
    this.#numbers.set(key, this.all.push(thing) - 1);
    return this.all.length - 1;
  }
}

/** The looks of a workbook's cells, and the fonts, formats and colours that they are made of. */
export class Looks {
  readonly #looks = new Numbered<CellLook>();
  readonly #fonts = new Numbered<Pick<CellLook, "bold" | "italic" | "color">>();
  readonly #formats = new Numbered<string>();
  readonly #colors = new Numbered<string>();

  constructor() {
    this.of(PLAIN);
  }

  /** The number of a look, as cells say it. */
  of(look: CellLook): number {
    return BEFORE + this.#looks.of(look);
  }

  /** Writes them all. */
  write(to: ByteWriter): void {
    const looks = this.#looks.all.map((look) => ({
      look,
      font: this.#fonts.of({ bold: look.bold, italic: look.italic, color: look.color }),
      format: KNOWN_FORMATS.get(look.format) ?? OWN_FORMATS + this.#formats.of(look.format),
    }));
    // No font has the number 4 ([MS-XLS] 2.4.122).
    const fonts = this.#fonts.all;
    const fontNumber = (font: number) => (font < 4 ? font : font + 1);
    for (const font of [...fonts, ...Array<(typeof fonts)[0]>(Math.max(0, 4 - fonts.length)).fill(PLAIN)])
      record(to, RECORD.font, (data) => {
        data.u16(
          FONT.height * 20,
          font.italic ? 2 : 0,
          this.#color(font.color, AUTOMATIC.text),
          font.bold ? 700 : 400,
        );
        shortString(data.u16(0).u8(0, 2, 0, 0), FONT.name);
      });
    this.#formats.all.forEach((code, at) =>
      record(to, RECORD.format, (data) => longString(data.u16(OWN_FORMATS + at), code)),
    );
    for (let i = 0; i < BEFORE; i++)
      record(to, RECORD.xf, (data) => data.u16(0, 0, 0xfff5).u8(0x20, 0, 0, 0).u32(0, 0).u16(0x20c0));
    for (const { look, font, format } of looks)
      record(to, RECORD.xf, (data) => {
        const background = look.background && this.#color(look.background, AUTOMATIC.ground);
        data.u16(fontNumber(font), format, 1);
        data.u8((look.align ? ALIGNED[look.align] : 0) | (look.wraps ? 8 : 0) | BOTTOM, 0, 0, chosen(look));
        data.u32(0, background ? 1 << 26 : 0);
        data.u16((background || AUTOMATIC.ground - 1) | (AUTOMATIC.ground << 7));
      });
    // No style is named: the one of plain cells would become that of the whole document into which this is pasted.
    record(to, RECORD.palette, (data) => {
      data.u16(PALETTE.count);
      for (let i = 0; i < PALETTE.count; i++) data.u32(redFirst(this.#colors.all[i] ?? "#000000"));
    });
  }

  /** The number of a colour. Where there are more than a workbook can have, it is the one that there is without a choice. */
  #color(color: string | undefined, automatic: number): number {
    if (color === undefined) return automatic;
    const number = this.#colors.of(color);
    return number < PALETTE.count ? PALETTE.first + number : automatic;
  }
}

/** Which parts of a look are the cell's own, and not those of the sheet in which it lands ([MS-XLS] 2.4.353, `fAtr…`). */
function chosen({ bold, italic, color, background, align, wraps, format }: CellLook): number {
  return (
    (format === PLAIN.format ? 0 : 0x04) |
    (bold || italic || color ? 0x08 : 0) |
    (align || wraps ? 0x10 : 0) |
    (background ? 0x40 : 0)
  );
}

/** A colour as a workbook has it: red in the lowest byte. */
function redFirst(color: string): number {
  const [red, green, blue] = [1, 3, 5].map((at) => parseInt(color.slice(at, at + 2), 16));
  return red! | (green! << 8) | (blue! << 16);
}
