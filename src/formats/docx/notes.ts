import { attributeOf, childrenOf, type Element } from "../office/xml.js";

/** A note, and the part of the file that it stands in. */
export interface DocxNote {
  readonly element: Element;
  readonly part: string;
}

/** The footnotes and endnotes of a docx (ECMA-376 part 1, 17.11), by the references to them. */
export class DocxNotes {
  readonly #notes = new Map<string, DocxNote>();

  constructor(footnotes: Element | undefined, endnotes: Element | undefined) {
    for (const root of [footnotes, endnotes]) {
      for (const element of root ? childrenOf(root) : []) {
        const kind = element.localName;
        this.#notes.set(`${kind} ${attributeOf(element, "id")}`, { element, part: `${kind}s.xml` });
      }
    }
  }

  /** The note that a `footnoteReference` or an `endnoteReference` calls. */
  find(reference: Element): DocxNote | undefined {
    const kind = reference.localName.replace("Reference", "");
    return this.#notes.get(`${kind} ${attributeOf(reference, "id")}`);
  }
}
