import { type Address, safeLink } from "../../content/address.js";
import { attributeOf, childOf, childrenOf, type Element } from "../office/xml.js";

/** A complex field that is open (ECMA-376 part 1, 17.16.18). */
export interface OpenField {
  instruction: string;
  /** Whether its result has begun. */
  isResult: boolean;
  /** What a form field shows that has no text for a result: its box, or the entry that was chosen. */
  readonly choice: string | undefined;
  hasText: boolean;
}

/** The fields of a paragraph that are open, the innermost last. */
export class OpenFields {
  readonly #open: OpenField[] = [];

  /** Whether text here is shown: it stands in no field, or in the results of all. */
  get isShown(): boolean {
    return this.#open.every(({ isResult }) => isResult);
  }

  /** The address that text here links to. */
  get link(): Address | undefined {
    const shown = this.#open.find(({ isResult }) => isResult);
    return shown && linkOf(shown.instruction);
  }

  /** Adds to the instruction of the innermost field. */
  instruct(text: string): void {
    const field = this.#open.at(-1);
    if (field && !field.isResult) field.instruction += text;
  }

  /** Says that text was shown. */
  show(): void {
    for (const field of this.#open) field.hasText = true;
  }

  /**
   * Begins, parts or ends a field. Returns what a form field shows that ends without having shown any text.
   * @param lost is called when a field ends that shows something in a word processor, and has none of it in the file
   */
  take(mark: Element, lost: () => void): string | undefined {
    const type = attributeOf(mark, "fldCharType");
    if (type === "begin") {
      this.#open.push({ instruction: "", isResult: false, choice: choiceOf(mark), hasText: false });
    } else if (type === "separate" && this.#open.length > 0) this.#open.at(-1)!.isResult = true;
    else if (type === "end") {
      const ended = this.#open.pop();
      if (!ended || ended.hasText) return undefined;
      const drawn = ended.choice ?? drawnText(ended.instruction);
      if (drawn === undefined && !ended.isResult && isShowing(ended.instruction)) lost();
      return drawn;
    }
    return undefined;
  }
}

/** Fields that show a text wherever they stand (17.16.5): others mark, set or draw something, or may show nothing. */
const SHOWING =
  /^\s*(AUTHOR|AUTONUM|AUTONUMLGL|COMMENTS|CREATEDATE|DATE|DOCPROPERTY|DOCVARIABLE|EDITTIME|FILENAME|FILESIZE|KEYWORDS|LASTSAVEDBY|NUMCHARS|NUMPAGES|NUMWORDS|PAGE|PAGEREF|PRINTDATE|QUOTE|REF|REVNUM|SAVEDATE|SECTION|SECTIONPAGES|SEQ|STYLEREF|SUBJECT|TEMPLATE|TIME|TITLE|USERADDRESS|USERINITIALS|USERNAME|=)(\s|$)/i;

function isShowing(instruction: string): boolean {
  return SHOWING.test(instruction);
}

/**
 * The text of a field that draws its parts over each other (EQ, 17.16.5.17): what has a reading, and then the reading in
 * brackets; of others their parts as they stand.
 */
function drawnText(instruction: string): string | undefined {
  const drawn = /^\s*EQ\s(.*)$/is.exec(instruction)?.[1];
  if (drawn === undefined) return undefined;
  const ruby = /\\o\s*(?:\\a[a-z]\s*)?\(\s*\\s\s*\\up\s*\d+\s*\(([^()]*)\)\s*[,;]\s*([^()]*)\)\s*$/i.exec(
    drawn,
  );
  if (ruby) return `${ruby[2]!.trim()}(${ruby[1]!.trim()})`;
  // Formatting switches (\* jc2), and the names of what draws (\f, \r) with their options.
  const plain = drawn.replace(/\\\*\s*(?:"[^"]*"|\S+)/g, "").replace(/\\[a-z]+\s*-?\d*/gi, "");
  return plain.trim() || undefined;
}

/** What a form field shows (17.16.17): the chosen entry of a list, or a box. */
function choiceOf(mark: Element): string | undefined {
  const data = childOf(mark, "ffData");
  const list = childOf(data, "ddList");
  if (list) {
    const entries = [...childrenOf(list)].filter(({ localName }) => localName === "listEntry");
    const chosen = attributeOf(childOf(list, "result") ?? childOf(list, "default"), "val") ?? "0";
    return attributeOf(entries[Number(chosen)], "val");
  }
  const box = childOf(data, "checkBox");
  if (!box) return undefined;
  const checked = childOf(box, "checked") ?? childOf(box, "default");
  return checked && !/^(0|false|off)$/.test(attributeOf(checked, "val") ?? "1") ? "☑" : "☐";
}

/** The address of a HYPERLINK field. */
export function linkOf(instruction: string): Address | undefined {
  const address = /^\s*HYPERLINK\s+"([^"]+)"/i.exec(instruction)?.[1];
  const place = /\s\\l\s+"([^"]+)"/i.exec(instruction)?.[1];
  return address === undefined ? undefined : safeLink(withPlace(address, place));
}

/** An address with the place in its page, where one is named. */
export function withPlace(address: string, place: string | undefined): string {
  return place ? `${address.split("#")[0]}#${place}` : address;
}
