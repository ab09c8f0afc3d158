import { DrawerError } from "../../content/error.js";
import type { Table } from "../../content/model.js";
import { editErrors } from "../../messages/en/edit.js";
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
import { zipOf } from "../office/compound-file.js";
import { EditedPackage } from "../office/edited-package.js";
import { mainPart, relationsOf, partOfType } from "../office/relations.js";
import { edited, placesOf, type TextEdit, type XmlPlace } from "../office/xml-text.js";
import { parseXml } from "../office/xml.js";
import { Parts } from "../office/zip.js";
import { writeText } from "../text/write.js";
import { graft, type GraftedBlock, type GraftPlace } from "./graft.js";
import { removal } from "./removal.js";
import { DocxStyles } from "./styles.js";
import { cellsIn } from "./table-places.js";
import { rowLike } from "./table-rows.js";
import { asDeleted, asInserted, authorOf, type Author } from "./tracked.js";
import { writeDocx } from "./write.js";

const TRANSITIONAL = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';

/** Puts blocks into a docx and takes them out, in the text of its main part; all else stays as it is. */
export const docxEditor: DocumentEditor = {
  type: "document",
  async put(bytes, file, place, put, input, options) {
    const document = await Document.open(bytes, file);
    return document.put(place, put, input, options);
  },
  async append(bytes, file, place, rows, input, options) {
    const document = await Document.open(bytes, file);
    return document.append(place, rows, input, options);
  },
  async takeOut(bytes, file, places, options) {
    const document = await Document.open(bytes, file);
    return document.takeOut(places, options);
  },
};

class Document {
  readonly #text: string;

