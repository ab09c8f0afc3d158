/** Where an element stands in the text of a part. */
export interface XmlPlace {
  /** Its name without its prefix. */
  readonly name: string;
  /** Its number among the elements of the part, from 1, by where they begin. */
  readonly number: number;
  /** Where its start tag begins, and what stands in it. */
  readonly start: number;
  readonly inner: number;
  /** Where what stands in it ends, and its end tag. */
  readonly innerEnd: number;
  readonly end: number;
  /** The element that it stands in. */
  readonly parent: XmlPlace | undefined;
}

type Open = { -readonly [Key in keyof XmlPlace]: XmlPlace[Key] };

/** A tag: what it is, where it begins and ends, and where its name does. */
type OnTag = (
  kind: "start" | "end" | "alone",
  from: number,
  to: number,
  name: [from: number, to: number],
) => boolean;

const CODE = { '"': 34, "'": 39, "/": 47, ">": 62, "!": 33, "?": 63 } as const;

/**
 * Goes through the tags of XML that is well-formed (XML 1.0, 2.4 to 3.1), past comments, sections of characters and instructions.
 * @param onTag is called for each; the way ends where it says that it does not go on
 */
function scanTags(text: string, from: number, to: number, onTag: OnTag): void {
  for (let at = text.indexOf("<", from); at >= 0 && at < to;) {
    const first = text.charCodeAt(at + 1);
    let end: number;
    if (first === CODE["!"] || first === CODE["?"]) end = endOfOther(text, at);
    else {
      const isEnd = first === CODE["/"];
      const nameFrom = at + (isEnd ? 2 : 1);
      const nameTo = endOfName(text, nameFrom);
      end = endOfTag(text, nameTo);
      const kind = isEnd ? "end" : text.charCodeAt(end - 2) === CODE["/"] ? "alone" : "start";
      if (!onTag(kind, at, end, [nameFrom, nameTo])) return;
    }
    at = text.indexOf("<", end);
  }
}

function endOfOther(text: string, at: number): number {
  const close = text.startsWith("<!--", at)
    ? "-->"
    : text.startsWith("<![CDATA[", at)
      ? "]]>"
      : text.startsWith("<?", at)
        ? "?>"
        : ">";
  const found = text.indexOf(close, at + 2);
  return found < 0 ? text.length : found + close.length;
}

function endOfName(text: string, from: number): number {
  let at = from;
  for (let code = text.charCodeAt(at); code > 32 && code !== CODE["/"] && code !== CODE[">"];)
    code = text.charCodeAt(++at);
  return at;
}

/** Behind the `>` of a tag: one in the value of an attribute is none. */
function endOfTag(text: string, from: number): number {
  for (let at = from; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (code === CODE[">"]) return at + 1;
    if (code === CODE['"'] || code === CODE["'"]) {
      const close = text.indexOf(code === CODE['"'] ? '"' : "'", at + 1);
      if (close < 0) break;
      at = close;
    }
  }
  return text.length;
}

function nameAt(text: string, [from, to]: readonly [number, number]): string {
  const name = text.slice(from, to);
  return name.slice(name.indexOf(":") + 1);
}

/**
 * The elements of a part, each when it ends: those in an element come before it.
 * @param text the text of the part, which is well-formed
 * @param from where to begin: before an element
 * @param to where to end
 */
export function xmlPlaces(text: string, from = 0, to = text.length): XmlPlace[] {
  const open: Open[] = [];
  const ended: XmlPlace[] = [];
  let number = 0;
  scanTags(text, from, to, (kind, start, end, name) => {
    if (kind === "end") {
      const place = open.pop();
      if (!place) return false;
      place.innerEnd = start;
      place.end = end;
      ended.push(place);
      return true;
    }
    const place: Open = {
      ...{ name: nameAt(text, name), number: ++number, parent: open.at(-1) },
      ...{ start, inner: end, innerEnd: end, end },
    };
    (kind === "alone" ? ended : open).push(place);
    return true;
  });
  return ended;
}

/** The elements right in an element, in their order. */
export function childPlaces(text: string, { inner, innerEnd }: XmlPlace): XmlPlace[] {
  const found: XmlPlace[] = [];
  for (const place of xmlPlaces(text, inner, innerEnd)) if (!place.parent) found.push(place);
  return found;
}

/** How deep the text of a document stands in its part: what it stands in ends with the part. */
const TEXT_DEPTH = 3;

/** Where the elements of these numbers stand, by their numbers, with what they stand in up to the text of the document. */
export function placesOf(text: string, numbers: Iterable<number>): Map<number, XmlPlace> {
  const wanted = new Set(numbers);
  const found = new Map<number, XmlPlace>();
  // Of an element its number, start tag and name, until it is known that it is asked for, or stands around one that is.
  const open: { number: number; start: number; inner: number; name: [number, number]; place?: Open }[] = [];
  let [number, left] = [0, wanted.size];
  const placeAt = (depth: number): Open | undefined => {
    const element = open[depth];
    if (!element) return undefined;
    const { number: own, start, inner, name } = element;
    element.place ??= {
      ...{ name: nameAt(text, name), number: own, parent: placeAt(depth - 1) },
      ...{ start, inner, innerEnd: inner, end: inner },
    };
    return element.place;
  };
  scanTags(text, 0, text.length, (kind, start, end, name) => {
    if (kind !== "end") {
      number++;
      open.push({ number, start, inner: end, name });
      if (wanted.has(number)) found.set(number, placeAt(open.length - 1)!);
      if (kind === "start") return true;
    }
    const ended = open.pop();
    if (!ended) return false;
    if (ended.place) {
      if (kind === "end") Object.assign(ended.place, { innerEnd: start, end });
      if (wanted.has(ended.number)) left--;
    }
    // What they stand in has ended too, where an element ends that stands in nothing but the text.
    return left > 0 || open.length > TEXT_DEPTH;
  });
  return found;
}

/** Elements without those that stand in others of them. */
export function outermostPlaces(places: readonly XmlPlace[]): XmlPlace[] {
  return places.filter(
    (each) => !places.some((other) => other !== each && other.start <= each.start && each.end <= other.end),
  );
}

/** An attribute of an element as its start tag has it, by its name with its prefix; nothing when it is not there. */
export function attributeAt(text: string, { start, inner }: XmlPlace, name: string): string | undefined {
  const tag = text.slice(start, inner);
  const match = new RegExp(
    `\\s${name.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")}\\s*=\\s*(?:"([^"]*)"|'([^']*)')`,
  ).exec(tag);
  return match ? (match[1] ?? match[2]) : undefined;
}

/** What is done to a text at one place of it. */
export interface TextEdit {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

/** A text in which edits are made that do not overlap; those at one place in their order. */
export function edited(text: string, edits: readonly TextEdit[]): string {
  const inOrder = [...edits].sort((one, other) => one.from - other.from || one.to - other.to);
  let [made, at] = ["", 0];
  for (const { from, to, text: put } of inOrder) {
    made += text.slice(at, from) + put;
    at = to;
  }
  return made + text.slice(at);
}

/** The text of an attribute or of text in XML. */
export function plainText(xml: string): string {
  return xml.replace(
    /&(?:lt|gt|quot|apos|amp|#(\d+)|#x([\da-fA-F]+));/g,
    (all, decimal?: string, hex?: string) => {
      if (decimal ?? hex) return String.fromCodePoint(decimal ? Number(decimal) : parseInt(hex!, 16));
      return { "&lt;": "<", "&gt;": ">", "&quot;": '"', "&apos;": "'", "&amp;": "&" }[all]!;
    },
  );
}
