import type { Font, Letters, Level, Style } from "./tables.js";

/** Groups of the head of a file, by the words that begin them. */
const GROUPS = ["fonttbl", "colortbl", "stylesheet", "listtable", "listoverridetable", "info"] as const;
type Group = (typeof GROUPS)[number];

/** How many styles are based on each other at most; beyond that, or in a circle, nothing is taken over. */
const DEEPEST = 20;

/** What stands before the text of a file: its fonts, colours, styles and lists. */
export class Header {
  readonly fonts = new Map<number, Font>();
  readonly styles = new Map<number, Style>();
  readonly colors: (string | undefined)[] = [];
  title = "";
  /** The code page of its text. */
  page = 1252;
  defaultFont = 0;
  readonly #lists = new Map<number, Level[]>();
  readonly #overrides = new Map<number, { list: number; starts: Map<number, number> }>();
  #group: Group | undefined;
  #depth = 0;
  /** What is being read. */
  #font: Font | undefined;
  #style: Style | undefined;
  /** What styles say of their letters with those that they are based on, as far as it has been asked for. */
  readonly #letters = new Map<number, Letters>();
  #color: [number, number, number] = [0, 0, 0];
  #isColorSaid = false;
  #levels: Level[] = [];
  #level: Level | undefined;
  #isLevelText = false;
  #override: { list: number; starts: Map<number, number> } | undefined;
  #isTitle = false;
  #skipsAt = Infinity;

  /** Whether a word begins a group of the head. */
  begins(name: string): boolean {
    const group = GROUPS.find((each) => each === name);
    if (group) [this.#group, this.#depth] = [group, 1];
    return group !== undefined;
  }

  open(): void {
    if (this.#group) this.#depth++;
  }

  close(): void {
    if (!this.#group) return;
    this.#depth--;
    if (this.#depth < this.#skipsAt) this.#skipsAt = Infinity;
    this.#isLevelText = false;
    if (this.#depth <= 1) {
      this.#font = undefined;
      this.#style = undefined;
      this.#isTitle = false;
    }
    if (this.#depth === 0) this.#group = undefined;
  }

  /** Takes a word inside a group of the head, and what is said of the whole file; returns whether it was one. */
  word(name: string, said?: number): boolean {
    const number = said ?? 0;
    if (name === "*") return true;
    if (name === "u" && this.#group) {
      this.text(String.fromCharCode(number & 0xffff));
      return true;
    }
    switch (this.#group) {
      case "fonttbl":
        if (name === "f") this.fonts.set(number, (this.#font = { name: "", charset: 0 }));
        else if (name === "fcharset" && this.#font) this.#font.charset = number;
        else if (/^(?:panose|falt|fname)$/.test(name)) this.#skipsAt = Math.min(this.#skipsAt, this.#depth);
        return true;
      case "colortbl": {
        const at = ["red", "green", "blue"].indexOf(name);
        if (at >= 0) [this.#color[at], this.#isColorSaid] = [number & 255, true];
        return true;
      }
      case "stylesheet":
        this.#styleWord(name, number, said !== 0);
        return true;
      case "listtable":
      case "listoverridetable":
        this.#listWord(name, number);
        return true;
      case "info":
        if (name === "title") this.#isTitle = true;
        return true;
      case undefined:
        return false;
    }
  }

  #styleWord(name: string, number: number, isOn: boolean): void {
    this.#letters.clear();
    if (name === "s") this.styles.set(number, (this.#style = newStyle()));
    // Of characters, sections and tables.
    else if (/^(?:cs|ds|ts)$/.test(name)) this.#style = newStyle();
    else if (!this.#style) this.styles.set(0, (this.#style = newStyle()));
    if (!this.#style) return;
    if (name === "outlinelevel") this.#style.outline = number;
    else if (name === "sbasedon") this.#style.basedOn = number;
    else if (name === "f") this.#style.letters.font = number;
    else if (name === "fs") this.#style.letters.size = number;
    else if (name === "cf") this.#style.letters.color = number;
    else if (name === "b") this.#style.letters.bold = isOn;
    else if (name === "i") this.#style.letters.italic = isOn;
  }

  #listWord(name: string, number: number): void {
    switch (name) {
      case "list":
        this.#levels = [];
        break;
      case "listlevel":
        this.#levels.push((this.#level = { form: 0, start: 1, text: "" }));
        break;
      case "levelnfc":
      case "levelnfcn":
        if (this.#level) this.#level.form = number;
        break;
      case "levelstartat":
        if (this.#override) this.#override.starts.set(this.#override.starts.size, number);
        else if (this.#level) this.#level.start = number;
        break;
      case "leveltext":
        this.#isLevelText = true;
        break;
      case "listid":
        if (this.#group === "listtable") this.#lists.set(number, this.#levels);
        else if (this.#override) this.#override.list = number;
        break;
      case "listoverride":
        this.#override = { list: 0, starts: new Map() };
        break;
      case "ls":
        if (this.#override) this.#overrides.set(number, this.#override);
        this.#override = undefined;
    }
  }

  /** Text inside a group of the head. */
  text(text: string): void {
    if (this.#depth >= this.#skipsAt) return;
    switch (this.#group) {
      case "fonttbl":
        if (this.#font) this.#font.name = (this.#font.name + text).replace(/;.*$/s, "").trim();
        break;
      case "colortbl":
        for (const sign of text) {
          if (sign !== ";") continue;
          const [red, green, blue] = this.#color;
          // The first that says nothing is what the program takes for plain.
          this.colors.push(this.#isColorSaid ? `#${[red, green, blue].map(hex).join("")}` : undefined);
          [this.#color, this.#isColorSaid] = [[0, 0, 0], false];
        }
        break;
      case "stylesheet":
        if (!this.#style) this.styles.set(0, (this.#style = newStyle()));
        this.#style.name = (this.#style.name + text).replace(/;.*$/s, "").trim();
        break;
      case "listtable":
        if (this.#isLevelText && this.#level) this.#level.text += text;
        break;
      case "info":
        if (this.#isTitle) this.title += text;
        break;
      case "listoverridetable":
      case undefined:
        break;
    }
  }

  /** What a style says of its letters, by itself or by the styles that it is based on. */
  lettersOf(style: number, depth = 0): Letters {
    const known = this.#letters.get(style);
    if (known) return known;
    const { basedOn, letters: own = {} } = this.styles.get(style) ?? {};
    const isBased = basedOn !== undefined && depth < DEEPEST;
    const letters = { ...(isBased && this.lettersOf(basedOn, depth + 1)), ...own };
    this.#letters.set(style, letters);
    return letters;
  }

  /** What a style says of its letters only by those that it is based on. */
  inheritedBy(style: number): Letters {
    const { basedOn, letters = {} } = this.styles.get(style) ?? {};
    const inherited = basedOn === undefined ? {} : this.lettersOf(basedOn);
    return Object.fromEntries(Object.entries(inherited).filter(([name]) => !(name in letters)));
  }

  /** The level of a list, by the number that paragraphs name it by. */
  levelOf(list: number, level: number): Level | undefined {
    const override = this.#overrides.get(list);
    const found = override && this.#lists.get(override.list)?.[level];
    const start = override?.starts.get(level);
    return found && start !== undefined ? { ...found, start } : found;
  }
}

function newStyle(): Style {
  return { name: "", letters: {} };
}

function hex(part: number): string {
  return part.toString(16).padStart(2, "0");
}
