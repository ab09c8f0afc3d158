import { focusedRoot, hostOf } from "../places/page-tree.js";
import type { CopiedOnPage } from "./copies.js";
import { readSelection, isField, selectedElement } from "./selection.js";

/** The drawer's own element, which is no part of the page that is bound. */
const OWN = "snippet-drawer";

/** The part of a page from which is collected, and in which is placed. */
export class PageScope {
  /**
   * @param root only what is in this element; the whole page when it is left out
   * @param exclude a selector of what is left alone
   */
  constructor(
    readonly root: Element | undefined,
    readonly exclude: string | undefined,
  ) {}

  /** Whether an element is of it. */
  has(target: EventTarget | undefined): boolean {
    const { root, exclude } = this;
    for (let element = target as Element | undefined; element?.closest; element = hostOf(element)) {
      if (element.closest(OWN) || (exclude !== undefined && element.closest(exclude))) return false;
      if (root?.contains(element)) return true;
    }
    return root === undefined;
  }

  /** Whether what an event has passed is of it, from the innermost on. */
  hasPath(path: readonly EventTarget[]): boolean {
    return !path.some((element) => (element as Partial<Element>).localName === OWN) && this.has(path[0]);
  }

  /** What is selected in it, or in the shadow tree or the frame in it that has the focus; nothing when nothing is. */
  selected(): CopiedOnPage | undefined {
    const root = focusedRoot(document, OWN);
    const flavours = readSelection(root);
    const active = root.activeElement;
    const selected = isField(active) ? active : selectedElement(active?.ownerDocument ?? document);
    const element = selected ?? document.body;
    return flavours && this.has(element) ? { flavours, element } : undefined;
  }
}
