import type { Block } from "../../../compose/block.js";
import { DrawerError } from "../../../content/error.js";
import { escapeHtml } from "../../../formats/html/escape.js";
import { loneLineHtml } from "../../../formats/html/lone-line.js";
import { pageErrors } from "../../../messages/en/page.js";
import { EDITORS, PLAIN, type EditorKind } from "../editor-kinds.js";
import { describePlace } from "../name.js";
import { comesToBe, nextTurn, type Caret, type Landed, type Placing } from "../place.js";
import { trustedHtml } from "../trusted-html.js";
import { haveTablesLanded, haveWordsLanded, shownIn } from "./landed.js";
import { hasWords, insertBetween, lineOfCaret } from "./line-of-caret.js";
import { standsAlone } from "./lines.js";
import { inputEvent, pasteEvent, pressKey } from "./page-events.js";

/** Puts a block into an editor by a paste, so that it may take it as its own. */
export class EditorPaste {
  constructor(
    readonly element: HTMLElement,
    readonly kind: EditorKind,
  ) {}

  /** As {@link Place.put}. */
  async put(block: Block, caret?: Caret): Promise<Placing> {
    const { element: host } = this;
    if (!host.isContentEditable)
      throw new DrawerError(pageErrors, "not-placed/closed", { place: describePlace(host) });
    await this.#goTo(caret?.range);
    const before = { html: host.innerHTML, text: host.textContent, shown: shownIn(host) };
    if (!(await this.#give(this.#ways(block), before.html)))
      throw new DrawerError(pageErrors, "not-placed/refused", { place: describePlace(host) });
    let after = await settled(host);
    const placing = (landed: Landed): Placing => ({
      landed,
      takeBack: () => takeBack(host, after, before.text),
    });
    const { content } = block;
    const isWhole = () => haveWordsLanded(content, before.shown, host);
    // An editor that draws only what is in sight does not show all that it holds.
    const isShown = !host.matches(EDITORS["codeMirror"]!.host);
    if (!isShown || (isWhole() && haveTablesLanded(content, before.shown, host))) return placing("whole");
    // It cannot hold what it was given, a table perhaps, and has run the words of it together.
    if (!(await takeBack(host, after, before.text))) return placing(isWhole() ? "as-lines" : "changed");
    await this.#goTo(caret?.range);
    if (!(await this.#give(this.#plainWays(block), before.html)))
      throw new DrawerError(pageErrors, "not-placed/refused", { place: describePlace(host) });
    after = await settled(host);
    return placing(isWhole() ? "as-lines" : "changed");
  }

  /** Gives a block in the first of some ways that is taken. Returns whether any was. */
  async #give(ways: readonly (() => boolean)[], before: string): Promise<boolean> {
    const isChanged = () => this.element.innerHTML !== before;
    for (const give of ways) if (give() && (await comesToBe(isChanged))) return true;
    return isChanged();
  }

  /**
   * Gives the editor the focus, and the caret back where it was: where it stands, when it stands in the editor, and where it
   * was last otherwise.
   */
  async #goTo(last: Range | undefined): Promise<void> {
    const { element: host } = this;
    const selection = host.ownerDocument.getSelection();
    const now = () => (selection?.rangeCount === 1 ? selection.getRangeAt(0) : undefined);
    const isInside = (range: Range | undefined) =>
      range !== undefined && host.contains(range.commonAncestorContainer);
    const caret = [now()?.cloneRange(), last].find(isInside);
    const hadFocus = (host.getRootNode() as Document | ShadowRoot).activeElement === host;
    if (!hadFocus) host.focus({ preventScroll: true });
    const isThere = caret === undefined || isSame(now(), caret);
    if (!isThere) {
      const { startContainer, startOffset, endContainer, endOffset } = caret;
      selection!.setBaseAndExtent(startContainer, startOffset, endContainer, endOffset);
    }
    // Editors follow the selection when the page tells of it, in a later turn.
    if (!hadFocus || !isThere) {
      await nextTurn();
      await nextTurn();
    }
  }

  /** The ways to give it a block, the best first. Each returns whether it was taken. */
  #ways(block: Block): (() => boolean)[] {
    const { element: host, kind } = this;
    const isPlain = kind.fit === "plain";
    const isApart = standsAlone(block);
    const line = isApart ? lineOfCaret(host) : undefined;
    const [isAfterWords, isBeforeWords] = [hasWords(line?.before), hasWords(line?.after)];
    const text = (isAfterWords ? "\n" : "") + block.text + (isBeforeWords ? "\n" : "");
    // The ends of what is pasted join what stands beside them: empty ones leave that as it is.
    const begins = kind.beginsLines && block.content[0]!.type !== "paragraph";
    const html =
      (isAfterWords && !begins ? "<p></p>" : "") +
      (kind.isHeaderless ? withoutHeaders(block.html) : block.html) +
      (isBeforeWords ? "<p></p>" : "");
    const transfer = new DataTransfer();
    if (!isPlain) transfer.setData("text/html", html);
    transfer.setData("text/plain", text);
    const byEvent = {
      paste: () => !host.dispatchEvent(pasteEvent(transfer)),
      beforeinput: () => !host.dispatchEvent(inputEvent(transfer)),
    };
    const byCommand = () => {
      if (isPlain && host.matches(PLAIN.host) && host.ownerDocument.execCommand("insertText", false, text))
        return true;
      const isTableLast = block.content.at(-1)?.type === "table";
      if (!isPlain && isApart && insertBetween(host, block.html, isTableLast)) return true;
      const given = isPlain ? escapeHtml(text) : (loneLineHtml(block.content, block.html) ?? html);
      return host.ownerDocument.execCommand("insertHTML", false, trustedHtml(given));
    };
    return kind.by === "paste" ? [byEvent.paste, byCommand] : [byEvent.beforeinput, byEvent.paste];
  }

  /** The ways to give it the lines of a block, cells parted by tabs. */
  #plainWays(block: Block): (() => boolean)[] {
    const { element: host, kind } = this;
    const line = lineOfCaret(host);
    const text = (hasWords(line?.before) ? "\n" : "") + block.text + (hasWords(line?.after) ? "\n" : "");
    const transfer = new DataTransfer();
    transfer.setData("text/plain", text);
    const lines = text.split("\n").map((line) => `<p>${escapeHtml(line).replaceAll("\t", "&#9;&nbsp;")}</p>`);
    const byHtml = new DataTransfer();
    byHtml.setData("text/html", lines.join(""));
    byHtml.setData("text/plain", text);
    const give = (given: DataTransfer) => () =>
      !host.dispatchEvent(kind.by === "paste" ? pasteEvent(given) : inputEvent(given));
    return [
      give(transfer),
      give(byHtml),
      () => host.ownerDocument.execCommand("insertHTML", false, trustedHtml(lines.join(""))),
    ];
  }
}

