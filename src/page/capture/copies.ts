import type { Flavours } from "../../formats/flavours.js";
import { copiedCell } from "../places/grids.js";
import { deepTarget, readLine, readSelection, readTransfer, selectedElement } from "./selection.js";

/** What was copied or cut on a page. */
export interface CopiedOnPage {
  readonly flavours: Flavours;
  /** The element in which it was selected. */
  readonly element: Element;
  /** Whether it was cut: then the page does not have it any more. */
  readonly isCut?: boolean;
}

/** What hears of it. */
export interface CopiesOptions {
  /** Whether what is copied in an element is wanted at all. */
  readonly isWanted: (element: Element) => boolean;
  readonly copied: (copied: CopiedOnPage) => void;
  readonly signal: AbortSignal;
}

/**
 * Hears what is copied and cut on a page. An editor that prepares its own copy has put it in the event when that has passed
 * all others; otherwise what is selected is read, or the line of the caret when nothing is. A script that stops the event
 * hides nothing: what is selected is read a moment later then.
 */
export class Copies {
  /** The copy under way, and what reads it when the event does not come through. */
  #waiting:
    { readonly event: Event; readonly timer: number; readonly cut: CopiedOnPage | undefined } | undefined;

  constructor(readonly options: CopiesOptions) {}

  /** Hears of a document too: the page's own, or a frame's. */
  follow(document: Document): void {
    const { signal } = this.options;
    for (const type of ["copy", "cut"] as const) {
      document.defaultView!.addEventListener(type, (event) => this.#begins(event, document), {
        signal,
        capture: true,
      });
      document.defaultView!.addEventListener(type, (event) => this.#passes(event, document), { signal });
    }
  }

  #begins(event: ClipboardEvent, document: Document): void {
    if (!event.isTrusted && !event.clipboardData) return;
    // The window of a frame may have been followed for the empty document that it had before.
    if (this.#waiting?.event === event) return;
    const element = deepTarget(event);
    if (!element || !this.options.isWanted(selectedElement(document) ?? element)) return;
    // A cut takes away what is selected before a stopped event can be told.
    const cut = event.type === "cut" ? selectedIn(element, document) : undefined;
    const timer = window.setTimeout(() => {
      this.#waiting = undefined;
      this.#take(cut ?? selectedIn(element, document), event.type === "cut");
    });
    this.#waiting = { event, timer, cut };
  }

  #passes(event: ClipboardEvent, document: Document): void {
    const waiting = this.#waiting;
    if (waiting?.event !== event) return;
    clearTimeout(waiting.timer);
    this.#waiting = undefined;
    const element = deepTarget(event)!;
    const own = event.defaultPrevented && event.clipboardData ? readTransfer(event.clipboardData) : undefined;
    const isCut = event.type === "cut";
    if (own?.html || own?.text)
      return this.#take({ flavours: own, element: selectedElement(document) ?? element }, isCut);
    const selected = waiting.cut ?? selectedIn(element, document);
    if (selected || event.defaultPrevented || isCut) return this.#take(selected, isCut);
    const line = copiedCell(element) ?? readLine(element);
    if (!line) return;
    // The clipboard of the system has then what the drawer has.
    if (line.text !== undefined) event.clipboardData?.setData("text/plain", line.text);
    if (line.html !== undefined) event.clipboardData?.setData("text/html", line.html);
    event.preventDefault();
    this.#take({ flavours: line, element }, isCut);
  }

  #take(copied: CopiedOnPage | undefined, isCut: boolean): void {
    if (copied) this.options.copied(isCut ? { ...copied, isCut } : copied);
  }
}

function selectedIn(element: Element, document: Document): CopiedOnPage | undefined {
  const flavours = readSelection(element.getRootNode() as Document | ShadowRoot);
  return flavours && { flavours, element: selectedElement(document) ?? element };
}
