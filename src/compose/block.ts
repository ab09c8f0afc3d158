import { checkOptions } from "../content/check.js";
import { DrawerError } from "../content/error.js";
import type { Content } from "../content/model.js";
import type { Notice } from "../content/notice.js";
import { withAddressesShown } from "../content/shown-addresses.js";
import type { Separator } from "../formats/delimited/separator.js";
import { writeDelimited, type DelimitedWriteOptions } from "../formats/delimited/write.js";
import type { WriteInput, WriteResult } from "../formats/format.js";
import { writeHtml } from "../formats/html/write.js";
import { writeMarkdown } from "../formats/markdown/write.js";
import { findWrittenFormat, formatOf, WRITTEN_FORMATS, type FormatName } from "../formats/registry.js";
import { writeText } from "../formats/text/write.js";
import { contentErrors } from "../messages/en/content.js";
import type { Fit } from "./options.js";

/**
 * What composing gives: content, which can be taken in any format. A preview and a placing of the same block are the
 * same bytes, because both come from here.
 *
 * @example
 * ```js
 * import { compose, readText } from "drawer";
 *
 * const block = compose([readText("Check rings")]);
 * console.log(block.html); // <p>Check rings</p>
 * const { data } = await block.to("docx");
 * console.log(data.length > 1000); // true
 * ```
 */
export class Block {
  /**
   * @param content what the block holds
   * @param notices what the layout could not show
   * @param picture gives the bytes of a picture of the content
   * @param fit what it lands in
   */
  constructor(
    readonly content: Content,
    readonly notices: readonly Notice[],
    readonly picture: (hash: string) => Uint8Array | undefined = () => undefined,
    readonly fit: Fit = "page",
  ) {}

  /**
   * Plain text, `\n` between lines; links have their addresses in brackets, but for those in cells. For cells it is tab-separated rows, in which a cell's own lines are quoted, as sheets
   * take them from a clipboard.
   */
  get text(): string {
    const inCells = this.fit === "cell" || this.fit === "cells";
    return inCells ? this.tsv.replace(/\n$/, "") : writeText(withAddressesShown(this.content));
  }

  /** An HTML fragment with inline styles only. */
  get html(): string {
    return writeHtml(this.content, { picture: this.picture });
  }

  /** Markdown (CommonMark with GitHub's tables). */
  get markdown(): string {
    return writeMarkdown(this.content);
  }

  /** Comma-separated rows (RFC 4180), guarded against being run as formulas. */
  get csv(): string {
    return this.delimited(",");
  }

  /** Tab-separated rows, guarded against being run as formulas. */
  get tsv(): string {
    return this.delimited("\t");
  }

  /**
   * The block in any format that is written: `to("docx")`. Its writer is loaded when it is first needed.
   * @param format its name, or an ending of its files
   * @param options `title` is the document's title; `guard` whether CSV and TSV are guarded against being run as formulas;
   *   `locale` the language in whose signs they are written, and `bom` whether they begin with a byte order mark
   * @returns the bytes or the text, and what the format could not hold
   * @throws DrawerError `unknown-format` for what is no format, or one that is only read; `bad-option`
   */
  async to(
    format: FormatName,
    options: Pick<WriteInput, "title" | "guard" | "locale" | "bom"> = {},
  ): Promise<WriteResult> {
    checkOptions("option of a block", options, ["title", "guard", "locale", "bom"]);
    const name = typeof format === "string" ? findWrittenFormat(format) : undefined;
    const { write } = name ? formatOf(name) : {};
    if (!write)
      throw new DrawerError(contentErrors, "unknown-format/write", {
        file: String(format),
        endings: WRITTEN_FORMATS,
      });
    const inCells = this.fit === "cell" || this.fit === "cells";
    return write({ content: this.content, picture: this.picture, inCells, ...options });
  }

  /**
   * Rows whose cells are parted by a sign; raw where they are not to be guarded.
   * @param separator the sign between the cells
   * @param options whether it is guarded, and the language of its figures
   */
  delimited(separator: Separator, options: DelimitedWriteOptions = {}): string {
    return writeDelimited(this.content, separator, options).text;
  }
}
