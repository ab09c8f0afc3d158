/** The trees that a page is made of: its document, open shadow trees, and frames of the same site. */

/** The tree in an element, where there is one that may be looked into. */
function treeIn(element: Element | null): Document | ShadowRoot | undefined {
  const frame = element?.localName === "iframe" ? (element as HTMLIFrameElement).contentDocument : undefined;
  return element?.shadowRoot ?? frame ?? undefined;
}

/**
 * The innermost tree that has the focus.
 * @param closed the name of an element that is not looked into
 */
export function focusedRoot(document: Document, closed: string): Document | ShadowRoot {
  let root: Document | ShadowRoot = document;
  let inner: Document | ShadowRoot | undefined = root;
  while (inner) {
    root = inner;
    inner = root.activeElement?.localName === closed ? undefined : treeIn(root.activeElement);
  }
  return root;
}

/** The element in whose shadow tree or frame another stands; nothing for one of the page itself. */
export function hostOf(element: Element): Element | undefined {
  const { host } = element.getRootNode() as Partial<ShadowRoot>;
  return host ?? element.ownerDocument.defaultView?.frameElement ?? undefined;
}
