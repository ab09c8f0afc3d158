import { readFileSync, rmSync, writeFileSync } from "node:fs";
import type { LongWork } from "../engine.js";

/** Who writes to a database for long, as it is kept beside it. */
export interface Writer {
  readonly process: number;
  readonly work: LongWork;
}

/**
 * Notes beside a database that this process writes to it for long; on a full disk it goes without, as emptying a drawer is what makes
 * room there. Returns what takes the note away.
 */
export function markWriter(path: string, work: LongWork): () => void {
  const writer: Writer = { process: process.pid, work };
  try {
    writeFileSync(noteOf(path), JSON.stringify(writer), { mode: 0o600 });
  } catch (error) {
    if (!/^(ENOSPC|EDQUOT)$/.test((error as NodeJS.ErrnoException).code ?? "")) throw error;
  }
  return () => rmSync(noteOf(path), { force: true });
}

/** Who writes to a database for long; undefined when it has left no note, or has ended. */
export function writerOf(path: string): Writer | undefined {
  try {
    const writer = JSON.parse(readFileSync(noteOf(path), "utf8")) as Writer;
    // Signal 0 only asks whether the process is there.
    process.kill(writer.process, 0);
    return writer;
  } catch {
    return undefined;
  }
}

function noteOf(path: string): string {
  return `${path}.writing`;
}
