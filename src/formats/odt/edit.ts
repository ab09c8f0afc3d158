import type { Rectangle } from "../../content/cells.js";
import { DrawerError } from "../../content/error.js";
import type { Content, Table } from "../../content/model.js";
import { notice, type Notice } from "../../content/notice.js";
import { editErrors, editNotices } from "../../messages/en/edit.js";
import type {
  AppendedRow,
  DocumentEditor,
  DocumentPlace,
  Edited,
  EditOptions,
  Put,
  PutInput,
} from "../edit.js";
import { isLine } from "../fill.js";
import { cellContents } from "../office/cell-contents.js";
import { cleanForXml } from "../office/clean.js";
import { EditedPackage } from "../office/edited-package.js";
import { odfParts } from "../office/odf-parts.js";
import type { CellLike } from "../office/row-like.js";
import {
  attributeAt,
  childPlaces,
  edited,
  outermostPlaces,
  placesOf,
  type TextEdit,
  type XmlPlace,
} from "../office/xml-text.js";
import { writeText } from "../text/write.js";
import { addAutomaticStyles } from "./automatic-styles.js";
import { graft, type GraftedBlock } from "./graft.js";
import { cellsIn } from "./table-places.js";
import { rowLike } from "./table-rows.js";
import { TrackedChanges } from "./tracked.js";
import { writeOdt } from "./write.js";

const CONTENT = "content.xml";

/** Puts blocks into an odt and takes them out, in its text; all else stays as it is. */
export const odtEditor: DocumentEditor = {
  type: "document",
  put: (bytes, file, place, put, input, options) =>
    Promise.resolve().then(() => new Document(bytes, file, options).put(place, put, input)),
  append: (bytes, file, place, rows, input, options) =>
    Promise.resolve().then(() => new Document(bytes, file, options).append(place, rows, input)),
  takeOut: (bytes, file, places, options) =>
    Promise.resolve().then(() => new Document(bytes, file, options).takeOut(places)),
};

class Document {
  readonly #edited: EditedPackage;
  readonly #text: string;
  /** The automatic styles of what has come. */
  #styles = "";
  /** What marks changes; nothing where they are not marked. */
  readonly #changes: TrackedChanges | undefined;

