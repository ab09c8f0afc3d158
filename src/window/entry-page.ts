import { createHash } from "node:crypto";
import { rm, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { entryPage as words } from "../messages/en/window.js";

/**
 * Writes a page that leads a browser to the window, for this user alone to read. What stands on a browser's command line every user
 * of the computer can read; the address of this page has no secret in it.
 *
 * @param address where it leads, with a key as its fragment
 * @param folder a folder that the browser can read
 * @returns its address (`file:`)
 */
export async function writeEntryPage(address: string, folder: string): Promise<string> {
  const path = pathOf(new URL(address).hash.slice(1), folder);
  const to = new URL(address).href;
  const html = `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="referrer" content="no-referrer">
<meta http-equiv="refresh" content="0; url=${to}"><title>${words.title}</title><p><a href="${to}">${words.open}</a></p></html>
`;
  await writeFile(path, html, { mode: 0o600, flag: "wx" });
  return pathToFileURL(path).href;
}

/** Takes away the page that leads to the window by a key, where there is one. */
export function removeEntryPage(key: string, folder: string): Promise<void> {
  return rm(pathOf(key, folder), { force: true });
}

/** Whoever knows the key knows its file, so that the window takes away what another program of the user's has written. */
function pathOf(key: string, folder: string): string {
  const name = createHash("sha256").update(key).digest("base64url").slice(0, 16);
  return join(folder, `drawer-${name}.html`);
}
