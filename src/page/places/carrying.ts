import type { Block } from "../../compose/block.js";
import { DrawerError } from "../../content/error.js";
import { kindOf } from "../../content/kind.js";
import { addressesOf } from "../../content/traverse.js";
import { loneLineHtml } from "../../formats/html/lone-line.js";
import { pageErrors } from "../../messages/en/page.js";

/** A block on its way out of the page: to the clipboard of the system, or dragged to somewhere. */

/** Puts a block into what is carried, in the forms that a browser hands on. */
export function carryBlock(transfer: DataTransfer, block: Block): void {
  for (const [type, text] of formsOf(block)) transfer.setData(type, text);
  // What is dragged may go where addresses are wanted: onto a bar of tabs, or into a folder.
  if (kindOf(block.content) === "link")
    transfer.setData("text/uri-list", addressesOf(block.content).join("\r\n"));
}

function formsOf({ content, html, text }: Block): Map<string, string> {
  return new Map([
    // A lone line joins the line in which it is pasted.
    ["text/html", loneLineHtml(content, html) ?? html],
    ["text/plain", text],
  ]);
}

/** A copy that was begun before there was a block. */
interface BegunCopy {
  /** Has it hold the forms of a block; nothing, and the clipboard stays as it is. */
  readonly end: (forms?: Map<string, string>) => void;
  /** Settles when the browser has done it. */
  readonly done: Promise<void>;
}

/** Those that were begun, the earliest first: what copies comes in the same order. */
const begun: BegunCopy[] = [];

/**
 * Begins a copy: call it while a click or a key is handled. The browsers of one maker let nobody copy later than that, but take what is
 * still being made (Clipboard API and events, 7.4: an item of promises). In others nothing is begun: what is copied at the end is handed
 * on as it is.
 *
 * @returns what ends it, where there is nothing to copy after all
 */
export function beginCopy(): () => void {
  if (!("GestureEvent" in globalThis) || typeof ClipboardItem === "undefined") return () => undefined;
  let end: BegunCopy["end"];
  const forms = new Promise<Map<string, string>>((settle, fail) => {
    end = (made) => (made ? settle(made) : fail(new Error("Nothing is copied.")));
  });
  const form = (type: string) => forms.then((made) => new Blob([made.get(type)!], { type }));
  const item = new ClipboardItem({ "text/html": form("text/html"), "text/plain": form("text/plain") });
  const done = navigator.clipboard.write([item]);
  done.catch(() => undefined);
  const copy = { end: (made?: Map<string, string>) => end(made), done };
  begun.push(copy);
  return () => {
    const at = begun.indexOf(copy);
    if (at < 0) return;
    begun.splice(at, 1);
    copy.end();
  };
}

/**
 * Copies a block to the clipboard of the system; by the copy that was begun, where one was.
 * @throws DrawerError `failed` when the browser does not allow it
 */
export async function copyBlock(block: Block): Promise<void> {
  const copy = begun.shift();
  if (copy) {
    copy.end(formsOf(block));
    return allowed(copy.done);
  }
  // The old way hands on what it is given as it is; the new one is for pages that may not use the old.
  let isCopied = false;
  const copying = (event: ClipboardEvent) => {
    for (const [type, text] of formsOf(block)) event.clipboardData!.setData(type, text);
    event.preventDefault();
    event.stopImmediatePropagation();
    isCopied = true;
  };
  window.addEventListener("copy", copying, { capture: true, once: true });
  document.execCommand("copy");
  window.removeEventListener("copy", copying, { capture: true });
  if (isCopied) return;
  const blobs = [...formsOf(block)].map(([type, text]) => [type, new Blob([text], { type })] as const);
  await allowed(
    Promise.resolve().then(() => navigator.clipboard.write([new ClipboardItem(Object.fromEntries(blobs))])),
  );
}

async function allowed(copying: Promise<void>): Promise<void> {
  try {
    await copying;
  } catch (error) {
    throw new DrawerError(pageErrors, "failed/clipboard", {}, { cause: error });
  }
}
