import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { home } from "./home-folder.js";

/** Where it is noted which files are being written, so that what a killed process has left can be cleared. */
function folder(): string {
  return join(home(), "writing");
}

/** Where a file is written before it comes to its place: beside it. */
export function draftBeside(place: string): string {
  return join(resolve(dirname(place)), `.drawer-${process.pid}-${Date.now()}.part`);
}

/** Notes that a file is being written, where the home can be written. Returns what takes the note away. */
export function noteDraft(path: string): () => void {
  const note = join(folder(), `${process.pid}-${Date.now()}`);
  try {
    mkdirSync(folder(), { recursive: true, mode: 0o700 });
    writeFileSync(note, path, { mode: 0o600 });
  } catch (error) {
    if (!isReadOnly(error)) throw error;
    return () => undefined;
  }
  return () => rmSync(note, { force: true });
}

/** Clears what processes that were killed have left half-written. */
export function clearDrafts(): void {
  for (const note of notes()) {
    if (isRunning(Number(note.split("-")[0]))) continue;
    const path = join(folder(), note);
    try {
      const draft = readFileSync(path, "utf8");
      // Only what this command names so is its own.
      if (/\.drawer-\d+-\d+\.part$/.test(draft)) rmSync(draft, { force: true });
      rmSync(path, { force: true });
    } catch (error) {
      // It is tried again at the next start.
      if (!isReadOnly(error)) throw error;
    }
  }
}

/** Whether an error says that something cannot be written, by whom or where it is. */
function isReadOnly(error: unknown): boolean {
  return /^(?:EACCES|EPERM|EROFS|ENOTDIR)$/.test((error as NodeJS.ErrnoException).code ?? "");
}

function notes(): string[] {
  try {
    return readdirSync(folder());
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code === "ENOENT" || code === "EACCES") return [];
    throw error;
  }
}

function isRunning(id: number): boolean {
  try {
    // Signal 0 only asks whether the process is there.
    process.kill(id, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === "EPERM";
  }
}
