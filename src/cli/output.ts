import { chmod, chown, link, lstat, realpath, rename, rm, stat, writeFile } from "node:fs/promises";
import { dirname, join } from "node:path";
import { DrawerError } from "../content/error.js";

/**
 * Writes a file whole or not at all: beside its place first, then into its place. A file that is there is replaced
 * only with `overwrite`; then a link still leads to it, and it keeps its mode and its owner. Only files are replaced:
 * folders, devices and pipes are refused.
 *
 * @throws DrawerError `exists`, `not-written`
 */
export async function writeNewFile(
  path: string,
  data: string | Uint8Array | AsyncIterable<string>,
  overwrite: boolean,
): Promise<void> {
  try {
    const there = await lstat(path).catch(notThere);
    if (there && !overwrite) throw exists(path);
    const place = there ? await realpath(path) : path;
    const old = there && (await stat(place));
    if (old && !old.isFile()) throw notWritten(path, old.isDirectory() ? WHY["EISDIR"]! : "it is no file");
    await writeInPlace(place, data, old && { mode: old.mode & 0o7777, uid: old.uid, gid: old.gid });
  } catch (error) {
    if (error instanceof DrawerError) throw error;
    const { code } = error as NodeJS.ErrnoException;
    if (code === "EEXIST") throw exists(path, error);
    if (code === undefined) throw error;
    throw notWritten(path, WHY[code] ?? (error as Error).message, error);
  }
}

/** What a file has that is replaced. */
interface Owned {
  readonly mode: number;
  readonly uid: number;
  readonly gid: number;
}

async function writeInPlace(
  place: string,
  data: string | Uint8Array | AsyncIterable<string>,
  old: Owned | undefined,
): Promise<void> {
  const draft = join(dirname(place), `.drawer-${process.pid}-${Date.now()}.part`);
  try {
    // Until it is whole it is nobody else's.
    await writeFile(draft, data, { flag: "wx", mode: 0o600 });
    await chmod(draft, old?.mode ?? 0o666 & ~process.umask());
    const self = await stat(draft);
    if (old && (old.uid !== self.uid || old.gid !== self.gid)) await chown(draft, old.uid, old.gid);
    if (old) await rename(draft, place);
    else await link(draft, place);
  } finally {
    await rm(draft, { force: true }).catch(ignoreMissing);
  }
}

/** Nothing, when there is no file of that name. */
function notThere(error: NodeJS.ErrnoException): undefined {
  if (error.code !== "ENOENT") throw error;
}

/** A folder that does not let one look into it holds nothing of ours. */
function ignoreMissing(error: NodeJS.ErrnoException): void {
  if (error.code !== "EACCES" && error.code !== "ENOTDIR") throw error;
}

function exists(path: string, cause?: unknown): DrawerError {
  return new DrawerError(
    "exists",
    `“${path}” is there already and was left as it is. Choose another name, or add --overwrite.`,
    { cause },
  );
}

function notWritten(path: string, why: string, cause?: unknown): DrawerError {
  return new DrawerError("not-written", `“${path}” was not written: ${why}.`, { cause });
}

/** Why a file cannot be written, by the system's code. */
export const WHY: Readonly<Record<string, string>> = {
  ENOENT: "there is no such folder",
  ENOTDIR: "a part of its path is not a folder",
  EISDIR: "it is a folder",
  EACCES: "you are not allowed to write there",
  EPERM: "you are not allowed to write there",
  EROFS: "the disk is read-only",
  ENOSPC: "the disk is full",
  ELOOP: "its links lead in a circle",
};
