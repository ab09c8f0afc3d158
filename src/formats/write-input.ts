import type { Content } from "../content/model.js";
import type { Notice } from "../content/notice.js";

/** What is to be written. */
export interface WriteInput {
  readonly content: Content;
  /** The bytes of a picture of the content, by its hash. */
  readonly picture?: (hash: string) => Uint8Array | undefined;
  /** The title of a whole file. HTML without one is a fragment. */
  readonly title?: string;
  /** Whether rows are guarded against being run as formulas; they are when it is left out. */
  readonly guard?: boolean;
  /** The language (BCP 47) in whose signs rows are written: with its decimal sign, and CSV with `;` where that is a comma. */
  readonly locale?: string;
  /** Whether rows begin with a byte order mark, by which some sheets know UTF-8; they do not when it is left out. */
  readonly bom?: boolean;
  /** Whether text lands in cells: then it is rows and columns parted by tabs. */
  readonly inCells?: boolean;
}

/** What is written, and what it could not hold. */
export interface WriteResult {
  /** Text, ending with a line end, or the bytes of a file. */
  readonly data: string | Uint8Array;
  readonly notices: readonly Notice[];
}
