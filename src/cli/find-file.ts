import type { Dirent } from "node:fs";
import { readdir, readFile, realpath } from "node:fs/promises";
import { homedir } from "node:os";
import { join } from "node:path";
import { hashBytes } from "../content/encode.js";

/** So many folders are looked into, those nearest to where it begins first. */
const MOST_FOLDERS = 5000;

/** Folders in which nobody keeps documents. */
const NEVER = /^\.|^node_modules$/;

/**
 * Finds the one file that is called so and says so: in these folders, and in the user's own.
 * @param hash the hash of its bytes
 * @returns its path; nothing when there is none, or there are several
 */
export async function findFile(
  name: string,
  hash: string,
  folders: readonly string[],
): Promise<string | undefined> {
  const found = new Set<string>();
  const seen = new Set<string>();
  const next = [...folders, homedir()];
  for (let count = 0; next.length > 0 && count < MOST_FOLDERS; count++) {
    const folder = next.shift()!;
    if (seen.has(folder)) continue;
    seen.add(folder);
    for (const entry of await entriesOf(folder)) {
      const path = join(folder, entry.name);
      if (entry.isDirectory() && !NEVER.test(entry.name)) next.push(path);
      else if (entry.isFile() && entry.name === name && (await hashOf(path)) === hash)
        found.add(await realpath(path));
    }
  }
  const [first] = found;
  return found.size === 1 ? first : undefined;
}

/** What stands in a folder; of one that may not be looked into, nothing: the file is not found there. */
async function entriesOf(folder: string): Promise<readonly Dirent[]> {
  try {
    return await readdir(folder, { withFileTypes: true });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === undefined) throw error;
    return [];
  }
}

async function hashOf(path: string): Promise<string | undefined> {
  try {
    return hashBytes(new Uint8Array(await readFile(path)));
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === undefined) throw error;
    return undefined;
  }
}
