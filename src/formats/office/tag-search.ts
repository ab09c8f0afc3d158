import { DrawerError } from "../../content/error.js";
import { formatErrors } from "../../messages/en/formats.js";

/** A tag of an element that was looked for. */
export interface FoundTag {
  /** Where it begins and ends in its part, in bytes. */
  readonly from: number;
  readonly to: number;
  /** The tag as the part has it. */
  readonly text: string;
  /** The name of its element, with its prefix. */
  readonly name: string;
}

/**
 * Finds the tags of some elements in a part (XML 1.0) without parsing it.
 *
 * @param pieces what the part consists of, in UTF-8
 * @param names the names of the elements, with their prefixes
 * @param file the name of the file, for messages
 * @throws DrawerError `unreadable` at a tag of more than a megabyte
 */
export function findTags(
  pieces: Iterable<Uint8Array>,
  names: readonly string[],
  file: string,
): Generator<FoundTag, void> {
  return new TagSearch(names, file).through(pieces);
}

/** The longest tag that is looked at, in bytes. */
const LONGEST_TAG = 1 << 20;

const [QUOTE, APOSTROPHE, SLASH, LESS, GREATER] = [...`"'/<>`].map((sign) => sign.charCodeAt(0));

/** What stands in no tag and may look like one: how it begins, and how it ends (XML 1.0, 2.5 to 2.7). */
const LITERALS = [
  ["<!--", "-->"],
  ["<?", "?>"],
  ["<![CDATA[", "]]>"],
].map(([begin, end]) => ({ begin: bytesOf(begin!), end: bytesOf(end!) }));
const LITERAL_STARTS = ["<!", "<?"].map(bytesOf);
const LONGEST_BEGIN = Math.max(...LITERALS.map(({ begin }) => begin.length));

class TagSearch {
  readonly #names: TagNames;
  /** What has come of the part and is still looked at, from where in the part, and how far it has been gone through. */
  #bytes = new Uint8Array();
  #offset = 0;
  #at = 0;
  /** What ends the comment or the literal text in which the search stands. */
  #literalEnd: Uint8Array | undefined;

  constructor(
    names: readonly string[],
    readonly file: string,
  ) {
    this.#names = new TagNames(names);
  }

  *through(pieces: Iterable<Uint8Array>): Generator<FoundTag, void> {
    for (const piece of pieces) {
      const left = this.#bytes.subarray(this.#at);
      this.#bytes = new Uint8Array(left.length + piece.length);
      this.#bytes.set(left);
      this.#bytes.set(piece, left.length);
      this.#offset += this.#at;
      this.#at = 0;
      yield* this.#tags();
    }
  }

