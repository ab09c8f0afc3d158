import { columnLetters, parseCells, writeCells, type Rectangle } from "../../content/cells.js";
import { DrawerError } from "../../content/error.js";
import { notice } from "../../content/notice.js";
import { dateToSerial } from "../../content/serial.js";
import { editErrors, editNotices } from "../../messages/en/edit.js";
import type { AppendedColumns, Edited, SheetEditor, SheetPlace } from "../edit.js";
import type { WriteInput } from "../format.js";
import { plainCells } from "../office/cell-contents.js";
import { cleanForXml } from "../office/clean.js";
import { zipOf } from "../office/compound-file.js";
import { EditedPackage } from "../office/edited-package.js";
import { sheetToWrite, type GridCell } from "../office/grid.js";
import { escapeXml } from "../office/odf.js";
import { mainPart, relationsOf } from "../office/relations.js";
import { COLUMNS } from "../office/sheet.js";
import { edited as editedText, plainText } from "../office/xml-text.js";
import { Parts } from "../office/zip.js";
import { movedDown, rowsIn } from "./formula-places.js";
import { HostFormats } from "./host-formats.js";
import { moveRows, unshared } from "./move-rows.js";
import { SheetText, withSize, type CellPlace } from "./sheet-text.js";
import { readWorkbook } from "./workbook.js";
import { CELL_LENGTH } from "./write.js";

/** Puts cells into an xlsx and takes them out, in the text of one sheet; all else stays as it is. */
export const xlsxEditor: SheetEditor = {
  type: "sheet",
  async put(bytes, file, place, input, isInstead) {
    return (await Workbook.open(bytes, file)).put(place, input, isInstead);
  },
  async append(bytes, file, place, input, columns) {
    return (await Workbook.open(bytes, file)).append(place, input, columns);
  },
  async takeOut(bytes, file, places) {
    return (await Workbook.open(bytes, file)).takeOut(places);
  },
};

type Cells = Map<number, Map<number, string>>;

class Workbook {
  readonly #formats: HostFormats;
  readonly #book: ReturnType<typeof readWorkbook>;

  private constructor(
    readonly file: string,
    readonly edited: EditedPackage,
  ) {
    this.#book = readWorkbook(edited.parts);
    this.#formats = new HostFormats(edited, this.#book.styles);
  }

  static async open(bytes: Uint8Array, file: string): Promise<Workbook> {
    return new Workbook(file, new EditedPackage(new Parts(await zipOf(bytes, file), file)));
  }

