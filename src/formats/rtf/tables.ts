import { bulletMarker, numberMarker } from "../../content/marker.js";
import type { Marker } from "../../content/model.js";
import { BULLET, NO_MARK, numbersOfForm } from "./number-forms.js";

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
  /** The number of the style that it is based on. */
  basedOn?: number;
  letters: Letters;
}

/** What a style says of its letters. */
export interface Letters {
  font?: number;
  /** Half points. */
  size?: number;
  /** The number of a colour. */
  color?: number;
  bold?: boolean;
  italic?: boolean;
}

/** A level of a list: how it is numbered, and from where. */
export interface Level {
  form: number;
  start: number;
  /** The text of its number, in which a byte below 9 stands for the number of a level. */
  text: string;
}

/** Whether the items of a level are numbered. */
export function isNumbered({ form }: Level): boolean {
  return form !== BULLET && form !== NO_MARK;
}

/** How the items of a level are marked, where that is not the usual way. */
export function markerOf(level: Level, depth: number): Marker | undefined {
  if (!isNumbered(level)) return bulletMarker(bulletOf(level), depth);
  const numbers = numbersOfForm(level.form);
  // The first letter says how long the text is; what stands around the level's own number is its own.
  const text = level.text.replace(/;$/, "");
  const at = text.lastIndexOf(String.fromCharCode(depth));
  const prefix = text.slice(1, Math.max(1, at));
  // Numbers of the levels above are no sign before this one.
  const before = /[\0-\x08]/.test(prefix) ? "" : plain(prefix);
  const after = at < 0 ? "." : plain(text.slice(at + 1));
  return numberMarker(numbers, before, after);
}

/** The bullet of a level. Those of fonts of signs have places for letters. */
function bulletOf({ text }: Level): string {
  const sign = text.slice(1).replace(/;$/, "");
  return sign.replace(/[\uf000-\uf0ff]/g, (each) => String.fromCharCode(each.charCodeAt(0) & 0xff));
}

function plain(text: string): string {
  return [...text].filter((sign) => sign >= " ").join("");
}
