import type { Content } from "../../content/model.js";
import type { Notice } from "../../content/notice.js";

/** A document, read whole. */
export interface ReadDocument {
  readonly content: Content;
  readonly pictures: ReadonlyMap<string, Uint8Array>;
  readonly notices: readonly Notice[];
  /** The document's title, where it says one. */
  readonly title?: string;
}
