import { chmod, chown, link, lstat, realpath, rename, rm, stat, writeFile } from "node:fs/promises";
import { DrawerError } from "../content/error.js";
import { whyNotWritten, type WhyNotWritten, cliErrors } from "../messages/en/cli.js";
import { draftBeside, noteDraft } from "./drafts.js";

/**
 * Writes a file whole or not at all: beside its place first, then into its place. A file that is there is replaced
 * only with `overwrite`; then a link still leads to it, and it keeps its mode and its owner. Only files are replaced:
 * folders, devices and pipes are refused. A new file has the mode that the user's mask gives it, or, when what is in it
 * is private, is for its owner alone.
 *
 * @throws DrawerError `exists`, `not-written`
 */
export async function writeNewFile(
  path: string,
  data: string | Uint8Array | AsyncIterable<string>,
  { overwrite = false, isPrivate = false }: { overwrite?: boolean; isPrivate?: boolean } = {},
): Promise<void> {
  try {
    const there = await lstat(path).catch(notThere);
    if (there && !overwrite) throw exists(path);
    const place = there ? await realpath(path) : path;
    const old = there && (await stat(place));
    if (old && !old.isFile()) throw notWritten(path, old.isDirectory() ? "EISDIR" : "no-file");
    const mode = old ? old.mode & 0o7777 : isPrivate ? 0o600 : 0o666 & ~process.umask();
    await writeInPlace(place, data, { mode, ...(old && { owner: { uid: old.uid, gid: old.gid } }) });
  } catch (error) {
    if (error instanceof DrawerError) throw error;
    const { code } = error as NodeJS.ErrnoException;
    if (code === "EEXIST") throw exists(path, error);
    if (code === undefined) throw error;
    throw notWritten(path, whyOf(error), error);
  }
}

/** What a file is to have: its mode, and the owner of the one that it replaces. */
interface Wanted {
  readonly mode: number;
  readonly owner?: { readonly uid: number; readonly gid: number };
}

async function writeInPlace(
  place: string,
  data: string | Uint8Array | AsyncIterable<string>,
  { mode, owner }: Wanted,
): Promise<void> {
  const draft = draftBeside(place);
  const written = noteDraft(draft);
  try {
    // Until it is whole it is nobody else's.
    await writeFile(draft, data, { flag: "wx", mode: 0o600 });
    const self = await stat(draft);
    if (owner && (owner.uid !== self.uid || owner.gid !== self.gid)) await chown(draft, owner.uid, owner.gid);
    await chmod(draft, mode);
    if (owner) await rename(draft, place);
    else await link(draft, place);
  } finally {
    await rm(draft, { force: true }).catch(ignoreMissing);
    written();
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
  return new DrawerError(cliErrors, "exists", { path }, { cause });
}

function notWritten(path: string, why: WhyNotWritten, cause?: unknown): DrawerError {
  return new DrawerError(cliErrors, "not-written", { path, why }, { cause });
}

/** Why a file cannot be written, by what the system says. */
export function whyOf(error: unknown): WhyNotWritten {
  const { code = "", message } = error as NodeJS.ErrnoException;
  return Object.hasOwn(whyNotWritten, code) ? (code as keyof typeof whyNotWritten) : { text: message };
}
