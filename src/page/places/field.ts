import type { Block } from "../../compose/block.js";
import type { Fit } from "../../compose/options.js";
import { WITH_CARET, WITH_VALUE, WITHOUT_CARET, type Field } from "./field-types.js";
import { putting } from "./lazy.js";
import type { Caret, Place, PlaceKind, Placing } from "./place.js";

/** Plain fields: what is put into one is its text, and of one line where it has one. */
export const fields: PlaceKind = {
  find(element) {
    // By name and not by class: an element of a frame is of the frame's classes.
    if (element.localName === "textarea") return new FieldPlace(element as HTMLTextAreaElement);
    if (element.localName !== "input") return undefined;
    const field = element as HTMLInputElement;
    if (WITH_CARET.test(field.type) || WITHOUT_CARET.test(field.type)) return new FieldPlace(field);
    return WITH_VALUE.test(field.type) ? new ValuePlace(field) : undefined;
  },
};

/** A field in which one writes, as a place. */
class FieldPlace implements Place {
  readonly fit: Fit;

  constructor(readonly element: Field) {
    this.fit = element.type === "textarea" ? "plain" : element.type === "url" ? "address" : "line";
  }

  async put(block: Block, caret?: Caret): Promise<Placing> {
    return (await putting()).putIntoField(this.element, block, caret);
  }
}

/** A field that holds a value of its own form, such as a date. */
class ValuePlace implements Place {
  readonly fit = "line" as const;

  constructor(readonly element: HTMLInputElement) {}

  async put(block: Block): Promise<Placing> {
    return (await putting()).setFieldTo(this.element, block);
  }
}