  private constructor(
    readonly file: string,
    readonly edited: EditedPackage,
    readonly part: string,
  ) {
    this.#text = edited.text(part) ?? "";
    if (!this.#text.includes(TRANSITIONAL)) throw new DrawerError(editErrors, "cannot-edit/form", { file });
  }

  static async open(bytes: Uint8Array, file: string): Promise<Document> {
    const parts = new Parts(await zipOf(bytes, file), file);
    return new Document(file, new EditedPackage(parts), mainPart(parts, "word/document.xml"));
  }

  async put(
    place: DocumentPlace,
    put: Put | undefined,
    input: PutInput,
    options: EditOptions,
  ): Promise<Edited> {
    const { cells } = place;
    const places = placesOf(this.#text, place.elements);
    const [first, last] = [places.get(place.elements[0]!)!, places.get(place.elements.at(-1)!)!];
    const author = this.#author(options);
    const notices = [];
    const edits: TextEdit[] = [];
    if (cells) {
      const found = cellsIn(this.#text, first, cells);
      const several =
        found.length > 1
          ? cellContents(
              input.content as readonly Table[],
              { file: this.file, spot: place.spot },
              found.length,
              cells,
            )
          : undefined;
      for (const [index, cell] of found.entries()) {
        const content = several ? several[index]! : input.content;
        const isEmpty = !/<w:(t|drawing|pict|object|tbl|sym|fldChar|fldSimple)[\s>/]/.test(
          this.#text.slice(cell.inner, cell.innerEnd),
        );
        if (put === undefined && !isEmpty)
          throw new DrawerError(editErrors, "cannot-edit/filled", { file: this.file, spot: place.spot });
        const made = await this.#blocks(
          { ...input, content },
          this.#graftPlace(cell, first, input.isHost),
          author,
        );
        notices.push(...made.notices);
        edits.push(
          ...this.#intoCell(
            cell,
            made.blocks,
            isEmpty && put !== "after" ? "instead" : (put ?? "instead"),
            author,
          ),
        );
      }
    } else {
      const beside = put === "before" ? first : last;
      const made = await this.#blocks(input, this.#graftPlace(beside, beside, input.isHost), author);
      notices.push(...made.notices);
      if (put === "instead") {
        const out = removal(
          this.#text,
          place.elements.map((number) => places.get(number)!),
          this.file,
          place.spot,
          author,
          true,
        );
        edits.push(...out);
      }
      const at = put === "after" || put === undefined ? last.end : first.start;
      edits.push({ from: at, to: at, text: this.#apart(made.blocks, at, put === "instead" ? last.end : at) });
    }
    this.edited.set(this.part, edited(this.#text, edits));
    return { data: this.edited.bytes(), notices };
  }

  async append(
    { elements, cells, spot }: DocumentPlace,
    rows: readonly AppendedRow[],
    input: PutInput,
    options: EditOptions,
  ): Promise<Edited> {
    const table = placesOf(this.#text, elements).get(elements[0]!)!;
    const author = this.#author(options);
    const like = rowLike(this.#text, table, cells!.bottom, { file: this.file, spot });
    const notices = [];
    let made = "";
    for (const row of rows) {
      const inner: string[] = [];
      for (const [at, cell] of like.cells.entries()) {
        const content = row[at] ?? [];
        if (isLine(content)) inner.push(cell.line(writeText(content)));
        else {
          const place = this.#graftPlace(cell.place, table, input.isHost);
          const { blocks, notices: told } = await this.#blocks({ ...input, content }, place, undefined);
          notices.push(...told);
          inner.push(
            cell.holding(blocks.map(({ xml }) => xml).join("") + (blocks.at(-1)?.isTable ? EMPTY : "")),
          );
        }
      }
      made += like.row(inner);
    }
    const text = author ? asInserted(made, author) : made;
    this.edited.set(this.part, edited(this.#text, [{ from: like.end, to: like.end, text }]));
    return { data: this.edited.bytes(), notices };
  }

  takeOut(places: readonly DocumentPlace[], options: EditOptions): Edited {
    const author = this.#author(options);
    const known = placesOf(
      this.#text,
      places.flatMap(({ elements }) => elements),
    );
    const edits = places.flatMap(({ elements, cells }) => {
      const found = elements.map((number) => known.get(number)!);
      if (!cells) return [];
      return cellsIn(this.#text, found[0]!, cells).flatMap((cell) =>
        this.#intoCell(cell, [], "instead", author),
      );
    });
    const whole = places.filter(({ cells }) => !cells);
    const elements = new Set(whole.flatMap(({ elements }) => elements));
    if (elements.size > 0) {
      const spots = whole.map(({ spot }) => spot).join(", ");
      edits.push(
        ...removal(
          this.#text,
          [...elements].map((number) => known.get(number)!),
          this.file,
          spots,
          author,
        ),
      );
    }
    this.edited.set(this.part, edited(this.#text, edits));
    return { data: this.edited.bytes(), notices: [] };
  }

  /** Content as blocks of this document. */
  async #blocks(input: PutInput, place: GraftPlace, author: Author | undefined) {
    const { data, notices } = await writeDocx(cleanForXml(input));
    const blocks = graft(this.edited, this.part, data as Uint8Array, place);
    return {
      notices,
      blocks: author ? blocks.map((block) => ({ ...block, xml: asInserted(block.xml, author) })) : blocks,
    };
  }

  /** What stands around a place that what is put there goes by. */
  #graftPlace(beside: XmlPlace, before: XmlPlace, isHost: boolean): GraftPlace {
    const xml = this.#text.slice(beside.start, beside.end);
    const props =
      beside.name === "p" ? (/^<w:p\b[^>]*>\s*<w:pPr>([\s\S]*?)<\/w:pPr>/.exec(xml)?.[1] ?? "") : "";
    const style = /<w:pStyle\b[^>]*w:val="([^"]*)"/.exec(props)?.[1];
    // A paragraph may be an item of a list by its style alone; a heading that is numbered is none.
    const { list: ofStyle, outline } = style === undefined ? {} : this.#styles().get(style);
    const list = /<w:numId\b[^>]*w:val="(\d+)"/.exec(props)?.[1] ?? ofStyle?.id;
    const level = Number(/<w:ilvl\b[^>]*w:val="(\d+)"/.exec(props)?.[1] ?? ofStyle?.level ?? 0);
    return {
      item: list === undefined || list === "0" || outline !== undefined ? undefined : { list, level, style },
      tableStyle: isHost ? this.#tableStyle(before.end) : undefined,
      isText: isHost && beside.name !== "tc",
    };
  }

  #styles(): DocxStyles {
    const part = partOfType(relationsOf(this.edited.parts, this.part), "styles");
    const text = part === undefined ? undefined : this.edited.text(part);
    return new DocxStyles(text === undefined ? undefined : parseXml(text, this.file));
  }

  /** The style of the last table before a place, or of the first in the document. */
  #tableStyle(before: number): string | undefined {
    const styles = [...this.#text.slice(0, before).matchAll(/<w:tblStyle\b[^>]*w:val="([^"]*)"/g)];
    return (styles.at(-1) ?? /<w:tblStyle\b[^>]*w:val="([^"]*)"/.exec(this.#text))?.[1];
  }

  /** Blocks as they stand at a place: tables that would touch, and would be one, are parted by an empty paragraph. */
  #apart(blocks: readonly GraftedBlock[], before: number, after: number): string {
    const isAfterTable = /<\/w:tbl>(?:\s|<w:\w+(?:Start|End)\b[^>]*\/>)*$/.test(
      this.#text.slice(Math.max(0, before - 4000), before),
    );
    const next = this.#text.slice(after, after + 4000);
    const isBeforeTable = /^(?:\s|<w:\w+(?:Start|End)\b[^>]*\/>)*<w:tbl[\s>]/.test(next);
    // A cell and a box of text end with a paragraph.
    const isLast = /^\s*<\/w:(tc|txbxContent)>/.test(next);
    const xml = blocks.map((block) => block.xml).join("");
    const head = isAfterTable && blocks[0]?.isTable ? EMPTY : "";
    const tail = (isBeforeTable || isLast) && blocks.at(-1)?.isTable ? EMPTY : "";
    return head + xml + tail;
  }

  /** Puts blocks into a cell, which ends with a paragraph. */
  #intoCell(
    cell: XmlPlace,
    blocks: readonly GraftedBlock[],
    put: Put,
    author: Author | undefined,
  ): TextEdit[] {
    const inner = this.#text.slice(cell.inner, cell.innerEnd);
    const props = /^\s*(?:<w:tcPr\b[^>]*\/>|<w:tcPr\b[\s\S]*?<\/w:tcPr>)/.exec(inner)?.[0].length ?? 0;
    const from = cell.inner + props;
    const ended = blocks.at(-1)?.isTable ? [...blocks, { xml: EMPTY, isTable: false }] : blocks;
    const xml = ended.map((block) => block.xml).join("");
    if (put === "before") return [{ from, to: from, text: xml }];
    if (put === "after") return [{ from: cell.innerEnd, to: cell.innerEnd, text: xml }];
    if (author) {
      const old = this.#text.slice(from, cell.innerEnd);
      return [{ from, to: cell.innerEnd, text: asDeleted(old, author) + xml }];
    }
    return [{ from, to: cell.innerEnd, text: xml === "" ? this.#emptied(from, cell.innerEnd) : xml }];
  }

  /** The first paragraph of a cell without what it says. */
  #emptied(from: number, to: number): string {
    const props = /^\s*<w:p\b[^>]*>\s*(<w:pPr>[\s\S]*?<\/w:pPr>)/.exec(this.#text.slice(from, to))?.[1] ?? "";
    return `<w:p>${props}</w:p>`;
  }

  /** Who changes are marked with; nothing where they are not marked. */
  #author({ track, at }: EditOptions): Author | undefined {
    const settings = partOfType(relationsOf(this.edited.parts, this.part), "settings");
    const xml = (settings && this.edited.text(settings)) ?? "";
    const isTracked = /<w:trackRevisions(?:\s+w:val="(?:1|true|on)")?\s*\/>/.test(xml);
    return (track ?? isTracked) ? authorOf(this.#text, at) : undefined;
  }
}

const EMPTY = "<w:p/>";
