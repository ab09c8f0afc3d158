import { DOMParser, type Document, type Element, type Node } from "@xmldom/xmldom";
import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";

export type { Document, Element };

/**
 * Parses a part of a file. Names are used without their prefix throughout: the two office formats do not use one local
 * name for different things in one place.
 *
 * @throws DrawerError `unreadable` when it is not well-formed, `too-large` past {@link LIMITS}
 */
export function parseXml(xml: string, file: string): Element {
  checkElements(xml, file);
  let failure: string | undefined;
  const parser = new DOMParser({
    onError: (level, message) => {
      if (level !== "warning") failure ??= message;
    },
  });
  try {
    const root = parser.parseFromString(xml, "text/xml").documentElement;
    if (root && failure === undefined) return root;
  } catch (error) {
    failure ??= error instanceof Error ? error.message : String(error);
  }
  throw new DrawerError("unreadable/part", { file }, { cause: failure });
}

/** How deep elements may stand in each other. Those who read them go into them by calling themselves. */
const DEPTH = 256;

/** Counts the elements of a part, and how deep they stand, before any of them is built. */
function checkElements(xml: string, file: string): void {
  let elements = 0;
  let depth = 0;
  for (let at = xml.indexOf("<"); at >= 0; at = xml.indexOf("<", at + 1)) {
    const next = xml.charCodeAt(at + 1);
    if (next === SLASH) depth--;
    else if (next !== MARK && next !== QUESTION) {
      const end = xml.indexOf(">", at);
      if (end < 0 || xml.charCodeAt(end - 1) !== SLASH) depth++;
      elements++;
    }
    const isTooMany = elements > LIMITS.elements;
    if (!isTooMany && depth <= DEPTH) continue;
    const what = isTooMany ? "elements" : "depth";
    throw new DrawerError("too-large/document", { file, what, most: isTooMany ? LIMITS.elements : DEPTH });
  }
}

const SLASH = 0x2f;
const MARK = 0x21;
const QUESTION = 0x3f;

/** The child elements of an element. */
export function* childrenOf(element: Element): Generator<Element> {
  for (let node: Node | null = element.firstChild; node; node = node.nextSibling) {
    if (node.nodeType === 1) yield node as Element;
  }
}

/** The first child of that name. */
export function childOf(element: Element | undefined, name: string): Element | undefined {
  if (!element) return undefined;
  for (const child of childrenOf(element)) if (child.localName === name) return child;
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

/** An attribute's value by its local name. */
export function attributeOf(element: Element | undefined, name: string): string | undefined {
  if (!element) return undefined;
  const { attributes } = element;
  for (let i = 0; i < attributes.length; i++) {
    const attribute = attributes.item(i)!;
    if ((attribute.localName ?? attribute.name) === name) return attribute.value;
  }
  return undefined;
}
