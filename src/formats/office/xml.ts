import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { formatErrors } from "../../messages/en/formats.js";
import { attributeIn, xmlParser, type Attributes } from "./xml-parser.js";

/** What an element holds that holds nothing. */
const NONE: (Element | string)[] = [];

/** An element of a part of a file. Names are used without their prefix throughout: the two office formats do not use one
 * local name for different things in one place. */
export class Element {
  #children: (Element | string)[] = NONE;

  constructor(
    readonly localName: string,
    readonly attributes: Attributes,
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
    attributes: Attributes,
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
  const open: Element[] = [];
  let root: Element | undefined;
  let elements = 0;
  const parser = xmlParser({
    open(name, attributes) {
      const element = new Element(name, attributes);
      open.at(-1)?.append(element);
      root ??= element;
      open.push(element);
      if (++elements > LIMITS.elements) throw tooLarge(file, "elements", LIMITS.elements);
      if (open.length > DEPTH) throw tooLarge(file, "depth", DEPTH);
    },
    text: (text) => open.at(-1)?.append(text),
    close: () => void open.pop(),
  });
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

/** The child elements of an element. */
export function childrenOf({ children }: Element): readonly Element[] {
  // Of most there are only elements, or only a text.
  return children.every(isElement) ? children : children.filter(isElement);
}

function isElement(child: Element | string): child is Element {
  return typeof child !== "string";
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

/** An attribute of an element by its local name. */
export function attributeOf(element: Element | undefined, name: string): string | undefined {
  return element && attributeIn(element.attributes, name);
}
