import { writeCells, type Rectangle } from "../../content/cells.js";
import { DrawerError } from "../../content/error.js";
import { notice } from "../../content/notice.js";
import { editErrors, editNotices } from "../../messages/en/edit.js";
import type { AppendedColumns, Edited, SheetEditor, SheetPlace } from "../edit.js";
import { addAutomaticStyles } from "../odt/automatic-styles.js";
import { plainCells } from "../office/cell-contents.js";
import { cleanForXml } from "../office/clean.js";
import { EditedPackage } from "../office/edited-package.js";
import { sheetToWrite, type GridCell } from "../office/grid.js";
import { odfParts } from "../office/odf-parts.js";
import { escapeXml, textXml } from "../office/odf.js";
import { edited as editedText, plainText, type TextEdit } from "../office/xml-text.js";
import type { WriteInput } from "../write-input.js";
import { movedDown, rowsIn, withRowsAdded } from "./formula-places.js";
import { nameOf, OdsSheetText, type CellRun } from "./sheet-text.js";
import { dataStyle } from "./write-format.js";

const CONTENT = "content.xml";

/** Puts cells into an ods and takes them out, in the text of its sheets; all else stays as it is. */
export const odsEditor: SheetEditor = {
  type: "sheet",
  put: (bytes, file, place, input, isInstead) =>
    later(() => new Workbook(bytes, file).put(place, input, isInstead)),
  append: (bytes, file, place, input, columns) =>
    later(() => new Workbook(bytes, file).append(place, input, columns)),
  takeOut: (bytes, file, places) => later(() => new Workbook(bytes, file).takeOut(places)),
};

function later<Result>(act: () => Result): Promise<Result> {
  return Promise.resolve().then(act);
}

type Cells = Map<number, Map<number, string>>;

class Workbook {
  readonly #edited: EditedPackage;
  #text: string;
  /** The sheets of the text, as it was when they were looked for. */
  #found: { readonly text: string; readonly sheets: readonly OdsSheetText[] } | undefined;
  /** The styles of cells with a number format that are added, by it. */
  readonly #formats = new Map<string, string>();
  #styles = "";

  constructor(
    bytes: Uint8Array,
    readonly file: string,
  ) {
    const parts = odfParts(bytes, file);
    this.#edited = new EditedPackage(parts);
    this.#text = parts.needed(CONTENT);
  }

  put(place: SheetPlace, input: WriteInput, isInstead: boolean): Edited {
    const sheet = this.#sheet(place);
    const written = sheetToWrite(cleanForXml(input).content);
    const rows = [...written.rows()];
    const { top, left, bottom, right } = place.cells;
    const width = Math.max(0, ...rows.flatMap((row) => row.map(({ column }) => column + 1)));
    const isOne = top === bottom && left === right;
    if (!isOne && (bottom - top + 1 !== rows.length || right - left + 1 !== width))
      throw new DrawerError(editErrors, "cannot-edit/shape", { file: this.file, spot: place.spot });
    const target = { top, left, bottom: top + rows.length - 1, right: left + width - 1 };
    const known = this.#known(sheet, target, place);
    if (!isInstead && [...known.values()].some((row) => [...row.values()].some(isFilled)))
      throw new DrawerError(editErrors, "cannot-edit/filled", { file: this.file, spot: place.spot });
    const cells: Cells = new Map();
    rows.forEach((row, index) => {
      const inRow = new Map<number, string>();
      for (const cell of row)
        inRow.set(
          left + cell.column,
          this.#cellXml(cell, styleOf(known.get(top + index)?.get(left + cell.column))),
        );
      cells.set(top + index, inRow);
    });
    this.#text = editedText(this.#text, sheet.writing(cells));
    return this.#done([...written.notices, ...plainCells(rows)]);
  }

