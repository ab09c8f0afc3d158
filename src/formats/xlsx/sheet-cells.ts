import { safeLink, type Address } from "../../content/address.js";
import { parseCells, type Rectangle } from "../../content/cells.js";
import { DrawerError } from "../../content/error.js";
import type { Cell } from "../../content/model.js";
import { dateToSerial } from "../../content/serial.js";
import { formatErrors } from "../../messages/en/formats.js";
import { relationsOf } from "../office/relations.js";
import { COLUMNS, placeKey } from "../office/sheet.js";
import { StreamedCells } from "../office/streamed-cells.js";
import { attributeIn, type Attributes } from "../office/xml-parser.js";
import { afterElement, XmlStream } from "../office/xml-stream.js";
import type { Parts } from "../office/zip.js";
import { CellStore, type CellKind, type StoredCell } from "./cell-store.js";
import { isShown, makeCell, type CellContext } from "./cell.js";
import { TextReader, unescaped } from "./shared-strings.js";

/** How many rows a sheet has at most. */
const ROWS = 1_048_576;
/** A link of cells: where they stand, and its address. */
interface CellLink {
  readonly place: Rectangle;
  readonly address: Address;
}
/** Links of fewer rows are found by each of these; of the others, which each row is looked up among, no sheet has so many. */
const SHORT = 64;
const MOST_TALL = 10_000;
/** What cells hold, by the types that files have for it (ECMA-376 part 1, 18.18.11). */
const KINDS: Readonly<Record<string, CellKind>> = {
  ...{ s: "shared", str: "text", inlineStr: "text", d: "number", b: "boolean", e: "error" },
};

/**
 * The cells of a sheet of a workbook, read row by row (ECMA-376 part 1, 18.3.1). Where a row or a cell does not say its place, it follows
 * the one before it (18.3.1.73, 18.3.1.4). What is merged, and what cells link to, stands after all rows: for that the rest of the part is
 * unpacked, and passed over.
 */
export class XlsxCells extends StreamedCells {
  readonly #store: CellStore;
  readonly #text = new TextReader();
  readonly #merges: Rectangle[] = [];
  /** Links by the rows of their cells, and those of many rows. */
  readonly #links = new Map<number, CellLink[]>();
  readonly #tallLinks: CellLink[] = [];
  #rowsRead = 0;
  #isTailRead = false;
  #row = -1;
  #column = -1;
  #isRowHidden = false;
  /** The cell that is open. */
  #open: { kind: CellKind; look: number; value: string; hasFormula: boolean; hasText: boolean } | undefined;
  #isInValue = false;
  #relations: ReturnType<typeof relationsOf> | undefined;

  constructor(
    readonly parts: Parts,
    readonly part: string,
    isHidden: boolean,
    readonly context: CellContext,
  ) {
    super(isHidden);
    this.#store = new CellStore(parts.file);
  }

