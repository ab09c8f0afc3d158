import { trustedHtml } from "../trusted-html.js";

/** The line in which the caret stands, and what stands before and after it there. */
export interface LineOfCaret {
  /** The element that makes the line: a paragraph, an item, a cell, the editor itself. */
  readonly element: Element;
  readonly before: Range;
  readonly after: Range;
}

/** The line of the caret, or of what is selected; nothing when that is elsewhere, or goes over several lines. */
export function lineOfCaret(host: HTMLElement): LineOfCaret | undefined {
  const selection = host.ownerDocument.getSelection();
  if (!selection || selection.rangeCount === 0) return undefined;
  const caret = selection.getRangeAt(0);
  if (!host.contains(caret.startContainer)) return undefined;
  const element = lineAround(caret.startContainer, host);
  if (!element.contains(caret.endContainer)) return undefined;
  const range = (fill: (range: Range) => void) => {
    const made = host.ownerDocument.createRange();
    made.selectNodeContents(element);
    fill(made);
    return made;
  };
  return {
    element,
    before: range((made) => made.setEnd(caret.startContainer, caret.startOffset)),
    after: range((made) => made.setStart(caret.endContainer, caret.endOffset)),
  };
}

/** The element that makes the line in which a node stands. */
function lineAround(node: Node, host: HTMLElement): Element {
  let line = node;
  while (line !== host && !isBlock(line)) line = line.parentNode!;
  return line as Element;
}

/** Whether a node makes a line of its own. */
function isBlock(node: Node): boolean {
  return node.nodeType === Node.ELEMENT_NODE && getComputedStyle(node as Element).display !== "inline";
}

/** Whether words stand in a part of a line. */
export function hasWords(part: Range | undefined): boolean {
  return part !== undefined && part.toString().trim() !== "";
}

/** Elements that may hold several paragraphs: the halves of their line become paragraphs in them. */
const HOLDERS = "li, td, th, div, blockquote, dd, section, article";

/**
 * Puts a block of several lines between the two halves of the line of the caret, by the browser's own command, so that it is one step
 * of its undo. The command alone would run the ends of the block together with what stands beside them.
 *
 * @param html what is put there: elements that are lines of their own
 * @param isTableLast whether it ends with a table, in which the caret would stay
 * @returns whether it was done; it is not where the line is more than words
 */
export function insertBetween(host: HTMLElement, html: string, isTableLast: boolean): boolean {
  const line = lineOfCaret(host);
  if (!line || [...line.element.children].some(isBlock)) return false;
  const { element, before, after } = line;
  const isHolder = element === host || element.matches(HOLDERS);
  const selection = host.ownerDocument.getSelection()!;
  const next = isHolder ? null : element.nextElementSibling;
  const hasAfter = hasWords(after);
  const halves = [before, after].map((half, at) =>
    hasWords(half) ? halfHtml(half, isHolder ? undefined : element, at === 0 || !hasWords(before)) : "",
  );
  const tail = isTableLast && !hasAfter && !next ? "<p><br></p>" : "";
  const whole = host.ownerDocument.createRange();
  // Firefox leaves an emptied paragraph behind; Chromium runs what takes the place of a whole one together with the next.
  if (isHolder || !CSS.supports("-moz-appearance", "none")) whole.selectNodeContents(element);
  else whole.selectNode(element);
  selection.removeAllRanges();
  selection.addRange(whole);
  const given = `${halves[0]}${html}${tail}${halves[1]}`;
  if (!host.ownerDocument.execCommand("insertHTML", false, trustedHtml(given))) return false;
  if (hasAfter) selection.collapse(lineAround(selection.focusNode!, host), 0);
  else if (isTableLast && next?.isConnected) selection.collapse(next, 0);
  return true;
}

/**
 * Half of a line as HTML.
 * @param element the paragraph whose half it is; without it, it becomes one
 * @param keepsId whether it keeps the paragraph's id, which only one of the halves may have
 */
function halfHtml(half: Range, element: Element | undefined, keepsId: boolean): string {
  const holder = (element?.cloneNode(false) ?? document.createElement("div")) as Element;
  if (!keepsId) holder.removeAttribute("id");
  holder.append(half.cloneContents());
  return holder.outerHTML;
}
