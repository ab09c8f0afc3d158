import { ListBuilder } from "../../content/list-builder.js";
import type { Content, Flow, Paragraph, Picture } from "../../content/model.js";
import type { Asides } from "../asides.js";
import { addParagraph, Captions, isQuoteStyle, type Aside } from "../office/document.js";

/** Where flows are added: the text, a cell, a note. */
export class Container {
  readonly #flows: Flow[] = [];
  readonly lists = new ListBuilder();

  readonly #captions = new Captions();

  /** Adds a flow; a table with the caption that stands right before it. */
  add(flow: Flow): void {
    this.#flows.push(...this.lists.take());
    const caption = flow.type === "table" ? this.#captions.take(this.#flows) : undefined;
    this.#flows.push(caption ? ({ ...flow, caption } as Flow) : flow);
  }

  /** Adds a paragraph: in the styles of quotes and of code it is one with those before it. */
  addLine(flow: Paragraph | Picture, style: string, isRule: boolean, asides: Asides<Aside>): void {
    this.#flows.push(...this.lists.take());
    const role = {
      isRule,
      isQuote: isQuoteStyle(style),
      isCaption: /^caption$/i.test(style),
      isCode: /\bpreformatted\b|\bcode\b/i.test(style),
    };
    addParagraph(this.#flows, flow, role, this.#captions, asides);
  }

  take(): Content {
    return [...this.#flows.splice(0), ...this.lists.take()];
  }
}
