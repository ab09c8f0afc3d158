import { SaxesParser } from "saxes";
import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { formatErrors } from "../../messages/en/formats.js";

/** What an element holds that holds nothing. */
const NONE: (Element | string)[] = [];

/** An element of a part of a file. Names are used without their prefix throughout: the two office formats do not use one
 * local name for different things in one place. */
export class Element {
  #children: (Element | string)[] = NONE;

  /** @param attributes names and values in turn */
  constructor(
    readonly localName: string,
    readonly attributes: readonly string[],
  ) {}

  /** The elements and texts in it, in order. */
  get children(): readonly (Element | string)[] {
    return this.#children;
  }

  append(child: Element | string): void {
    // Most elements hold one thing, and a list that grows keeps room for many.
    if (this.#children === NONE) this.#children = [child];
    else this.#children.push(child);
  }

  /** All text in it. */
  get textContent(): string {
    let text = "";
    for (const child of this.children) text += typeof child === "string" ? child : child.textContent;
    return text;
  }
}

/** An element that knows its number among those of its part, from 1, by where they begin: those of a file that is to be changed do. */
export class NumberedElement extends Element {
  constructor(
    localName: string,
    attributes: readonly string[],
    readonly number: number,
  ) {
    super(localName, attributes);
  }
}

/** How deep elements may stand in each other. Those who read them go into them by calling themselves. */
export const DEPTH = 256;

/**
 * Parses a part of a file (XML 1.0). Documents have no entities of their own; a part that uses one is refused.
 *
 * @throws DrawerError `unreadable` when it is not well-formed, `too-large` past {@link LIMITS}
 */
export function parseXml(xml: string, file: string): Element {
  const parser = new SaxesParser();
  const open: Element[] = [];
  let root: Element | undefined;
  let elements = 0;
  parser.on("opentag", ({ name, attributes }) => {
    const element = new Element(localName(name), pairsOf(attributes));
    open.at(-1)?.append(element);
    root ??= element;
    open.push(element);
    if (++elements > LIMITS.elements) throw tooLarge(file, "elements", LIMITS.elements);
    if (open.length > DEPTH) throw tooLarge(file, "depth", DEPTH);
  });
  parser.on("closetag", () => void open.pop());
  const text = (characters: string) => open.at(-1)?.append(characters);
  parser.on("text", text);
  parser.on("cdata", text);
  try {
    parser.write(xml).close();
  } catch (error) {
    if (error instanceof DrawerError) throw error;
    throw new DrawerError(formatErrors, "unreadable/part", { file }, { cause: error });
  }
  if (!root) throw new DrawerError(formatErrors, "unreadable/part", { file });
  return root;
}

function tooLarge(file: string, what: "elements" | "depth", most: number): DrawerError {
  return new DrawerError(formatErrors, "too-large/document", { file, what, most });
}

/** Names without their prefixes, and values, in turn. */
export function pairsOf(attributes: Readonly<Record<string, string>>): readonly string[] {
  let pairs: string[] | undefined;
  for (const key in attributes) {
    const [name, value] = [localName(key), attributes[key]!];
    if (pairs) pairs.push(name, value);
    else pairs = [name, value];
  }
  return pairs ?? NO_PAIRS;
}

const NO_PAIRS: readonly string[] = [];

/** A name without its prefix. */
export function localName(name: string): string {
  return name.slice(name.indexOf(":") + 1);
}

/** The child elements of an element. */
export function* childrenOf(element: Element): Generator<Element> {
  for (const child of element.children) if (typeof child !== "string") yield child;
}

/** The first child of that name. */
export function childOf(element: Element | undefined, name: string): Element | undefined {
  if (!element) return undefined;
  for (const child of element.children)
    if (typeof child !== "string" && child.localName === name) return child;
  return undefined;
}

/** All descendants of that name, in document order. */
export function descendantsOf(element: Element, name: string): Element[] {
  const found: Element[] = [];
  for (const child of childrenOf(element)) {
    if (child.localName === name) found.push(child);
    for (const inside of descendantsOf(child, name)) found.push(inside);
  }
  return found;
}

/** An attribute's value by its local name; the first of those that have it. */
export function attributeOf(element: Element | undefined, name: string): string | undefined {
  if (!element) return undefined;
  const { attributes } = element;
  for (let i = 0; i < attributes.length; i += 2) if (attributes[i] === name) return attributes[i + 1]!;
  return undefined;
}
