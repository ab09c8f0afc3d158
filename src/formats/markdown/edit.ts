import type { Content } from "../../content/model.js";
import type { AppendedRow, DocumentEditor, DocumentPlace, Edited, Put } from "../edit.js";
import { picturesInText, plainNumbers } from "../left-out.js";
import type { TextEdit } from "../office/xml-text.js";
import { decodeText } from "../text/decode.js";
import { TextDocument } from "../text/text-document.js";
import { blocksOf, type MarkdownBlock } from "./blocks.js";
import { writeMarkdown } from "./write.js";

/** Puts blocks into Markdown and takes them out, by whole lines; all others stay as they are. */
export const markdownEditor: DocumentEditor = {
  type: "document",
  put: (bytes, file, place, put, { content }) =>
    Promise.resolve().then(() => new Document(bytes, file).put(place, put, content)),
  append: (bytes, file, place, rows, { content }) =>
    Promise.resolve().then(() => new Document(bytes, file).append(place, rows, content)),
  takeOut: (bytes, file, places) => Promise.resolve().then(() => new Document(bytes, file).takeOut(places)),
};

/** A row of a table as its line. */
function rowLine(row: AppendedRow, hasEdges: boolean): string {
  const cells = row.map((flows) => ({ flows: flows ?? [] }));
  const line = writeMarkdown([{ type: "table", headerRows: 0, rows: [cells] }])
    .trimEnd()
    .split("\n")
    .at(-1)!;
  return hasEdges ? line : line.replace(/^\| *| *\|$/g, "");
}

class Document {
  readonly #document: TextDocument<MarkdownBlock>;
  readonly #newline: string;

  constructor(bytes: Uint8Array, file: string) {
    const text = decodeText(bytes);
    this.#document = new TextDocument(bytes, file, text, blocksOf(text));
    this.#newline = /\r\n|\r|\n/.exec(text)?.[0] ?? "\n";
  }

