import { beginning } from "../content/beginning.js";
import { writeCells, type Rectangle } from "../content/cells.js";
import { cutTable } from "../content/cut-table.js";
import { defined } from "../content/defined.js";
import { DrawerError } from "../content/error.js";
import type { Content, Flow, Item, List, Heading, Table } from "../content/model.js";
import { notice, type Reading } from "../content/notice.js";
import { columnsOf, placedRows } from "../content/spans.js";
import { isBlank } from "../content/traverse.js";
import type { DocumentPlace } from "../formats/edit.js";
import type { OpenFlows } from "../formats/format.js";
import { parts as words } from "../messages/en/content.js";
import { filesErrors } from "../messages/en/files.js";
import { formatNotices } from "../messages/en/formats.js";
import { parseSpot, type Spot } from "./spot.js";
import type { Units } from "./units.js";

/** What a part of a file is. */
export type PartType =
  | "heading"
  | "paragraph"
  | "item"
  | "numberedItem"
  | "quote"
  | "code"
  | "table"
  | "picture"
  | "sheet"
  | "attachment";

/** A part of a file, as `look` lists it. */
export interface Part {
  readonly spot: string;
  readonly type: PartType;
  /** What it is: `heading 2`, `paragraph`, `table 4 × 3`, `sheet`… */
  readonly what: string;
  /** The beginning of what it says, on one line. */
  readonly text: string;
  /** The page that it begins on, in a document whose pages are fixed. */
  readonly page?: number;
}

/** How many characters of a part are shown. */
const SHOWN = 72;

/**
 * A leaf of a document: a flow that holds no others but in cells. Leaves are what spots count: `p` those of text that
 * say something, outside tables; `t` tables; `i` pictures.
 */
interface Leaf {
  readonly flow: Flow;
  /** What it is; nothing for what no spot names. */
  readonly type?: PartType | undefined;
  /** Its number among its kind; 0 for what no spot names (blank lines, dividers). */
  readonly number: number;
  readonly kind: "p" | "t" | "i" | "";
  /** The number of the section that it opens, for a heading. */
  readonly section?: number | undefined;
  /** The number of the item of a list that it stands in, the innermost; nothing outside lists. */
  readonly item?: number | undefined;
}

/** What stands around a leaf. */
interface Around {
  readonly type: PartType;
  readonly item?: number | undefined;
}

/** A document that was read whole, as one that is read piece by piece is. */
export function flowsOf({ content: flows, pictures }: Omit<Reading, "notices">): OpenFlows {
  return {
    ...{ flows, settled: flows.length, isRead: true },
    readOn: () => undefined,
    elementsOf: () => [],
    giveOut: (content) => ({ content, pictures }),
  };
}

/** The leaves of a document, in reading order, as far as it has been read. */
export class Leaves {
  readonly #leaves: Leaf[] = [];
  readonly #counts = { p: 0, t: 0, i: 0, s: 0 };
  #items = 0;
  /** How many flows their leaves have been collected of. */
  #collected = 0;

  /** @param pageOf the page that a flow begins on, where pages are fixed */
  constructor(
    readonly open: OpenFlows,
    readonly pageOf?: (flow: Flow) => number | undefined,
  ) {
    this.#collectSettled();
  }

  #collectSettled(): void {
    const { flows, settled } = this.open;
    for (; this.#collected < settled; this.#collected++) this.#collectFlow(flows[this.#collected]!);
  }