  constructor(
    bytes: Uint8Array,
    readonly file: string,
    { track, at }: EditOptions,
  ) {
    const parts = odfParts(bytes, file);
    this.#edited = new EditedPackage(parts);
    this.#text = parts.needed(CONTENT);
    if (!/<office:document-content\b/.test(this.#text))
      throw new DrawerError(editErrors, "cannot-edit/form", { file });
    const isTracked = /<text:tracked-changes\b(?![^>]*text:track-changes="false")/.test(this.#text);
    if (track ?? isTracked) this.#changes = new TrackedChanges(this.#text, at);
  }

  put({ spot, elements, cells }: DocumentPlace, put: Put | undefined, input: PutInput): Edited {
    const places = placesOf(this.#text, elements);
    const found = elements.map((number) => places.get(number)!);
    const [first, last] = [found[0]!, found.at(-1)!];
    const edits: TextEdit[] = [];
    const notices: Notice[] = [];
    if (cells) edits.push(...this.#intoCells(first, cells, spot, put, input, notices));
    else {
      const blocks = this.#blocks(input, notices);
      const marked =
        put === "instead"
          ? this.#markedInPlaceOf(found, blocks, spot)
          : this.#markedBeside(put === "before" ? first : last, put ?? "after", blocks);
      if (marked) edits.push(...marked);
      else if (put === "instead") edits.push(...this.#inPlaceOf(found, blocks, spot));
      else edits.push(...this.#beside(put === "before" ? first : last, put ?? "after", blocks));
    }
    return this.#changed(edits, notices);
  }

  append({ elements, cells, spot }: DocumentPlace, rows: readonly AppendedRow[], input: PutInput): Edited {
    const table = placesOf(this.#text, elements).get(elements[0]!)!;
    const like = rowLike(this.#text, table, cells!.bottom, { file: this.file, spot });
    const notices: Notice[] = [];
    const inCell = (content: Content, cell: CellLike) =>
      isLine(content)
        ? cell.line(writeText(content))
        : cell.holding(
            this.#blocks({ ...input, content }, notices)
              .map(({ xml }) => xml)
              .join(""),
          );
    const made = rows.map((row) => like.row(like.cells.map((cell, at) => inCell(row[at] ?? [], cell))));
    return this.#changed([{ from: like.end, to: like.end, text: made.join("") }], notices);
  }

  takeOut(places: readonly DocumentPlace[]): Edited {
    const known = placesOf(
      this.#text,
      places.flatMap(({ elements }) => elements),
    );
    const edits: TextEdit[] = [];
    const whole = new Set<XmlPlace>();
    for (const { elements, cells } of places) {
      const found = elements.map((number) => known.get(number)!);
      if (cells)
        for (const cell of cellsIn(this.#text, found[0]!, cells))
          edits.push({ from: cell.inner, to: cell.innerEnd, text: this.#emptied(cell) });
      else for (const place of found) whole.add(place);
    }
    const spot = places.map(({ spot: written }) => written).join(", ");
    // Marked as a whole or not at all, so that somebody who declines it has the document as it was.
    if (whole.size > 0)
      edits.push(
        ...((edits.length === 0 && this.#markedRemoval([...whole], spot)) || this.#removal([...whole], spot)),
      );
    return this.#changed(edits, []);
  }

  /** The document with its changes. Where they should be marked and could not be, that is told. */
  #changed(edits: TextEdit[], notices: Notice[]): Edited {
    const list = this.#changes?.list ?? [];
    if (this.#changes && list.length === 0)
      notices.push(notice(editNotices, "not-kept/tracked", { file: this.file }));
    const styles = this.#styles === "" ? [] : [addAutomaticStyles(this.#text, this.#styles)];
    this.#edited.set(CONTENT, edited(this.#text, [...styles, ...list, ...edits]));
    return { data: this.#edited.bytes(), notices };
  }

  /** Blocks beside a paragraph or a list, marked as put in; nothing where that is not marked. */
  #markedBeside(
    place: XmlPlace,
    put: "after" | "before",
    blocks: readonly GraftedBlock[],
  ): TextEdit[] | undefined {
    if (itemAround(place)) return undefined;
    return this.#changes?.insertion(
      put === "after" ? place.end : place.start,
      blocks.map(({ xml }) => xml).join(""),
    );
  }

  /** Blocks in the place of paragraphs: these are marked as taken out, those as put in. */
  #markedInPlaceOf(
    found: readonly XmlPlace[],
    blocks: readonly GraftedBlock[],
    spot: string,
  ): TextEdit[] | undefined {
    const out = this.#markedRemoval(found, spot);
    const put = out && this.#markedBeside(found[0]!, "before", blocks);
    if (put) return [...out, ...put];
    this.#changes?.clear();
    return undefined;
  }

  /** How paragraphs are marked as taken out; nothing where that is not marked. */
  #markedRemoval(elements: readonly XmlPlace[], spot: string): TextEdit[] | undefined {
    if (!this.#changes) return undefined;
    const outer = outermostPlaces(elements).sort((one, other) => one.start - other.start);
    this.#refuseBroken(outer, spot);
    const range = this.#rangeOf(outer);
    return range && this.#changes.deletion(range);
  }

  /** The place of paragraphs that stand one after another in the text itself; nothing for any others. */
  #rangeOf(elements: readonly XmlPlace[]): Pick<XmlPlace, "start" | "end"> | undefined {
    const isOne = elements.every(
      (each, at) =>
        /^[ph]$/.test(each.name) &&
        each.parent?.name === "text" &&
        (at === 0 || this.#text.slice(elements[at - 1]!.end, each.start).trim() === ""),
    );
    return isOne ? { start: elements[0]!.start, end: elements.at(-1)!.end } : undefined;
  }

  /** Content as blocks of this document. The styles that they need are added with its changes. */
  #blocks(input: PutInput, notices: Notice[]): GraftedBlock[] {
    const written = writeOdt(cleanForXml(input));
    notices.push(...written.notices);
    const usesBody =
      / text:style-name="Text_20_body"/.test(this.#text) ||
      /style:parent-style-name="Text_20_body"/.test(this.#text);
    const { blocks, styles } = graft(
      this.#edited,
      written.data as Uint8Array,
      usesBody ? "Text_20_body" : "Standard",
      this.#styles,
    );
    this.#styles += styles;
    return blocks;
  }

  /** Blocks in the place of elements; in a list they part it, unless all of it goes. */
  #inPlaceOf(found: readonly XmlPlace[], blocks: readonly GraftedBlock[], spot: string): TextEdit[] {
    const [first] = found as [XmlPlace];
    const whole = blocks.map(({ xml }) => xml).join("");
    const isItem = itemAround(first) !== undefined;
    const out = this.#removal(found, spot, !isItem);
    const list = out.find(({ from, to }) => from < first.start && to >= first.end);
    const isAllOfList = list !== undefined && this.#text.startsWith("<text:list ", list.from);
    if (!isItem || isAllOfList) {
      const at = list?.from ?? first.start;
      return [...out, { from: at, to: at, text: whole }];
    }
    return [...out, ...this.#beside(first, "before", blocks)];
  }

  #intoCells(
    table: XmlPlace,
    cells: Rectangle,
    spot: string,
    put: Put | undefined,
    input: PutInput,
    notices: Notice[],
  ): TextEdit[] {
    const found = cellsIn(this.#text, table, cells);
    const several =
      found.length > 1
        ? cellContents(input.content as readonly Table[], { file: this.file, spot }, found.length, cells)
        : undefined;
    return found.flatMap((cell, index) => {
      const inner = this.#text.slice(cell.inner, cell.innerEnd);
      const isEmpty =
        inner.replace(/<[^>]*>/g, "").trim() === "" && !/<(?:draw|table|text:note|text:list)\b/.test(inner);
      if (put === undefined && !isEmpty)
        throw new DrawerError(editErrors, "cannot-edit/filled", { file: this.file, spot });
      const blocks = this.#blocks({ ...input, content: several?.[index] ?? input.content }, notices);
      const xml = blocks.map((block) => block.xml).join("");
      if (cell.inner === cell.end) return this.#opened(cell, xml);
      const isWhole = put === "instead" || isEmpty;
      const [from, to] = isWhole
        ? [cell.inner, cell.innerEnd]
        : put === "before"
          ? [cell.inner, cell.inner]
          : [cell.innerEnd, cell.innerEnd];
      return [{ from, to, text: xml }];
    });
  }

  /** A cell that was written as an empty element, with something in it. */
  #opened(cell: XmlPlace, xml: string): TextEdit[] {
    const tag = this.#text.slice(cell.start, cell.end).replace(/\s*\/>$/, ">");
    return [{ from: cell.start, to: cell.end, text: `${tag}${xml}</${/^<([\w:-]+)/.exec(tag)![1]}>` }];
  }

  #emptied(cell: XmlPlace): string {
    const style =
      /^\s*<text:p\b[^>]*?( text:style-name="[^"]*")/.exec(
        this.#text.slice(cell.inner, cell.innerEnd),
      )?.[1] ?? "";
    return `<text:p${style}/>`;
  }

  /** Blocks beside an element. In a list they are items of it, where they are items; otherwise the list is parted there. */
  #beside(place: XmlPlace, put: "after" | "before", blocks: readonly GraftedBlock[]): TextEdit[] {
    const xml = blocks.map((block) => block.xml).join("");
    const item = itemAround(place);
    if (!item) {
      const at = put === "after" ? place.end : place.start;
      return [{ from: at, to: at, text: xml }];
    }
    if (blocks.length === 1 && blocks[0]!.name === "list") {
      const inner = /^<text:list\b[^>]*>([\s\S]*)<\/text:list>$/.exec(xml)![1]!;
      const at = put === "after" ? item.end : item.start;
      return [{ from: at, to: at, text: inner }];
    }
    return this.#parted(place, put, xml);
  }

  /**
   * Parts the lists around an element after it, or before it, with something between. What follows goes on counting: the first of it that
   * stands in an item of an outer list stands there without a number of its own.
   */
  #parted(place: XmlPlace, put: "after" | "before", xml: string): TextEdit[] {
    const isAfter = put === "after";
    let at = isAfter ? place.end : place.start;
    let around = place.parent;
    // At the edge of a list or an item it goes beside that.
    while (around && isOfList(around)) {
      const children = childPlaces(this.#text, around);
      if ((isAfter ? children.at(-1)!.end : children[0]!.start) !== at) break;
      at = isAfter ? around.end : around.start;
      around = around.parent;
    }
    const edits: TextEdit[] = [];
    let [closed, opened] = ["", ""];
    for (; around && isOfList(around); around = around.parent) {
      const { start, inner, innerEnd, end } = around;
      closed += this.#text.slice(innerEnd, end);
      if (around.name !== "list") {
        opened = `<text:list-header>${opened}`;
        edits.push({ from: innerEnd, to: end, text: "</text:list-header>" });
        continue;
      }
      const style = attributeAt(this.#text, around, "text:style-name");
      const named = style === undefined ? "" : ` text:style-name="${style}"`;
      const isOutermost = !around.parent || !isOfList(around.parent);
      const known = attributeAt(this.#text, around, "xml:id");
      const id = known ?? this.#freeId();
      if (isOutermost && known === undefined) {
        const tag = this.#text.slice(start, inner);
        edits.push({
          from: start,
          to: inner,
          text: tag.replace(/^<[\w:-]+/, (name) => `${name} xml:id="${id}"`),
        });
      }
      opened = `<text:list${named}${isOutermost ? ` text:continue-list="${id}"` : ""}>${opened}`;
    }
    return [...edits, { from: at, to: at, text: closed + xml + opened }];
  }

  #freeId(): string {
    for (let number = 1; ; number++)
      if (!this.#text.includes(`xml:id="drawer-list-${number}"`)) return `drawer-list-${number}`;
  }

  /** How elements are taken out, with the items and lists that they leave empty. */
  #removal(elements: readonly XmlPlace[], spot: string, isReplaced = false): TextEdit[] {
    const outer = outermostPlaces(elements);
    this.#refuseBroken(outer, spot);
    let gone = outer;
    for (let isDone = isReplaced; !isDone;) {
      isDone = true;
      const parents = new Set(gone.map(({ parent }) => parent));
      for (const parent of parents) {
        if (!parent || !/^(list-item|list-header|list)$/.test(parent.name)) continue;
        const left = childPlaces(this.#text, parent).filter(
          ({ start }) => !gone.some((each) => each.start === start),
        );
        if (left.length > 0) continue;
        gone = [...gone.filter((each) => each.parent !== parent), parent];
        isDone = false;
      }
    }
    const edits = gone.map(({ start, end }) => ({ from: start, to: end, text: "" }));
    if (isReplaced) return edits;
    for (const parent of new Set(gone.map((each) => each.parent))) {
      if (!parent || !/^(table-cell|text-box|note-body|section)$/.test(parent.name)) continue;
      const left = childPlaces(this.#text, parent).filter(
        ({ start }) => !gone.some((each) => each.start === start),
      );
      if (left.length === 0) edits.push({ from: parent.innerEnd, to: parent.innerEnd, text: "<text:p/>" });
    }
    return edits;
  }

  /** Refuses what would leave one side of a pair behind (ODF 1.3 part 3, 6.2 and 6.4). */
  #refuseBroken(elements: readonly XmlPlace[], spot: string): void {
    const sides = new Map<string, number>();
    const taken = elements.map(({ start, end }) => this.#text.slice(start, end)).join("");
    for (const [, kind, , name] of taken.matchAll(
      /<((?:text|office):(?:bookmark|reference-mark|change|annotation|[\w-]+-mark))(-start|-end)\b[^>]*?\s(?:text:name|office:name|text:change-id|text:id)="([^"]*)"/g,
    ))
      sides.set(`${kind} ${name}`, (sides.get(`${kind} ${name}`) ?? 0) + 1);
    for (const [, name] of taken.matchAll(/<office:annotation\b[^>]*?\soffice:name="([^"]*)"/g))
      if (this.#text.includes(`<office:annotation-end office:name="${name}"`))
        sides.set(`office:annotation ${name}`, (sides.get(`office:annotation ${name}`) ?? 0) + 1);
    for (const [key, count] of sides)
      if (count % 2 === 1)
        throw new DrawerError(editErrors, "cannot-edit/pair", {
          file: this.file,
          spot,
          name: key.slice(key.indexOf(" ") + 1),
        });
  }
}

/** Whether an element is a list or an item of one. */
function isOfList({ name }: XmlPlace): boolean {
  return /^(list|list-item|list-header)$/.test(name);
}

/** The item of a list that an element stands right in. */
function itemAround({ parent }: XmlPlace): XmlPlace | undefined {
  return parent && /^(list-item|list-header)$/.test(parent.name) ? parent : undefined;
}
