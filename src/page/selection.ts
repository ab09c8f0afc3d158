import { defined } from "../content/defined.js";
import type { Flavours } from "../formats/flavours.js";

/** Properties that make up the look of text; those in the second list are not inherited and have a plain value. */
const INHERITED = [
  "color",
  "font-family",
  "font-size",
  "font-style",
  "font-weight",
  "text-align",
  "white-space",
  "direction",
];
const OWN: Readonly<Record<string, string>> = {
  "background-color": "rgba(0, 0, 0, 0)",
  "text-decoration-line": "none",
  "vertical-align": "baseline",
};

/** Elements that mean something only with what they stand in. */
const NEEDS_PARENT = new Set(["ul", "ol", "table", "thead", "tbody", "tfoot", "tr", "dl"]);

/** What a field declares that holds a secret (HTML, 4.10.18.7.1, autofill field names). */
const SECRET_FIELDS = /\b(?:current-password|new-password|one-time-code|cc-number|cc-csc)\b/;

/**
 * What is selected, as the flavours a copy of it would offer: the text of a field, or HTML in which every element
 * carries the look that the page's style sheets give it, so that it keeps it elsewhere. Nothing when nothing is
 * selected.
 */
export function readSelection(root: Document = document): Flavours | undefined {
  const field = root.activeElement;
  if (field instanceof HTMLTextAreaElement || field instanceof HTMLInputElement) {
    if (field.type === "password") return undefined;
    const text = selectedIn(field);
    const secret = SECRET_FIELDS.test(field.autocomplete);
    if (text !== "") return { text, ...(secret && { secret }) };
  }
  const selection = root.getSelection();
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) return undefined;
  let html = "";
  for (let i = 0; i < selection.rangeCount; i++) html += rangeHtml(selection.getRangeAt(i));
  return { html, text: selection.toString() };
}

/** What is selected in a field; in one whose selection a page cannot see, what the browser says of it. */
function selectedIn(field: HTMLInputElement | HTMLTextAreaElement): string {
  const { selectionStart, selectionEnd, value } = field;
  if (selectionStart !== null && selectionEnd !== null) return value.slice(selectionStart, selectionEnd);
  return field.ownerDocument.getSelection()?.toString() ?? "";
}

/** What a clipboard event or a drop offers. Read it while the event lasts. */
export function readTransfer(transfer: DataTransfer): Flavours {
  const get = (type: string) => (transfer.types.includes(type) ? transfer.getData(type) : undefined);
  const html = get("text/html");
  const text = get("text/plain");
  return { ...defined({ html, text }) };
}

function rangeHtml(range: Range): string {
  const shared = range.commonAncestorContainer;
  const element = shared instanceof Element ? shared : shared.parentElement!;
  const page = element.closest("[data-drawer-page], article, main, body") ?? document.body;
  const holder = document.implementation.createHTMLDocument("").createElement("body");
  setLook(holder, page, undefined);
  const copied =
    shared instanceof Element && shared !== page
      ? copyChildren(shared, range, holder.ownerDocument)
      : copyAny(shared, range, holder);
  holder.append(wrapped(copied, element, page, range));
  return `<html>${holder.outerHTML}</html>`;
}

function copyAny(node: Node, range: Range, holder: HTMLElement): Node {
  return node instanceof Element
    ? copyChildren(node, range, holder.ownerDocument)
    : textInside(node as Text, range, holder.ownerDocument);
}

/** Puts around what was copied the elements it stood in, where they belong to it: inline ones, and rows' and items' own. */
function wrapped(copied: Node, from: Element, page: Element, range: Range): Node {
  let inner = copied;
  for (let element: Element | null = from; element && element !== page; element = element.parentElement) {
    const isInline = getComputedStyle(element).display === "inline";
    if (!isInline && !NEEDS_PARENT.has(element.localName) && !isWhollyInside(element, range)) break;
    const shell = shallowCopy(element, inner.ownerDocument!);
    shell.append(inner);
    inner = shell;
  }
  return inner;
}

function isWhollyInside(element: Element, range: Range): boolean {
  const text = element.textContent?.replace(/\s+/g, " ").trim() ?? "";
  return text !== "" && range.toString().replace(/\s+/g, " ").trim() === text;
}

function copyChildren(element: Element, range: Range, into: Document): DocumentFragment {
  const fragment = into.createDocumentFragment();
  for (const child of childrenInside(element, range)) {
    if (child instanceof Text) fragment.append(textInside(child, range, into));
    else if (child instanceof Element && getComputedStyle(child).userSelect !== "none") {
      const copy = shallowCopy(child, into);
      copy.append(copyChildren(child, range, into));
      fragment.append(copy);
    }
  }
  return fragment;
}

/**
 * The children of an element that stand in a range, at least in part. They are found from where it begins and ends: to ask of
 * each whether it stands in the range takes a browser longer the later it stands.
 */
function childrenInside(element: Element, range: Range): readonly Node[] {
  const { startContainer, startOffset, endContainer, endOffset } = range;
  const childOf = (node: Node) => {
    let child: Node | null = node;
    while (child && child.parentNode !== element) child = child.parentNode;
    return child;
  };
  const first =
    startContainer === element
      ? (element.childNodes[startOffset] ?? null)
      : (childOf(startContainer) ?? element.firstChild);
  const after =
    endContainer === element
      ? (element.childNodes[endOffset] ?? null)
      : (childOf(endContainer)?.nextSibling ?? null);
  const inside: Node[] = [];
  for (let child = first; child && child !== after; child = child.nextSibling) inside.push(child);
  if (element.localName !== "tr") return inside;
  // A selection stops short of the blank cells at a row's end; the row has them all the same.
  return [...element.childNodes].filter(
    (child) => inside.includes(child) || child.textContent?.trim() === "",
  );
}

function textInside(text: Text, range: Range, into: Document): Text {
  const from = range.startContainer === text ? range.startOffset : 0;
  const to = range.endContainer === text ? range.endOffset : text.length;
  return into.createTextNode(text.data.slice(from, to));
}

function shallowCopy(element: Element, into: Document): Element {
  const copy = into.importNode(element, false);
  copy.removeAttribute("style");
  if (copy instanceof HTMLElement || "style" in copy)
    setLook(copy as HTMLElement, element, element.parentElement ?? undefined);
  return copy;
}

/** Writes what the element's look adds to its parent's; all of it when there is no parent. */
function setLook(copy: HTMLElement, element: Element, parent: Element | undefined): void {
  const look = getComputedStyle(element);
  const around = parent && getComputedStyle(parent);
  for (const property of INHERITED) {
    const value = look.getPropertyValue(property);
    if (value !== around?.getPropertyValue(property)) copy.style.setProperty(property, value);
  }
  for (const [property, plain] of Object.entries(OWN)) {
    const value = look.getPropertyValue(property);
    if (parent && value !== plain) copy.style.setProperty(property, value);
  }
}
