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

/**
 * Copies a block to the clipboard of the system.
 * @throws DrawerError `failed` when the browser does not allow it
 */
export async function copyBlock(block: Block): Promise<void> {
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
  try {
    const blobs = [...formsOf(block)].map(([type, text]) => [type, new Blob([text], { type })] as const);
    await navigator.clipboard.write([new ClipboardItem(Object.fromEntries(blobs))]);
  } catch (error) {
    throw new DrawerError(pageErrors, "failed/clipboard", {}, { cause: error });
  }
}
