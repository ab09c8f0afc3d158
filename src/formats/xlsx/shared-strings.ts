import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { formatErrors } from "../../messages/en/formats.js";
import { XmlStream } from "../office/xml-stream.js";
import type { Parts } from "../office/zip.js";

/** The most characters of all shared strings together: each of a workbook's cells may have a text of its own. */
const MOST = 4 * LIMITS.characters;
/** What each counts beside its characters. */
const STRING = 16;

/** The texts that cells of a workbook share (ECMA-376 part 1, 18.4), read as far as they are asked for. */
export class SharedStrings {
  readonly #texts: string[] = [];
  readonly #stream: XmlStream;
  #spent = 0;

  constructor(parts: Parts, name: string) {
    const reader = new TextReader();
    // A workbook without texts has no such part.
    const pieces = parts.has(name) ? parts.pieces(name) : NO_TEXTS.values();
    this.#stream = new XmlStream(pieces, parts.file, {
      open: (element) => (element === "si" ? reader.begin() : reader.open(element)),
      text: (text) => reader.text(text),
      close: (element) => {
        reader.close(element);
        if (element === "si") this.#add(reader.taken(), parts.file);
      },
    });
  }

  #add(text: string, file: string): void {
    this.#spent += text.length + STRING;
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
}

const NO_TEXTS: readonly Uint8Array[] = [new TextEncoder().encode("<sst/>")];

/** Gathers a text of a workbook from its runs (18.4.8); how it is pronounced (18.4.6) is no part of it. */
export class TextReader {
  #text = "";
  #isIn = false;
  #phonetic = 0;

  begin(): void {
    this.#text = "";
  }

  open(element: string): void {
    if (element === "rPh") this.#phonetic++;
    if (element === "t") this.#isIn = this.#phonetic === 0;
  }

  text(text: string): void {
    if (this.#isIn) this.#text += text;
  }

  close(element: string): void {
    if (element === "rPh") this.#phonetic--;
    if (element === "t") this.#isIn = false;
  }

  taken(): string {
    return unescaped(this.#text);
  }
}

/** A text with the signs that XML cannot hold, which are written `_x000D_` (18.18.92, ST_Xstring). */
export function unescaped(text: string): string {
  if (!text.includes("_x")) return text;
  return text.replace(/_x([\da-fA-F]{4})_/g, (_, code: string) =>
    String.fromCharCode(Number.parseInt(code, 16)),
  );
}