  /** The tags among the bytes that are there, up to where more of them are needed. */
  *#tags(): Generator<FoundTag, void> {
    while (this.#endLiteral()) {
      const literal = this.#nextLiteral();
      const found = this.#names.next(this.#bytes, this.#at, literal ?? this.#bytes.length);
      if (found) {
        this.#at = found.from;
        const end = endOfTag(this.#bytes, found.from);
        if (end === undefined) return this.#checkLength();
        const [from, to] = [this.#offset + found.from, this.#offset + end];
        const text = new TextDecoder().decode(this.#bytes.subarray(found.from, end));
        yield { from, to, text, name: found.name };
        this.#at = end;
      } else if (literal !== undefined) {
        this.#at = literal;
        if (!this.#beginLiteral()) return;
      } else {
        this.#at = Math.max(this.#at, this.#bytes.length - this.#names.longest - "</".length);
        return;
      }
    }
  }

  #checkLength(): void {
    if (this.#bytes.length - this.#at > LONGEST_TAG)
      throw new DrawerError(formatErrors, "unreadable/part", { file: this.file });
  }

  #nextLiteral(): number | undefined {
    const places = LITERAL_STARTS.map((start) => indexOf(this.#bytes, start, this.#at));
    const found = places.filter((place) => place >= 0);
    return found.length === 0 ? undefined : Math.min(...found);
  }

  /** Goes into a comment or a literal text that begins here. Returns false when more bytes are needed to tell. */
  #beginLiteral(): boolean {
    if (this.#bytes.length - this.#at < LONGEST_BEGIN) return false;
    const literal = LITERALS.find(({ begin }) => isAt(begin, this.#bytes, this.#at));
    this.#literalEnd = literal?.end;
    this.#at += literal?.begin.length ?? LITERAL_STARTS[0]!.length;
    return true;
  }

  /** Goes on behind the comment or the literal text that is open. Returns false when its end has not come. */
  #endLiteral(): boolean {
    const end = this.#literalEnd;
    if (!end) return true;
    const place = indexOf(this.#bytes, end, this.#at);
    if (place < 0) {
      this.#at = Math.max(this.#at, this.#bytes.length - end.length + 1);
      return false;
    }
    this.#at = place + end.length;
    this.#literalEnd = undefined;
    return true;
  }
}

/** What may follow a name in a tag (XML 1.0, 3.1). */
const AFTER_NAME = [0x20, 0x09, 0x0a, 0x0d, SLASH!, GREATER!];

/**
 * Names that are looked for in tags. The search looks at where the shortest of them could have ended, and goes on by as much as no
 * name can end in, by what stands there (Horspool's way): most bytes are not looked at.
 */
class TagNames {
  readonly #names: readonly { readonly name: string; readonly bytes: Uint8Array }[];
  readonly #step: number;
  /** By how much to go on from a byte; 0 for what may follow a name. */
  readonly #steps: Uint8Array;
  readonly longest: number;

  constructor(names: readonly string[]) {
    this.#names = names.map((name) => ({ name, bytes: bytesOf(name) }));
    const lengths = this.#names.map(({ bytes }) => bytes.length);
    this.longest = Math.max(...lengths);
    this.#step = Math.min(255, ...lengths) + 1;
    this.#steps = new Uint8Array(256).fill(this.#step);
    for (const { bytes } of this.#names)
      bytes.forEach((byte, index) => {
        this.#steps[byte] = Math.min(this.#steps[byte]!, bytes.length - index);
      });
    for (const byte of AFTER_NAME) this.#steps[byte] = 0;
  }

  /** The first tag that begins between two places and has one of the names. */
  next(bytes: Uint8Array, from: number, until: number): { from: number; name: string } | undefined {
    const [step, steps] = [this.#step, this.#steps];
    for (let at = from + step; at < until;) {
      const next = steps[bytes[at]!]!;
      const found = next === 0 ? this.#before(bytes, at) : undefined;
      if (found) return found;
      at += next === 0 ? step : next;
    }
    return undefined;
  }

  /** The tag whose name ends here. */
  #before(bytes: Uint8Array, end: number): { from: number; name: string } | undefined {
    for (const each of this.#names) {
      const begin = end - each.bytes.length;
      if (!isAt(each.bytes, bytes, begin)) continue;
      const from = bytes[begin - 1] === SLASH ? begin - 2 : begin - 1;
      if (bytes[from] === LESS) return { from, name: each.name };
    }
    return undefined;
  }
}

/** Where a tag that begins here ends; nothing when it has not come whole. What is in quotes does not end it. */
function endOfTag(bytes: Uint8Array, from: number): number | undefined {
  let quote: number | undefined;
  for (let at = from; at < bytes.length; at++) {
    const byte = bytes[at]!;
    if (quote !== undefined) {
      if (byte === quote) quote = undefined;
    } else if (byte === QUOTE || byte === APOSTROPHE) quote = byte;
    else if (byte === GREATER) return at + 1;
  }
  return undefined;
}

function indexOf(bytes: Uint8Array, sought: ArrayLike<number>, from: number): number {
  const last = sought.length - 1;
  for (let at = bytes.indexOf(sought[last]!, from + last); at >= 0; at = bytes.indexOf(sought[last]!, at + 1))
    if (isAt(sought, bytes, at - last)) return at - last;
  return -1;
}

function isAt(sought: ArrayLike<number>, bytes: Uint8Array, at: number): boolean {
  for (let index = sought.length - 1; index >= 0; index--)
    if (bytes[at + index] !== sought[index]) return false;
  return true;
}

function bytesOf(text: string): Uint8Array {
  return new TextEncoder().encode(text);
}
