import { execFile } from "node:child_process";
import { lstat, open, readdir, readFile, realpath, rename, rm } from "node:fs/promises";
import { basename, dirname, join } from "node:path";
import { promisify } from "node:util";
import { hashBytes } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import { checkBytes } from "../content/limits.js";
import { cliErrors } from "../messages/en/cli.js";
import { draftBeside, noteDraft } from "./drafts.js";
import { notRead } from "./not-read.js";
import { whyOf } from "./output.js";

const run = promisify(execFile);

/** A file that is to be changed, as it was read. */
export interface FileToEdit {
  /** Its whole path, without links on the way. */
  readonly path: string;
  readonly name: string;
  readonly bytes: Uint8Array;
  /** The hash of its bytes. */
  readonly hash: string;
}

/**
 * Reads a file that is to be changed.
 * @throws DrawerError `no-file`; `cannot-edit` when it is a link, has several names, or a program has it open
 */
export async function fileToEdit(path: string): Promise<FileToEdit> {
  const name = basename(path);
  try {
    const there = await lstat(path);
    if (there.isSymbolicLink())
      throw new DrawerError(cliErrors, "cannot-edit/link", { path, target: await realpath(path) });
    if (!there.isFile()) throw new DrawerError(cliErrors, "no-file/device", { path });
    if (there.nlink > 1) throw new DrawerError(cliErrors, "cannot-edit/names", { path });
    checkBytes(there.size, name);
    const whole = join(await realpath(dirname(path)), name);
    await refuseOpen(whole);
    const bytes = new Uint8Array(await readFile(whole));
    return { path: whole, name, bytes, hash: hashBytes(bytes) };
  } catch (error) {
    if (error instanceof DrawerError) throw error;
    throw notRead(path, error);
  }
}

/** Office programs lay a file beside each that they have open. */
async function refuseOpen(path: string): Promise<void> {
  const [folder, name] = [dirname(path), basename(path)];
  const beside = new Set(await readdir(folder));
  const locks = [`.~lock.${name}#`, `~$${name}`, `~$${name.slice(2)}`, `~$${name.slice(1)}`];
  const lock = locks.find((each) => each.length > 2 && beside.has(each));
  if (lock !== undefined) throw new DrawerError(cliErrors, "cannot-edit/open", { path, lock });
}

/**
 * Puts other bytes in the place of a file, all or none: beside it first, with its mode, its owner and its extended attributes, and on
 * the disk; then into its place.
 *
 * @throws DrawerError `cannot-edit` when it was changed since it was read, or something of it cannot be kept; `not-written`
 */
export async function replaceFile({ path, hash }: FileToEdit, bytes: Uint8Array): Promise<void> {
  const draft = draftBeside(path);
  const written = noteDraft(draft);
  try {
    const file = await open(draft, "wx", 0o600);
    try {
      await file.writeFile(bytes);
      await likeBefore(path, draft);
      await file.sync();
    } finally {
      await file.close();
    }
    await refuseOpen(path);
    if (hashBytes(new Uint8Array(await readFile(path))) !== hash)
      throw new DrawerError(cliErrors, "cannot-edit/changed", { path });
    await rename(draft, path);
    await syncFolder(dirname(path));
  } catch (error) {
    if (error instanceof DrawerError) throw error;
    if ((error as NodeJS.ErrnoException).code === undefined) throw error;
    throw new DrawerError(cliErrors, "not-written", { path, why: whyOf(error) }, { cause: error });
  } finally {
    await rm(draft, { force: true });
    written();
  }
}

/** Gives a draft the mode, the owner and the extended attributes of the file that it becomes. Node has no call for the last. */
async function likeBefore(path: string, draft: string): Promise<void> {
  if (process.platform === "win32") return;
  const all =
    process.platform === "linux"
      ? ["--attributes-only", "--preserve=mode,ownership,xattr", "--", path, draft]
      : ["-p", path, draft];
  try {
    if (process.platform === "linux") await run("cp", all);
    else {
      // There only a whole copy keeps them: the bytes go over it again.
      const bytes = await readFile(draft);
      await run("cp", all);
      const file = await open(draft, "r+");
      await file.truncate(0);
      await file.write(bytes, 0, bytes.length, 0);
      await file.close();
    }
  } catch (cause) {
    const { stderr = "" } = cause as { stderr?: string };
    throw new DrawerError(cliErrors, "cannot-edit/attributes", { path, why: stderr.trim() }, { cause });
  }
}

/** That a file has come into its place is on the disk when its folder is. */
async function syncFolder(folder: string): Promise<void> {
  if (process.platform === "win32") return;
  const opened = await open(folder, "r");
  try {
    await opened.sync();
  } finally {
    await opened.close();
  }
}
