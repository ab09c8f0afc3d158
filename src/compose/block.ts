import type { Content } from "../content/model.js";
import type { Notice } from "../content/notice.js";
import { writeDelimited, type DelimitedWriteOptions, type Separator } from "../content/write/delimited.js";
import { writeHtml } from "../content/write/html.js";
import { writeMarkdown } from "../content/write/markdown.js";
import { writeText } from "../content/write/text.js";
import type { Fit } from "./recipe.js";

/**
 * What composing gives: content, which can be taken in any format. A preview and a placing of the same block are the
 * same bytes, because both come from here.
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
   * Plain text, `\n` between lines. For cells it is tab-separated rows, in which a cell's own lines are quoted, as sheets
   * take them from a clipboard.
   */
  get text(): string {
    const inCells = this.fit === "cell" || this.fit === "cells";
    return inCells ? this.tsv.replace(/\n$/, "") : writeText(this.content);
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

  /** Rows whose cells are parted by a sign; raw where they are not to be guarded. */
  delimited(separator: Separator, options: DelimitedWriteOptions = {}): string {
    return writeDelimited(this.content, separator, options).text;
  }
}
