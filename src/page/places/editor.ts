import type { Block } from "../../compose/block.js";
import type { Fit } from "../../compose/options.js";
import { EDITORS, PLAIN, RICH, type EditorKind } from "./editor-kinds.js";
import { putting } from "./lazy.js";
import type { Caret, Place, PlaceKind, Placing } from "./place.js";

/** Whatever can be edited on a page. */
export const editors: PlaceKind = {
  find(element) {
    if (!(element as Partial<HTMLElement>).isContentEditable) return undefined;
    let host = element as HTMLElement;
    while (host.parentElement?.isContentEditable) host = host.parentElement;
    const kind = [...Object.values(EDITORS), PLAIN].find((each) => host.matches(each.host)) ?? RICH;
    return new EditorPlace(host, kind);
  },
};

/** An editor: what is put into it is pasted, so that it may take it as its own. */
class EditorPlace implements Place {
  readonly fit: Fit;

  constructor(
    readonly element: HTMLElement,
    readonly kind: EditorKind,
  ) {
    this.fit = kind.fit;
  }

  async put(block: Block, caret?: Caret): Promise<Placing> {
    const { EditorPaste } = await putting();
    return new EditorPaste(this.element, this.kind).put(block, caret);
  }
}
