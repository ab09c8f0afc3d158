import { safeLink, type Address } from "../../content/address.js";
import { decodeAs } from "../../content/decode.js";
import { hashBytes } from "../../content/encode.js";
import { DrawerError } from "../../content/error.js";
import { type Align, type Content, type Flow, type Heading, type Run } from "../../content/model.js";
import { readPictureBytes } from "../../content/picture.js";
import { blankRuns, mergeRuns } from "../../content/runs.js";
import { formatErrors } from "../../messages/en/formats.js";
import { Asides } from "../asides.js";
import type { ReadDocument } from "../format.js";
import { asideNotices, lineOf, noteOf, type Aside } from "../office/document.js";
import { runInFont } from "../office/symbols.js";
import { TextBudget } from "../office/text-budget.js";
import { marksFrom, type TextProps } from "../office/text-props.js";
import { Container } from "./container.js";
import { encodingOfCharset, encodingOfPage } from "./encodings.js";
import { Header } from "./header.js";
import { NO_MARK } from "./number-forms.js";
import { PictureReader } from "./read-picture.js";
import { RowBuilder } from "./rows.js";
import { isNumbered, markerOf, type Level } from "./tables.js";
import { tokensOf, type Token } from "./tokens.js";

/** How deep groups may stand in each other, and tables. */
const DEPTH = 1000;
const DEPTH_OF_TABLES = 20;

/**
 * Reads Rich Text Format (its specification 1.9.1): headings, paragraphs, lists with their numbers, tables with merged cells, links,
 * pictures, notes, and how text looks where it differs from the document's plain text, in the characters of its code pages.
 *
 * @param bytes the whole file
 * @param file its name, for messages
 * @throws DrawerError `unreadable`, `too-large`
 */
