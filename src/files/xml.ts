import { DOMParser, type Document, type Element, type Node } from "@xmldom/xmldom";
import { DrawerError } from "../content/error.js";

export type { Document, Element };

/**
 * Parses a part of a file. Names are used without their prefix throughout: the two office formats do not use one local
 * name for different things in one place.
 *
 * @throws DrawerError `unreadable` when it is not well-formed
 */
export function parseXml(xml: string, file: string): Element {
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
  throw new DrawerError(
    "unreadable",
    `“${file}” is damaged: a part of it is not whole. Open it in its own program and save it again.`,
    {
      cause: failure,
    },
  );
}

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
