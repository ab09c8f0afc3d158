import { makeCell, makeTable } from "../../content/make-table.js";
import type { Cell, Content, Flow, Heading, Item, Row, Run } from "../../content/model.js";
import { blankRuns, runsText } from "../../content/runs.js";
import { isBlank } from "../../content/traverse.js";
import { loneMark, type ItemMark } from "./markers.js";
import type { PictureOnPage, StructureNode } from "./page-facts.js";
import { markerOf, unbold, withoutMark } from "./paragraphs.js";
import type { Piece } from "./pieces.js";
import { joinLines, runsOfLine, type Rejoined } from "./runs.js";
import { rowsOf, segmentsOf } from "./segments.js";

/** What tags need to become flows. */
export interface TaggedPage {
  readonly structure: StructureNode;
  /** The pieces of the page, by the marked content that they stand in. */
  readonly pieces: ReadonlyMap<string, readonly Piece[]>;
  readonly pictures: ReadonlyMap<string, readonly PictureOnPage[]>;
  /** Makes a picture of the page a flow. */
  readonly picture: (picture: PictureOnPage, alt: string) => Flow;
  readonly rejoined: Rejoined;
}

/** Elements that stand in a line (ISO 32000-1, 14.8.4.4; 32000-2, 14.8.4.7). */
const INLINE =
  /^(?:Span|Quote|Note|FENote|Reference|BibEntry|Code|Link|Annot|Ruby|RB|RT|RP|Warichu|WT|WP|Em|Strong|Sub|Lbl|NonStruct|Private|Form)$/;

/** How deep tags may stand in each other. */
const DEPTH = 100;

/** The flows of a page as its tags say. */
export function taggedFlows(page: TaggedPage): Flow[] {
  return new TagReader(page).flows([page.structure], 0);
}

class TagReader {
  constructor(readonly page: TaggedPage) {}

  flows(nodes: readonly StructureNode[], depth: number): Flow[] {
    if (depth > DEPTH) return [];
    const flows: Flow[] = [];
    // What stands in a line outside any paragraph.
    let loose: StructureNode[] = [];
    const flush = () => {
      if (loose.length > 0) flows.push(...this.#lines(loose));
      loose = [];
    };
    for (const node of nodes) {
      if (this.#isInline(node)) {
        loose.push(node);
        continue;
      }
      flush();
      flows.push(...this.#flow(node, depth + 1));
    }
    flush();
    return flows;
  }

  #isInline({ role, type, children = [] }: StructureNode): boolean {
    if (role === undefined) return type !== undefined;
    return INLINE.test(role) && children.every((child) => this.#isInline(child));
  }

  #flow(node: StructureNode, depth: number): Flow[] {
    const { role = "", children = [] } = node;
    const heading = /^H([1-6])?$/.exec(role);
    if (heading || role === "Title") {
      const level = (heading?.[1] ? Number(heading[1]) : role === "Title" ? 1 : 2) as Heading["level"];
      const runs = unbold(this.#runs(children));
      return blankRuns(runs) ? [] : [{ type: "heading", level, runs }];
    }
    switch (role) {
      case "L":
        return this.#list(children, depth);
      case "Table":
        return this.#table(children, depth);
      case "BlockQuote": {
        const flows = this.flows(children, depth);
        return flows.length > 0 ? [{ type: "quote", flows }] : [];
      }
      case "Figure":
      case "Formula":
        return this.#figure(node);
    }
    return this.flows(children, depth);
  }

  /** What stands in a line: a paragraph, with the pictures that stand in it after it. */
  #lines(nodes: readonly StructureNode[]): Flow[] {
    const runs = this.#runs(nodes);
    return [
      ...(blankRuns(runs) ? [] : [{ type: "paragraph" as const, runs }]),
      ...this.#picturesIn(nodes, ""),
    ];
  }

  #figure({ alt = "", children = [] }: StructureNode): Flow[] {
    const pictures = this.#picturesIn(children, alt);
    const runs = this.#runs(children);
    return [...pictures, ...(blankRuns(runs) ? [] : [{ type: "paragraph" as const, runs }])];
  }