  append(place: SheetPlace, input: WriteInput, { headerRows, columns, untilBlank }: AppendedColumns): Edited {
    const sheet = this.#sheet(place);
    const written = sheetToWrite(cleanForXml(input).content);
    const rows = [...written.rows()].slice(headerRows);
    if (rows.length === 0)
      throw new DrawerError(editErrors, "cannot-edit/cells", { file: this.file, spot: place.spot });
    const { cells } = place;
    const bottom = untilBlank ? lastBeforeBlank(sheet, cells.top) : cells.bottom;
    const end = this.#hasTotals(sheet, cells, bottom) ? bottom - 1 : bottom;
    const at = end + 1;
    const patterns = rowAt(sheet, end);
    const right = untilBlank ? Math.max(cells.right, lastFilled(patterns)) : cells.right;
    const isBelow = [...sheet.rows()].some(
      (run) => run.first + run.count > at && sheet.cells(run).some(isFilled),
    );
    if (isBelow) this.#text = editedText(this.#text, [withBlankRows(sheet, at, rows.length)]);
    // Also where nothing is below that would move: what names the rows takes in those that come.
    this.#moved(place, at, rows.length);
    const current = this.#sheet(place);
    const made: Cells = new Map();
    rows.forEach((row, index) => {
      const inRow = new Map<number, string>();
      for (const pattern of patterns) {
        const { column, count, xml, isCovered } = pattern;
        if (isCovered || column > right) continue;
        const style = styleOf(pattern);
        const formula = formulaOf(xml);
        for (let each = column; each < column + count && each <= right; each++) {
          if (formula !== undefined)
            inRow.set(each, cell(style, ` table:formula="${escapeXml(movedDown(formula, index + 1))}"`));
          else if (style !== undefined) inRow.set(each, cell(style));
        }
      }
      for (const grid of row) {
        const column = columns[grid.column];
        if (column === undefined || (grid.text === "" && inRow.has(column))) continue;
        const pattern = patterns.find((run) => column >= run.column && column < run.column + run.count);
        inRow.set(column, this.#cellXml(grid, styleOf(pattern)));
      }
      made.set(at + index, inRow);
    });
    this.#text = editedText(this.#text, current.writing(made));
    return this.#done([...written.notices, ...plainCells(rows)]);
  }

  takeOut(places: readonly SheetPlace[]): Edited {
    // From below, so that rows that go leave the others where they are.
    for (const place of [...places].sort((one, other) => other.cells.top - one.cells.top)) {
      const sheet = this.#sheet(place);
      if (place.isRows) this.#takeRows(sheet, place);
      else {
        const cells: Cells = new Map();
        for (const [row, inRow] of this.#known(sheet, place.cells, place, true))
          cells.set(row, new Map([...inRow].map(([column, run]) => [column, emptied(run)])));
        this.#text = editedText(this.#text, sheet.writing(cells));
      }
    }
    return this.#done([]);
  }

  #takeRows(sheet: OdsSheetText, place: SheetPlace): void {
    const { top, bottom } = place.cells;
    const own = nameOf(sheet.tag);
    this.#eachFormula((formula, name, row) => {
      if (name === own && row >= top && row <= bottom) return;
      const isOf = (named: string | undefined) => (named ?? name) === own;
      if (rowsIn(formula, isOf).some(([from, to]) => from <= bottom && to >= top))
        throw new DrawerError(editErrors, "cannot-edit/formulas", {
          file: this.file,
          spot: place.spot,
          cell: `${name}, row ${row + 1}`,
        });
    });
    const edits = [...sheet.rows()].flatMap((run) => {
      const gone = Math.min(bottom, run.first + run.count - 1) - Math.max(top, run.first) + 1;
      return gone <= 0 ? [] : [{ from: run.start, to: run.end, text: sheet.repeated(run, run.count - gone) }];
    });
    this.#text = editedText(this.#text, edits);
    this.#moved(place, bottom + 1, top - bottom - 1);
  }

  /** All formulas, with the sheet and the row that they stand in. */
  #eachFormula(use: (formula: string, sheet: string, row: number) => void): void {
    for (const sheet of this.#sheets)
      for (const run of sheet.rows())
        for (const { xml } of sheet.cells(run)) {
          const formula = formulaOf(xml);
          if (formula !== undefined) use(formula, nameOf(sheet.tag), run.first);
        }
  }

  /** Lets all that names the rows of a sheet name them where they are after some were added or taken out. */
  #moved(place: SheetPlace, at: number, count: number): void {
    const own = nameOf(this.#sheet(place).tag);
    if (this.#hasFormulas()) this.#moveFormulas(own, at, count);
    const isNamed = (named: string | undefined) => named === own;
    const address = (_: string, begin: string, written: string) =>
      `${begin}${escapeXml(withRowsAdded(plainText(written), isNamed, at, count))}"`;
    const ADDRESS =
      /(\s(?:table|calcext):(?:cell-range-address|target-range-address|base-cell-address|end-cell-address|print-ranges|source-cell-range-addresses)=")([^"]*)"/g;
    const endings = ['-address="', '-addresses="', 'print-ranges="'];
    if (endings.some((ending) => this.#text.includes(ending)))
      this.#text = this.#text.replace(ADDRESS, address);
    for (const name of this.#edited.names) {
      if (!/^Object [^/]*\/content\.xml$/.test(name)) continue;
      const xml = this.#edited.text(name)!;
      const moved = xml.replace(
        /(\s(?:chart:values-cell-range-address|chart:label-cell-address|table:cell-range-address)=")([^"]*)"/g,
        address,
      );
      if (moved !== xml) this.#edited.set(name, moved);
    }
  }

  /** Most sheets have none, which is quickly seen in a text of any length. */
  #hasFormulas(): boolean {
    return this.#text.includes('table:formula="');
  }

  #moveFormulas(own: string, at: number, count: number): void {
    let moved = "";
    let from = 0;
    for (const sheet of this.#sheets) {
      const name = nameOf(sheet.tag);
      moved += this.#text.slice(from, sheet.from);
      const isOf = (named: string | undefined) => (named ?? name) === own;
      moved += this.#text
        .slice(sheet.from, sheet.to)
        .replace(
          /( table:formula=")([^"]*)"/g,
          (_, begin: string, formula: string) =>
            `${begin}${escapeXml(withRowsAdded(plainText(formula), isOf, at, count))}"`,
        );
      from = sheet.to;
    }
    this.#text = moved + this.#text.slice(from);
  }

  /** The sheets of the text as it is now. */
  get #sheets(): readonly OdsSheetText[] {
    if (this.#found?.text !== this.#text)
      this.#found = { text: this.#text, sheets: OdsSheetText.all(this.#text) };
    return this.#found.sheets;
  }

  #sheet(place: SheetPlace): OdsSheetText {
    const sheet = this.#sheets[place.sheet]!;
    if (/ table:protected="true"/.test(sheet.tag))
      throw new DrawerError(editErrors, "cannot-edit/protected", {
        file: this.file,
        sheet: nameOf(sheet.tag),
      });
    return sheet;
  }

  /** Whether the last row adds up those above it, which do not. */
  #hasTotals(sheet: OdsSheetText, { top }: Rectangle, bottom: number): boolean {
    if (bottom - 1 <= top) return false;
    const adds = (cells: readonly CellRun[], row: number, column: number) => {
      const run = cells.find((each) => column >= each.column && column < each.column + each.count);
      const formula = run && formulaOf(run.xml);
      return (
        formula !== undefined &&
        rowsIn(formula, (named) => named === undefined).some(([from, to]) => to === row - 1 && from < to)
      );
    };
    const [before, last] = [rowAt(sheet, bottom - 1), rowAt(sheet, bottom)];
    return last.some(({ column }) => adds(last, bottom, column) && !adds(before, bottom - 1, column));
  }

  /** The cells that are there in a rectangle, each by itself; none may be part of a merged one. */
  #known(
    sheet: OdsSheetText,
    { top, bottom, left, right }: Rectangle,
    { spot }: SheetPlace,
    isWholeAllowed = false,
  ): Map<number, Map<number, CellRun>> {
    const found = new Map<number, Map<number, CellRun>>();
    for (const run of sheet.rows()) {
      for (let row = Math.max(top, run.first); row <= Math.min(bottom, run.first + run.count - 1); row++) {
        const inRow = new Map<number, CellRun>();
        for (const each of sheet.cells(run))
          for (
            let column = Math.max(left, each.column);
            column <= Math.min(right, each.column + each.count - 1);
            column++
          ) {
            const isMerged =
              each.isCovered ||
              /table:number-(?:columns|rows)-spanned="(?!1")/.test(each.xml.slice(0, each.xml.indexOf(">")));
            const isItsFirst = !each.isCovered && top === bottom && left === right;
            if (isMerged && !isItsFirst && !(isWholeAllowed && !each.isCovered)) {
              if (isWholeAllowed) continue;
              const cells = writeCells({ top: row, bottom: row, left: column, right: column });
              throw new DrawerError(editErrors, "cannot-edit/merged", { file: this.file, spot, cells });
            }
            inRow.set(column, each);
          }
        if (inRow.size > 0) found.set(row, inRow);
      }
    }
    return found;
  }

  #cellXml({ text, value }: GridCell, style: string | undefined): string {
    const own =
      style ??
      (value?.type === "number" || value?.type === "date"
        ? this.#styleFor(value.format ?? (value.type === "date" ? "yyyy-mm-dd" : undefined))
        : undefined);
    const paragraphs =
      text === ""
        ? ""
        : text
            .split("\n")
            .map((line) => `<text:p>${textXml(line, true)}</text:p>`)
            .join("");
    if (text === "") return cell(own);
    if (!value) return cell(own, ' office:value-type="string"', paragraphs);
    if (value.type === "boolean")
      return cell(own, ` office:value-type="boolean" office:boolean-value="${value.boolean}"`, paragraphs);
    if (value.type === "date")
      return cell(own, ` office:value-type="date" office:date-value="${value.date}"`, paragraphs);
    const type = value.format?.includes("%") ? "percentage" : "float";
    return cell(own, ` office:value-type="${type}" office:value="${value.number}"`, paragraphs);
  }

  /** The style of a cell with a number format; one that was added before, where there is one. */
  #styleFor(format: string | undefined): string | undefined {
    if (format === undefined) return undefined;
    const known = this.#formats.get(format);
    if (known !== undefined) return known;
    let number = this.#formats.size + 1;
    while (
      this.#text.includes(`"drawer-cell-${number}"`) ||
      [...this.#formats.values()].includes(`drawer-cell-${number}`)
    )
      number++;
    const name = `drawer-cell-${number}`;
    this.#styles +=
      dataStyle(`drawer-number-${number}`, format) +
      `<style:style style:name="${name}" style:family="table-cell" style:parent-style-name="Default" style:data-style-name="drawer-number-${number}"/>`;
    this.#formats.set(format, name);
    return name;
  }

  /** The file, whose formulas have no results that they had before, so that they are calculated anew. */
  #done(notices: Edited["notices"]): Edited {
    const hasFormulas = this.#hasFormulas();
    const calculated = hasFormulas ? withoutResults(this.#text) : this.#text;
    const text =
      this.#styles === ""
        ? calculated
        : editedText(calculated, [addAutomaticStyles(calculated, this.#styles)]);
    this.#edited.set(CONTENT, text);
    const data = this.#edited.bytes();
    if (!hasFormulas) return { data, notices };
    return { data, notices: [...notices, notice(editNotices, "calculated-later", { file: this.file })] };
  }
}

/** A text in whose cells formulas have no results. */
function withoutResults(text: string): string {
  return text.replace(
    /(<table:table-cell\b(?=[^>]*\stable:formula=")(?:[^>"]|"[^"]*")*?)(\/?)>(?:((?:(?!<\/table:table-cell>)[\s\S])*?)<\/table:table-cell>)?/g,
    (all: string, tag: string, isAlone: string, inner: string | undefined) => {
      const bare = tag.replace(
        /\s(?:office:(?:value-type|value|string-value|boolean-value|date-value|time-value|currency)|calcext:value-type)="[^"]*"/g,
        "",
      );
      if (isAlone || inner === undefined)
        return `${bare}${isAlone}>${all.slice(tag.length + isAlone.length + 1)}`;
      return `${bare}>${inner.replace(/<text:p\b[\s\S]*?<\/text:p>|<text:p\/>/g, "")}</table:table-cell>`;
    },
  );
}

function cell(style: string | undefined, facts = "", inner = ""): string {
  const named = style === undefined ? "" : ` table:style-name="${style}"`;
  return inner === ""
    ? `<table:table-cell${named}${facts}/>`
    : `<table:table-cell${named}${facts}>${inner}</table:table-cell>`;
}

function emptied(run: CellRun): string {
  const spans = /\stable:number-columns-spanned="\d+"|\stable:number-rows-spanned="\d+"/g;
  return cell(styleOf(run), run.xml.slice(0, run.xml.indexOf(">")).match(spans)?.join("") ?? "");
}

function styleOf(run: CellRun | undefined): string | undefined {
  return /^<[^>]*?\stable:style-name="([^"]*)"/.exec(run?.xml ?? "")?.[1];
}

