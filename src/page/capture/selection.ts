import { bytesOfLetters } from "../../content/byte-letters.js";
import { defined } from "../../content/defined.js";
import type { Flavours } from "../../formats/flavours.js";
import type { Field } from "../places/field-types.js";

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
const OWN: readonly (readonly [property: string, plain: string])[] = [
  ["background-color", "rgba(0, 0, 0, 0)"],
  ["text-decoration-line", "none"],
  ["vertical-align", "baseline"],
];

/** Elements that mean something only with what they stand in. */
const NEEDS_PARENT = new Set(["ul", "ol", "table", "thead", "tbody", "tfoot", "tr", "dl"]);

/** What a field declares that holds a secret (HTML, 4.10.18.7.1, autofill field names). */
const SECRET_FIELDS = /\b(?:current-password|new-password|one-time-code|cc-number|cc-csc)\b/;

/** Types of input whose text is a secret, whatever they declare. */
const isPassword = (field: Field) => field.localName === "input" && field.type === "password";

/** Whether an element is a field that one writes in. By name and not by class: a frame has classes of its own. */
export function isField(element: Element | null): element is Field {
  return element?.localName === "textarea" || element?.localName === "input";
}

/** The element that an event is about, in a shadow tree too, where that is open. */
export function deepTarget(event: Event): Element | undefined {
  const [node] = event.composedPath() as Partial<Node>[];
  const element = node?.nodeType === Node.ELEMENT_NODE ? (node as Element) : node?.parentElement;
  return element ?? undefined;
}

/**
 * What is selected, as the flavours a copy of it would offer: the text of a field, or HTML in which every element
 * carries the look that the page's style sheets give it, so that it keeps it elsewhere. Nothing when nothing is
 * selected, and nothing of a password.
 *
 * @param root the document, or a shadow tree in it
 */
export function readSelection(root: Document | ShadowRoot = document): Flavours | undefined {
  const field = root.activeElement;
  if (isField(field)) {
    if (isPassword(field)) return undefined;
    const text = selectedIn(field);
    if (text !== "") return textOf(field, text);
  }
  const ranges = rangesIn(root).filter((range) => !range.collapsed);
  if (ranges.length === 0) return undefined;
  const inDocument = root.nodeType === Node.DOCUMENT_NODE ? (root as Document).getSelection() : undefined;
  const text = inDocument?.toString() ?? ranges.map(String).join("");
  return { html: ranges.map(rangeHtml).join(""), text };
}

/** The element in which something is selected, or the caret stands. */
export function selectedElement(document: Document): Element | undefined {
  const node = document.getSelection()?.anchorNode;
  return (node?.nodeType === Node.ELEMENT_NODE ? (node as Element) : node?.parentElement) ?? undefined;
}

/**
 * The line that the caret stands in, for a copy when nothing is selected: of a field, or the paragraph, item or cell around
 * it. Nothing when there is no caret, and nothing of a password.
 *
 * @param element what has the focus, or was clicked
 */
export function readLine(element: Element): Flavours | undefined {
  if (isField(element)) {
    const { selectionStart: caret, value } = element;
    if (isPassword(element) || caret === null) return undefined;
    const begins = value.lastIndexOf("\n", caret - 1) + 1;
    const ends = value.indexOf("\n", caret);
    const text = value.slice(begins, ends < 0 ? undefined : ends);
    return text.trim() === "" ? undefined : textOf(element, text);
  }
  const [caret] = rangesIn(element.getRootNode() as Document | ShadowRoot);
  if (!caret) return undefined;
  let block: Node | null = caret.startContainer;
  while (block && (block.nodeType !== Node.ELEMENT_NODE || isInline(block as Element)))
    block = block.parentNode;
  if (!block || (block as Element).matches("body, main, article, [role=application]")) return undefined;
  const range = block.ownerDocument!.createRange();
  range.selectNodeContents(block);
  const text = (block as HTMLElement).innerText ?? block.textContent;
  return text.trim() === "" ? undefined : { html: rangeHtml(range), text };
}

function isInline(element: Element): boolean {
  return getComputedStyle(element).display.startsWith("inline");
}

function textOf(field: Field, text: string): Flavours {
  const secret = SECRET_FIELDS.test(field.autocomplete);
  return { text, ...(secret && { secret }) };
}

/** What is selected in a field; in one whose selection a page cannot see, what the browser says of it. */
function selectedIn(field: Field): string {
  const { selectionStart, selectionEnd, value } = field;
  if (selectionStart !== null && selectionEnd !== null) return value.slice(selectionStart, selectionEnd);
  return field.ownerDocument.getSelection()?.toString() ?? "";
}

