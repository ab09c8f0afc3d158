import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { formatErrors } from "../../messages/en/formats.js";
import type { Attributes } from "../office/xml-parser.js";
import { XmlStream } from "../office/xml-stream.js";
import { Element } from "../office/xml.js";
import type { Parts } from "../office/zip.js";

/** The most characters of all shared strings together: each of a workbook's cells may have a text of its own. */
const MOST = 4 * LIMITS.characters;
/** What each counts beside its characters, and each of its parts. */
const STRING = 16;
const PART = 64;

/** The texts that cells of a workbook share (ECMA-376 part 1, 18.4), read as far as they are asked for. */
export class SharedStrings {
  readonly #texts: string[] = [];
  /** The parts of those that do not look one way, by their numbers. */
  readonly #parts = new Map<number, readonly StoredPart[]>();
  readonly #stream: XmlStream;
  #spent = 0;

  constructor(parts: Parts, name: string) {
    const reader = new TextReader();
    // A workbook without texts has no such part.
    const pieces = parts.has(name) ? parts.pieces(name) : NO_TEXTS.values();
    this.#stream = new XmlStream(pieces, parts.file, {
      open: (element, attributes) => (element === "si" ? reader.begin() : reader.open(element, attributes)),
      text: (text) => reader.text(text),
      close: (element) => {
        reader.close(element);
        if (element === "si") this.#add(reader, parts.file);
      },
    });
  }

  #add(reader: TextReader, file: string): void {
    const text = reader.taken();
    const { parts } = reader;
    if (parts) this.#parts.set(this.#texts.length, parts);
    this.#spent += text.length + STRING + PART * (parts?.length ?? 0);
    if (this.#spent > MOST)
      throw new DrawerError(formatErrors, "too-large/document", { file, what: "characters", most: MOST });
    this.#texts.push(text);
  }

  /**
   * A text by its number; nothing when there is none.
   * @throws DrawerError `unreadable`, `too-large`
   */
  at(index: number): string | undefined {
    while (index >= this.#texts.length && !this.#stream.isRead) this.#stream.readOn();
    return this.#texts[index];
  }

  /** The parts of a text that has been asked for, where it has some that look different. */
  partsAt(index: number): readonly StoredPart[] | undefined {
    return this.#parts.get(index);
  }
}

const NO_TEXTS: readonly Uint8Array[] = [new TextEncoder().encode("<sst/>")];

/** A part of a cell's text as its file has it, with what it says of its look; nothing for one that looks as its cell does. */
export interface StoredPart {
  readonly text: string;
  readonly look: Element | undefined;
}

/** Gathers a text of a workbook from its runs (18.4.8); how it is pronounced (18.4.6) is no part of it. */
export class TextReader {
  #text = "";
  #isIn = false;
  #phonetic = 0;
  #parts: { text: string; look: Element | undefined }[] = [];
  /** The look of a part that is being read. */
  #look: Element | undefined;

  begin(): void {
    this.#text = "";
    this.#parts = [];
    this.#look = undefined;
  }

  open(element: string, attributes: Attributes): void {
    if (this.#look) this.#look.append(new Element(element, attributes));
    else if (element === "rPr") {
      this.#look = new Element(element, attributes);
      if (this.#parts.length > 0) this.#parts.at(-1)!.look = this.#look;
    } else if (element === "r") this.#parts.push({ text: "", look: undefined });
    else if (element === "rPh") this.#phonetic++;
    else if (element === "t") this.#isIn = this.#phonetic === 0;
  }

  text(text: string): void {
    if (!this.#isIn) return;
    this.#text += text;
    const part = this.#parts.at(-1);
    if (part) part.text += text;
  }

  close(element: string): void {
    if (element === "rPr") this.#look = undefined;
    if (element === "rPh") this.#phonetic--;
    if (element === "t") this.#isIn = false;
  }

  taken(): string {
    return unescaped(this.#text);
  }

  /** Its parts, where they say how they look. */
  get parts(): readonly StoredPart[] | undefined {
    if (!this.#parts.some(({ look }) => look)) return undefined;
    return this.#parts.map(({ text, look }) => ({ text: unescaped(text), look }));
  }
}

/** A text with the signs that XML cannot hold, which are written `_x000D_` (18.18.92, ST_Xstring). */
export function unescaped(text: string): string {
  if (!text.includes("_x")) return text;
  return text.replace(/_x([\da-fA-F]{4})_/g, (_, code: string) =>
    String.fromCharCode(Number.parseInt(code, 16)),
  );
}
