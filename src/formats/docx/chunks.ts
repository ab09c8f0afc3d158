import type { Reading } from "../../content/notice.js";
import type { Format } from "../format.js";
import type { Relation } from "../office/relations.js";
import type { Parts } from "../office/zip.js";

/** Reads a document of a format. */
type Read = NonNullable<Format["read"]>;

/** What documents of other formats that stand in a docx are read with, by the endings of their parts. */
const READERS: Readonly<Record<string, (() => Promise<Format>) | undefined>> = {
  html: async () => (await import("../html/index.js")).html,
  htm: async () => (await import("../html/index.js")).html,
  xhtml: async () => (await import("../html/index.js")).html,
  mht: async () => (await import("../mhtml/index.js")).mhtml,
  mhtml: async () => (await import("../mhtml/index.js")).mhtml,
  rtf: async () => (await import("../rtf/index.js")).rtf,
  txt: async () => (await import("../text/index.js")).text,
};

/**
 * Reads the documents that stand whole in a docx, as programs put them there that leave it to the word processor to read them
 * (ECMA-376 part 1, 17.17.2.1), by the names that its main part has for them. One in a form that is not read is left out.
 *
 * @param relations what the main part names
 * @param readDocx reads those that are docx themselves
 * @throws DrawerError as the readers of their formats do, about the file that they stand in
 */
export async function readChunks(
  parts: Parts,
  relations: ReadonlyMap<string, Relation>,
  readDocx: Read,
): Promise<ReadonlyMap<string, Reading>> {
  const chunks = new Map<string, Reading>();
  for (const [id, { type, part }] of relations) {
    if (!type.endsWith("/aFChunk")) continue;
    const ending = part.slice(part.lastIndexOf(".") + 1).toLowerCase();
    const reader = ending === "docx" ? readDocx : (await READERS[ending]?.())?.read;
    const bytes = reader && parts.bytes(part);
    if (!bytes) continue;
    const read = await reader(bytes, parts.file, { isInserted: true });
    if ("sheets" in read) continue;
    const { content, pictures, notices } = read;
    chunks.set(id, { content, pictures, notices });
  }
  return chunks;
}
