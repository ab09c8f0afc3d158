import { beginning } from "../content/beginning.js";
import { parseCells, parseLines, writeCells, type Rectangle } from "../content/cells.js";
import { checkOptions, checkText, checkValue } from "../content/check.js";
import { defined } from "../content/defined.js";
import { DrawerError } from "../content/error.js";
import { checkBytes } from "../content/limits.js";
import type { CellValue, Content, Table } from "../content/model.js";
import { notice, toldOnce, type Notice, type Reading } from "../content/notice.js";
import { fillGrid } from "../content/spans.js";
import { isBlank } from "../content/traverse.js";
import type { Incoming } from "../drawer/incoming.js";
import type { Separator } from "../formats/delimited/separator.js";
import { tellFormat } from "../formats/detect.js";
import type { OnProgress, OpenFlows, ReadDocument } from "../formats/format.js";
import { flatOdfType } from "../formats/heads.js";
import { sheetOfTable, type ReadSheet } from "../formats/office/sheet.js";
import { TextBudget } from "../formats/office/text-budget.js";
import { formatOf, namedFormat, READ_FORMATS, type FormatName } from "../formats/registry.js";
import { isGuessed } from "../formats/text/decode.js";
import { cellText } from "../formats/text/write.js";
import { parts as words, contentErrors } from "../messages/en/content.js";
import { filesErrors } from "../messages/en/files.js";
import { formatNotices } from "../messages/en/formats.js";
import { withAttached } from "./attached.js";
import { withNamed } from "./named.js";
import { cellsOfEach, cutLines, flowsOf, Leaves, type Part } from "./parts.js";
import type { Source, SourceSheet } from "./source-type.js";
import { canonicalSpot, parseSpot } from "./spot.js";
import { UNITS, type Unit, type Units } from "./units.js";

export type { Source, SourceSheet };

/** How a source is to be read. */
export interface SourceOptions {
  /** What the file is, whatever its name and content say. */
  readonly format?: FormatName;
  /** What parts the columns of CSV and TSV; it is told from the rows when it is left out. */
  readonly separator?: Separator;
  /**
   * Hears how far a document or a workbook of an office program has been read, whenever something is asked of it that needs more: how
   * many bytes of a part of the file, and of how many. What it throws ends the reading, and comes out of what was asked.
   */
  readonly onProgress?: OnProgress;
  /** What opens a file that is locked: a PDF. */
  readonly password?: string;
}

/**
 * Reads a file: docx, odt, xlsx, ods, pptx, odp, PDF, RTF, HTML, Markdown, CSV, TSV, a mail, plain text, or a picture. Its format is told from its
 * bytes where they are unmistakable, and otherwise from the ending of its name.
 *
 * @param bytes the whole file
 * @param name its name, for its ending and for messages
 * @param options what the file is, and what parts its columns, where that is not to be told from it
 * @throws DrawerError `unknown-format`, `unreadable`, `locked`, `too-large`
 *
 * @example
 * ```js
 * import { readFileSync } from "node:fs";
 * import { compose } from "drawer";
 * import { readSource } from "drawer/files";
 *
 * const costs = await readSource(readFileSync("demo/costs.csv"), "costs.csv");
 * console.log(compose([costs.at("A1:B1")]).tsv.trim()); // Item\tQuantity
 * ```
 */
export async function readSource(
  bytes: Uint8Array,
  name: string,
  options: SourceOptions = {},
): Promise<Source> {
  checkValue("bytes", bytes, bytes instanceof Uint8Array, "the bytes of a file (Uint8Array)");
  checkText("name", name);
  checkOptions("option of a source", options, ["format", "separator", "onProgress", "password"]);
  checkBytes(bytes.length, name);
  const { separator, onProgress, password } = options;
  const told = options.format ?? tellFormat(bytes, name);
  // Whoever says what parts the columns of a text says that it has some.
  const format = separator !== undefined && told === "text" ? "csv" : told;
  const { read, holds, fill } = formatOf(format);
  if (!read)
    throw new DrawerError(contentErrors, "unknown-format/read", {
      file: name,
      ending: format,
      formats: READ_FORMATS.join(", "),
    });
  if (separator !== undefined && holds !== "rows")
    throw new DrawerError(contentErrors, "bad-option/separator", { file: name, format });
  const file = await read(bytes, name, defined({ separator, onProgress, password })).catch(
    (error: unknown) => {
      throw ofFile(error, name);
    },
  );
  const source =
    "sheets" in file
      ? new WorkbookSource(name, format, file.sheets)
      : holds === "rows"
        ? delimitedSource(name, format, file)
        : withAttached(new DocumentSource(name, format, file), file.attached ?? [], readSource);
  const all =
    fill && !flatOdfType(bytes) ? withNamed(source, async () => (await fill()).places(bytes, name)) : source;
  const isNamed =
    (options.format ?? separator) !== undefined || [format, "picture"].includes(namedFormat(name) ?? "");
  return withNotices(all, [
    ...(isNamed ? [] : [notice(formatNotices, "read-as", { file: name, format })]),
    ...(isOfLetters(format) && isGuessed(bytes, format === "html" ? "html" : "text")
      ? [notice(formatNotices, "guessed/encoding", { file: name })]
      : []),
  ]);
}

