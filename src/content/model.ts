import type { Address } from "./address.js";
import type { NumberForm } from "./number-forms.js";

/**
 * What a snippet holds. Content is an immutable, plain-JSON tree of flows (paragraph, list, table…) whose text stands
 * in runs with marks. It can hold only what is listed here: there is no place in it for a script, a handler, a style
 * rule or an address other than the four safe kinds, so whatever is written from it is safe by construction.
 */

/** A snippet's content: flows, in reading order. */
export type Content = readonly Flow[];

/** One block of content. */
export type Flow = Paragraph | Heading | List | Table | Picture | Quote | Code | Divider;

/** Where text stands between its edges; absent means the natural side of its direction. */
export type Align = "left" | "center" | "right" | "justify";

/** The base direction of text, when it is not left to the reader of it. */
export type Direction = "ltr" | "rtl";

/** A line or more of text. An empty paragraph is an empty line. */
export interface Paragraph {
  readonly type: "paragraph";
  readonly runs: readonly Run[];
  readonly align?: Align;
  readonly direction?: Direction;
}

/** A heading; level 1 is the highest. */
export interface Heading {
  readonly type: "heading";
  readonly level: 1 | 2 | 3 | 4 | 5 | 6;
  readonly runs: readonly Run[];
  readonly align?: Align;
  readonly direction?: Direction;
}

/** A list. An ordered list counts from `start` (1 when absent). Lists nest by standing in an item. */
export interface List {
  readonly type: "list";
  readonly ordered: boolean;
  readonly start?: number;
  readonly marker?: Marker;
  readonly items: readonly Item[];
}

/** What marks the items of a list, where it is not numbers like `1.` or the bullet that is usual where it lands. */
export interface Marker {
  /** How numbers are written; decimal when absent. */
  readonly numbers?: NumberForm;
  /** What stands before each number; nothing when absent. */
  readonly before?: string;
  /** What stands after each number; a full stop when absent. */
  readonly after?: string;
  /** The bullet of a list without numbers. */
  readonly bullet?: string;
}

/** One item of a list. */
export interface Item {
  readonly flows: Content;
}

/** A table. The first `headerRows` rows name the columns. */
export interface Table {
  readonly type: "table";
  readonly headerRows: number;
  readonly rows: readonly Row[];
  readonly caption?: readonly Run[];
  /** Column widths in points, where the source knew them. */
  readonly widths?: readonly number[];
}

/**
 * The cells that begin in a row, from left to right. As in HTML, a place that is covered by a cell spanning down from
 * a row above has no cell here.
 */
export type Row = readonly Cell[];

/** One cell: its flows, and where the source knew it, the value behind what it shows. */
export interface Cell {
  readonly flows: Content;
  readonly colspan?: number;
  readonly rowspan?: number;
  readonly align?: Align;
  /** `#rrggbb` */
  readonly background?: string;
  readonly value?: CellValue;
}

/**
 * A typed value. `format` is a number format code as spreadsheets write it (ECMA-376 part 1, 18.8.31). A date is ISO
 * 8601 local time without a zone: `2031-04-08` or `2031-04-08T09:15:00`. A cell without a value is text, whatever its
 * text looks like.
 */
export type CellValue =
  | { readonly type: "number"; readonly number: number; readonly format?: string }
  | { readonly type: "date"; readonly date: string; readonly format?: string }
  | { readonly type: "boolean"; readonly boolean: boolean };

/** A picture standing by itself. Its bytes are kept apart, found by their hash. */
export interface Picture {
  readonly type: "picture";
  /** SHA-256 of the bytes, lower-case hexadecimal. */
  readonly hash: string;
  readonly mediaType: PictureType;
  /** Pixels; absent when the bytes do not say. */
  readonly width?: number;
  readonly height?: number;
  /** What the picture shows, for those who cannot see it. */
  readonly alt: string;
  readonly link?: Address;
}

/** The media types a picture can have. The last three no browser draws: documents keep them, everything else says what they show. */
export type PictureType =
  | "image/png"
  | "image/jpeg"
  | "image/gif"
  | "image/webp"
  | "image/svg+xml"
  | "image/bmp"
  | "image/tiff"
  | "image/emf"
  | "image/wmf";

/** Something said by somebody else. */
export interface Quote {
  readonly type: "quote";
  readonly flows: Content;
}

/** Text to be kept letter by letter, line by line. */
export interface Code {
  readonly type: "code";
  readonly text: string;
  readonly language?: string;
}

/** A line across the page. */
export interface Divider {
  readonly type: "divider";
}

/** A piece of a line: text with marks, a line break, a picture in the line, or the place of a note. */
export type Run = TextRun | BreakRun | Picture | NoteRun;

/** Text that looks the same from its first letter to its last. */
export interface TextRun {
  readonly type: "text";
  readonly text: string;
  readonly marks?: Marks;
}

/** A new line within the same paragraph. */
export interface BreakRun {
  readonly type: "break";
}

/** The place in a line where a note is called, and what the note says. Its number is up to where it lands. */
export interface NoteRun {
  readonly type: "note";
  readonly flows: Content;
}

/** How a text run looks, and where it links to. A mark that is absent is off. */
export interface Marks {
  readonly bold?: true;
  readonly italic?: true;
  readonly underline?: true;
  readonly strike?: true;
  readonly code?: true;
  readonly sub?: true;
  readonly sup?: true;
  /** `#rrggbb` */
  readonly color?: string;
  /** `#rrggbb` */
  readonly background?: string;
  /** The name of a font family. */
  readonly font?: string;
  /** Points. */
  readonly size?: number;
  readonly link?: Address;
}

/**
 * Makes a text run; leaves `marks` out when there are none.
 * @param text without line ends
 * @param marks its look
 */
export function textRun(text: string, marks?: Marks): TextRun {
  for (const _ in marks) return { type: "text", text, marks };
  return { type: "text", text };
}

/**
 * Makes a paragraph of plain text: no marks, `\n` becomes a line break.
 * @param text its text; a line feed is a line break
 * @param marks the look of all of it
 */
export function paragraph(text: string, marks?: Marks): Paragraph {
  // Most lines have one run: a list that grows would keep room for many.
  if (text !== "" && !text.includes("\n")) return { type: "paragraph", runs: [textRun(text, marks)] };
  const runs: Run[] = [];
  text.split("\n").forEach((line, index) => {
    if (index > 0) runs.push({ type: "break" });
    if (line !== "") runs.push(textRun(line, marks));
  });
  return { type: "paragraph", runs };
}
