import { safeLink, type Address } from "../../content/address.js";
import { hashBytes } from "../../content/encode.js";
import { DrawerError } from "../../content/error.js";
import { ListBuilder } from "../../content/list-builder.js";
import {
  type Align,
  type Content,
  type Flow,
  type Heading,
  type Paragraph,
  type Picture,
  type Run,
} from "../../content/model.js";
import { readPictureBytes } from "../../content/picture.js";
import { blankRuns, mergeRuns } from "../../content/runs.js";
import { formatErrors } from "../../messages/en/formats.js";
import { Asides } from "../asides.js";
import type { ReadDocument } from "../format.js";
import { addParagraph, asideNotices, Captions, lineOf, noteOf, type Aside } from "../office/document.js";
import { runInFont } from "../office/symbols.js";
import { TextBudget } from "../office/text-budget.js";
import { marksFrom, type TextProps } from "../office/text-props.js";
import { encodingOfCharset, encodingOfPage } from "./encodings.js";
import { Header } from "./header.js";
import { RowBuilder } from "./rows.js";
import { isNumbered, markerOf, type Level } from "./tables.js";
import { tokensOf, type Token } from "./tokens.js";

/** How deep groups may stand in each other. */
const DEPTH = 1000;

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
type Destination = "text" | "skipped" | "header" | "instruction" | "picture" | "oldList";

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
  isInTable: boolean;
  /** A list of the kind that programs wrote before 1997. */
  old?: { isNumbered: boolean };
}

/** Where flows are added: the text, a cell, a note. */
class Container {
  readonly #flows: Flow[] = [];
  readonly lists = new ListBuilder();

  add(flow: Flow): void {
    this.#flows.push(...this.lists.take(), flow);
  }

