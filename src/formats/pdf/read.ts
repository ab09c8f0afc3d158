import { defined } from "../../content/defined.js";
import { hashBytes } from "../../content/encode.js";
import { DrawerError } from "../../content/error.js";
import type { Content, Flow, Picture } from "../../content/model.js";
import { notice, type Notice } from "../../content/notice.js";
import { readPictureBytes } from "../../content/picture.js";
import { eachFlow, picturesOf } from "../../content/traverse.js";
import { formatNotices } from "../../messages/en/formats.js";
import type { DocumentPages, OpenFlows, ReadDocument, ReadOptions } from "../format.js";
import { TextBudget } from "../office/text-budget.js";
import { edgeLinesOf, furnitureOf, type EdgeLine } from "./furniture.js";
import { addGoingOn, tableGoingOn } from "./going-on.js";
import { openPages } from "./open-pages.js";
import type { PageFacts, PdfPages, PictureOnPage } from "./page-facts.js";
import { flowsOfPage } from "./page-flows.js";
import { framesOf } from "./pieces.js";
import { usualSize } from "./segments.js";

/** How many pages around the one that is read are kept. */
const KEPT = 8;
/** Pages as near as this have the same heads and feet. */
const NEAR = 2;
/** The size of text where a document says nothing of it, in points. */
const USUAL_SIZE = 11;

/**
 * Reads a PDF (ISO 32000): a page at a time, as far as it is asked for. What its tags say is taken; where it has none, lines, columns,
 * tables, lists and headings are told by how the text stands.
 *
 * @param bytes the whole file
 * @param file its name, for messages
 * @throws DrawerError `unreadable`, `locked`, `too-large`, `unknown-format`
 */
export async function readPdf(
  bytes: Uint8Array,
  file: string,
  options: ReadOptions = {},
): Promise<ReadDocument> {
  const pages = await openPages(bytes, file, options);
  const reader = new PdfReader(pages, file);
  const { onProgress } = options;
  const open: OpenFlows = {
    flows: reader.flows,
    get settled() {
      // The last may go on on the next page.
      return reader.isRead ? reader.flows.length : Math.max(0, reader.flows.length - 1);
    },
    get isRead() {
      return reader.isRead;
    },
    readOn() {
      onProgress?.(Math.round((bytes.length * reader.read) / pages.count), bytes.length);
      reader.readOn();
    },
    elementsOf: () => [],
    giveOut: (content) => ({ content, pictures: reader.picturesIn(content) }),
  };
  const readAll = () => {
    while (!open.isRead) open.readOn();
  };
  return {
    get content() {
      readAll();
      return reader.flows;
    },
    get pictures() {
      readAll();
      return reader.picturesIn(reader.flows);
    },
    get notices() {
      readAll();
      return reader.notices();
    },
    noticesOf: (flows) => reader.notices(flows),
    open,
    pages: {
      count: pages.count,
      flowsOf: (from, to) => reader.pagesAlone(from, to),
      pageOf: (flow) => reader.pageOf(flow),
    } satisfies DocumentPages,
    ...defined({ title: pages.title }),
  };
}

/** What there is to tell of a page. */
interface Told {
  furniture: number;
  scanned: number;
  leftOut: number;
  unread: number;
  /** Words that were broken at the end of a line. */
  count: number;
}

class PdfReader {
  readonly flows: Flow[] = [];
  /** How many pages have been read, from the first. */
  read = 0;
  readonly #facts = new Map<number, PageFacts | undefined>();
  readonly #edges = new Map<number, readonly EdgeLine[]>();
  readonly #pictures = new Map<string, Uint8Array>();
  readonly #pageOf = new WeakMap<Flow, number>();
  readonly #told = new Map<number, Told>();
  readonly #budget: TextBudget;
  /** How many letters there are of each size, of the pages that have been seen. */
  readonly #sizes = new Map<number, number>();

  constructor(
    readonly pages: PdfPages,
    readonly file: string,
  ) {
    this.#budget = new TextBudget(file);
  }

  get isRead(): boolean {
    return this.read >= this.pages.count;
  }

  readOn(): void {
    this.#add(this.flows, this.#flowsOf(++this.read), this.read);
  }

  /** The flows of some pages, by themselves. */
  pagesAlone(from: number, to: number): Flow[] {
    const flows: Flow[] = [];
    for (let number = from; number <= to; number++) this.#add(flows, this.#flowsOf(number), number);
    return flows;
  }

  pageOf(flow: Flow): number | undefined {
    return this.#pageOf.get(flow);
  }

