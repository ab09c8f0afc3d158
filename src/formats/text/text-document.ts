import { DrawerError } from "../../content/error.js";
import { editErrors } from "../../messages/en/edit.js";
import type { DocumentPlace, Edited } from "../edit.js";
import { edited, type TextEdit } from "../office/xml-text.js";
import { encodedLike } from "./edit.js";

/** A part of a document that is text: what it is, and where it stands. */
interface TextBlock {
  readonly kind: "p" | "t" | "i";
  readonly from: number;
  readonly to: number;
}

/** A document that is text, such as a page or Markdown, in which parts are found and edits made. */
export class TextDocument<Block extends TextBlock> {
  constructor(
    readonly bytes: Uint8Array,
    readonly file: string,
    readonly text: string,
    readonly blocks: readonly Block[],
  ) {}

  /**
   * The parts at a place. What it says and what the reader of the format made of it must have the same parts; otherwise nobody knows
   * for sure which they are, and nothing is done.
   *
   * @param put what is to be done there, for messages
   * @throws DrawerError `cannot-edit`
   */
  at({ cells, spot, elements, kinds }: DocumentPlace, put: "into" | "out of"): Block[] {
    const { file } = this;
    if (cells) throw new DrawerError(editErrors, "cannot-edit/put", { file, spot, put });
    if (kinds !== this.blocks.map(({ kind }) => kind).join(""))
      throw new DrawerError(editErrors, "cannot-edit/form", { file });
    return elements.map((number) => this.blocks[number - 1]!);
  }

  /**
   * The table that cells stand in.
   * @throws DrawerError `cannot-edit`
   */
  table({ cells: _, ...place }: DocumentPlace): Block {
    return this.at(place, "into")[0]!;
  }

  /** The parts at several places, each once, in the order of the text. */
  atAll(places: readonly DocumentPlace[]): Block[] {
    const found = new Set(places.flatMap((place) => this.at(place, "out of")));
    return [...found].sort((one, other) => one.from - other.from);
  }

  /** The file with edits made in it, in its encoding. */
  done(edits: readonly TextEdit[], notices: Edited["notices"] = []): Edited {
    return { data: encodedLike(this.bytes, edited(this.text, edits), this.file), notices };
  }
}