  put(place: SheetPlace, input: WriteInput, isInstead: boolean): Edited {
    const { part, sheet } = this.#sheetToChange(place);
    const written = sheetToWrite(cleanForXml(input).content, CELL_LENGTH);
    const rows = [...written.rows()];
    const { top, left } = place.cells;
    const right = left + Math.max(0, ...rows.flatMap((row) => row.map(({ column }) => column)));
    const target = { top, left, right, bottom: top + rows.length - 1 };
    this.#checkShape(place, target);
    this.#checkMerged(sheet.text, place, target);
    const known = this.#known(sheet, target);
    if (!isInstead && some(known, isFilled))
      throw new DrawerError(editErrors, "cannot-edit/filled", { file: this.file, spot: place.spot });
    const cells: Cells = new Map();
    rows.forEach((row, index) => {
      const at = top + index;
      const inRow = new Map<number, string>();
      for (const cell of row) {
        const column = left + cell.column;
        inRow.set(column, this.#cellXml(sheet, at, column, cell, lookOf(known.get(at)?.get(column))));
      }
      cells.set(at, inRow);
    });
    this.#write(part, sheet, cells, target.bottom, right);
    if (some(known, ({ xml }) => /<(?:\w+:)?f[\s>/]/.test(xml))) this.#forgetChain();
    return this.#done([...written.notices, ...plainCells(rows)]);
  }

  append(place: SheetPlace, input: WriteInput, { headerRows, columns, untilBlank }: AppendedColumns): Edited {
    const { part, sheet } = this.#sheet(place);
    const written = sheetToWrite(cleanForXml(input).content, CELL_LENGTH);
    const rows = [...written.rows()].slice(headerRows);
    if (rows.length === 0)
      throw new DrawerError(editErrors, "cannot-edit/cells", { file: this.file, spot: place.spot });
    const table = this.#tableAt(part, place.cells);
    const bottom =
      table?.cells.bottom ??
      (untilBlank ? this.#lastBeforeBlank(sheet, place.cells.top) : place.cells.bottom);
    // Of the rows of a whole sheet, what stands beside the names of its columns is a part.
    const cells = untilBlank ? { ...place.cells, left: 0, right: COLUMNS - 1 } : place.cells;
    const isTotalled = table ? table.totals > 0 : this.#hasTotals(sheet, cells, bottom);
    const end = isTotalled ? bottom - (table?.totals ?? 1) : bottom;
    const at = end + 1;
    const isBelow = [...sheet.rows()].some((row) => row.row >= at && sheet.cells(row).some(isFilled));
    const inLast = [
      ...(this.#known(sheet, { ...cells, top: end, bottom: end })
        .get(end)
        ?.values() ?? []),
    ];
    const right = Math.max(place.cells.right, ...inLast.filter(isFilled).map(({ column }) => column));
    const patterns = new Map(
      inLast.filter(({ column }) => column <= right).map((cell) => [cell.column, cell]),
    );
    const formulas = this.#formulasIn(sheet, patterns, end);
    // Also where nothing is below that would move: what names the rows takes in those that come.
    moveRows(this.edited, this.#book, part, place, at, rows.length, this.file);
    this.#growTables(part, at, rows.length, end);
    const current = new SheetText(this.edited.text(part)!);
    const made: Cells = new Map();
    rows.forEach((row, index) => {
      const inRow = new Map<number, string>();
      for (const [column, pattern] of patterns) {
        const look = lookOf(pattern);
        const formula = formulas.get(column);
        if (formula !== undefined) {
          const moved = escapeXml(movedDown(formula, index + 1));
          inRow.set(
            column,
            this.#element(
              current,
              at + index,
              column,
              look,
              `<${current.prefix}f>${moved}</${current.prefix}f>`,
            ),
          );
        } else if (look > 0) inRow.set(column, this.#element(current, at + index, column, look));
      }
      for (const cell of row) {
        const column = columns[cell.column];
        if (column === undefined) continue;
        if (cell.text === "" && inRow.has(column)) continue;
        inRow.set(column, this.#cellXml(current, at + index, column, cell, lookOf(patterns.get(column))));
      }
      made.set(at + index, inRow);
    });
    this.#write(part, current, made, at + rows.length - 1, Math.max(...columns, right));
    if (isBelow) this.#forgetChain();
    return this.#done([...written.notices, ...plainCells(rows)]);
  }

  takeOut(places: readonly SheetPlace[]): Edited {
    // From below, so that rows that go leave the others where they are.
    for (const place of [...places].sort((one, other) => other.cells.top - one.cells.top)) {
      const { part, sheet } = this.#sheetToChange(place);
      if (place.isRows) {
        this.#takeRows(part, place);
        continue;
      }
      this.#checkMerged(sheet.text, place, place.cells, true);
      const known = this.#known(sheet, place.cells);
      const cells: Cells = new Map();
      for (const [row, inRow] of known)
        cells.set(
          row,
          new Map(
            [...inRow].map(([column, cell]) => [column, this.#element(sheet, row, column, lookOf(cell))]),
          ),
        );
      if (cells.size > 0) this.edited.set(part, editedText(sheet.text, sheet.writing(cells)));
      if (some(known, ({ xml }) => /<(?:\w+:)?f[\s>/]/.test(xml))) this.#forgetChain();
    }
    return this.#done([]);
  }

  #takeRows(part: string, place: SheetPlace): void {
    const { top, bottom } = place.cells;
    const count = bottom - top + 1;
    const own = this.#book.sheets[place.sheet]!.name;
    for (const { name, part: other } of this.#book.sheets) {
      const text = other === undefined ? undefined : this.edited.text(other);
      if (text === undefined) continue;
      const sheet = new SheetText(text);
      for (const row of sheet.rows())
        for (const cell of sheet.cells(row)) {
          if (other === part && row.row >= top && row.row <= bottom) continue;
          const formula = /<(?:\w+:)?f\b[^>]*>([^<]*)</.exec(cell.xml)?.[1];
          if (formula === undefined) continue;
          const isOf = (named: string | undefined) =>
            named === undefined ? other === part : named.toLowerCase() === own.toLowerCase();
          if (rowsIn(plainText(formula), isOf).some(([from, to]) => from <= bottom && to >= top)) {
            const at = `${name}!${columnLetters(cell.column)}${row.row + 1}`;
            throw new DrawerError(editErrors, "cannot-edit/formulas", {
              file: this.file,
              spot: place.spot,
              cell: at,
            });
          }
        }
    }
    this.#growTables(part, bottom + 1, -count, bottom);
    moveRows(this.edited, this.#book, part, place, bottom + 1, -count, this.file);
    this.#forgetChain();
  }

  /** The part of a sheet, and its text. */
  #sheet({ sheet: index, spot }: SheetPlace): { part: string; sheet: SheetText } {
    const { part, name } = this.#book.sheets[index]!;
    const text = part === undefined ? undefined : this.edited.text(part);
    if (part === undefined || text === undefined || !/<(?:\w+:)?sheetData[\s/>]/.test(text))
      throw new DrawerError(editErrors, "cannot-edit/put", { file: this.file, spot, put: "into" });
    const protection = /<(?:\w+:)?sheetProtection\b[^>]*>/.exec(text)?.[0];
    if (protection && /\ssheet="(?:1|true)"/.test(protection))
      throw new DrawerError(editErrors, "cannot-edit/protected", { file: this.file, sheet: name });
    return { part, sheet: new SheetText(text) };
  }

  /** The same, in which no cell has its formula from another that may go. */
  #sheetToChange(place: SheetPlace): { part: string; sheet: SheetText } {
    const { part, sheet } = this.#sheet(place);
    const shares = some(this.#known(sheet, place.cells), ({ xml }) =>
      /<(?:\w+:)?f\b[^>]*\bt="shared"/.test(xml),
    );
    return { part, sheet: shares ? new SheetText(unshared(sheet.text)) : sheet };
  }

  /** A place of more than one cell takes just what is as large as it. */
  #checkShape({ cells, spot }: SheetPlace, target: Rectangle): void {
    const isOne = cells.top === cells.bottom && cells.left === cells.right;
    if (!isOne && (cells.bottom !== target.bottom || cells.right !== target.right))
      throw new DrawerError(editErrors, "cannot-edit/shape", { file: this.file, spot });
  }

  #checkMerged(text: string, { spot }: SheetPlace, target: Rectangle, isWholeAllowed = false): void {
    for (const [, ref] of text.matchAll(/<(?:\w+:)?mergeCell\b[^>]*?\sref="([^"]*)"/g)) {
      const merged = parseCells(ref!);
      if (
        !merged ||
        merged.bottom < target.top ||
        merged.top > target.bottom ||
        merged.right < target.left ||
        merged.left > target.right
      )
        continue;
      const isInside =
        merged.top >= target.top &&
        merged.bottom <= target.bottom &&
        merged.left >= target.left &&
        merged.right <= target.right;
      const isItsFirst =
        merged.top === target.top &&
        merged.left === target.left &&
        target.top === target.bottom &&
        target.left === target.right;
      if ((isWholeAllowed && isInside) || isItsFirst) continue;
      throw new DrawerError(editErrors, "cannot-edit/merged", {
        file: this.file,
        spot,
        cells: writeCells(merged),
      });
    }
  }

  /** The cells that are there in a rectangle. */
  #known(sheet: SheetText, { top, bottom, left, right }: Rectangle): Map<number, Map<number, CellPlace>> {
    const found = new Map<number, Map<number, CellPlace>>();
    for (const row of sheet.rows(bottom)) {
      if (row.row < top) continue;
      const cells = sheet.cells(row).filter(({ column }) => column >= left && column <= right);
      if (cells.length > 0) found.set(row.row, new Map(cells.map((cell) => [cell.column, cell])));
    }
    return found;
  }