/** The ranges that are selected, or the caret. In a shadow tree a browser tells only who asks for that tree. */
function rangesIn(root: Document | ShadowRoot): Range[] {
  const document = root.nodeType === Node.DOCUMENT_NODE ? (root as Document) : root.ownerDocument!;
  const selection = document.getSelection();
  if (!selection || selection.rangeCount === 0) return [];
  if (root !== document && "getComposedRanges" in selection) {
    return selection.getComposedRanges({ shadowRoots: [root as ShadowRoot] }).map((found) => {
      const range = document.createRange();
      range.setStart(found.startContainer, found.startOffset);
      range.setEnd(found.endContainer, found.endOffset);
      return range;
    });
  }
  return Array.from({ length: selection.rangeCount }, (_, at) => selection.getRangeAt(at));
}

/**
 * What a clipboard event or a drop offers as text. Read it while the event lasts.
 * @param transfer of a paste, a drop or a copy
 */
export function readTransfer(transfer: DataTransfer): Flavours {
  const get = (type: string) => (transfer.types.includes(type) ? transfer.getData(type) : undefined);
  const html = get("text/html");
  const text = get("text/plain");
  // Each letter is a byte of it.
  const rtf = html === undefined ? get("text/rtf") : undefined;
  return {
    ...defined({ html, text }),
    ...(rtf && { rtf: bytesOfLetters(rtf) }),
  };
}

function rangeHtml(range: Range): string {
  const shared = range.commonAncestorContainer;
  const element = isElement(shared) ? shared : shared.parentElement!;
  const page =
    element.closest("[data-drawer-page], article, main, body") ?? element.ownerDocument.documentElement;
  const holder = document.implementation.createHTMLDocument("").createElement("body");
  setLook(holder, page, undefined);
  const copied =
    isElement(shared) && shared !== page
      ? copyChildren(shared, range, holder.ownerDocument)
      : copyAny(shared, range, holder);
  holder.append(wrapped(copied, element, page, range));
  // Nothing on the page is held on to.
  looks = new Map();
  return `<html>${holder.outerHTML}</html>`;
}

function copyAny(node: Node, range: Range, holder: HTMLElement): Node {
  return isElement(node)
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
    if (child.nodeType === Node.TEXT_NODE) fragment.append(textInside(child as Text, range, into));
    else if (isElement(child) && getComputedStyle(child).userSelect !== "none") {
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

/** What an element of a grid is in a table, by its role (WAI-ARIA 1.2): grids are drawn from elements without a meaning. */
const TABLE_ROLES: Readonly<Record<string, string>> = {
  ...{ table: "table", grid: "table", treegrid: "table", rowgroup: "tbody", row: "tr" },
  ...{ cell: "td", gridcell: "td", columnheader: "th", rowheader: "th" },
};

function shallowCopy(element: Element, into: Document): HTMLElement {
  const role = element.localName === "div" ? TABLE_ROLES[element.getAttribute("role") ?? ""] : undefined;
  const copy = role === undefined ? into.importNode(element, false) : into.createElement(role);
  copy.removeAttribute("style");
  if ("style" in copy) setLook(copy as HTMLElement, element, element.parentElement ?? undefined);
  return copy as HTMLElement;
}

function isElement(node: Node): node is Element {
  return node.nodeType === Node.ELEMENT_NODE;
}

/** The looks of elements, as they are asked for while one selection is read: each is the parent of many. */
let looks = new Map<Element, readonly string[]>();

function inheritedLook(element: Element): readonly string[] {
  const known = looks.get(element);
  if (known) return known;
  const computed = getComputedStyle(element);
  const look = INHERITED.map((property) => computed.getPropertyValue(property));
  looks.set(element, look);
  return look;
}

/** Writes what the element's look adds to its parent's; all of it when there is no parent. */
function setLook(copy: HTMLElement, element: Element, parent: Element | undefined): void {
  const look = inheritedLook(element);
  const around = parent && inheritedLook(parent);
  for (const [at, property] of INHERITED.entries()) {
    if (look[at] !== around?.[at]) copy.style.setProperty(property, look[at]!);
  }
  const computed = getComputedStyle(element);
  for (const [property, plain] of OWN) {
    const value = computed.getPropertyValue(property);
    if (parent && value !== plain) copy.style.setProperty(property, value);
  }
}
