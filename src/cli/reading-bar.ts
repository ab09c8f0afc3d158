import type { Progress } from "./progress.js";

/** From how many bytes a file may take long enough to read for a bar. */
const LARGE = 1024 * 1024;

/** The bar of the file that is being read. */
let reading: Progress | undefined;

/** What hears how far a large file is read, and shows it in a bar until {@link endReading}; nothing for a small one. */
export async function readingBar(file: string, bytes: number): Promise<Progress["show"] | undefined> {
  if (bytes < LARGE) return undefined;
  const { progressBar } = await import("./progress.js");
  reading = progressBar(`Reading ${file}`, "{percentage} %");
  return reading.show;
}

/** Takes the bar away: what was asked of the file has been read, or is refused. */
export function endReading(): void {
  reading?.end();
  reading = undefined;
}
