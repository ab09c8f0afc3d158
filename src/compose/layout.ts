import type { Content, Run } from "../content/model.js";
import type { Notice } from "../content/notice.js";
import type { Origin } from "../content/origin.js";
import type { Fit, HeaderChoice, Tidying } from "./options.js";

/** A piece that goes into a block: a snippet, or anything that was read. Layouts get it tidied and styled. */
export interface Piece {
  readonly content: Content;
  /** The bytes of the content's pictures, by hash. */
  readonly pictures?: ReadonlyMap<string, Uint8Array>;
  readonly label?: string | undefined;
  readonly origin?: Origin | undefined;
  /** When it was collected: ISO 8601, in UTC. */
  readonly collectedAt?: string | undefined;
  /** For a layout that makes a table: its source, as it stands in a column of its own. */
  readonly source?: readonly Run[] | undefined;
}

/** What a layout makes of the pieces: content, and what it could not show. */
export interface LaidOut {
  readonly content: Content;
  readonly notices: readonly Notice[];
}

/** What of a recipe a layout may go by. */
export interface LayoutOptions {
  /** What stands between the pieces: a name of {@link BETWEENS}, or any text. Each layout has a default of its own. */
  readonly between?: string;
  /** What is tidied besides the edges; an empty list tidies nothing, not even the edges. `["edges"]`. */
  readonly tidy?: readonly Tidying[];
  /**
   * Whether the first row of each table of several rows, and of the first table of all, names its columns (`yes`) or no
   * row does (`no`); told from their sources and from the names.
   */
  readonly header?: HeaderChoice;
  /** With `rows`: what columns are called in the block, by what they are called in the pieces. */
  readonly columns?: Readonly<Record<string, string>>;
  /** What it lands in; `page`. */
  readonly fit?: Fit;
  /** The language whose words and signs join a sentence (BCP 47); the program's own. */
  readonly locale?: string;
}

/** A way to lay pieces out, and what of a recipe has a meaning in it. */
export interface Layout {
  /** Makes one content of several pieces, in their order, and loses nothing of them without a notice. */
  readonly lay: (pieces: readonly Piece[], options: LayoutOptions) => LaidOut;
  /** Whether it makes a table, in which a piece's blank columns stay: what stands in the others goes under those of other pieces. */
  readonly isTable: boolean;
  /** What may stand between pieces: any text; what ends a line, or takes one; or nothing but the end of a line. */
  readonly between: "any" | "lines" | "none";
  /** Whether its columns can be called otherwise. */
  readonly renamesColumns: boolean;
}

/** Content and nothing to tell. */
export function withoutNotices(content: Content): LaidOut {
  return { content, notices: [] };
}