  picturesIn(content: Content): ReadonlyMap<string, Uint8Array> {
    return new Map(picturesOf(content).map(({ hash }) => [hash, this.#pictures.get(hash)!]));
  }

  /** Adds the flows of a page: what goes on from the page before is joined with it. */
  #add(flows: Flow[], added: readonly Flow[], page: number): void {
    eachFlow(added, (flow) => this.#pageOf.set(flow, page));
    const last = flows.at(-1);
    if (!last || this.#pageOf.get(last) === undefined) {
      flows.push(...added);
      return;
    }
    const began = this.#pageOf.get(last)!;
    const [first] = added;
    const table = last.type === "table" && first?.type === "table" ? tableGoingOn(last, first) : undefined;
    if (table) flows.pop();
    const joined = table ?? addGoingOn(flows, added, this.#told.get(page)!);
    if (table) flows.push(table, ...added.slice(1));
    if (joined) eachFlow([joined], (flow) => this.#pageOf.set(flow, this.#pageOf.get(flow) ?? began));
  }

  #flowsOf(number: number): readonly Flow[] {
    const page = this.#page(number);
    const told: Told = { furniture: 0, scanned: 0, leftOut: 0, unread: 0, count: 0 };
    this.#told.set(number, told);
    if (!page) {
      told.unread = 1;
      return [];
    }
    const around: number[] = [];
    for (let other = number - NEAR; other <= number + NEAR; other++)
      if (other !== number && other >= 1 && other <= this.pages.count) around.push(other);
    const others = around.map((other) => this.#edgesOf(other));
    const found = flowsOfPage(
      page,
      furnitureOf(this.#edgesOf(number), others),
      { bodySize: this.#bodySize(), outline: this.pages.outline, rejoined: told },
      (picture, alt) => this.#keep(picture, alt),
    );
    told.furniture = found.furniture;
    told.scanned = found.isScanned ? 1 : 0;
    told.leftOut = page.leftOut + found.backgrounds;
    for (const { text } of page.pieces) this.#budget.spend(text.length);
    return found.flows;
  }

  /** A page; nothing for one that is damaged. */
  #page(number: number): PageFacts | undefined {
    if (this.#facts.has(number)) return this.#facts.get(number);
    let page: PageFacts | undefined;
    try {
      page = this.pages.page(number);
    } catch (error) {
      if (!(error instanceof DrawerError) || error.reason !== "unreadable/page") throw error;
    }
    this.#facts.set(number, page);
    for (const { text, size } of page?.pieces ?? []) {
      const key = Math.round(size * 2) / 2;
      this.#sizes.set(key, (this.#sizes.get(key) ?? 0) + text.trim().length);
    }
    if (this.#facts.size > KEPT) this.#facts.delete(this.#facts.keys().next().value!);
    return page;
  }

  #edgesOf(number: number): readonly EdgeLine[] {
    let edges = this.#edges.get(number);
    if (!edges) {
      const page = this.#page(number);
      edges = page ? edgeLinesOf(page, framesOf(page, page.pieces)[0] ?? []) : [];
      this.#edges.set(number, edges);
    }
    return edges;
  }

  #bodySize(): number {
    return usualSize([...this.#sizes].map(([size, letters]) => ({ size, letters }))) || USUAL_SIZE;
  }

  #keep({ png }: PictureOnPage, alt: string): Picture {
    const hash = hashBytes(png);
    this.#pictures.set(hash, png);
    return { type: "picture", hash, ...readPictureBytes(png)!, alt: alt.trim() };
  }

  /** What there is to tell of the pages that have been read, or of those that some flows stand on. */
  notices(flows?: readonly Flow[]): Notice[] {
    const pages = flows && new Set(flows.map((flow) => this.#pageOf.get(flow)));
    const told = [...this.#told].filter(([page]) => !pages || pages.has(page));
    const all = (kind: keyof Told) => told.reduce((sum, [, each]) => sum + each[kind], 0);
    const { file } = this;
    const which = (kind: keyof Told) => told.flatMap(([page, each]) => (each[kind] > 0 ? [page] : []));
    const notices: Notice[] = [];
    if (all("unread") > 0)
      notices.push(notice(formatNotices, "left-out/pages", { file, pages: which("unread") }));
    if (all("scanned") > 0)
      notices.push(notice(formatNotices, "as-picture/pages", { file, pages: which("scanned") }));
    if (all("furniture") > 0)
      notices.push(notice(formatNotices, "left-out/page-furniture", { file, count: all("furniture") }));
    if (all("leftOut") > 0)
      notices.push(notice(formatNotices, "left-out/page-pictures", { file, count: all("leftOut") }));
    if (all("count") > 0)
      notices.push(notice(formatNotices, "guessed/rejoined", { file, count: all("count") }));
    return notices;
  }
}
