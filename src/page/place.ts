import type { Block } from "../compose/block.js";

/** Something on a page that a block can be placed in. */
export type Target = HTMLInputElement | HTMLTextAreaElement | HTMLElement;

const TEXT_FIELDS = /^(text|search|url|tel|email)$/;

/** The target that an element is or stands in; nothing when one cannot write there. */
export function targetOf(element: Element | null): Target | undefined {
  if (element instanceof HTMLTextAreaElement)
    return element.readOnly || element.disabled ? undefined : element;
  if (element instanceof HTMLInputElement) {
    return TEXT_FIELDS.test(element.type) && !element.readOnly && !element.disabled ? element : undefined;
  }
  if (!(element instanceof HTMLElement) || !element.isContentEditable) return undefined;
  let host: HTMLElement = element;
  while (host.parentElement?.isContentEditable) host = host.parentElement;
  return host;
}

/** A block that was placed, and can be taken back. */
export interface Placing {
  /** Takes the block back, and nothing else. Returns whether it could: not when what it stands in has changed since. */
  takeBack(): boolean;
}

/**
 * Places a block at a target's caret, in a way that its own undo understands: a plain field gets the text (one line,
 * in a field of one line), a rich editor the HTML, through a paste that the editor may handle as its own.
 */
export function placeAt(target: Target, block: Block): Placing {
  target.focus();
  if (target instanceof HTMLInputElement) return placeText(target, block.text.replace(/\s*\n\s*/g, " "));
  const ownLine = block.content.length > 1 && hasTextBefore(target);
  const text = (ownLine ? "\n" : "") + block.text;
  if (target instanceof HTMLTextAreaElement) return placeText(target, text);
  // The first flow of what is pasted joins the line of the caret: an empty one leaves that line as it is.
  const html = (ownLine ? "<p></p>" : "") + block.html;
  const before = target.textContent;
  if (!paste(target, html, text)) insert("insertHTML", html);
  const after = target.innerHTML;
  return {
    takeBack() {
      if (!target.isConnected || target.innerHTML !== after) return false;
      target.focus();
      undoIn(target, "historyUndo");
      if (target.textContent === before) return true;
      // The editor took more for one step than the block.
      undoIn(target, "historyRedo");
      return false;
    },
  };
}

/** Puts text in place of what is selected in a field; taking it back puts that in its place again. */
function placeText(field: HTMLInputElement | HTMLTextAreaElement, text: string): Placing {
  const before = field.value;
  const start = field.selectionStart ?? before.length;
  const selected = before.slice(start, field.selectionEnd ?? start);
  insert("insertText", text);
  const after = field.value;
  return {
    takeBack() {
      if (!field.isConnected || field.value !== after) return false;
      field.focus();
      field.setSelectionRange(start, start + after.length - before.length + selected.length);
      if (selected === "") document.execCommand("delete");
      else insert("insertText", selected);
      return field.value === before;
    },
  };
}

/** Asks an editor to undo or redo: by the event of the browser's own undo, by its keys, or by the browser's command. */
function undoIn(target: HTMLElement, inputType: "historyUndo" | "historyRedo"): void {
  const wanted = new InputEvent("beforeinput", { inputType, bubbles: true, cancelable: true });
  if (!target.dispatchEvent(wanted)) return;
  const isApple = /Mac|iP(?:hone|ad)/.test(navigator.platform);
  const key = new KeyboardEvent("keydown", {
    key: "z",
    code: "KeyZ",
    ctrlKey: !isApple,
    metaKey: isApple,
    shiftKey: inputType === "historyRedo",
    bubbles: true,
    cancelable: true,
    composed: true,
  });
  if (target.dispatchEvent(key)) document.execCommand(inputType === "historyUndo" ? "undo" : "redo");
}

/** Whether something stands before the caret on its line. Several flows do not begin in the middle of one. */
function hasTextBefore(target: Target): boolean {
  if (target instanceof HTMLTextAreaElement)
    return /[^\n]$/.test(target.value.slice(0, target.selectionStart));
  const selection = target.ownerDocument.getSelection();
  if (!selection || selection.rangeCount === 0) return false;
  const caret = selection.getRangeAt(0);
  let line: Node = caret.startContainer;
  while (line !== target && !(line instanceof Element && getComputedStyle(line).display !== "inline"))
    line = line.parentNode!;
  const before = target.ownerDocument.createRange();
  before.setStart(line, 0);
  before.setEnd(caret.startContainer, caret.startOffset);
  return before.toString().trim() !== "";
}

/** Offers a paste. Returns whether the editor took it. */
function paste(target: HTMLElement, html: string, text: string): boolean {
  const clipboardData = new DataTransfer();
  clipboardData.setData("text/html", html);
  clipboardData.setData("text/plain", text);
  const event = new ClipboardEvent("paste", {
    clipboardData,
    bubbles: true,
    cancelable: true,
    composed: true,
  });
  return !target.dispatchEvent(event);
}

/** The old editing command is the one way of writing that the browser's undo takes back. */
function insert(command: "insertText" | "insertHTML", value: string): void {
  document.execCommand(command, false, value);
}
