import { attributeOf, type HtmlTreeAdapter } from "./tree-adapter.js";

/**
 * The notes of a page: links that call them, and the elements that say what they say. Converters, word processors and
 * digital books (DPUB-ARIA 1.1) each mark them in a way of their own, and all by a link to a place in the page.
 */
export class HtmlNotes<Node> {
  /** The elements that say what a note says, by the links that call it. */
  readonly #bodies = new Map<Node, Node>();
  /** What is read where it is called, and not again where it stands. */
  readonly #asides = new Set<Node>();

  constructor(
    readonly adapter: HtmlTreeAdapter<Node>,
    root: Node,
  ) {
    const places = new Map<string, Node>();
    const calls: { link: Node; place: string }[] = [];
    const sections: { section: Node; within: Node[] }[] = [];
    const visit = (node: Node, container: Node, open: readonly Node[][]): void => {
      const name = adapter.name(node);
      const id = this.#attribute(node, "id");
      const isContainer =
        id !== undefined && (name === "div" || name === "li" || name === "aside" || name === "p");
      const around = isContainer ? node : container;
      for (const place of [id, name === "a" ? this.#attribute(node, "name") : undefined])
        if (place !== undefined) places.set(place, around);
      if (isContainer) for (const section of open) section.push(node);
      const target = name === "a" && this.#isCall(node) ? this.#attribute(node, "href") : undefined;
      if (target?.startsWith("#")) calls.push({ link: node, place: target.slice(1) });
      const within: Node[] = [];
      const isSection = this.#isSection(node);
      if (isSection) sections.push({ section: node, within });
      const inside = isSection ? [...open, within] : open;
      const children = adapter.children(node);
      for (let i = 0; i < children.length; i++) visit(children[i]!, around, inside);
    };
    visit(root, root, []);
    for (const { link, place } of calls) {
      const body = places.get(place);
      if (body === undefined || body === root) continue;
      this.#bodies.set(link, body);
      this.#asides.add(body);
    }
    for (const { section, within } of sections)
      if (within.some((body) => this.#asides.has(body))) this.#asides.add(section);
  }

  /** The element that says what the note says that a node calls; nothing for what calls none. */
  bodyOf(node: Node): Node | undefined {
    return this.#bodies.get(node);
  }

  /** Whether an element is left out where it stands: a note, the notes' section, or the way back from a note. */
  isAside(node: Node): boolean {
    return this.#asides.has(node) || this.#isWayBack(node);
  }

  #attribute(node: Node, name: string): string | undefined {
    return attributeOf(this.adapter, node, name);
  }

  #isCall(link: Node): boolean {
    return (
      this.#attribute(link, "data-footnote-ref") !== undefined ||
      this.#attribute(link, "role") === "doc-noteref" ||
      /\b(footnote-ref|sdfootnoteanc|sdendnoteanc)\b/.test(this.#attribute(link, "class") ?? "") ||
      (OFFICE_NOTE.test(this.#attribute(link, "style") ?? "") &&
        !/ref/.test(this.#attribute(link, "href") ?? ""))
    );
  }

  #isWayBack(node: Node): boolean {
    if (this.adapter.name(node) !== "a") return false;
    return (
      this.#attribute(node, "data-footnote-backref") !== undefined ||
      this.#attribute(node, "role") === "doc-backlink" ||
      /\b(footnote-back|sdfootnotesym|sdendnotesym)\b/.test(this.#attribute(node, "class") ?? "") ||
      (OFFICE_NOTE.test(this.#attribute(node, "style") ?? "") &&
        /^#_(ftn|edn)ref/.test(this.#attribute(node, "href") ?? ""))
    );
  }

  #isSection(node: Node): boolean {
    return (
      this.#attribute(node, "data-footnotes") !== undefined ||
      /^doc-(endnotes|footnotes?)$/.test(this.#attribute(node, "role") ?? "") ||
      /\bfootnotes\b/.test(this.#attribute(node, "class") ?? "") ||
      /mso-element:\s*(footnote|endnote)-list/i.test(this.#attribute(node, "style") ?? "")
    );
  }
}

const OFFICE_NOTE = /mso-(footnote|endnote)-id/i;

/** Whether HTML may have notes in one of the ways that are known. */
export function mayHaveNotes(html: string): boolean {
  return /footnote|endnote|doc-noteref/i.test(html);
}
