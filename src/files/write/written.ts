import type { Content } from "../../content/model.js";
import { notice, type Notice } from "../../content/notice.js";

/** What is to be written: content, and the bytes of its pictures. */
export interface ToWrite {
  readonly content: Content;
  readonly picture?: (hash: string) => Uint8Array | undefined;
  /** The title that the file says it has. */
  readonly title?: string;
}

/** A file's bytes, and what it could not hold. */
export interface Written {
  readonly bytes: Uint8Array;
  readonly notices: readonly Notice[];
}

/** Says that a picture is not in the file, and what stands in its place. */
export function pictureLeftOut(alt: string): Notice {
  return notice("not-shown/picture", { alt });
}