  /** Adds a paragraph: in the styles of quotes and of code it is one with those before it. */
  addLine(flow: Paragraph | Picture, style: string, asides: Asides<Aside>): void {
    this.#flows.push(...this.lists.take());
    const role = {
      ...{ isRule: false, isCaption: false },
      isQuote: /\bquot(e|ations?)\b/i.test(style),
      isCode: /\bpreformatted\b|\bcode\b/i.test(style),
    };
    addParagraph(this.#flows, flow, role, new Captions(), asides);
  }

  take(): Content {
    return [...this.#flows.splice(0), ...this.lists.take()];
  }
}

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
  /^(?:header[lrf]?|footer[lrf]?|listtext|pntext|nonshppict|annotation|atnid|atnauthor|revtbl|generator|xe|tc|rxe|sp|ftnsep|ftnsepc|aftnsep|aftnsepc|template|filetbl|operator)$/;

class RtfReader {
  readonly asides = new Asides<Aside>();
  readonly #header = new Header();
  readonly #pictures = new Map<string, Uint8Array>();
  readonly #budget: TextBudget;
  readonly #groups: State[] = [];
  #state: State = {
    ...{ destination: "text", bold: false, italic: false, underline: false, strike: false, script: "none" },
    ...{ color: 0, background: 0, font: -1, size: 24, hidden: false, skips: 1 },
    ...{ link: undefined, field: undefined, end: undefined },
  };
  #paragraph: ParagraphState = { style: 0, list: 0, level: 0, isInTable: false };
  #runs: Run[] = [];
  #container = new Container();
  #cell = new Container();
  #rows = new RowBuilder();
  /** What follows the paragraph: the text of boxes. */
  #after: Flow[] = [];
  #bytes: number[] = [];
  /** How many characters stand only for programs that do not know Unicode. */
  #skipped = 0;
  #isAfterStar = false;
  /** The number of the last item of each list, by how deep it stands. */
  readonly #counts = new Map<number, number[]>();
  #picture: { text: string; bytes?: Uint8Array } | undefined;

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
    this.#endTable();
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
    return new TextDecoder(own ?? encodingOfPage(this.#header.page)).decode(bytes);
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
    const { styles, fonts, defaultFont } = this.#header;
    const normal = styles.get(0);
    const style = this.#outline() === undefined ? normal : styles.get(this.#paragraph.style);
    const font = fonts.get(style?.font ?? normal?.font ?? defaultFont)?.name;
    return {
      bold: this.#outline() !== undefined || style?.bold === true,
      size: (style?.size ?? normal?.size ?? 24) / 2,
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
    if (state.destination === "header" && this.#header.word(name, number)) return;
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
    if (state.destination === "skipped") return;
    if (this.#group(name) || this.#look(name, number) || this.#layout(name, number)) return;
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
        this.#picture = { text: "" };
        state.end = () => this.#endPicture();
        return true;
      case "pn":
        state.destination = "oldList";
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
    const before = [
      this.#runs,
      this.#container,
      this.#cell,
      this.#rows,
      this.#paragraph,
      this.#after,
    ] as const;
    [this.#runs, this.#container, this.#cell, this.#rows, this.#after] = [
      [],
      new Container(),
      new Container(),
      new RowBuilder(),
      [],
    ];
    this.#paragraph = { style: 0, list: 0, level: 0, isInTable: false };
    this.#state.end = () => {
      if (!blankRuns(this.#runs)) this.#endParagraph();
      this.#endTable();
      const flows = this.#container.take();
      [this.#runs, this.#container, this.#cell, this.#rows, this.#paragraph, this.#after] = before;
      use(flows);
    };
  }

  #endPicture(): void {
    const { text, bytes = bytesOfHex(text) } = this.#picture!;
    this.#picture = undefined;
    const facts = readPictureBytes(bytes);
    if (!facts) {
      this.asides.add("picture");
      return;
    }
    const hash = hashBytes(bytes);
    this.#pictures.set(hash, bytes);
    this.#runs.push({ type: "picture", hash, ...facts, alt: "" });
  }

  /** Words that change how text looks. */
  #look(name: string, number: number | undefined): boolean {
    const state = this.#state;
    const isOn = number !== 0;
    switch (name) {
      case "plain":
        Object.assign(state, {
          ...{ bold: false, italic: false, underline: false, strike: false, script: "none", hidden: false },
          ...{ color: 0, background: 0, font: this.#header.defaultFont, size: 24 },
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
        state.size = number ?? 24;
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
    if (this.#rows.word(name, number)) return true;
    if (name in ALIGNS) {
      const align = ALIGNS[name];
      if (align) this.#paragraph.align = align;
      else delete this.#paragraph.align;
      return true;
    }
    switch (name) {
      case "pard":
        this.#paragraph = { style: 0, list: 0, level: 0, isInTable: false };
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
      case "intbl":
        this.#paragraph.isInTable = true;
        return true;
      case "nestcell":
        if (!blankRuns(this.#runs)) this.#endParagraph();
        return true;
      case "cell":
        this.#paragraph.isInTable = true;
        if (!blankRuns(this.#runs)) this.#endParagraph();
        this.#runs = [];
        this.#rows.cell(this.#cell.take());
        return true;
      case "row":
        this.#rows.endRow();
        return true;
      default:
        return false;
    }
  }

  #endParagraph(): void {
    const runs = mergeRuns(this.#runs);
    this.#runs = [];
    const { isInTable, align, isRightToLeft } = this.#paragraph;
    if (!isInTable) this.#endTable();
    const container = isInTable ? this.#cell : this.#container;
    const layout = { ...(align && { align }), ...(isRightToLeft && { direction: "rtl" as const }) };
    const outline = this.#outline();
    this.#budget.spendLine(runs);
    if (outline !== undefined && !blankRuns(runs)) {
      const level = Math.min(6, outline + 1) as Heading["level"];
      this.#add(container, { type: "heading", level, runs, ...layout });
    } else if (!blankRuns(runs) && this.#addItem(container, lineOf(runs, layout))) {
      // It stands in its list.
    } else {
      const style = this.#header.styles.get(this.#paragraph.style)?.name ?? "";
      container.addLine(lineOf(runs, layout), style, this.asides);
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
    if (kind?.form === 255) return false;
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

  #endTable(): void {
    const table = this.#rows.take();
    if (table) this.#add(this.#container, table);
  }
}

function bytesOfHex(text: string): Uint8Array {
  const digits = text.replace(/[^0-9a-f]/gi, "");
  const bytes = new Uint8Array(digits.length >> 1);
  for (let at = 0; at < bytes.length; at++) bytes[at] = Number.parseInt(digits.slice(2 * at, 2 * at + 2), 16);
  return bytes;
}
