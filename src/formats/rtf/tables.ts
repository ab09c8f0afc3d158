import type { Marker } from "../../content/model.js";
import type { NumberForm } from "../../content/number-forms.js";

/** A font of the file. */
export interface Font {
  name: string;
  charset: number;
}

/** A style of paragraphs. */
export interface Style {
  name: string;
  /** How deep its headings stand; 0 is the highest. */
  outline?: number;
  font?: number;
  /** Half points. */
  size?: number;
  bold?: boolean;
}

/** A level of a list: how it is numbered, and from where. */
export interface Level {
  form: number;
  start: number;
  /** The text of its number, in which a byte below 9 stands for the number of a level. */
  text: string;
}

/** Numbers of RTF that say how items are numbered (1.9.1, `\levelnfc`). */
const FORMS: Readonly<Record<number, NumberForm | undefined>> = {
  1: "upper-roman",
  2: "lower-roman",
  3: "upper-alpha-repeated",
  4: "lower-alpha-repeated",
  22: "decimal-leading-zero",
};
const BULLET = 23;
const NONE = 255;

/** Whether the items of a level are numbered. */
export function isNumbered({ form }: Level): boolean {
  return form !== BULLET && form !== NONE;
}

/** How the items of a level are marked, where that is not the usual way. */
export function markerOf(level: Level, depth: number): Marker | undefined {
  if (!isNumbered(level)) return undefined;
  const numbers = FORMS[level.form];
  // The first letter says how long the text is; what stands around the level's own number is its own.
  const text = level.text.replace(/;$/, "");
  const at = text.lastIndexOf(String.fromCharCode(depth));
  const prefix = text.slice(1, Math.max(1, at));
  // Numbers of the levels above are no sign before this one.
  const before = /[\0-\x08]/.test(prefix) ? "" : plain(prefix);
  const after = at < 0 ? "." : plain(text.slice(at + 1));
  if (numbers === undefined && before === "" && after === ".") return undefined;
  return { ...(numbers && { numbers }), ...(before !== "" && { before }), ...(after !== "." && { after }) };
}

function plain(text: string): string {
  return [...text].filter((sign) => sign >= " ").join("");
}
