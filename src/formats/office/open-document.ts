import { hashBytes } from "../../content/encode.js";
import type { Content, Flow, Picture, Run } from "../../content/model.js";
import type { Notice } from "../../content/notice.js";
import { readPictureBytes } from "../../content/picture.js";
import { mapContent, picturesOf } from "../../content/traverse.js";
import type { Asides } from "../asides.js";
import type { OpenFlows, ReadDocument } from "../format.js";
import { asideNotices, type Aside } from "./document.js";
import type { XmlStream } from "./xml-stream.js";
import type { Parts } from "./zip.js";

/** How much of a picture is unpacked to tell what it is, in bytes. */
const HEAD = 64 * 1024;

/** The pictures of a document, which are unpacked when content that has them is given out. */
export class DocumentPictures {
  /** What stands for the hash of a picture while its document is read, with the part that it is. */
  readonly #parts = new Map<string, string>();
  readonly #hashes = new Map<string, string>();
  readonly #bytes = new Map<string, Uint8Array>();

  constructor(readonly parts: Parts) {}

  /** A picture in a part of the file; nothing when it is none that content can hold. */
  keep(part: string, alt: string): Picture | undefined {
    if (!this.parts.has(part)) return undefined;
    const head = readPictureBytes(this.parts.head(part, HEAD));
    // What is told by all of it, or by what stands further in it.
    const facts = head?.width === undefined ? readPictureBytes(this.parts.bytes(part)!) : head;
    if (!facts) return undefined;
    const hash = `part:${part}`;
    this.#parts.set(hash, part);
    return { type: "picture", hash, ...facts, alt };
  }

  /** Keeps pictures that have been read. */
  add(pictures: ReadonlyMap<string, Uint8Array>): void {
    for (const [hash, bytes] of pictures) {
      this.#hashes.set(hash, hash);
      this.#bytes.set(hash, bytes);
    }
  }

  /** Content with its pictures by their hashes, and their bytes. */
  giveOut(content: Content): { content: Content; pictures: ReadonlyMap<string, Uint8Array> } {
    if (picturesOf(content).length === 0) return { content, pictures: NONE };
    const hashed = <Item extends Flow | Run>(item: Item): Item =>
      item.type === "picture" ? { ...item, hash: this.#hashOf(item.hash) } : item;
    const given = mapContent(content, {
      flow: (flow) => [hashed(flow)],
      runs: (runs) => (runs.some(({ type }) => type === "picture") ? runs.map(hashed) : runs),
    });
    const pictures = new Map(picturesOf(given).map(({ hash }) => [hash, this.#bytes.get(hash)!]));
    return { content: given, pictures };
  }

  #hashOf(kept: string): string {
    let hash = this.#hashes.get(kept);
    if (hash === undefined) {
      const bytes = this.parts.bytes(this.#parts.get(kept)!)!;
      hash = hashBytes(bytes);
      this.#hashes.set(kept, hash);
      this.#bytes.set(hash, bytes);
    }
    return hash;
  }
}

const NONE: ReadonlyMap<string, Uint8Array> = new Map();

/** What reads a document into flows. */
interface FlowReader {
  /** The flows that have been read; the last may yet become another. */
  readonly flows: readonly Flow[];
  /** Adds what is open at the end of the document. */
  end?(): void;
  readonly asides: Asides<Aside>;
  readonly pictures: DocumentPictures;
}

/**
 * A document that is read as far as it is asked for. Who asks for all of its content, or for what is told of it, reads all.
 *
 * @param stream what feeds the reader
 * @param told what there is to tell of it beside what the reader says
 */
export function openDocument(
  stream: Pick<XmlStream, "isRead" | "readOn">,
  reader: FlowReader,
  file: string,
  title: string | undefined,
  told: readonly Notice[] = [],
): ReadDocument {
  const open: OpenFlows = {
    flows: reader.flows,
    get settled() {
      return stream.isRead ? reader.flows.length : reader.flows.length - 1;
    },
    get isRead() {
      return stream.isRead;
    },
    readOn() {
      stream.readOn();
      if (stream.isRead) reader.end?.();
    },
    elementsOf: (flow) => reader.asides.elementsOf(flow),
    giveOut: (content) => reader.pictures.giveOut(content),
  };
  let whole: ReturnType<OpenFlows["giveOut"]> | undefined;
  const readAll = () => {
    while (!open.isRead) open.readOn();
    return (whole ??= open.giveOut(reader.flows));
  };
  return {
    get content() {
      return readAll().content;
    },
    get pictures() {
      return readAll().pictures;
    },
    get notices() {
      readAll();
      return [...asideNotices(file, reader.asides.all), ...told];
    },
    noticesOf: (flows) => asideNotices(file, reader.asides.of(flows)),
    open,
    ...(title && { title }),
  };
}