  put(place: DocumentPlace, put: Put | undefined, content: Content): Edited {
    const blocks = this.#document.at(place, "into");
    const [first, last] = [blocks[0]!, blocks.at(-1)!];
    const isItems = content.length === 1 && content[0]!.type === "list";
    const written = this.#renamedNotes(writeMarkdown(content)).trimEnd().split("\n");
    const edits: TextEdit[] = [];
    const out = put === "instead" ? this.#removal(blocks) : [];
    edits.push(...out);
    const isBefore = put === "before" || put === "instead";
    const anchor = isBefore ? first : last;
    const prefix = this.#prefix(anchor);
    const beside = isItems ? this.#marker(anchor) : undefined;
    const isJoined = beside !== undefined;
    const items = isJoined ? markedLike(written, beside.text, !isBefore) : written;
    const lines = items.map((line) => (prefix + line).trimEnd());
    const blank = prefix.trimEnd();
    if (isBefore) {
      const at = this.#lineStart(anchor.from);
      // A blank line that went with the last of them comes again.
      const went = out.length > 0 ? this.#document.text.slice(out.at(-1)!.from, out.at(-1)!.to) : "\n\n";
      const after = !isJoined && /(\r\n|\r|\n)[ \t>]*\1$/.test(went) ? [blank] : [];
      const text = [...lines, ...after].map((line) => line + this.#newline).join("");
      edits.push({ from: at, to: at, text });
    } else {
      const at = this.#lineEnd(anchor.to);
      const next = this.#document.text.slice(at).replace(/^(\r\n|\r|\n)/, "");
      const needsBlank = !isJoined && next !== "" && !/^[ \t>]*(?:\r|\n|$)/.test(next);
      const all = [...(isJoined ? [] : [blank]), ...lines, ...(needsBlank ? [blank] : [])];
      edits.push({ from: at, to: at, text: all.map((line) => this.#newline + line).join("") });
    }
    return this.#document.done(edits, [...picturesInText(content), ...plainNumbers(content)]);
  }

  /** Puts rows below one of a table: each is a line, as the others are. */
  append(place: DocumentPlace, rows: readonly AppendedRow[], content: Content): Edited {
    const block = this.#document.table(place);
    const prefix = this.#prefix(block);
    // Below the names of the columns stands the line that parts them from the rows.
    let at = this.#lineEnd(block.from);
    for (let line = 0; line <= place.cells!.bottom; line++) at = this.#lineEnd(at + this.#newline.length);
    const hasEdges = this.#document.text[block.from] === "|";
    const text = rows.map((row) => this.#newline + prefix + rowLine(row, hasEdges)).join("");
    return this.#document.done(
      [{ from: at, to: at, text }],
      [...picturesInText(content), ...plainNumbers(content)],
    );
  }

  takeOut(places: readonly DocumentPlace[]): Edited {
    return this.#document.done(this.#removal(this.#document.atAll(places)));
  }

  #lineStart(at: number): number {
    return (
      Math.max(this.#document.text.lastIndexOf("\n", at - 1), this.#document.text.lastIndexOf("\r", at - 1)) +
      1
    );
  }

  #lineEnd(at: number): number {
    const end = /\r|\n/.exec(this.#document.text.slice(at));
    return end ? at + end.index : this.#document.text.length;
  }

  /** The mark of an item that a block begins, and where it stands in its line. */
  #marker({ from }: MarkdownBlock): { index: number; text: string } | undefined {
    const before = this.#document.text.slice(this.#lineStart(from), from);
    const found = /(?:[-+*]|\d{1,9}[.)])[ \t]*(?:\[[ xX]\][ \t]+)?$/.exec(before);
    return found ? { index: found.index, text: found[0] } : undefined;
  }

  /** What lines beside a block begin with: the marks of the quotes and lists around it, without that of an item that it begins. */
  #prefix(block: MarkdownBlock): string {
    const before = this.#document.text.slice(this.#lineStart(block.from), block.from);
    return before.slice(0, this.#marker(block)?.index ?? before.length).replace(/[^>\t]/g, " ");
  }

  /** How blocks are taken out, with their lines and one blank line. An item that holds more keeps its mark. */
  #removal(blocks: readonly MarkdownBlock[]): TextEdit[] {
    const edits = blocks.map((block, index) => {
      const from = this.#lineStart(block.from);
      const end = this.#lineEnd(block.to);
      const marker = this.#marker(block);
      const rest = this.#document.text.slice(end).replace(/^(?:\r\n|\r|\n)/, "");
      const width = block.from - from;
      const goesOn = /^(?:[ \t>]*(?:\r\n|\r|\n))*([ \t>]*)(?=\S)/.exec(rest)?.[1]?.length ?? 0;
      const isNextTaken =
        blocks[index + 1] !== undefined &&
        this.#document.text.slice(end, blocks[index + 1]!.from).trim() === "";
      if (marker && goesOn >= width && width > 0 && !isNextTaken)
        return { from: block.from, to: end, text: "" };
      let to = end + (/^(?:\r\n|\r|\n)/.exec(this.#document.text.slice(end))?.[0].length ?? 0);
      const isBlankBefore =
        from === 0 || /(?:^|\n|\r)[ \t>]*(?:\r\n|\r|\n)$/.test(this.#document.text.slice(0, from));
      const blank = /^[ \t>]*(?:\r\n|\r|\n)/.exec(this.#document.text.slice(to))?.[0];
      if (isBlankBefore && blank !== undefined) to += blank.length;
      return { from, to, text: "" };
    });
    this.#removeBlankEnd(edits);
    return edits;
  }

  /** Of the last blocks of a document, the blank lines before them go, which would stand at its end. */
  #removeBlankEnd(edits: TextEdit[]): void {
    const { text } = this.#document;
    let end = text.length;
    let first: number | undefined;
    for (let at = edits.length - 1; at >= 0 && text.slice(edits[at]!.to, end).trim() === ""; at--) {
      edits[at] = { ...edits[at]!, to: end };
      first = at;
      end = edits[at]!.from;
    }
    if (first === undefined) return;
    const blank = /(?<=^|\n|\r(?!\n))(?:[ \t>]*(?:\r\n|\r|\n))+$/.exec(text.slice(0, end))?.[0] ?? "";
    edits[first] = { ...edits[first]!, from: end - blank.length };
  }

  /** Notes under names that the document does not have yet. */
  #renamedNotes(written: string): string {
    return this.#document.text.includes("[^") ? written.replace(/\[\^(\d+)\]/g, "[^put-$1]") : written;
  }
}

/**
 * The lines of a list with the marks of the item beside which they are put, or they would be a list of their own: its bullet, or the
 * numbers after its own.
 *
 * @param mark how the item beside them is marked
 * @param isAfter whether they come after it
 */
function markedLike(lines: readonly string[], mark: string, isAfter: boolean): readonly string[] {
  const [, bullet, said, end] = /^(?:([-+*])|(\d+)([.)]))/.exec(mark)!;
  const isNumbered = /^\d/.test(lines[0]!);
  if (isNumbered !== (bullet === undefined)) return lines;
  let number = Number(said) + (isAfter ? 1 : 0);
  let wider = 0;
  return lines.map((line) => {
    const own = /^(?:[-+*]|\d+[.)])(?= |$)/.exec(line)?.[0];
    // What goes on under an item stands as far in as its words do.
    if (own === undefined) return " ".repeat(wider) + line;
    const made = bullet ?? `${number++}${end}`;
    wider = Math.max(0, made.length - own.length);
    return made + line.slice(own.length);
  });
}
