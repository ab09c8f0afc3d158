import type { Content } from "../content/model.js";
import type { Notice } from "../content/notice.js";
import { writeDelimited } from "../content/write/delimited.js";
import { writeHtml } from "../content/write/html.js";
import { writeMarkdown } from "../content/write/markdown.js";
import { writeText } from "../content/write/text.js";

/**
 * What composing gives: content, which can be taken in any format. A preview and a placing of the same block are the
 * same bytes, because both come from here.
 */
export class Block {
  /**
   * @param content what the block holds
   * @param notices what the layout could not show
   * @param picture gives the bytes of a picture of the content
   */
  constructor(
    readonly content: Content,
    readonly notices: readonly Notice[],
    readonly picture: (hash: string) => Uint8Array | undefined = () => undefined,
  ) {}

  /** Plain text, `\n` between lines. */
  get text(): string {
    return writeText(this.content);
  }

  /** An HTML fragment with inline styles only. */
  get html(): string {
    return writeHtml(this.content, { picture: this.picture });
  }

  /** Markdown (CommonMark with GitHub's tables). */
  get markdown(): string {
    return writeMarkdown(this.content);
  }

  /** Comma-separated rows (RFC 4180). */
  get csv(): string {
    return writeDelimited(this.content, ",").text;
  }

  /** Tab-separated rows. */
  get tsv(): string {
    return writeDelimited(this.content, "\t").text;
  }
}
