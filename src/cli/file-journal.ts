import {
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  closeSync,
  fsyncSync,
  openSync,
  writeSync,
} from "node:fs";
import { extname, join } from "node:path";
import { newId } from "../drawer/model/ids.js";
import type { FileToEdit } from "./edited-file.js";
import { filesFolder } from "./home-folder.js";

/** What was done to a file: something was put into it, or taken out of it. */
export interface FileChange {
  /** UUID version 7. */
  readonly id: string;
  /** The drawer that it was done from. */
  readonly drawer: string;
  readonly act: "put" | "lift";
  /** The whole path of the file. */
  readonly path: string;
  readonly spots: readonly string[];
  /** The hashes of its bytes as it was, and as it was made. */
  readonly former: string;
  readonly made: string;
  /** When it was done, ISO 8601 in UTC; nothing while it is being done. */
  readonly doneAt?: string;
  /** For what was taken out: the change of the drawer by which it came in, the snippets that it is, and whether one is private. */
  readonly change?: string;
  readonly snippets?: readonly string[];
  readonly isPrivate?: boolean;
  readonly isUndone?: boolean;
  /** When it was undone, ISO 8601 in UTC, and the change of the drawer that undid what came in by it. */
  readonly undoneAt?: string;
  readonly undo?: string;
  /** Whether it was undone, and done again: it was done last then, and is nothing new. */
  readonly isRedone?: boolean;
}

/** How long it is kept what files were before, in days: as long as what has left a drawer can be brought back. */
const KEPT_DAYS = 30;

/** The file in which a file is kept as it was; programs open it by its ending. */
export function formerFile({ former, path }: Pick<FileChange, "former" | "path">): string {
  return join(filesFolder(), `${former}${extname(path)}`);
}

/** The file in which a file is kept as it was made, while that is undone. */
export function madeFile({ made, path }: Pick<FileChange, "made" | "path">): string {
  return join(filesFolder(), `${made}${extname(path)}`);
}

/** Keeps a file as it was made, so that what is undone can be done again. */
export function keepMade(change: FileChange, bytes: Uint8Array): void {
  writeDurably(madeFile(change), bytes);
}

/** Notes that a file is about to be changed, and keeps it as it is; both are on the disk then. */
export function beginFileChange(
  file: FileToEdit,
  change: Omit<FileChange, "id" | "path" | "former">,
): FileChange {
  mkdirSync(filesFolder(), { recursive: true, mode: 0o700 });
  const noted: FileChange = { id: newId(), path: file.path, former: file.hash, ...change };
  writeDurably(formerFile(noted), file.bytes);
  noteFileChange(noted);
  return noted;
}

/** Notes what has become of a change. */
export function noteFileChange(change: FileChange): void {
  writeDurably(join(filesFolder(), `${change.id}.json`), new TextEncoder().encode(JSON.stringify(change)));
}

/** Takes the note of a change away, and the file as it was where no other needs it. */
export function forgetFileChange(change: FileChange): void {
  rmSync(join(filesFolder(), `${change.id}.json`), { force: true });
  clear(change);
}

/** Takes away what is kept of a file for a change, where no change needs it. */
function clear(change: FileChange): void {
  const needed = new Set(fileChanges().flatMap((each) => [formerFile(each), ...madeOf(each)]));
  for (const kept of [formerFile(change), madeFile(change)])
    if (!needed.has(kept)) rmSync(kept, { force: true });
}

function madeOf(change: FileChange): string[] {
  return change.undoneAt === undefined ? [] : [madeFile(change)];
}

/**
 * Notes that what was undone is done again.
 * @param again the change of the drawer by which what was taken out came in again
 */
export function noteRedone(
  { isUndone: _, undoneAt: __, undo: ___, ...change }: FileChange,
  again: string | undefined,
): void {
  const doneAt = new Date().toISOString();
  noteFileChange({ ...change, doneAt, isRedone: true, ...(again !== undefined && { change: again }) });
  clear(change);
}

/** All changes of files that are noted, the latest first. */
export function fileChanges(): FileChange[] {
  let names: string[];
  try {
    names = readdirSync(filesFolder());
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code === "ENOENT" || code === "EACCES" || code === "ENOTDIR") return [];
    throw error;
  }
  return names
    .filter((name) => name.endsWith(".json"))
    .map((name) => JSON.parse(readFileSync(join(filesFolder(), name), "utf8")) as FileChange)
    .sort((one, other) => (one.id < other.id ? 1 : -1));
}

/** Whether a change is so old that what has left a drawer then is forgotten too. */
export function isOld({ doneAt }: FileChange): boolean {
  return doneAt !== undefined && Date.now() - Date.parse(doneAt) > KEPT_DAYS * 86_400_000;
}

function writeDurably(path: string, bytes: Uint8Array): void {
  const draft = `${path}.part`;
  const file = openSync(draft, "w", 0o600);
  try {
    for (let at = 0; at < bytes.length;) at += writeSync(file, bytes, at);
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
  renameSync(draft, path);
}
