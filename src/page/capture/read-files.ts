import { readSource, type Source } from "../../files/source.js";

/** A part of a file that is to be collected: what stands at a spot, or all of it. */
export interface MarkedPart {
  readonly source: Source;
  readonly spot?: string;
}

/**
 * Reads files.
 * @throws DrawerError as `readSource`
 */
export function readFiles(files: readonly File[]): Promise<Source[]> {
  return Promise.all(
    files.map(async (file) => readSource(new Uint8Array(await file.arrayBuffer()), file.name)),
  );
}