/** Whether a file of this format is a text, in an encoding that it need not tell. */
function isOfLetters(format: FormatName): boolean {
  return ["text", "markdown", "html", "csv", "tsv"].includes(format);
}

/** The same source, of which there is something more to tell. */
function withNotices(source: Source, told: readonly Notice[]): Source {
  if (told.length === 0) return source;
  return {
    ...{ name: source.name, format: source.format },
    ...defined({ title: source.title, sheets: source.sheets }),
    get notices() {
      return [...told, ...source.notices];
    },
    parts: () => source.parts(),
    open: (spot) => source.open(spot),
    spots: (written) => source.spots(written),
    each: (unit, spot) => source.each(unit, spot),
    at(spot) {
      const incoming = source.at(spot);
      return { ...incoming, notices: [...told, ...(incoming.notices ?? [])] };
    },
  };
}

/** A reading of a source as it can be collected. */
function incoming(reading: Reading, { name, title }: Source, spot: string | undefined): Incoming {
  return { ...reading, origin: { document: name, ...defined({ at: spot, title }) } };
}

/** What readers of text refuse without knowing the name of its file. */
const NAMELESS = [
  "unreadable/quote",
  "too-large/characters",
  "too-large/cells",
  "too-large/nesting",
] as const;

/** A refusal with the name of the file that it is about. */
function ofFile(error: unknown, file: string): unknown {
  if (!(error instanceof DrawerError)) return error;
  const reason = NAMELESS.find((each) => each === error.reason);
  if (!reason) return error;
  const { data } = error as DrawerError<typeof reason>;
  return new DrawerError(contentErrors, reason, { file, ...data }, { cause: error });
}

class DocumentSource implements Source {
  readonly title?: string;
  readonly #leaves: Leaves;
  readonly #open: OpenFlows;

  constructor(
    readonly name: string,
    readonly format: FormatName,
    readonly reading: ReadDocument,
  ) {
    if (reading.title !== undefined) this.title = reading.title;
    this.#open = reading.open ?? flowsOf(reading);
    this.#leaves = new Leaves(this.#open, reading.pages?.pageOf);
  }

  get notices(): readonly Notice[] {
    return this.reading.notices;
  }

  parts(): Part[] {
    return this.#leaves.parts();
  }

  async open(): Promise<void> {
    // Nothing is attached to it.
  }

  at(spot?: string): Incoming {
    return incoming(this.#read(spot), this, spot);
  }

  #read(spot: string | undefined): Reading {
    if (spot === undefined) {
      const { content, pictures, notices } = this.reading;
      return { content, pictures, notices };
    }
    const parsed = parseSpot(spot);
    if (parsed.type === "lines" && this.format === "text") {
      const { content, pictures } = this.reading;
      return { content: cutLines(content, parsed, spot, this.name), pictures, notices: [] };
    }
    if (parsed.type === "slides" && this.format !== "pptx" && this.format !== "odp")
      throw new DrawerError(filesErrors, "bad-spot", { spot });
    if (parsed.type === "pages") return this.#readPages(parsed, spot);
    const flows = this.#leaves.flowsAt(spot, this.name);
    return {
      ...this.#open.giveOut(this.#leaves.at(spot, this.name)),
      notices: this.reading.noticesOf?.(flows) ?? [],
    };
  }