  protected open(): XmlStream {
    return new XmlStream(this.parts.pieces(this.part), this.parts.file, {
      open: (name, attributes) => this.#begin(name, attributes),
      text: (text) => {
        if (this.#isInValue) this.#open!.value += text;
        else if (this.#open) this.#text.text(text);
      },
      close: (name) => this.#end(name),
    });
  }

  get rowsRead(): number {
    return this.#rowsRead;
  }

  override readOn(): void {
    super.readOn();
    if (this.isRead) [this.#rowsRead, this.#isTailRead] = [ROWS, true];
  }

  merges(): readonly Rectangle[] {
    this.#readTail();
    return this.#merges;
  }

  row(row: number): readonly (Cell | undefined)[] {
    this.#readTail();
    const cells: (Cell | undefined)[] = [];
    const tall = this.#tallLinks.filter(({ place }) => place.top <= row && row <= place.bottom);
    const links = [...tall, ...(this.#links.get(row) ?? [])];
    for (const [column, cell] of this.#store.row(row)) {
      const link = links.findLast(({ place }) => place.left <= column && column <= place.right);
      cells[column] = makeCell(cell, this.context, link?.address);
    }
    return cells;
  }

  /** Reads what stands after all rows, by another pass where these have not all been read. */
  #readTail(): void {
    if (this.#isTailRead) return;
    while (this.stream.root === "" && !this.isRead) this.readOn();
    if (this.#rowsRead === ROWS) {
      while (!this.isRead) this.readOn();
      return;
    }
    this.#isTailRead = true;
    const pieces = afterElement(this.parts.pieces(this.part), this.stream.root, "sheetData");
    const tail = new XmlStream(pieces, this.parts.file, {
      open: (name, attributes) => this.#beginAfterRows(name, attributes),
      ...{ text: () => undefined, close: () => undefined },
    });
    while (!tail.isRead) tail.readOn();
  }

  #begin(name: string, attributes: Attributes): void {
    switch (name) {
      case "row":
        this.#row = Number(attributeIn(attributes, "r") ?? this.#row + 2) - 1;
        this.#column = -1;
        this.#isRowHidden = isTrue(attributeIn(attributes, "hidden"));
        // Rows come in their order; all before this one have been read.
        if (this.#row > this.#rowsRead) this.#rowsRead = this.#row;
        break;
      case "c":
        this.#beginCell(attributes);
        break;
      case "f":
        if (this.#open) this.#open.hasFormula = true;
        break;
      case "v":
        this.#isInValue = this.#open !== undefined;
        break;
      case "is":
        if (this.#open) this.#open.hasText = true;
        this.#text.begin();
        break;
      case "col":
        if (isTrue(attributeIn(attributes, "hidden"))) this.#hideColumns(attributes);
        break;
      default:
        if (this.#open) this.#text.open(name, attributes);
        else if (!this.#isTailRead) this.#beginAfterRows(name, attributes);
    }
  }

  #beginCell(attributes: Attributes): void {
    const place = placeIn(attributeIn(attributes, "r"));
    if (place >= 0) {
      this.#row = Math.floor(place / COLUMNS);
      this.#column = place % COLUMNS;
    } else this.#column++;
    const isOnSheet = this.#row >= 0 && this.#row < ROWS && this.#column < COLUMNS;
    if (!isOnSheet) throw new DrawerError(formatErrors, "unreadable/part", { file: this.parts.file });
    const kind = KINDS[attributeIn(attributes, "t") ?? "n"] ?? "number";
    const look = Number(attributeIn(attributes, "s") ?? 0);
    this.#open = { kind, look: look < 65_536 ? look : 0, value: "", hasFormula: false, hasText: false };
  }

  #end(name: string): void {
    if (name === "c") this.#endCell();
    else if (name === "v") this.#isInValue = false;
    else if (name === "sheetData") this.#rowsRead = ROWS;
    else if (this.#open) this.#text.close(name);
  }

  #endCell(): void {
    const { kind, look, value, hasFormula, hasText } = this.#open!;
    this.#open = undefined;
    if (hasFormula && value === "" && !hasText) this.facts.unresolved.push(placeKey(this.#row, this.#column));
    const cell = hasText
      ? { ...storedCell("text", this.#text.taken(), look), parts: this.#text.parts }
      : storedCell(kind, kind === "number" ? this.#numberIn(value) : unescaped(value), look);
    this.#store.add(this.#row, this.#column, cell);
    if (cell.kind === "blank" || !isShown(cell, this.context)) return;
    this.extend(this.#row, this.#column);
    if (this.#isRowHidden) this.facts.hiddenRows.add(this.#row);
  }

  /** A day may be written as one (18.18.11, `d`). */
  #numberIn(value: string): string {
    return /^\d{4}-\d\d-\d\d/.test(value) ? String(dateToSerial(value) - this.context.since) : value;
  }

  #addLink(link: CellLink): void {
    const { top, bottom } = link.place;
    if (bottom - top < SHORT) {
      for (let row = top; row <= bottom; row++) {
        if (this.#links.has(row)) this.#links.get(row)!.push(link);
        else this.#links.set(row, [link]);
      }
    } else if (this.#tallLinks.push(link) > MOST_TALL)
      throw new DrawerError(formatErrors, "too-large/document", {
        ...{ file: this.parts.file, what: "elements", most: MOST_TALL },
      });
  }

  #hideColumns(attributes: Attributes): void {
    const from = Number(attributeIn(attributes, "min") ?? 1);
    // To the end of the sheet, there is nothing to hide.
    const to = Math.min(Number(attributeIn(attributes, "max") ?? from), from + 1000, COLUMNS);
    // Ranges of columns do not overlap.
    if (this.facts.hiddenColumns.has(from - 1)) return;
    for (let hidden = from; hidden <= to; hidden++) this.facts.hiddenColumns.add(hidden - 1);
  }

  #beginAfterRows(name: string, attributes: Attributes): void {
    if (name !== "mergeCell" && name !== "hyperlink") return;
    const place = parseCells(attributeIn(attributes, "ref") ?? "");
    if (!place) return;
    if (name === "mergeCell") this.#merges.push(place);
    else {
      this.#relations ??= relationsOf(this.parts, this.part);
      const { target = "" } = this.#relations.get(attributeIn(attributes, "id") ?? "") ?? {};
      const location = attributeIn(attributes, "location");
      const address = safeLink(target && location ? `${target}#${location}` : target);
      if (address) this.#addLink({ place, address });
    }
  }
}

function isTrue(value: string | undefined): boolean {
  return value === "1" || value === "true";
}

/** The place of a cell (`C12`) as one number; −1 where it says none. This is asked of every cell of a sheet. */
function placeIn(reference: string | undefined): number {
  if (reference === undefined) return -1;
  let [column, row, at] = [0, 0, 0];
  for (; at < reference.length; at++) {
    // The same letter in either case.
    const letter = (reference.charCodeAt(at) | 0x20) - 0x60;
    if (letter < 1 || letter > 26) break;
    column = column * 26 + letter;
  }
  for (; at < reference.length; at++) {
    const digit = reference.charCodeAt(at) - 0x30;
    if (digit < 0 || digit > 9) return -1;
    row = row * 10 + digit;
  }
  if (row < 1 || column < 1) return -1;
  return column > COLUMNS ? ROWS * COLUMNS : (row - 1) * COLUMNS + column - 1;
}

/** A cell by what its file says of it. */
function storedCell(kind: CellKind, text: string, look: number): StoredCell {
  if (text === "") return { kind: "blank", number: 0, text, look };
  if (kind === "boolean") return { kind, number: isTrue(text.trim()) ? 1 : 0, text: "", look };
  const number = kind === "number" || kind === "shared" ? Number(text) : NaN;
  // What is no number is shown as it stands there.
  if (Number.isFinite(number)) return { kind, number, text: "", look };
  return { kind: kind === "error" ? kind : "text", number: 0, text, look };
}