function formulaOf(xml: string): string | undefined {
  const formula = /^<(?:[^>"]|"[^"]*")*?\stable:formula="([^"]*)"/.exec(xml)?.[1];
  return formula === undefined ? undefined : plainText(formula);
}

function isFilled({ xml }: CellRun): boolean {
  return /^<[^>]*?\s(?:office:value-type|table:formula)=/.test(xml) || /<text:p\b[^>]*[^/]>/.test(xml);
}

/** The cells of a row. */
function rowAt(sheet: OdsSheetText, row: number): CellRun[] {
  for (const run of sheet.rows())
    if (row >= run.first && row < run.first + run.count) return sheet.cells(run);
  return [];
}

/** The last row before a blank one, from the first of a place on. */
function lastBeforeBlank(sheet: OdsSheetText, top: number): number {
  let last = top;
  for (const run of sheet.rows()) {
    const end = run.first + run.count - 1;
    if (end <= top) continue;
    if (!sheet.cells(run).some(isFilled)) break;
    last = end;
  }
  return last;
}

/** The last column of a row that holds something; −1 where none does. */
function lastFilled(cells: readonly CellRun[]): number {
  const last = cells.findLast(isFilled);
  return last ? last.column + last.count - 1 : -1;
}

/** The edit that adds blank rows before one; where it is one of several that are written once, these are parted. */
function withBlankRows(sheet: OdsSheetText, at: number, count: number): TextEdit {
  const run = [...sheet.rows()].find(({ first, count: rows }) => at >= first && at < first + rows)!;
  const rows = "<table:table-row><table:table-cell/></table:table-row>".repeat(count);
  if (at === run.first) return { from: run.start, to: run.start, text: rows };
  const [before, after] = [at - run.first, run.first + run.count - at];
  return {
    from: run.start,
    to: run.end,
    text: sheet.repeated(run, before) + rows + sheet.repeated(run, after),
  };
}
