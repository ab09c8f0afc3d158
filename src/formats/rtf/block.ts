import type { Align } from "../../content/model.js";
import type { StyleName } from "./write-head.js";

/** A paragraph without its end, or a table with it. */
export interface Block {
  readonly text: string;
  readonly isTable: boolean;
}

/** What stands around a paragraph. */
export interface Surroundings {
  readonly style: StyleName;
  readonly align?: Align | undefined;
  /** How far it is indented, in twentieths of a point. */
  readonly indent?: number;
  /** Which item of which list it is. */
  readonly item?: string;
  /** What stands before its text: the mark of an item. */
  readonly mark?: string;
  /** What is said of its letters. */
  readonly letters?: string;
}
