import { readFileSync, rmSync, writeFileSync } from "node:fs";

/** Who writes to a database for long, as it is kept beside it. */
interface Writer {
  readonly process: number;
  readonly doing: string;
}

/** Notes beside a database that this process writes to it for long. Returns what takes the note away. */
export function markWriter(path: string, doing: string): () => void {
  const writer: Writer = { process: process.pid, doing };
  writeFileSync(noteOf(path), JSON.stringify(writer), { mode: 0o600 });
  return () => rmSync(noteOf(path), { force: true });
}

/** Who writes to a database, as far as it is known: `process 4711 (forgetting for good)`. */
export function writerOf(path: string): string {
  try {
    const { process: id, doing } = JSON.parse(readFileSync(noteOf(path), "utf8")) as Writer;
    // Signal 0 only asks whether the process is there.
    process.kill(id, 0);
    return `process ${id} (${doing})`;
  } catch {
    return "another program"; // it has left no note, or has ended
  }
}

function noteOf(path: string): string {
  return `${path}.writing`;
}
