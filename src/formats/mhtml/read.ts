import { bytesOfLetters, lettersOf } from "../../content/byte-letters.js";
import { DrawerError } from "../../content/error.js";
import { formatErrors } from "../../messages/en/formats.js";
import type { ReadDocument } from "../format.js";
import { withLinkedParts, type LinkedPart } from "../html/linked-parts.js";
import { readHtmlDocument } from "../html/read.js";
import { idOf } from "../mail/letter.js";
import { enclosureOf, parseMime } from "../mail/read.js";

/**
 * Reads a saved web page (MHTML, RFC 2557) with the pictures and style sheets that stand in the file. Nothing is fetched.
 *
 * @param bytes the whole file
 * @param file its name, for messages
 * @throws DrawerError `unreadable`, `too-large`
 */
export async function readMhtml(bytes: Uint8Array, file: string): Promise<ReadDocument> {
  const page = await parseMime(withLocations(bytes), file);
  if (page.html === undefined)
    throw new DrawerError(formatErrors, "unreadable/not-one", { file, what: "mhtml" });
  const base = page.headers.find(({ key }) => key === "snapshot-content-location")?.value;
  const parts = new Map<string, LinkedPart>();
  for (const each of page.attachments) {
    const part = enclosureOf(each);
    const id = idOf(part);
    if (each.description !== undefined) parts.set(absolute(each.description.trim(), base), part);
    if (id !== "") parts.set(`cid:${id}`, part);
  }
  const html = withLinkedParts(
    page.html,
    (address) => parts.get(address) ?? parts.get(absolute(address, base)),
  );
  const { subject } = page;
  const title = subject?.trim() || /<title[^>]*>([^<]*)/i.exec(page.html)?.[1]?.trim();
  return { ...(await readHtmlDocument(html)), ...(title !== undefined && title !== "" && { title }) };
}

/** Parts are described by where they come from: the library tells the description, and not the location. */
function withLocations(bytes: Uint8Array): Uint8Array {
  const lines = lettersOf(bytes).split("\n");
  let isHead = true;
  for (const [at, line] of lines.entries()) {
    if (line.trim() === "") isHead = false;
    else if (line.startsWith("--")) isHead = true;
    else if (isHead && /^content-location:/i.test(line))
      lines[at] = line.replace(/^content-location/i, "Content-Description");
  }
  return bytesOfLetters(lines.join("\n"));
}

function absolute(address: string, base: string | undefined): string {
  try {
    return new URL(address, base?.trim()).href;
  } catch {
    // It is one that only the file itself knows.
    return address;
  }
}