  #readPages({ from, to }: { from: number; to: number }, spot: string): Reading {
    const { pages } = this.reading;
    if (!pages) throw new DrawerError(filesErrors, "bad-spot", { spot });
    if (to > pages.count)
      throw new DrawerError(filesErrors, "no-spot", {
        ...{ file: this.name, spot },
        has: { count: pages.count, letter: "pg", what: "page" },
      });
    const flows = pages.flowsOf(from, to);
    return { ...this.#open.giveOut(flows), notices: this.reading.noticesOf?.(flows) ?? [] };
  }

  each(unit: Unit, spot?: string): Units {
    const lines = (): Units => ({ spots: this.#lines(spot), notices: [] });
    const found = unit === "line" ? lines() : this.#leaves.spotsOfEach(unit, spot, this.name);
    if (found.spots.length > 0) return found;
    const units: readonly Unit[] = this.format === "text" ? UNITS : UNITS.filter((one) => one !== "line");
    throw new DrawerError(filesErrors, "no-spot/each", {
      file: this.name,
      unit,
      units,
      ...defined({ spot }),
    });
  }

  /** The spots of the lines of plain text; none in any other document. */
  #lines(spot: string | undefined): string[] {
    if (this.format !== "text") return [];
    const { content } = this.reading;
    const parsed = spot === undefined ? undefined : parseSpot(spot);
    if (parsed && parsed.type !== "lines") return [];
    const { from, to } = parsed ?? { from: 1, to: content.length };
    return content.slice(from - 1, to).flatMap((line, at) => (isBlank([line]) ? [] : `l${from + at}`));
  }

  spots(written: string): string[] {
    return partsOf(written.trim()).map((spot) => {
      const lower = spot.replace(/^[A-Z](?=\d)/, (letter) => letter.toLowerCase());
      return canonicalSpot(parseSpot(lower));
    });
  }
}

/** How many rows of a sheet its part shows, and how many characters of them. */
const SHOWN_ROWS = 4;
const TEXT_LENGTH = 280;

class WorkbookSource implements Source {
  readonly sheets: readonly SourceSheet[];

  constructor(
    readonly name: string,
    readonly format: FormatName,
    readonly reading: readonly ReadSheet[],
  ) {
    this.sheets = reading.map((sheet) => ({
      name: sheet.name,
      get used() {
        return sheet.used;
      },
      head: (rows) => sheet.head(rows),
      texts: (cells) => fillGrid(sheet.table(cells), "", ({ flows }) => cellText(flows)),
      values: (cells) => fillGrid<CellValue | undefined>(sheet.table(cells), undefined, ({ value }) => value),
      spot: (cells) => `${quoted(sheet.name)}!${writeCells(cells)}`,
    }));
  }

  get notices(): readonly Notice[] {
    // What is said of the file is said once, and not of each sheet.
    return toldOnce(this.reading.flatMap((sheet) => sheet.notices()));
  }

  async open(): Promise<void> {
    // Nothing is attached to it.
  }

  parts(): Part[] {
    return this.reading.map((sheet) => {
      const { name, used } = sheet;
      if (!used) return { spot: quoted(name), type: "sheet" as const, what: words.sheet, text: words.empty };
      const size = words.size(used.bottom - used.top + 1, used.right - used.left + 1);
      const first = sheet.table({ ...used, bottom: Math.min(used.bottom, used.top + SHOWN_ROWS - 1) });
      return {
        spot: `${quoted(name)}!${writeCells(used)}`,
        type: "sheet" as const,
        what: words.sheet,
        text: `${size}: ${beginning([first], TEXT_LENGTH)}`,
      };
    });
  }

  at(spot?: string): Incoming {
    return incoming(this.#read(spot), this, spot);
  }

  #read(spot: string | undefined): Reading {
    const budget = new TextBudget(this.name);
    if (spot === undefined) {
      const { notices } = this;
      const tables = this.reading.flatMap((sheet) =>
        sheet.used ? [tableOf(sheet, sheet.used, budget)] : [],
      );
      return { content: tables, pictures: new Map(), notices };
    }
    const { sheet, cells } = this.#resolve(spot, this.reading[0]);
    const rectangle = cells ?? sheet.used;
    const content: Content = rectangle ? [tableOf(sheet, rectangle, budget)] : [];
    const notices = sheet.notices(cells);
    return { content: isBlank(content) ? [] : content, pictures: new Map(), notices };
  }