  /** The last row before a blank one, from the first of a place on. */
  #lastBeforeBlank(sheet: SheetText, top: number): number {
    let last = top;
    for (const row of sheet.rows()) {
      if (row.row <= top) continue;
      if (row.row > last + 1 || !sheet.cells(row).some(isFilled)) break;
      last = row.row;
    }
    return last;
  }

  /** The formulas of the cells of a row, also of those that share the formula of a cell above. */
  #formulasIn(sheet: SheetText, cells: ReadonlyMap<number, CellPlace>, row: number): Map<number, string> {
    const found = new Map<number, string>();
    for (const [column, { xml }] of cells) {
      const [, facts, text] = /<(?:\w+:)?f\b([^>]*?)(?:\/>|>([^<]*)<)/.exec(xml) ?? [];
      if (facts === undefined || /\bt="(?:array|dataTable)"/.test(facts)) continue;
      if (text) {
        found.set(column, plainText(text));
        continue;
      }
      const shared = /\bsi="(\d+)"/.exec(facts)?.[1];
      const master = new RegExp(
        `<(?:\\w+:)?c\\b[^>]*?\\sr="([A-Z]+\\d+)"[^>]*>\\s*<(?:\\w+:)?f\\b(?=[^>]*\\bsi="${shared}")[^>]*>([^<]+)<`,
      ).exec(sheet.text);
      const from = master && parseCells(master[1]!);
      if (from) found.set(column, movedDown(plainText(master[2]!), row - from.top, column - from.left));
    }
    return found;
  }

  /** Whether the last row adds up those above it, which do not. */
  #hasTotals(sheet: SheetText, cells: Rectangle, bottom: number): boolean {
    const last = this.#known(sheet, { ...cells, top: bottom, bottom }).get(bottom);
    if (!last || bottom - 1 <= cells.top) return false;
    const above =
      this.#known(sheet, { ...cells, top: bottom - 1, bottom: bottom - 1 }).get(bottom - 1) ??
      new Map<number, CellPlace>();
    const isOf = (named: string | undefined) => named === undefined;
    const adds = (formula: string, row: number) =>
      rowsIn(formula, isOf).some(([from, to]) => to === row - 1 && from < to);
    const before = this.#formulasIn(sheet, above, bottom - 1);
    return [...this.#formulasIn(sheet, last, bottom)].some(
      ([column, formula]) => adds(formula, bottom) && !adds(before.get(column) ?? "", bottom - 1),
    );
  }

  /** The table (18.5) whose names of columns stand where rows are appended. */
  #tableAt(
    part: string,
    { top, left, right }: Rectangle,
  ): { part: string; cells: Rectangle; totals: number } | undefined {
    return this.#tables(part).find(
      ({ cells }) => cells.top <= top && top <= cells.bottom && cells.left <= right && cells.right >= left,
    );
  }

  #tables(part: string): { part: string; cells: Rectangle; totals: number }[] {
    return [...relationsOf(this.edited.parts, part).values()]
      .filter(({ type }) => type.endsWith("/table"))
      .flatMap(({ part: name }) => {
        const tag = /<(?:\w+:)?table\b[^>]*>/.exec(this.edited.text(name) ?? "")?.[0] ?? "";
        const cells = parseCells(/\sref="([^"]*)"/.exec(tag)?.[1] ?? "");
        const totals = Number(/\stotalsRowCount="(\d+)"/.exec(tag)?.[1] ?? 0);
        return cells ? [{ part: name, cells, totals }] : [];
      });
  }

  /** Tables with the rows that are added at or below their last of data, or without those that are taken out; those below go along. */
  #growTables(part: string, at: number, count: number, end: number): void {
    for (const { part: name, cells } of this.#tables(part)) {
      const xml = this.edited.text(name)!;
      const grown = (written: string) => {
        const ref = parseCells(written);
        if (!ref) return written;
        const isAbove = ref.bottom < end || ref.bottom < at - 1;
        if (isAbove) return written;
        return writeCells({
          ...ref,
          top: ref.top >= at ? ref.top + count : ref.top,
          bottom: ref.bottom + count,
        });
      };
      if (cells.bottom >= at - 1)
        this.edited.set(
          name,
          xml.replace(/(\sref=")([^"]*)"/g, (_, begin: string, ref: string) => `${begin}${grown(ref)}"`),
        );
    }
  }

  #element(sheet: SheetText, row: number, column: number, look: number, inner = "", type = ""): string {
    const tag = `${sheet.prefix}c`;
    const begin = `<${tag} r="${columnLetters(column)}${row + 1}"${look > 0 ? ` s="${look}"` : ""}${type}`;
    return inner === "" ? `${begin}/>` : `${begin}>${inner}</${tag}>`;
  }

  /** A cell with a value, in the look that it has there, with the number format that the value brings where that has none. */
  #cellXml(sheet: SheetText, row: number, column: number, { text, value }: GridCell, look: number): string {
    const { prefix } = sheet;
    const put = (inner: string, type?: string, own = look) =>
      this.#element(sheet, row, column, own, inner, type);
    if (text === "" && !value) return put("");
    const v = (number: number) => `<${prefix}v>${number}</${prefix}v>`;
    if (value?.type === "number")
      return put(v(value.number), "", this.#formats.lookFor(look, false, value.format));
    if (value?.type === "boolean") return put(v(value.boolean ? 1 : 0), ' t="b"');
    if (value?.type === "date") {
      const serial = dateToSerial(value.date) - (this.#book.isFrom1904 ? 1462 : 0);
      return put(v(serial), "", this.#formats.lookFor(look, true, value.format));
    }
    const kept = /^\s|\s$|\n/.test(text) ? ' xml:space="preserve"' : "";
    const escaped = escapeXml(text.replace(/_(?=x[\da-fA-F]{4}_)/g, "_x005F_"));
    return put(`<${prefix}is><${prefix}t${kept}>${escaped}</${prefix}t></${prefix}is>`, ' t="inlineStr"');
  }

  #write(part: string, sheet: SheetText, cells: Cells, bottom: number, right: number): void {
    this.edited.set(part, withSize(editedText(sheet.text, sheet.writing(cells)), bottom, right));
  }

  /** The order in which cells were last calculated, which programs make anew. */
  #forgetChain(): void {
    const main = mainPart(this.edited.parts, "xl/workbook.xml");
    const relation = [...relationsOf(this.edited.parts, main)].find(([, { type }]) =>
      type.endsWith("/calcChain"),
    );
    if (!relation) return;
    const [id, { part }] = relation;
    this.edited.remove(part);
    const relations = main.replace(/([^/]*)$/, "_rels/$1.rels");
    this.edited.set(
      relations,
      this.edited.text(relations)!.replace(new RegExp(`<Relationship\\b(?=[^>]*\\bId="${id}")[^>]*/>`), ""),
    );
    const types = "[Content_Types].xml";
    this.edited.set(
      types,
      this.edited.text(types)!.replace(new RegExp(`<Override\\b(?=[^>]*PartName="/${part}")[^>]*/>`), ""),
    );
  }

  /** The file, whose formulas are calculated anew when it is opened. */
  #done(notices: Edited["notices"]): Edited {
    const main = mainPart(this.edited.parts, "xl/workbook.xml");
    const hasFormulas = this.#book.sheets.some(
      ({ part }) => part !== undefined && /<(?:\w+:)?f[\s>/]/.test(this.edited.text(part) ?? ""),
    );
    if (!hasFormulas) return { data: this.edited.bytes(), notices };
    this.edited.set(main, calculatedAnew(this.edited.text(main)!));
    const later = notice(editNotices, "calculated-later", { file: this.file });
    return { data: this.edited.bytes(), notices: [...notices, later] };
  }
}

/** A workbook that says that its formulas are to be calculated when it is opened (18.2.2). */
function calculatedAnew(xml: string): string {
  if (/<(?:\w+:)?calcPr\b[^>]*\sfullCalcOnLoad="(?:1|true)"/.test(xml)) return xml;
  if (/<(?:\w+:)?calcPr\b/.test(xml))
    return xml.replace(
      /(<(?:\w+:)?calcPr\b)((?:(?!fullCalcOnLoad)[^>])*?)(\s*\/?>)/,
      '$1$2 fullCalcOnLoad="1"$3',
    );
  // What may stand before and after it is in this order (18.2.27).
  const before =
    /<\/?(?:\w+:)?(?:oleSize|customWorkbookViews|pivotCaches|smartTagPr|smartTagTypes|webPublishing|fileRecoveryPr|webPublishObjects|extLst|workbook)\b(?![^>]*xmlns)/;
  const after = xml.search(/<\/(?:\w+:)?sheets>/);
  const prefix = /<(\w+:)?workbook\b/.exec(xml)?.[1] ?? "";
  const names = /<\/(?:\w+:)?definedNames>/.exec(xml);
  const from = names ? names.index + names[0].length : xml.indexOf(">", after) + 1;
  const at = from + xml.slice(from).search(before);
  return `${xml.slice(0, at)}<${prefix}calcPr fullCalcOnLoad="1"/>${xml.slice(at)}`;
}

/** Whether something holds for any of some cells. */
function some(
  cells: ReadonlyMap<number, ReadonlyMap<number, CellPlace>>,
  holds: (cell: CellPlace) => boolean,
): boolean {
  return [...cells.values()].some((row) => [...row.values()].some(holds));
}

/** The number of a cell's look. */
function lookOf(cell: CellPlace | undefined): number {
  return Number(/^<[^>]*?\ss="(\d+)"/.exec(cell?.xml ?? "")?.[1] ?? 0);
}

/** Whether a cell holds something. */
function isFilled({ xml }: CellPlace): boolean {
  return /<(?:\w+:)?(?:v|f|is)[\s>/]/.test(xml);
}
