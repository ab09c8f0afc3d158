/** Where a snippet came from, as far as the source said. */
export interface Origin {
  /** The name of the document or sheet file. */
  readonly document?: string;
  /** The spot in it: `p3`, `t1!A1:C4`, `Spring!A2:G2`. */
  readonly at?: string;
  /** The title of the document or page. */
  readonly title?: string;
  /** The address of the page. */
  readonly address?: string;
  /** The application it was copied in. */
  readonly app?: string;
  /** The whole path of the file on this device, which is told to nobody else and never exported. */
  readonly path?: string;
}

/** An origin as it is told to others: without the path on this device. */
export function toldOrigin({ path: _, ...origin }: Origin): Origin {
  return origin;
}

export { originText } from "../messages/core/names.js";
