import { plainText, type TextEdit } from "../office/xml-text.js";

/** Rows that are written once: how many, and where. Rows and columns count from 0. */
export interface RowRun {
  readonly first: number;
  readonly count: number;
  readonly start: number;
  readonly inner: number;
  readonly innerEnd: number;
  readonly end: number;
}

/** Cells that are written once. */
export interface CellRun {
  readonly column: number;
  readonly count: number;
  readonly isCovered: boolean;
  readonly xml: string;
}

const ROW_END = "</table:table-row>";
const CELL =
  /<table:(covered-)?table-cell\b((?:[^>"]|"[^"]*")*?)(?:\/>|>[\s\S]*?<\/table:(?:covered-)?table-cell>)/g;

/** The text of an ods, in one of whose sheets cells are written (ODF 1.3 part 3, 9.1). */
export class OdsSheetText {
  /** Where the sheet ends. */
  readonly to: number;

  private constructor(
    readonly text: string,
    /** Where the sheet begins. */
    readonly from: number,
  ) {
    this.to = text.indexOf("</table:table>", from);
  }

  /** The sheets of a text: its tables with a name that stand in no other, as those in notes and charts do. */
  static all(text: string): OdsSheetText[] {
    const sheets: OdsSheetText[] = [];
    let depth = 0;
    for (const { 0: tag, index } of text.matchAll(/<table:table[\s>]|<\/table:table>/g)) {
      if (tag.startsWith("</")) depth--;
      else if (depth++ === 0) {
        const sheet = new OdsSheetText(text, index);
        if (/\stable:name=/.test(sheet.tag)) sheets.push(sheet);
      }
    }
    return sheets;
  }

  get tag(): string {
    return this.text.slice(this.from, this.text.indexOf(">", this.from) + 1);
  }

  /** Its rows, those that are alike together. */
  *rows(): Generator<RowRun, void> {
    const tags = /<table:table-row\b((?:[^>"]|"[^"]*")*?)(\/?)>/g;
    tags.lastIndex = this.from;
    let first = 0;
    for (let match = tags.exec(this.text); match && match.index < this.to; match = tags.exec(this.text)) {
      const [tag, facts, isAlone] = match;
      const count = Number(/table:number-rows-repeated="(\d+)"/.exec(facts!)?.[1] ?? 1);
      const inner = match.index + tag.length;
      const innerEnd = isAlone ? inner : this.text.indexOf(ROW_END, inner);
      const end = isAlone ? inner : innerEnd + ROW_END.length;
      yield { first, count, start: match.index, inner, innerEnd, end };
      first += count;
      tags.lastIndex = end;
    }
  }

  cells({ inner, innerEnd }: RowRun): CellRun[] {
    let column = 0;
    return [...this.text.slice(inner, innerEnd).matchAll(CELL)].map(([xml, covered, facts]) => {
      const count = Number(/table:number-columns-repeated="(\d+)"/.exec(facts!)?.[1] ?? 1);
      const run = { column, count, isCovered: covered !== undefined, xml };
      column += count;
      return run;
    });
  }

  /** The edits that write cells by their rows and columns. */
  writing(cells: ReadonlyMap<number, ReadonlyMap<number, string>>): TextEdit[] {
    const edits: TextEdit[] = [];
    let next = 0;
    let last: RowRun | undefined;
    for (const run of this.rows()) {
      last = run;
      next = run.first + run.count;
      const here = [...cells.keys()]
        .filter((row) => row >= run.first && row < next)
        .sort((one, other) => one - other);
      if (here.length === 0) continue;
      let [text, at] = ["", run.first];
      for (const row of here) {
        text += this.repeated(run, row - at) + this.#row(run, cells.get(row)!);
        at = row + 1;
      }
      edits.push({ from: run.start, to: run.end, text: text + this.repeated(run, next - at) });
    }
    const after = [...cells.keys()].filter((row) => row >= next).sort((one, other) => one - other);
    if (after.length > 0) {
      const at = last?.end ?? this.to;
      let text = "";
      for (const row of after) {
        text += blankRows(row - next) + `<table:table-row>${cellsXml([], cells.get(row)!)}</table:table-row>`;
        next = row + 1;
      }
      edits.push({ from: at, to: at, text });
    }
    return edits;
  }

  /** A row as it is, so many times. */
  repeated({ start, inner, end }: RowRun, count: number): string {
    if (count <= 0) return "";
    const tag = this.text.slice(start, inner);
    const plain = tag.replace(/ table:number-rows-repeated="\d+"/, "");
    const made =
      count === 1 ? plain : plain.replace(/^<table:table-row/, `$& table:number-rows-repeated="${count}"`);
    return made + this.text.slice(inner, end);
  }

  #row(run: RowRun, cells: ReadonlyMap<number, string>): string {
    const tag = this.text
      .slice(run.start, run.inner)
      .replace(/ table:number-rows-repeated="\d+"/, "")
      .replace(/\s*\/>$/, ">");
    return `${tag}${cellsXml(this.cells(run), cells)}${ROW_END}`;
  }
}

function blankRows(count: number): string {
  if (count <= 0) return "";
  const repeated = count === 1 ? "" : ` table:number-rows-repeated="${count}"`;
  return `<table:table-row${repeated}><table:table-cell/></table:table-row>`;
}

/** The cells of a row with some in the place of those that are there. */
function cellsXml(known: readonly CellRun[], cells: ReadonlyMap<number, string>): string {
  let [text, next] = ["", 0];
  for (const { column, count, xml } of known) {
    next = column + count;
    const here = [...cells.keys()]
      .filter((each) => each >= column && each < next)
      .sort((one, other) => one - other);
    if (here.length === 0) {
      text += xml;
      continue;
    }
    let at = column;
    for (const each of here) {
      text += repeatedCell(xml, each - at) + cells.get(each)!;
      at = each + 1;
    }
    text += repeatedCell(xml, next - at);
  }
  for (const column of [...cells.keys()].filter((each) => each >= next).sort((one, other) => one - other)) {
    text += repeatedCell("<table:table-cell/>", column - next) + cells.get(column)!;
    next = column + 1;
  }
  return text;
}

function repeatedCell(xml: string, count: number): string {
  if (count <= 0) return "";
  const plain = xml.replace(/^(<[^>]*?) table:number-columns-repeated="\d+"/, "$1");
  return count === 1
    ? plain
    : plain.replace(/^<table:(?:covered-)?table-cell/, `$& table:number-columns-repeated="${count}"`);
}

/** The name that the first tag of a sheet, or of what has a name in it, says. */
export function nameOf(tag: string): string {
  return plainText(/\stable:name="([^"]*)"/.exec(tag)?.[1] ?? "");
}
