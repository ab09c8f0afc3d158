import type { SaxesParser } from "saxes";
import { DrawerError } from "../../content/error.js";
import { formatErrors } from "../../messages/en/formats.js";
import { xmlParser, type XmlHandler } from "./xml-parser.js";

/** A part of a file (XML 1.0) that is read piece by piece, as far as it is asked for. */
export class XmlStream {
  readonly #parser: SaxesParser;
  readonly #decoder = new TextDecoder();
  /** The name of the outermost element as the file has it. */
  root = "";
  #isRead = false;

  /** @param pieces what the part consists of, in UTF-8 */
  constructor(
    readonly pieces: Iterator<Uint8Array>,
    readonly file: string,
    handler: XmlHandler,
  ) {
    this.#parser = xmlParser(handler);
    this.#parser.on("opentagstart", ({ name }) => {
      this.root = name;
      this.#parser.off("opentagstart");
    });
  }

  /** Whether all of it has been read. */
  get isRead(): boolean {
    return this.#isRead;
  }

  /**
   * Reads on by a piece.
   * @throws DrawerError `unreadable` when it is not well-formed
   */
  readOn(): void {
    if (this.#isRead) return;
    const { done, value } = this.pieces.next();
    try {
      if (!done) this.#parser.write(this.#decoder.decode(value, { stream: true }));
      else this.#parser.write(this.#decoder.decode()).close();
    } catch (error) {
      if (error instanceof DrawerError) throw error;
      throw new DrawerError(formatErrors, "unreadable/part", { file: this.file }, { cause: error });
    }
    this.#isRead = done === true;
  }
}

/**
 * What follows the end of an element in a part, in a root of the same name, so that it can be parsed alone.
 * @param root the name of the part's outermost element as the file has it
 * @param name the name of the element, without its prefix
 */
export function* afterElement(
  pieces: Iterable<Uint8Array>,
  root: string,
  name: string,
): Generator<Uint8Array> {
  const mark = new TextEncoder().encode(`${name}>`);
  let before = new Uint8Array();
  let isAfter = false;
  for (const piece of pieces) {
    if (isAfter) {
      yield piece;
      continue;
    }
    const bytes = new Uint8Array(before.length + piece.length);
    bytes.set(before);
    bytes.set(piece, before.length);
    const end = endOfElement(bytes, mark);
    isAfter = end !== undefined;
    if (isAfter) {
      yield new TextEncoder().encode(`<${root}>`);
      yield bytes.subarray(end);
    }
    before = bytes.slice(-(mark.length + MOST_PREFIX));
  }
}

/** How long what stands before a name in its end tag may be: `</` and a prefix. */
const MOST_PREFIX = 64;
const SLASH = 0x2f;
const LESS = 0x3c;

/** Where what follows an end tag begins; nothing when it is not among the bytes. */
function endOfElement(bytes: Uint8Array, mark: Uint8Array): number | undefined {
  // Capitals are rare in names and numbers: they are looked for first.
  const rare = Math.max(
    0,
    mark.findIndex((byte) => byte >= 0x41 && byte <= 0x5a),
  );
  for (let at = bytes.indexOf(mark[rare]!); at >= 0; at = bytes.indexOf(mark[rare]!, at + 1)) {
    const from = at - rare;
    if (from < 2 || !mark.every((byte, index) => bytes[from + index] === byte)) continue;
    const tag = bytes.lastIndexOf(LESS, from);
    if (tag >= 0 && bytes[tag + 1] === SLASH) return from + mark.length;
  }
  return undefined;
}
