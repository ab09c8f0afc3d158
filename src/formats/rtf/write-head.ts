import { usualBullet } from "../../content/marker.js";
import type { List } from "../../content/model.js";
import { escapeByte, escapeText } from "./escape.js";
import { formOfNumbers, BULLET } from "./number-forms.js";

/** How far a level of a list is indented, in twentieths of a point. */
export const INDENT = 500;
/** How far before its text a mark stands. */
export const HANGING = 360;

/** The fonts that each file names: that of its text, and that of code. */
const FONTS = ["Liberation Serif", "Liberation Mono"];
/** The number of the font of code. */
export const MONO = 1;

/** A style of paragraphs: its name, and what the file says of its paragraphs and their letters. */
interface Style {
  readonly name: string;
  readonly paragraph?: string;
  readonly letters?: string;
}

const headings = [48, 36, 28, 24, 22, 20].map((size, index): [string, Style] => [
  `heading${index + 1}`,
  {
    name: `heading ${index + 1}`,
    paragraph: `\\keepn\\sb240\\sa120\\outlinelevel${index}`,
    letters: `\\b\\ab\\fs${size}`,
  },
]);

/** The styles by the names that word processors know. A file says in each paragraph what its style says. */
const STYLES: ReadonlyMap<string, Style> = new Map<string, Style>([
  ["normal", { name: "Normal", paragraph: "\\sa120" }],
  ...headings,
  ["quote", { name: "Quotations", paragraph: "\\li567\\ri567\\sa120" }],
  ["code", { name: "Preformatted Text", letters: `\\f${MONO}` }],
  ["caption", { name: "caption", paragraph: "\\keepn\\sa120" }],
  ["note", { name: "footnote text", letters: "\\fs20" }],
  ["rule", { name: "Horizontal Line", paragraph: "\\sa120\\brdrb\\brdrs\\brdrw10\\brsp20" }],
]);
const NUMBERS: ReadonlyMap<string, number> = new Map([...STYLES.keys()].map((name, at) => [name, at]));

/** The name of a style that each file has. */
export type StyleName =
  "normal" | "quote" | "code" | "caption" | "note" | "rule" | `heading${1 | 2 | 3 | 4 | 5 | 6}`;

/** What begins a paragraph in a style: what it says of the paragraph, and of its letters. */
export function styleWords(name: StyleName): { readonly paragraph: string; readonly letters: string } {
  const { paragraph = "", letters = "" } = STYLES.get(name)!;
  return { paragraph: `\\s${NUMBERS.get(name)}${paragraph}`, letters };
}

/** What a text needs before it: its fonts, colours and lists, which are numbered as they come. */
export class WrittenHead {
  readonly #fonts = [...FONTS];
  readonly #colors: string[] = [];
  readonly #lists: string[] = [];

  /** The number of a font. */
  font(name: string): number {
    return numberIn(this.#fonts, name);
  }

  /** The number of a colour, `#rrggbb`; 0 is that of plain text. */
  color(color: string): number {
    return numberIn(this.#colors, color) + 1;
  }

  /**
   * The number of a list of its own, by which its paragraphs name it.
   * @param level how deep it stands, from 0 to 8
   */
  list(list: List, level: number): number {
    const { ordered, start = 1, marker = {} } = list;
    const { numbers, before = "", after = ".", bullet } = marker;
    const levels = Array.from({ length: 9 }, (_, at) => {
      const isOwn = at === level;
      const form = isOwn && ordered ? formOfNumbers(numbers) : BULLET;
      const sign = (isOwn ? bullet : undefined) ?? usualBullet(at);
      // What it is made of: how many letters, and among them the number of the level.
      const [length, text] =
        form === BULLET
          ? [sign.length, escapeText(sign)]
          : [before.length + 1 + after.length, escapeText(before) + escapeByte(at) + escapeText(after)];
      const places = form === BULLET ? "" : escapeByte(before.length + 1);
      return (
        `{\\listlevel\\levelnfc${form}\\levelnfcn${form}\\leveljc0\\leveljcn0\\levelfollow0` +
        `\\levelstartat${isOwn ? start : 1}{\\leveltext${escapeByte(length)}${text};}{\\levelnumbers${places};}` +
        `\\fi-${HANGING}\\li${INDENT * (at + 1)}}`
      );
    });
    this.#lists.push(levels.join(""));
    return this.#lists.length;
  }

  /** All of it as it stands before the text. */
  written(title: string | undefined): string {
    const fonts = this.#fonts.map((name, at) => {
      const family = at === MONO ? "\\fmodern" : at === 0 ? "\\froman" : "\\fnil";
      return `{\\f${at}${family}\\fcharset0 ${escapeText(name.replaceAll(";", ""))};}`;
    });
    const colors = this.#colors.map((color) => {
      const [red, green, blue] = [1, 3, 5].map((at) => Number.parseInt(color.slice(at, at + 2), 16));
      return `\\red${red}\\green${green}\\blue${blue};`;
    });
    const styles = [...STYLES.values()].map(
      ({ name, paragraph = "", letters = "" }, at) =>
        `{\\s${at}${at === 0 ? "" : "\\sbasedon0"}${paragraph}${letters} ${name};}`,
    );
    const lists = this.#lists.map(
      (levels, at) => `{\\list\\listtemplateid${at + 1}${levels}{\\listname ;}\\listid${at + 1}}`,
    );
    const overrides = lists.map(
      (_, at) => `{\\listoverride\\listid${at + 1}\\listoverridecount0\\ls${at + 1}}`,
    );
    return [
      `{\\fonttbl${fonts.join("")}}`,
      `{\\colortbl;${colors.join("")}}`,
      `{\\stylesheet${styles.join("")}}`,
      ...(lists.length > 0
        ? [`{\\*\\listtable${lists.join("\n")}}`, `{\\*\\listoverridetable${overrides.join("")}}`]
        : []),
      ...(title === undefined ? [] : [`{\\info{\\title ${escapeText(title)}}}`]),
    ].join("\n");
  }
}

function numberIn(list: string[], value: string): number {
  const at = list.indexOf(value);
  return at >= 0 ? at : list.push(value) - 1;
}
