import { DrawerError } from "../../content/error.js";
import type { Flow } from "../../content/model.js";
import type { Notice } from "../../content/notice.js";
import { formatErrors } from "../../messages/en/formats.js";
import type { ReadDocument, ReadOptions } from "../format.js";
import { withLinkedParts, type LinkedPart } from "../html/linked-parts.js";
import { readHtmlDocument } from "../html/read.js";
import { attributeOf, childOf, childrenOf, descendantsOf, parseXml } from "../office/xml.js";
import { Parts } from "../office/zip.js";

const CONTAINER = "META-INF/container.xml";
/** Elements that HTML has without an end; of all others an end is written (XHTML needs none where they are empty). */
const EMPTY = /^(?:area|base|br|col|embed|hr|img|image|input|link|meta|param|source|track|wbr)$/i;

/**
 * Reads a book (EPUB 3.3, and 2): its chapters in their order, with their pictures and the looks of their style sheets.
 *
 * @param bytes the whole file
 * @param file its name, for messages
 * @throws DrawerError `unreadable`, `locked`, `too-large`
 */
export async function readEpub(
  bytes: Uint8Array,
  file: string,
  { onProgress }: ReadOptions = {},
): Promise<ReadDocument> {
  const parts = new Parts(bytes, file, onProgress);
  const notBook = () => new DrawerError(formatErrors, "unreadable/not-one", { file, what: "epub" });
  const container = parts.text(CONTAINER);
  const root = container === undefined ? undefined : descendantsOf(parseXml(container, file), "rootfile")[0];
  const path = attributeOf(root, "full-path");
  const text = path === undefined ? undefined : parts.text(path);
  if (path === undefined || text === undefined) throw notBook();
  const book = parseXml(text, file);
  const items = new Map<string, { readonly path: string; readonly mediaType: string }>();
  for (const item of childrenOf(childOf(book, "manifest") ?? book)) {
    const [id, href] = [attributeOf(item, "id"), attributeOf(item, "href")];
    if (id !== undefined && href !== undefined)
      items.set(id, { path: within(path, href), mediaType: attributeOf(item, "media-type") ?? "" });
  }
  const types = new Map([...items.values()].map((item) => [item.path, item.mediaType]));
  const spine = childOf(book, "spine");
  const chapters = [...(spine ? childrenOf(spine) : [])].flatMap((each) => {
    const item = items.get(attributeOf(each, "idref") ?? "");
    return item && parts.has(item.path) ? [item.path] : [];
  });
  if (chapters.length === 0) throw notBook();
  // A book whose chapters are locked names them here.
  const encryption = parts.text("META-INF/encryption.xml") ?? "";
  if (chapters.some((chapter) => encryption.includes(chapter)))
    throw new DrawerError(formatErrors, "locked", { file });

  const content: Flow[] = [];
  const pictures = new Map<string, Uint8Array>();
  const readings: ReadDocument[] = [];
  for (const chapter of chapters) {
    const find = (address: string): LinkedPart | undefined => {
      const at = within(chapter, address);
      const found = parts.bytes(at);
      return found && { bytes: found, mediaType: types.get(at) ?? "" };
    };
    const reading = await readHtmlDocument(withLinkedParts(asHtml(parts.needed(chapter)), find));
    readings.push(reading);
    content.push(...reading.content);
    for (const [hash, picture] of reading.pictures) pictures.set(hash, picture);
  }
  const title = descendantsOf(book, "title")[0]?.textContent.trim();
  return {
    ...{ content, pictures },
    ...(title !== undefined && title !== "" && { title }),
    notices: readings.flatMap(({ notices }) => notices),
    noticesOf: (flows) => readings.flatMap((each): Notice[] => each.noticesOf?.(flows) ?? []),
  };
}

/** Where something stands that a part names beside it. */
function within(part: string, address: string): string {
  try {
    const { pathname } = new URL(address, `zip://book/${part.split("/").map(encodeURIComponent).join("/")}`);
    return decodeURIComponent(pathname.slice(1));
  } catch {
    // It names nothing in the book.
    return address;
  }
}

/** XHTML as HTML: an element that ends at once has an end. */
function asHtml(xhtml: string): string {
  return xhtml
    .replace(/^\s*<\?xml[^>]*\?>/, "")
    .replace(/<([a-z][\w:-]*)((?:\s[^<>]*?)?)\/>/gi, (written, name: string, attributes: string) =>
      EMPTY.test(name) ? written : `<${name}${attributes}></${name}>`,
    );
}
