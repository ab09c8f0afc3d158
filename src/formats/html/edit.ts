import type { Content } from "../../content/model.js";
import type { AppendedRow, DocumentEditor, DocumentPlace, Edited, Put, PutInput } from "../edit.js";
import { picturesNotDrawn, plainNumbers } from "../left-out.js";
import type { TextEdit } from "../office/xml-text.js";
import { decodeText } from "../text/decode.js";
import { TextDocument } from "../text/text-document.js";
import { htmlBlocks, lineBefore, type HtmlBlock } from "./blocks.js";
import { appendRows } from "./table-rows.js";
import { saysNumbers, writeHtml } from "./write.js";

/** Puts blocks into HTML and takes them out, in its text; all else stays as it is written. */
export const htmlEditor: DocumentEditor = {
  type: "document",
  put: (bytes, file, place, put, input) =>
    Promise.resolve().then(() => new Document(bytes, file).put(place, put, input)),
  append: (bytes, file, place, rows, input) =>
    Promise.resolve().then(() => new Document(bytes, file).append(place, rows, input)),
  takeOut: (bytes, file, places) => Promise.resolve().then(() => new Document(bytes, file).takeOut(places)),
};

/** What a cell of a table holds, as HTML. */
function cellHtml(flows: Content, picture: PutInput["picture"]): string {
  const html = writeHtml([{ type: "table", headerRows: 0, rows: [[{ flows }]] }], picture ? { picture } : {});
  return /<td[^>]*>([\s\S]*)<\/td>/.exec(html)![1]!;
}

class Document {
  readonly #document: TextDocument<HtmlBlock>;

  constructor(bytes: Uint8Array, file: string) {
    const text = decodeText(bytes, "html");
    this.#document = new TextDocument(bytes, file, text, htmlBlocks(text));
  }

  put(place: DocumentPlace, put: Put | undefined, { content, picture }: PutInput): Edited {
    const blocks = this.#document.at(place, "into");
    const anchor = put === "before" || put === "instead" ? blocks[0]! : blocks.at(-1)!;
    const html = writeHtml(content, picture ? { picture } : {});
    const items =
      content.length === 1 && content[0]!.type === "list"
        ? /^<[ou]l\b[^>]*>([\s\S]*)<\/[ou]l>$/.exec(html)?.[1]
        : undefined;
    const isJoined = items !== undefined && anchor.item !== undefined && put !== "instead";
    const { from, to } = isJoined ? anchor.item! : (anchor.inner ?? anchor);
    const xml = isJoined ? items : html;
    const edits: TextEdit[] = [];
    // What follows an element stands on a line of its own, as far in, where the element does.
    const apart = lineBefore(this.#document.text, from);
    if (put === "instead") {
      const [first, ...rest] = blocks as [HtmlBlock, ...HtmlBlock[]];
      edits.push(
        { ...(first.inner ?? { from: first.from, to: first.to }), text: html },
        ...this.#removal(rest),
      );
    } else if (put === "before") edits.push({ from, to: from, text: xml + apart });
    else edits.push({ from: to, to, text: apart + xml });
    return this.#document.done(edits, [...plainNumbers(content, saysNumbers), ...picturesNotDrawn(content)]);
  }

  append(place: DocumentPlace, rows: readonly AppendedRow[], { content, picture }: PutInput): Edited {
    const { text, file } = this.#document;
    const { from } = this.#document.table(place);
    const written = (flows: Content) => cellHtml(flows, picture);
    const edit = appendRows(text, from, place.cells!.bottom, rows, written, { file, spot: place.spot });
    return this.#document.done([edit], [...plainNumbers(content, saysNumbers), ...picturesNotDrawn(content)]);
  }

  takeOut(places: readonly DocumentPlace[]): Edited {
    return this.#document.done(this.#removal(this.#document.atAll(places)));
  }

  /** How parts are taken out, with items and lists that are empty then, and with the line that they stood in. */
  #removal(blocks: readonly HtmlBlock[]): TextEdit[] {
    const gone: { from: number; to: number }[] = [];
    for (const { from, to, item } of blocks) {
      const isWhole = item && this.#isBare(item, [{ from, to }, ...blocks]);
      if (!isWhole) gone.push({ from, to });
      else if (
        this.#isBare(
          item.list,
          blocks.flatMap((each) => each.item ?? each),
        )
      )
        gone.push(item.list);
      else gone.push(item);
    }
    const outer = gone.filter(
      (each, at) =>
        !gone.some(
          (other, index) =>
            (other.from < each.from || (other.from === each.from && index < at)) && other.to >= each.to,
        ),
    );
    return outer.map(({ from, to }) => {
      const before = /(?:\r\n|\r|\n)[ \t]*$/.exec(this.#document.text.slice(0, from))?.[0];
      const isLineEnd = /^[ \t]*(?:\r|\n|$)/.test(this.#document.text.slice(to));
      const start = before !== undefined && isLineEnd ? from - before.length : from;
      return { from: start, to, text: "" };
    });
  }

  /** Whether an element holds nothing but these parts. */
  #isBare(
    { from, to }: { from: number; to: number },
    parts: readonly { from: number; to: number }[],
  ): boolean {
    let left = "";
    let at = from;
    for (const part of [...parts].sort((one, other) => one.from - other.from)) {
      if (part.from < at || part.to > to) continue;
      left += this.#document.text.slice(at, part.from);
      at = part.to;
    }
    return (left + this.#document.text.slice(at, to)).replace(/<[^>]*>/g, "").trim() === "";
  }
}