/** HTML as it is written here, whose tables have cells only. */
function withoutHeaders(html: string): string {
  return html.replace(
    /<(\/?)(thead|th)\b/g,
    (_, end: string, name: string) => `<${end}${name === "th" ? "td" : "tbody"}`,
  );
}

function isSame(one: Range | undefined, other: Range): boolean {
  return (
    one !== undefined &&
    one.startContainer === other.startContainer &&
    one.startOffset === other.startOffset &&
    one.endContainer === other.endContainer &&
    one.endOffset === other.endOffset
  );
}

/** Gives what an editor holds, when it has done what it does after an input. */
async function settled(host: HTMLElement): Promise<string> {
  for (let now = host.innerHTML; ;) {
    const before = now;
    await nextTurn();
    await nextTurn();
    now = host.innerHTML;
    if (now === before) return now;
  }
}

/** Takes back what was placed by the editor's own undo, when that is all that has happened since. */
async function takeBack(host: HTMLElement, after: string, textBefore: string): Promise<boolean> {
  if (!host.isConnected || host.innerHTML !== after) return false;
  host.focus({ preventScroll: true });
  await nextTurn();
  undoIn(host, "historyUndo");
  if (await comesToBe(() => host.textContent === textBefore, 300)) return true;
  // The editor took more for one step than the block.
  if (host.innerHTML !== after) undoIn(host, "historyRedo");
  return false;
}

/** Asks an editor to undo or redo: by the event of the browser's own undo, by its keys, or by the browser's command. */
function undoIn(host: HTMLElement, inputType: "historyUndo" | "historyRedo"): void {
  const isRedo = inputType === "historyRedo";
  const wanted = new InputEvent("beforeinput", { inputType, bubbles: true, cancelable: true });
  if (!pressKey(host, { key: "z", code: "KeyZ", keyCode: 90, isCommand: true, shiftKey: isRedo })) return;
  if (!host.dispatchEvent(wanted)) return;
  host.ownerDocument.execCommand(isRedo ? "redo" : "undo");
}