  /** Reads on until something holds, or to the end of the document. */
  #readUntil(holds: () => boolean): void {
    // Others may have read on.
    this.#collectSettled();
    while (!this.open.isRead && !holds()) {
      this.open.readOn();
      this.#collectSettled();
    }
  }

  #readAll(): void {
    this.#readUntil(() => false);
  }

  #collect(content: Content, around: Around): void {
    for (const flow of content) this.#collectFlow(flow, around);
  }

  #collectFlow(flow: Flow, around?: Around): void {
    switch (flow.type) {
      case "list":
        for (const { flows } of flow.items)
          this.#collect(flows, { type: flow.ordered ? "numberedItem" : "item", item: ++this.#items });
        break;
      case "quote":
        this.#collect(flow.flows, { type: "quote", item: around?.item });
        break;
      case "table":
        this.#add("t", { flow, type: "table" });
        break;
      case "picture":
        this.#add("i", { flow, type: "picture" });
        break;
      case "heading":
        this.#addHeading(flow, around);
        break;
      case "paragraph":
        this.#addLine(flow, around ?? { type: "paragraph" });
        break;
      case "code":
        this.#addLine(flow, around ?? { type: "code" });
        break;
      case "divider":
        this.#leaves.push({ flow, kind: "", number: 0 });
        break;
      default:
        flow satisfies never;
    }
  }

  /** A line that shows nothing has no number. */
  #addLine(flow: Flow, { type, item }: Around): void {
    if (isBlank([flow])) this.#leaves.push({ flow, kind: "", number: 0 });
    else this.#add("p", { flow, type, item });
  }

  /** A heading begins a section, unless it shows nothing. */
  #addHeading(flow: Heading, around: Around | undefined): void {
    if (isBlank([flow])) return this.#addLine(flow, { type: "paragraph" });
    const section = ++this.#counts.s;
    this.#add("p", { flow, type: "heading", section, item: around?.item });
  }

  #add(kind: "p" | "t" | "i", leaf: Pick<Leaf, "flow" | "type" | "section" | "item">): void {
    const { flow, type, section, item } = leaf;
    this.#leaves.push({ flow, type, section, item, kind, number: ++this.#counts[kind] });
  }

  /** The parts that spots name, each once. */
  parts(): Part[] {
    this.#readAll();
    const parts: Part[] = [];
    for (const { flow, type, kind, number, section } of this.#leaves) {
      if (type === undefined) continue;
      const [spot, what] = [`${kind}${number}`, whatIs(flow, type, section)];
      const part = { spot, type, what, text: beginning([flow], SHOWN) };
      const page = this.pageOf?.(flow);
      parts.push(page === undefined ? part : { ...part, page });
    }
    return parts;
  }

  /**
   * The content at a spot, with the lists and quotes around it.
   * @throws DrawerError `bad-spot`, `no-spot`
   */
  at(text: string, file: string): Content {
    const spot = parseSpot(text);
    const [from, to] = this.#range(spot, text, file);
    if (spot.type === "table" && spot.cells) {
      const table = this.#leaves[from]!.flow as Extract<Flow, { type: "table" }>;
      if (spot.cells.top >= table.rows.length || spot.cells.left >= columnsOf(table)) {
        throw new DrawerError(filesErrors, "no-spot/table", {
          file,
          spot: text,
          rows: table.rows.length,
          columns: columnsOf(table),
        });
      }
      return [cutTable(table, spot.cells)];
    }
    const wanted = new Set(this.#leaves.slice(from, to + 1).map(({ flow }) => flow));
    return prune(this.open.flows.slice(0, this.#collected), wanted);
  }

  /**
   * The parts of the document that a spot names, whole, each once.
   * @throws DrawerError `bad-spot`, `no-spot`
   */
  flowsAt(text: string, file: string): Flow[] {
    const [from, to] = this.#range(parseSpot(text), text, file);
    return this.#leaves.slice(from, to + 1).map(({ flow }) => flow);
  }

  /**
   * Where in its file a spot stands.
   * @throws DrawerError `bad-spot`, `no-spot`
   */
  placeAt(text: string, file: string): DocumentPlace & { readonly isShared: boolean } {
    const spot = parseSpot(text);
    const [from, to] = this.#range(spot, text, file);
    if (spot.type === "table" && spot.cells) this.at(text, file);
    const named = this.#leaves.filter(({ kind }) => kind !== "");
    const numbers = new Map(named.map((leaf, index) => [leaf, index + 1]));
    const elementsAt = (index: number) => {
      const leaf = this.#leaves[index];
      if (!leaf) return [];
      const own = this.open.elementsOf(leaf.flow);
      return own.length > 0 || leaf.kind === "" ? own : [numbers.get(leaf)!];
    };
    const elements = [...new Set(this.#leaves.slice(from, to + 1).flatMap((_, at) => elementsAt(from + at)))];
    // What a line holds besides, a picture or a line across the page, is a part of its own that follows it or goes before.
    const isShared = [from - 1, to + 1].some((index) =>
      elementsAt(index).some((each) => elements.includes(each)),
    );
    return {
      ...{ spot: text, elements, isShared },
      kinds: named.map(({ kind }) => kind).join(""),
      ...(spot.type === "table" && spot.cells && { cells: spot.cells }),
    };
  }

  /** Reads as far as a spot begins, or the last of its parts. */
  #readFor(spot: Spot): void {
    const needed = Object.entries(neededFor(spot)) as ["p" | "t" | "i" | "s", number][];
    this.#readUntil(() => needed.every(([kind, count]) => this.#counts[kind] >= count));
  }

  /**
   * The spots of each paragraph, item, row or cell at a spot, or in all of the document; what is blank has none. Of paragraphs, with
   * what is told of the tables and pictures between them.
   * @throws DrawerError `bad-spot`, `no-spot`
   */
  spotsOfEach(unit: "paragraph" | "item" | "row" | "cell", text: string | undefined, file: string): Units {
    if (text === undefined) this.#readAll();
    const [from, to] =
      text === undefined ? [0, this.#leaves.length - 1] : this.#range(parseSpot(text), text, file);
    const leaves = this.#leaves.slice(from, to + 1);
    const named = (wanted: string) =>
      leaves.flatMap(({ kind, number }) => (kind === wanted ? `${kind}${number}` : []));
    if (unit === "paragraph") {
      const [tables, pictures] = [endsOf(named("t")), endsOf(named("i"))];
      const isAll = tables.count + pictures.count === 0;
      const left = { file, tables, pictures };
      return {
        spots: named("p"),
        notices: isAll ? [] : [notice(formatNotices, "left-out/no-paragraphs", left)],
      };
    }
    if (unit === "item") return { spots: itemSpots(leaves), notices: [] };
    const spots = leaves.flatMap(({ flow, number }) =>
      flow.type === "table"
        ? cellsOfEach(unit, flow, { top: 0, left: 0 }).map((cells) => `t${number}!${writeCells(cells)}`)
        : [],
    );
    return { spots, notices: [] };
  }

  #range(spot: Spot, text: string, file: string): [number, number] {
    this.#readFor(spot);
    const { p, t, i, s } = this.#counts;
    const find = (kind: string, number: number) =>
      this.#leaves.findIndex((leaf) =>
        kind === "s" ? leaf.section === number : leaf.kind === kind && leaf.number === number,
      );
    switch (spot.type) {
      case "paragraphs":
        if (spot.to > p) throw missing(file, text, p, "p", "paragraph");
        return [find("p", spot.from), find("p", spot.to)];
      case "table":
        if (spot.number > t) throw missing(file, text, t, "t", "table");
        return [find("t", spot.number), find("t", spot.number)];
      case "picture":
        if (spot.number > i) throw missing(file, text, i, "i", "picture");
        return [find("i", spot.number), find("i", spot.number)];
      case "section": {
        if (spot.number > s) throw missing(file, text, s, "s", "heading");
        const from = find("s", spot.number);
        const level = (this.#leaves[from]!.flow as Extract<Flow, { type: "heading" }>).level;
        const ends = ({ flow }: Leaf, at: number) =>
          at > from && flow.type === "heading" && flow.level <= level;
        this.#readUntil(() => this.#leaves.some(ends));
        const next = this.#leaves.findIndex(ends);
        return [from, (next < 0 ? this.#leaves.length : next) - 1];
      }
      case "slides": {
        // Each slide is a section.
        if (spot.to > s) throw missing(file, text, s, "sl", "slide");
        const last = this.#range({ type: "section", number: spot.to }, text, file);
        return [find("s", spot.from), last[1]];
      }
      case "pages":
        throw new DrawerError(filesErrors, "bad-spot", { spot: text });
      case "lines":
        throw new DrawerError(filesErrors, "no-spot/lines", { file, spot: text });
    }
  }
}

/** How many spots there are, the first and the last. */
function endsOf(spots: readonly string[]) {
  return { count: spots.length, ...defined({ first: spots[0], last: spots.at(-1) }) };
}

/** The spots of the items that leaves stand in: from the first of their paragraphs to the last. */
function itemSpots(leaves: readonly Leaf[]): string[] {
  const ends: { item: number; from: number; to: number }[] = [];
  for (const { kind, number, item } of leaves) {
    if (kind !== "p" || item === undefined) continue;
    const last = ends.at(-1);
    if (last?.item === item) last.to = number;
    else ends.push({ item, from: number, to: number });
  }
  return ends.map(({ from, to }) => (from === to ? `p${from}` : `p${from}..p${to}`));
}

/**
 * The rectangles of each row, or of each cell, of a table; what is blank has none.
 * @param at where the table begins in its sheet, counting from 0
 */
export function cellsOfEach(
  unit: "row" | "cell",
  table: Table,
  { top, left }: Pick<Rectangle, "top" | "left">,
): Rectangle[] {
  const right = left + columnsOf(table) - 1;
  const found: Rectangle[] = [];
  for (const [row, columns, index] of placedRows(table.rows)) {
    const filled = row.flatMap((cell, at) => (isBlank(cell.flows) ? [] : columns[at]!));
    const line = { top: top + index, bottom: top + index };
    if (unit === "cell")
      for (const column of filled) found.push({ ...line, left: left + column, right: left + column });
    else if (filled.length > 0) found.push({ ...line, left, right });
  }
  return found;
}

/** How many parts of a document must be known to know a spot; none for lines, which documents do not count. */
function neededFor(spot: Spot): { p?: number; t?: number; i?: number; s?: number } {
  switch (spot.type) {
    case "paragraphs":
      return { p: spot.to };
    case "table":
      return { t: spot.number };
    case "picture":
      return { i: spot.number };
    case "section":
      return { s: spot.number };
    case "slides":
      return { s: spot.to };
    case "pages":
    case "lines":
      return {};
  }
}

/** That a document has fewer of something than a spot says. */
function missing(
  file: string,
  spot: string,
  count: number,
  letter: string,
  what: "paragraph" | "table" | "picture" | "heading" | "slide" | "line",
): DrawerError {
  return new DrawerError(filesErrors, "no-spot", { file, spot, has: { count, letter, what } });
}

/** What a leaf is, in words. */
function whatIs(flow: Flow, type: PartType, section: number | undefined): string {
  if (flow.type === "table") return words.table({ rows: flow.rows.length, columns: columnsOf(flow) });
  if (flow.type === "heading") return words.heading({ level: flow.level, section: section! });
  return words[type as Exclude<PartType, "table" | "heading" | "attachment">];
}

/** The content without the leaves that are not wanted, and without the lists and quotes that are empty then. */
function prune(content: Content, wanted: ReadonlySet<Flow>): Content {
  return content.flatMap((flow) => pruneFlow(flow, wanted));
}

function pruneFlow(flow: Flow, wanted: ReadonlySet<Flow>): Content {
  switch (flow.type) {
    case "quote": {
      const flows = prune(flow.flows, wanted);
      return flows.length > 0 ? [{ ...flow, flows }] : [];
    }
    case "list":
      return pruneList(flow, wanted);
    case "paragraph":
    case "heading":
    case "table":
    case "picture":
    case "code":
    case "divider":
      return wanted.has(flow) ? [flow] : [];
  }
}

/** A numbered list that loses its first items goes on counting from the first that stays. */
function pruneList(list: List, wanted: ReadonlySet<Flow>): Content {
  const kept: Item[] = [];
  let first = 0;
  list.items.forEach((item, index) => {
    const flows = prune(item.flows, wanted);
    if (flows.length === 0) return;
    if (kept.length === 0) first = index;
    kept.push({ ...item, flows });
  });
  if (kept.length === 0) return [];
  const { start = 1, ...rest } = list;
  return [{ ...rest, ...(list.ordered && start + first !== 1 && { start: start + first }), items: kept }];
}

/** The lines `from` to `to` of plain text, as content. */
export function cutLines(
  content: Content,
  spot: { from: number; to: number },
  text: string,
  file: string,
): Content {
  if (spot.to > content.length) throw missing(file, text, content.length, "l", "line");
  return content.slice(spot.from - 1, spot.to);
}
