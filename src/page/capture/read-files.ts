import { defined } from "../../content/defined.js";
import type { Incoming } from "../../drawer/incoming.js";
import { readSource, type Source } from "../../files/source.js";

/** A file that was chosen or dropped, as it was read. */
export interface ReadFile {
  readonly source: Source;
  readonly bytes: Uint8Array;
  /** Where it is on this computer, where that is known. */
  readonly path?: string;
}

/** A part of a file that is to be collected: what stands at a spot, or all of it. */
export interface MarkedPart {
  readonly source: Source;
  readonly spot?: string;
  /** Where the file is on this computer, where that is known. */
  readonly path?: string | undefined;
}

/**
 * Reads files.
 * @throws DrawerError as `readSource`
 */
export function readFiles(files: readonly File[]): Promise<ReadFile[]> {
  return Promise.all(
    files.map(async (file) => {
      const bytes = new Uint8Array(await file.arrayBuffer());
      return { bytes, source: await readSource(bytes, file.name) };
    }),
  );
}

/** A part of a file as it can be collected. */
export function takePart({ source, spot, path }: MarkedPart): Incoming {
  const piece = source.at(spot);
  return { ...piece, origin: defined({ ...piece.origin, path }) };
}