export function readRtf(bytes: Uint8Array, file: string): ReadDocument {
  if (!/^\uFEFF?\s*\{\\rtf/.test(String.fromCharCode(...bytes.subarray(0, 64))))
    throw new DrawerError(formatErrors, "unreadable/not-one", { file, what: "rtf" });
  const reader = new RtfReader(file);
  for (const token of tokensOf(bytes)) reader.take(token);
  const { content, pictures, asides, title } = reader.end();
  return {
    ...{ content, pictures },
    notices: asideNotices(file, asides.all),
    noticesOf: (flows) => asideNotices(file, asides.of(flows)),
    ...(title !== "" && { title }),
  };
}

/** What text in a group becomes. */
type Destination =
  "text" | "skipped" | "header" | "instruction" | "picture" | "factName" | "fact" | "oldList";

/** What a group may change, and has back when it ends. */
interface State {
  destination: Destination;
  bold: boolean;
  italic: boolean;
  underline: boolean;
  strike: boolean;
  script: "sub" | "sup" | "none";
  color: number;
  background: number;
  font: number;
  /** Half points. */
  size: number;
  hidden: boolean;
  /** How many characters stand for one of Unicode. */
  skips: number;
  link: Address | undefined;
  field: { instruction: string } | undefined;
  /** Whether what is said of a row is said of that of a table in a cell, which is said after its cells. */
  isOfInnerRow: boolean;
  /** What is done when the group ends. */
  end: (() => void) | undefined;
}

/** What is said of a paragraph. */
interface ParagraphState {
  align?: Align;
  isRightToLeft?: boolean;
  style: number;
  list: number;
  level: number;
  outline?: number;
  /** How deep in tables it stands. */
  depth: number;
  /** Whether there is a line under it. */
  isUnderlined?: boolean;
  /** A list of the kind that programs wrote before 1997. */
  old?: { isNumbered: boolean };
}

/** The size of letters of which nothing is said, in half points. */
const PLAIN_SIZE = 24;

const SIGNS: Readonly<Record<string, string>> = {
  ...{ emdash: "—", endash: "–", bullet: "•", lquote: "‘", rquote: "’", ldblquote: "“", rdblquote: "”" },
  ...{ "~": "\u00a0", _: "\u2011", "-": "\u00ad", tab: "\t", emspace: "\u2003", enspace: "\u2002" },
  ...{ qmspace: "\u2005", "{": "{", "}": "}", "\\": "\\", zwj: "\u200d", zwnj: "\u200c" },
  ...{ ltrmark: "\u200e", rtlmark: "\u200f" },
};
const ALIGNS: Readonly<Record<string, Align | undefined>> = {
  ql: undefined,
  qc: "center",
  qr: "right",
  qj: "justify",
};
/** Groups whose text is none of the document's. */
const LEFT_OUT =
  /^(?:header[lrf]?|footer[lrf]?|listtext|pntext|nonshppict|annotation|atnid|atnauthor|revtbl|generator|xe|tc|rxe|sp|ftnsep|ftnsepc|aftnsep|aftnsepc|template|filetbl|operator|nonesttables)$/;

class RtfReader {
  readonly asides = new Asides<Aside>();
  readonly #header = new Header();
  readonly #pictures = new Map<string, Uint8Array>();
  readonly #budget: TextBudget;
  readonly #groups: State[] = [];
  #state: State = {
    ...{ destination: "text", bold: false, italic: false, underline: false, strike: false, script: "none" },
    ...{ color: 0, background: 0, font: -1, size: PLAIN_SIZE, hidden: false, skips: 1 },
    ...{ link: undefined, field: undefined, isOfInnerRow: false, end: undefined },
  };
  #paragraph: ParagraphState = { style: 0, list: 0, level: 0, depth: 0 };
  #runs: Run[] = [];
  #container = new Container();
  /** The tables that stand in each other around what is read now, each with the cell that is filled. */
  #tables: OpenTable[] = [];
  /** What follows the paragraph: the text of boxes. */
  #after: Flow[] = [];
  #bytes: number[] = [];
  /** How many characters stand only for programs that do not know Unicode. */
  #skipped = 0;
  #isAfterStar = false;
  /** Whether nothing has been said of letters since they were plain. */
  #isPlain = true;
  /** The number of the last item of each list, by how deep it stands. */
  readonly #counts = new Map<number, number[]>();
  #picture: PictureReader | undefined;

  constructor(readonly file: string) {
    this.#budget = new TextBudget(file);
  }

  take(token: Token): void {
    if (token.type === "byte") {
      this.#byte(token.byte);
      return;
    }
    this.#flushBytes();
    switch (token.type) {
      case "open":
        if (this.#groups.length > DEPTH)
          throw new DrawerError(formatErrors, "too-large/document", {
            file: this.file,
            what: "depth",
            most: DEPTH,
          });
        this.#groups.push(this.#state);
        this.#state = { ...this.#state, end: undefined };
        this.#header.open();
        break;
      case "close": {
        this.#skipped = 0;
        const { end } = this.#state;
        this.#header.close();
        end?.();
        this.#state = this.#groups.pop() ?? this.#state;
        break;
      }
      case "binary":
        if (this.#picture && this.#state.destination === "picture") this.#picture.bytes = token.bytes;
        break;
      case "word":
        this.#word(token.name, token.number);
    }
    this.#isAfterStar = token.type === "word" && token.name === "*";
  }

  end() {
    this.#flushBytes();
    if (!blankRuns(this.#runs)) this.#endParagraph();
    this.#endTables(0);
    const { title } = this.#header;
    return { content: this.#container.take(), pictures: this.#pictures, asides: this.asides, title };
  }

  #byte(byte: number): void {
    if (this.#skipped > 0) this.#skipped--;
    else if (this.#state.destination === "picture") this.#picture!.text += String.fromCharCode(byte);
    else this.#bytes.push(byte);
  }

  #flushBytes(): void {
    if (this.#bytes.length === 0) return;
    const bytes = Uint8Array.from(this.#bytes);
    this.#bytes = [];
    this.#text(this.#decoded(bytes));
  }

  #decoded(bytes: Uint8Array): string {
    const font = this.#header.fonts.get(this.#state.font);
    // Fonts of symbols have places for letters.
    if (font?.charset === 2 && this.#state.destination === "text")
      return String.fromCharCode(...bytes.map((byte) => byte)).replace(/[!-ÿ]/g, (sign) =>
        String.fromCharCode(0xf000 + sign.charCodeAt(0)),
      );
    const own = font && font.charset > 0 ? encodingOfCharset(font.charset) : undefined;
    return decodeAs(own ?? encodingOfPage(this.#header.page), bytes);
  }

  #text(text: string): void {
    switch (this.#state.destination) {
      case "text":
        break;
      case "header":
        this.#header.text(text);
        return;
      case "instruction":
        this.#state.field!.instruction += text;
        return;
      case "factName":
        this.#picture!.name(text);
        return;
      case "fact":
        this.#picture!.fact(text);
        return;
      case "skipped":
      case "picture":
      case "oldList":
        return;
    }
    if (this.#state.hidden) return;
    this.#budget.spend(text.length);
    const props = this.#props();
    this.#runs.push(runInFont(text, props.font, marksFrom(props, this.#base(), this.#state.link)));
  }

  #props(): TextProps {
    const { bold, italic, underline, strike, script, color, background, font, size, link } = this.#state;
    const { fonts, colors } = this.#header;
    const name = fonts.get(font)?.name;
    return {
      // A link is underlined by being one.
      ...{ bold, italic, underline: underline && link === undefined, strike, script },
      color: (link === undefined ? colors[color] : undefined) ?? "auto",
      background: colors[background] ?? "none",
      ...(name !== undefined && { font: name }),
      size: size / 2,
    };
  }

  /** How plain text looks: as the style of its paragraph where that is a heading's, otherwise as that of all. */
  #base(): TextProps {
    const { fonts, colors, defaultFont } = this.#header;
    const isHeading = this.#outline() !== undefined;
    const normal = this.#header.lettersOf(0);
    const letters = isHeading ? { ...normal, ...this.#header.lettersOf(this.#paragraph.style) } : normal;
    const font = fonts.get(letters.font ?? defaultFont)?.name;
    return {
      ...{ bold: isHeading || letters.bold === true, italic: letters.italic === true },
      color: colors[letters.color ?? 0] ?? "auto",
      size: (letters.size ?? PLAIN_SIZE) / 2,
      ...(font !== undefined && { font }),
    };
  }

  #outline(): number | undefined {
    const { outline, style } = this.#paragraph;
    if (outline !== undefined) return outline < 9 ? outline : undefined;
    const found = this.#header.styles.get(style);
    const named = /^heading ([1-9])$/i.exec(found?.name ?? "")?.[1];
    return found?.outline ?? (named === undefined ? undefined : Number(named) - 1);
  }

  #word(name: string, number: number | undefined): void {
    const state = this.#state;
    if (state.destination === "header" && this.#header.word(name, number)) {
      if (name === "u") this.#skipped = state.skips;
      return;
    }
    if (this.#header.begins(name)) {
      state.destination = "header";
      return;
    }
    if (LEFT_OUT.test(name)) {
      if (name === "annotation") this.asides.add("comment");
      state.destination = "skipped";
      return;
    }
    if (state.destination === "oldList") {
      if (name === "pnlvlblt") this.#paragraph.old = { isNumbered: false };
      else if (/^pn(?:dec|ucrm|lcrm|ucltr|lcltr)$/.test(name)) this.#paragraph.old = { isNumbered: true };
      return;
    }
    if (this.#picture && (name === "sn" || name === "sv")) {
      if (name === "sn") this.#picture.beginName();
      state.destination = name === "sn" ? "factName" : "fact";
      return;
    }
    if (state.destination === "skipped") return;
    if (this.#picture && name === "dibitmap") this.#picture.isBitmap = true;
    if (this.#look(name, number)) {
      this.#isPlain = name === "plain";
      return;
    }
    if (this.#group(name) || this.#layout(name, number)) return;
    const sign = SIGNS[name];
    if (sign !== undefined) this.#text(sign);
    else if (name === "u" && number !== undefined) {
      this.#text(String.fromCharCode(number < 0 ? number + 65_536 : number));
      this.#skipped = state.skips;
    } else if (this.#isAfterStar) state.destination = "skipped";
  }

  /** Words that begin a group of a kind of its own. */
  #group(name: string): boolean {
    const state = this.#state;
    switch (name) {
      case "field":
        state.field = { instruction: "" };
        return true;
      case "fldinst":
        state.destination = "instruction";
        state.field ??= { instruction: "" };
        return true;
      case "fldrslt": {
        const [, quoted, bare] = /HYPERLINK\s+(?:"([^"]*)"|(\S+))/.exec(state.field?.instruction ?? "") ?? [];
        const address = quoted ?? bare;
        state.destination = "text";
        if (address !== undefined) state.link = safeLink(address);
        return true;
      }
      case "pict":
        state.destination = "picture";
        this.#picture = new PictureReader();
        state.end = () => this.#endPicture();
        return true;
      case "pn":
        state.destination = "oldList";
        return true;
      case "nesttableprops":
        state.isOfInnerRow = true;
        return true;
      case "shppict":
      case "shpinst":
      case "shp":
      case "result":
        state.destination = "text";
        return true;
      case "shptxt":
        this.#apart((flows) => void this.#after.push(...flows));
        return true;
      case "footnote":
        this.#apart((flows) => void this.#runs.push(noteOf(flows)));
        return true;
      default:
        return false;
    }
  }

  /** Reads a group as flows by themselves. */
  #apart(use: (flows: Content) => void): void {
    const before = [this.#runs, this.#container, this.#tables, this.#paragraph, this.#after] as const;
    [this.#runs, this.#container, this.#tables, this.#after] = [[], new Container(), [], []];
    this.#paragraph = { style: 0, list: 0, level: 0, depth: 0 };
    this.#state.end = () => {
      if (!blankRuns(this.#runs)) this.#endParagraph();
      this.#endTables(0);
      const flows = this.#container.take();
      [this.#runs, this.#container, this.#tables, this.#paragraph, this.#after] = before;
      use(flows);
    };
  }

  #endPicture(): void {
    const { file: bytes, alt } = this.#picture!;
    this.#picture = undefined;
    const facts = readPictureBytes(bytes);
    if (!facts) {
      this.asides.add("picture");
      return;
    }
    const hash = hashBytes(bytes);
    this.#pictures.set(hash, bytes);
    this.#runs.push({ type: "picture", hash, ...facts, alt });
  }

  /** Words that change how text looks. */
  #look(name: string, number: number | undefined): boolean {
    const state = this.#state;
    const isOn = number !== 0;
    switch (name) {
      case "plain":
        Object.assign(state, {
          ...{ bold: false, italic: false, underline: false, strike: false, script: "none", hidden: false },
          ...{ color: 0, background: 0, font: this.#header.defaultFont, size: PLAIN_SIZE },
        });
        return true;
      case "b":
        state.bold = isOn;
        return true;
      case "i":
        state.italic = isOn;
        return true;
      case "strike":
      case "striked":
        state.strike = isOn;
        return true;
      case "ulnone":
        state.underline = false;
        return true;
      case "super":
      case "sub":
        state.script = isOn ? (name === "sub" ? "sub" : "sup") : "none";
        return true;
      case "up":
      case "dn":
        state.script = (number ?? 6) === 0 ? "none" : name === "up" ? "sup" : "sub";
        return true;
      case "nosupersub":
        state.script = "none";
        return true;
      case "v":
      case "deleted":
        state.hidden = isOn;
        return true;
      case "cf":
        state.color = number ?? 0;
        return true;
      case "highlight":
      case "cb":
      case "chcbpat":
        state.background = number ?? 0;
        return true;
      case "f":
        state.font = number ?? this.#header.defaultFont;
        return true;
      case "fs":
        state.size = number ?? PLAIN_SIZE;
        return true;
      case "uc":
        state.skips = number ?? 1;
        return true;
      default:
        if (
          !/^ul(?:d|dash|dashd|dashdd|db|hwave|ldash|th|thd|thdash|thdashd|thdashdd|thldash|uldbwave|w|wave)?$/.test(
            name,
          )
        )
          return false;
        state.underline = isOn;
        return true;
    }
  }

  /** Words about paragraphs and tables. */
  #layout(name: string, number: number | undefined): boolean {
    if (this.#table(this.#state.isOfInnerRow ? this.#paragraph.depth : 1).rows.word(name, number))
      return true;
    if (name in ALIGNS) {
      const align = ALIGNS[name];
      if (align) this.#paragraph.align = align;
      else delete this.#paragraph.align;
      return true;
    }
    switch (name) {
      case "pard":
        this.#paragraph = { style: 0, list: 0, level: 0, depth: 0 };
        return true;
      case "par":
      case "sect":
        this.#endParagraph();
        return true;
      case "ansicpg":
        this.#header.page = number ?? 1252;
        return true;
      case "mac":
        this.#header.page = 10000;
        return true;
      case "deff":
        this.#header.defaultFont = number ?? 0;
        return true;
      case "line":
        this.#runs.push({ type: "break" });
        return true;
      case "s":
        this.#paragraph.style = number ?? 0;
        // What a style says itself is said again in each paragraph; what it has from others need not be.
        if (this.#isPlain) Object.assign(this.#state, this.#header.inheritedBy(this.#paragraph.style));
        return true;
      case "outlinelevel":
        this.#paragraph.outline = number ?? 0;
        return true;
      case "ls":
        this.#paragraph.list = number ?? 0;
        return true;
      case "ilvl":
        this.#paragraph.level = Math.min(8, Math.max(0, number ?? 0));
        return true;
      case "rtlpar":
        this.#paragraph.isRightToLeft = true;
        return true;
      case "brdrb":
        this.#paragraph.isUnderlined = true;
        return true;
      case "intbl":
        this.#paragraph.depth = Math.max(1, this.#paragraph.depth);
        return true;
      case "itap":
        this.#paragraph.depth = Math.min(DEPTH_OF_TABLES, Math.max(0, number ?? 1));
        return true;
      case "nestcell":
      case "cell":
        this.#endCell(name === "cell" ? 1 : Math.max(2, this.#paragraph.depth));
        return true;
      case "nestrow":
      case "row":
        this.#endTables(name === "row" ? 1 : this.#paragraph.depth);
        this.#table(name === "row" ? 1 : this.#paragraph.depth).rows.endRow();
        return true;
      default:
        return false;
    }
  }

  #endParagraph(): void {
    const runs = mergeRuns(this.#runs);
    this.#runs = [];
    const { depth, align, isRightToLeft } = this.#paragraph;
    this.#endTables(depth);
    const container = this.#containerAt(depth);
    // The natural side of a line is none of its own.
    const side = isRightToLeft && align === "right" ? undefined : align;
    const layout = { ...(side && { align: side }), ...(isRightToLeft && { direction: "rtl" as const }) };
    const outline = this.#outline();
    this.#budget.spendLine(runs);
    if (outline !== undefined && !blankRuns(runs)) {
      const level = Math.min(6, outline + 1) as Heading["level"];
      this.#add(container, { type: "heading", level, runs, ...layout });
    } else if (!blankRuns(runs) && this.#addItem(container, lineOf(runs, layout))) {
      // It stands in its list.
    } else {
      const style = this.#header.styles.get(this.#paragraph.style)?.name ?? "";
      const isRule = this.#paragraph.isUnderlined === true && blankRuns(runs) && depth === 0;
      container.addLine(lineOf(runs, layout), style, isRule, this.asides);
    }
    for (const flow of this.#after.splice(0)) this.#add(container, flow);
  }

  #add(container: Container, flow: Flow): void {
    container.add(flow);
    this.asides.standIn(flow);
  }

  /** Adds a paragraph to the list that it is of; returns whether it is of one. */
  #addItem(container: Container, flow: Flow): boolean {
    const { list, level, old } = this.#paragraph;
    const kind: Level | undefined = this.#header.levelOf(list, level);
    if (!kind && !old) return false;
    const ordered = kind ? isNumbered(kind) : old!.isNumbered;
    if (kind?.form === NO_MARK) return false;
    const counts = this.#counts.get(list) ?? [];
    this.#counts.set(list, counts);
    counts.length = Math.min(counts.length, level + 1);
    counts[level] = (counts[level] ?? (kind?.start ?? 1) - 1) + 1;
    this.asides.standIn(flow);
    container.lists.add({
      ...{ level, key: `${list}`, ordered, flows: [flow] },
      ...(ordered && { number: counts[level] }),
      marker: kind && markerOf(kind, level),
    });
    return true;
  }

  /** Ends the cell that is filled of the table at a depth. */
  #endCell(depth: number): void {
    this.#paragraph.depth = depth;
    if (!blankRuns(this.#runs)) this.#endParagraph();
    this.#runs = [];
    this.#endTables(depth);
    const { rows, cell } = this.#table(depth);
    rows.cell(cell.take());
  }

  /** Where flows at a depth in tables are added. */
  #containerAt(depth: number): Container {
    return depth === 0 ? this.#container : this.#table(depth).cell;
  }

  /** The table at a depth, counting from 1. */
  #table(depth: number): OpenTable {
    while (this.#tables.length < depth) this.#tables.push({ rows: new RowBuilder(), cell: new Container() });
    return this.#tables[depth - 1]!;
  }

  /** Ends the tables that stand deeper than that. */
  #endTables(depth: number): void {
    for (let at = this.#tables.length; at > depth; at--) {
      const table = this.#tables.pop()!.rows.take(this.#header.colors);
      if (table) this.#add(this.#containerAt(at - 1), table);
    }
  }
}

/** A table that is being read, with the cell of it that is filled. */
interface OpenTable {
  readonly rows: RowBuilder;
  readonly cell: Container;
}