  #picturesIn(nodes: readonly StructureNode[], alt: string): Flow[] {
    return idsOf(nodes).flatMap((id) =>
      (this.page.pictures.get(id) ?? []).map((picture) => this.page.picture(picture, alt)),
    );
  }

  /** All text of some elements as one line, with what was broken at line ends joined. */
  #runs(nodes: readonly StructureNode[]): Run[] {
    const pieces = idsOf(nodes).flatMap((id) => this.page.pieces.get(id) ?? []);
    // Segments find what stands above the line; the order is that of the tags.
    const order = new Map(pieces.map((piece, at) => [`${piece.x} ${piece.y}`, at]));
    const rows = rowsOf(segmentsOf(pieces)).map((row) => row.flatMap((segment) => segment.pieces));
    rows.sort((a, b) => first(a) - first(b));
    function first(row: readonly Piece[]): number {
      return Math.min(...row.map(({ x, y }) => order.get(`${x} ${y}`) ?? Infinity));
    }
    const lines = rows.map(runsOfLine);
    return lines.reduce<Run[]>((runs, line) => joinLines(runs, line, this.page.rejoined), []);
  }

  #list(children: readonly StructureNode[], depth: number): Flow[] {
    const items: Item[] = [];
    let mark: ItemMark | undefined;
    const before: Flow[] = [];
    for (const child of children) {
      if (child.role === "Caption") before.push(...this.flows(child.children ?? [], depth));
      // Some write a list that stands in another beside its items.
      else if (child.role === "L") {
        const nested = this.#list(child.children ?? [], depth + 1);
        const last = items.at(-1);
        if (last) items[items.length - 1] = { flows: [...last.flows, ...nested] };
        else items.push({ flows: nested });
      } else {
        const item = this.#item(child, depth);
        mark ??= item.mark;
        if (item.flows.length > 0) items.push({ flows: item.flows });
      }
    }
    if (items.length === 0) return before;
    const [numbered] = mark?.numbers ?? [];
    const marker = mark && markerOf(mark);
    return [
      ...before,
      {
        ...{ type: "list", ordered: mark?.ordered ?? false, items },
        ...(numbered && numbered.number !== 1 && { start: numbered.number }),
        ...(marker && { marker }),
      },
    ];
  }

  #item(
    { role, children = [] }: StructureNode,
    depth: number,
  ): { flows: Content; mark?: ItemMark | undefined } {
    if (role !== "LI") return { flows: this.flows(children, depth) };
    const label = children.find((child) => child.role === "Lbl");
    const said = label ? runsText(this.#runs([label])) : "";
    const rest = children.flatMap((child) =>
      child === label ? [] : child.role === "LBody" ? (child.children ?? []) : [child],
    );
    const flows = this.flows(rest, depth);
    const mark = said === "" ? undefined : loneMark(said);
    const [only] = flows;
    // Some put the mark into the text of the item.
    if (!mark && only?.type === "paragraph") {
      const own = loneMark(runsText(only.runs).split(/\s/)[0]!);
      const text = runsText(only.runs);
      if (own && said === "" && text.length > own.length)
        return {
          mark: own,
          flows: [{ ...only, runs: withoutMark(only.runs, own.length) }, ...flows.slice(1)],
        };
    }
    return { flows, mark };
  }

  #table(children: readonly StructureNode[], depth: number): Flow[] {
    const rows: Row[] = [];
    const around: Flow[] = [];
    let headerRows = 0;
    const addRow = (cells: readonly StructureNode[], isHead: boolean) => {
      const row: Cell[] = cells.map((cell) => makeCell(this.flows(cell.children ?? [], depth), {}));
      const isNamed = cells.length > 0 && cells.every(({ role }) => role === "TH");
      if ((isHead || isNamed) && headerRows === rows.length) headerRows++;
      rows.push(row);
    };
    const visit = (nodes: readonly StructureNode[], isHead: boolean) => {
      for (const node of nodes) {
        if (node.role === "TR") addRow(node.children ?? [], isHead);
        else if (/^T(?:Head|Body|Foot)$/.test(node.role ?? ""))
          visit(node.children ?? [], node.role === "THead");
        else around.push(...this.flows([node], depth));
      }
    };
    visit(children, false);
    // Tags tell all rows of a table, of those on other pages too, which say nothing here.
    const isSaid = rows.map((row) => row.some(({ flows }) => !isBlank(flows)));
    const from = isSaid.indexOf(true);
    if (from < 0) return around;
    const first = isSaid.indexOf(true, Math.max(from, headerRows));
    const shown = rows.filter(
      (_, at) =>
        at >= from && at <= isSaid.lastIndexOf(true) && (at < headerRows || at >= first || isSaid[at]),
    );
    const names = Math.max(0, headerRows - from);
    return [...around, makeTable(shown, names === shown.length ? 0 : names)];
  }
}

/** The marked contents that some elements hold, in the order of the tags. */
export function idsOf(nodes: readonly StructureNode[], depth = 0): string[] {
  if (depth > DEPTH) return [];
  return nodes.flatMap(({ id, type, children = [] }) =>
    type === "content" && id !== undefined ? [id] : idsOf(children, depth + 1),
  );
}
