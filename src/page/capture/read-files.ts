import { defined } from "../../content/defined.js";
import { DrawerError } from "../../content/error.js";
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
      const source = await readSource(bytes, file.name);
      await openAttached(source);
      return { bytes, source };
    }),
  );
}

/** So many attached files are opened with the one that they are attached to. */
const OPENED = 12;

/** Opens the first files that are attached to one, as far as they can be read: the others say why when they are asked for. */
async function openAttached(source: Source): Promise<void> {
  if (source.format !== "mail") return;
  const attached = source.parts().filter(({ type }) => type === "attachment");
  for (const { spot } of attached.slice(0, OPENED))
    await source.open(spot).catch((error: unknown) => {
      if (!(error instanceof DrawerError)) throw error;
    });
}

/** A part of a file as it can be collected. */
export async function takePart({ source, spot, path }: MarkedPart): Promise<Incoming> {
  if (spot !== undefined) await source.open(spot);
  const piece = source.at(spot);
  return { ...piece, origin: defined({ ...piece.origin, path }) };
}