  each(unit: Unit, spot?: string): Units {
    const units = ["row", "cell"] as const;
    const known = units.find((one) => one === unit);
    const asked =
      spot === undefined ? this.reading.map((sheet) => ({ sheet })) : [this.#resolve(spot, this.reading[0])];
    const isNamed = this.reading.length > 1 || spot?.includes("!") === true;
    const found = asked.flatMap(
      ({ sheet, cells = sheet.used }: { sheet: ReadSheet; cells?: Rectangle | undefined }) => {
        if (!known || !cells) return [];
        return cellsOfEach(known, sheet.table(cells), cells).map(
          (each) => (isNamed ? `${quoted(sheet.name)}!` : "") + writeCells(each),
        );
      },
    );
    if (found.length > 0) return { spots: found, notices: [] };
    throw new DrawerError(filesErrors, "no-spot/each", {
      file: this.name,
      unit,
      units,
      ...defined({ spot }),
    });
  }

  spots(written: string): string[] {
    let sheet = this.reading[0];
    return partsOf(written.trim()).map((part) => {
      const found = this.#resolve(part, sheet);
      sheet = found.sheet;
      const isNamed = part.includes("!") || found.cells === undefined || this.reading.length > 1;
      const name = isNamed ? quoted(sheet.name) : "";
      const cells = found.cells && (found.whole ?? writeCells(found.cells));
      return [name, cells].filter(Boolean).join("!");
    });
  }

  /**
   * `Spring!A2:G2`, `'A name'!A2`, `Spring!3:3`, `A:B` or `A2:G2` on the sheet named before, or a sheet's name. `whole`
   * is what names whole rows or columns.
   */
  #resolve(
    spot: string,
    before: ReadSheet | undefined,
  ): { sheet: ReadSheet; cells?: Rectangle; whole?: string } {
    const named = this.#sheet(spot);
    if (named) return { sheet: named };
    const at = spot.lastIndexOf("!");
    const sheet = at < 0 ? before : this.#sheet(spot.slice(0, at));
    const names = this.reading.map(({ name }) => name).join(", ");
    if (at >= 0 && !sheet)
      throw new DrawerError(filesErrors, "no-spot/sheet", {
        file: this.name,
        sheet: spot.slice(0, at),
        sheets: names,
      });
    const written = spot.slice(at + 1);
    const whole = parseLines(written, () => sheet?.used ?? { top: 0, left: 0, bottom: 0, right: 0 });
    const cells = whole ?? parseCells(written);
    if (!cells || !sheet) {
      throw new DrawerError(filesErrors, "no-spot/cells", {
        file: this.name,
        spot,
        example: quoted(this.reading[0]?.name ?? "Sheet1"),
        sheets: names,
      });
    }
    return { sheet, cells, ...(whole && { whole: written.toUpperCase().replaceAll("$", "") }) };
  }

  /** A sheet by its name; in another case when no other sheet is called so. */
  #sheet(name: string): ReadSheet | undefined {
    const bare = /^'(.*)'$/s.exec(name)?.[1]?.replaceAll("''", "'") ?? name;
    const exact = this.reading.find((sheet) => sheet.name === bare);
    if (exact) return exact;
    const alike = this.reading.filter((sheet) => sheet.name.toLowerCase() === bare.toLowerCase());
    return alike.length === 1 ? alike[0] : undefined;
  }
}

/**
 * The cells of a rectangle. Cells may all name one text, which their file has once.
 * @throws DrawerError `too-large` when their texts are longer together than a snippet may be
 */
function tableOf(sheet: ReadSheet, cells: Rectangle, budget: TextBudget): Table {
  const table = sheet.table(cells);
  budget.spendTables([table]);
  return table;
}

/** The spots that are parted by commas; a comma inside quotation marks belongs to a name. */
function partsOf(written: string): string[] {
  return (written.match(/(?:'(?:[^']|'')*'|[^,'])+/g) ?? [written]).map((part) => part.trim());
}

/** CSV and TSV are one table; cells are its spots, as in a sheet without a name. */
function delimitedSource(name: string, format: FormatName, reading: Reading): Source {
  const table = (reading.content[0] as Table | undefined) ?? { type: "table", headerRows: 0, rows: [] };
  const sheet = sheetOfTable(name.replace(/\.[^.]+$/, ""), table, reading.notices);
  return new WorkbookSource(name, format, [sheet]);
}

function quoted(sheet: string): string {
  return /^[\p{L}\p{N}_]+$/u.test(sheet) && !parseCells(sheet) ? sheet : `'${sheet.replaceAll("'", "''")}'`;
}
