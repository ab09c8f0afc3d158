import { DrawerError } from "../../content/error.js";
import type { NamedPlace } from "../../messages/core/names.js";
import { pageErrors } from "../../messages/en/page.js";
import { describePlace } from "./name.js";
import type { Caret, Place } from "./place.js";
import { placeOf } from "./index.js";

/** Where the user was last. */
export interface LastPlace {
  /** What has had the focus. */
  readonly element: Element;
  /** What can be placed in; nothing where it is something that one writes in, and that takes nothing. */
  readonly place: Place | undefined;
  /** Where its caret was last, or what was selected. */
  readonly caret: Caret | undefined;
}

/** What one writes or chooses in: whoever was there last does not mean a place before it. */
const WRITTEN_IN =
  "input, textarea, select, iframe, [role=textbox], [role=grid], [role=gridcell], [contenteditable]";
/** Types of input in which nothing is written. */
const PRESSED = /^(?:button|submit|reset|image|checkbox|radio|hidden)$/;

/** Follows where the user is on a page: in its fields, editors, open shadow trees and frames of the same site. */
export class PlaceTracker {
  #last: { readonly element: Element; readonly place: Place | undefined } | undefined;
  /** Where the caret was last in each place, by its element. */
  readonly #carets = new WeakMap<Element, Caret>();
  /** The documents that are followed: the page's own, and those of frames. */
  readonly documents = new Set<Document>();

  /**
   * @param options `placeIn` knows places that Drawer does not, `ignore` tells what is not the page's, such as the drawer
   * itself, `changed` is called when the user is somewhere else, `entered` for each
   * document, `signal` ends it
   */
  constructor(
    readonly options: {
      readonly placeIn?: ((element: Element) => Place | undefined) | undefined;
      readonly ignore: (path: readonly EventTarget[]) => boolean;
      readonly changed: () => void;
      /** Is called for each document that is followed: the page's own, and those of frames. */
      readonly entered: (document: Document) => void;
      readonly signal: AbortSignal;
    },
  ) {
    this.#follow(document);
    this.#goTo(document);
    // A browser may tell that the window has lost the focus before it says to which frame.
    const left = () => setTimeout(() => this.#goTo(document), 0);
    window.addEventListener("blur", left, { signal: options.signal });
  }

  /** Where the user was last; nothing before they were anywhere, or when it is gone. */
  get last(): LastPlace | undefined {
    return this.#last && this.at(this.#last);
  }

  /**
   * The same, where something is to be placed there.
   * @throws DrawerError `nothing` before they were anywhere
   */
  here(): LastPlace {
    if (!this.last) throw new DrawerError(pageErrors, "nothing/target", {});
    return this.last;
  }

  /** A place where the user was before, with its caret; nothing when it is gone. */
  at({ element, place }: Pick<LastPlace, "element" | "place">): LastPlace | undefined {
    if (!element.isConnected) return undefined;
    return { element, place, caret: offsetsIn(element) ?? this.#carets.get(element) };
  }

  #follow(root: Document): void {
    if (this.documents.has(root)) return;
    for (const gone of this.documents) if (!gone.defaultView) this.documents.delete(gone);
    this.documents.add(root);
    this.options.entered(root);
    const { signal } = this.options;
    const focused = (event: Event) => this.#focused(event.composedPath());
    root.addEventListener("focusin", focused, { signal, capture: true });
    root.addEventListener("selectionchange", () => this.#selected(root), { signal });
    // Frames are followed before one is in them: the first key in one may come before it is known that it has the focus.
    const loaded = ({ target }: Event) => this.#followFrame(target as Element);
    root.addEventListener("load", loaded, { signal, capture: true });
    for (const frame of root.getElementsByTagName("iframe")) this.#followFrame(frame);
  }

  /** Follows the document of a frame, and returns it; that of another site's frame is not to be had. */
  #followFrame(frame: Element): Document | undefined {
    if (frame.localName !== "iframe") return undefined;
    const inside = (frame as HTMLIFrameElement).contentDocument ?? undefined;
    if (inside) this.#follow(inside);
    return inside;
  }

  /** Takes what has the focus in a document, or in the frame that has it, for where the user is. */
  #goTo(root: Document): void {
    const path: EventTarget[] = [];
    for (let active = root.activeElement; active; active = active.shadowRoot?.activeElement ?? null) {
      const inside = this.#followFrame(active);
      if (inside) return this.#goTo(inside);
      path.unshift(active);
    }
    if (path.length > 0) this.#focused(path);
  }

  #focused(path: readonly EventTarget[]): void {
    const element = path[0] as Element;
    if (!element.matches || this.options.ignore(path)) return;
    const place = this.options.placeIn?.(element) ?? placeOf(element);
    const isWrittenIn =
      element.matches(WRITTEN_IN) && !PRESSED.test((element as HTMLInputElement).type ?? "");
    if (!place && !isWrittenIn) return;
    if (this.#last?.place && this.#last.place.element === place?.element) return;
    this.#last = { element: place?.element ?? element, place };
    this.#selected(element.ownerDocument);
    this.options.changed();
  }

  /** Keeps where the caret is, as long as it is in the last place: selecting elsewhere does not move it. */
  #selected(root: Document): void {
    const selection = root.getSelection();
    if (!this.#last?.place || !selection || selection.rangeCount === 0) return;
    const range = selection.getRangeAt(0);
    const { element } = this.#last;
    if (element.contains(range.commonAncestorContainer))
      this.#carets.set(element, { range: range.cloneRange() });
    const offsets = offsetsIn(element);
    if (offsets) this.#carets.set(element, offsets);
  }
}

/**
 * Where the caret stands in a field, which tells it itself. It does not while something else on the page is selected and the
 * field has the focus all the same: then the field has lost its caret.
 */
function offsetsIn(element: Element): Caret | undefined {
  const { selectionStart: start, selectionEnd: end } = element as Partial<HTMLInputElement>;
  if (typeof start !== "number" || typeof end !== "number") return undefined;
  const isActive = (element.getRootNode() as Document | ShadowRoot).activeElement === element;
  const isElsewhere = element.ownerDocument.getSelection()?.isCollapsed === false;
  return isActive && isElsewhere ? undefined : { offsets: [start, end] };
}

/** What a place is called: as it says itself, by its label, or by what it is. */
export function describeLastPlace({ place, element }: Pick<LastPlace, "place" | "element">): NamedPlace {
  const name = place?.name;
  return typeof name === "object" ? name : describePlace(element, name);
}

/** Gives a place the focus, with its caret. */
export function focusLastPlace({ element, caret }: LastPlace): void {
  (element as HTMLElement).focus();
  const range = caret?.range;
  const selection = element.ownerDocument.getSelection();
  if (range && selection)
    selection.setBaseAndExtent(range.startContainer, range.startOffset, range.endContainer, range.endOffset);
}
