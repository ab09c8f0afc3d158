import type { EditedPackage } from "../office/edited-package.js";
import { addContentType, addRelation, withLast } from "../office/ooxml-package.js";
import { partOfType, relationsOf, type Relation } from "../office/relations.js";
import { attributeAt, childPlaces, xmlPlaces, type XmlPlace } from "../office/xml-text.js";
import { Parts } from "../office/zip.js";
import { HostStyles } from "./host-styles.js";

/** The prefixes that what we write uses, with their namespaces (ECMA-376 part 1, annex A). */
const NAMESPACES: Readonly<Record<string, string>> = {
  w: "http://schemas.openxmlformats.org/wordprocessingml/2006/main",
  r: "http://schemas.openxmlformats.org/officeDocument/2006/relationships",
  wp: "http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing",
};
const OFFICE_TYPE = "application/vnd.openxmlformats-officedocument.wordprocessingml";

/** Blocks of a document as they stand in another: the text of each, and whether it is a table. */
export interface GraftedBlock {
  readonly xml: string;
  readonly isTable: boolean;
}

/** Where a document takes blocks: what a list there is, whose items they become where they are items of one like it. */
export interface GraftPlace {
  /** `w:numId` and `w:ilvl` of the paragraph beside them, where it is an item of a list, and its style. */
  readonly item?:
    { readonly list: string; readonly level: number; readonly style: string | undefined } | undefined;
  /** The style of a table before them. */
  readonly tableStyle?: string | undefined;
  /** Whether plain paragraphs have the style that the document has for its text. */
  readonly isText?: boolean;
}

/**
 * Makes the blocks of one docx blocks of another: its styles are those of the other by their names, and added where it has none; its
 * lists, notes, links and pictures are added with ids and names of their own.
 *
 * @param host the document that they come into, which is changed but for its text
 * @param part the part of the host with its text
 * @param written a docx as our writer makes it
 */
export function graft(
  host: EditedPackage,
  part: string,
  written: Uint8Array,
  place: GraftPlace,
): GraftedBlock[] {
  const guest = new Parts(written, host.parts.file);
  return new Graft(host, part, guest, place).blocks();
}

class Graft {
  readonly #folder: string;
  readonly #styles: HostStyles;
  readonly #relations: ReadonlyMap<string, Relation>;
  /** Ids in the host, by those in the guest. */
  readonly #lists = new Map<string, string>();
  readonly #notes = new Map<string, string>();
  readonly #ids = new Map<string, string>();
  readonly #roots = new Map<string, string>();
  #drawings: number;

  constructor(
    readonly host: EditedPackage,
    readonly part: string,
    readonly guest: Parts,
    readonly place: GraftPlace,
  ) {
    this.#folder = part.slice(0, part.lastIndexOf("/") + 1);
    const styles = partOfType(relationsOf(host.parts, part), "styles");
    this.#styles = new HostStyles(host, styles, guest.needed("word/styles.xml"), () =>
      this.#partOf("styles", "styles.xml", `<w:styles xmlns:w="${NAMESPACES["w"]}"></w:styles>`),
    );
    this.#relations = relationsOf(guest, "word/document.xml");
    this.#drawings = highest(host.text(part) ?? "", /<wp:docPr\b[^>]*?\sid="(\d+)"/g);
  }

  blocks(): GraftedBlock[] {
    const xml = this.guest.needed("word/document.xml");
    const body = [...xmlPlaces(xml)].find(({ name }) => name === "body")!;
    const found = childPlaces(xml, body).filter(({ name }) => name === "p" || name === "tbl");
    const joined = this.#joinedList(xml, found);
    const text = this.place.isText ? this.#styles.bodyText(this.host.text(this.part)!) : undefined;
    return found.map((block) => ({
      xml: this.#grafted(withStyle(xml.slice(block.start, block.end), text), this.part, joined),
      isTable: block.name === "tbl",
    }));
  }

  /** The list whose items become items of the list beside: all that is put there, of one list and at its outermost level. */
  #joinedList(xml: string, blocks: readonly XmlPlace[]): string | undefined {
    if (!this.place.item) return undefined;
    const lists = blocks.map(({ start, end }) => /<w:numId w:val="(\d+)"/.exec(xml.slice(start, end))?.[1]);
    const [first] = lists;
    const isOne = first !== undefined && lists.every((list) => list !== undefined);
    return isOne ? first : undefined;
  }

  /** A block with the ids of the host. */
  #grafted(block: string, part: string, joined?: string): string {
    const isMissing = (prefix: string) => !this.#declares(part, prefix);
    const declared = Object.entries(NAMESPACES)
      .filter(([prefix]) => isMissing(prefix) && block.includes(`${prefix}:`))
      .map(([prefix, namespace]) => ` xmlns:${prefix}="${namespace}"`)
      .join("");
    return this.#withTableStyle(block)
      .replace(/<w:pPr>(?:(?!<\/w:pPr>)[\s\S])*?<w:numPr>[\s\S]*?<\/w:numPr>/g, (props) =>
        this.#item(props, joined),
      )
      .replace(
        /<w:(pStyle|rStyle) w:val="([^"]*)"/g,
        (_, kind: string, id: string) => `<w:${kind} w:val="${this.#styles.idOf(id)}"`,
      )
      .replace(
        / r:(id|embed)="([^"]*)"/g,
        (_, name: string, id: string) => ` r:${name}="${this.#relationOf(id, part)}"`,
      )
      .replace(
        /<w:footnoteReference w:id="([^"]*)"/g,
        (_, id: string) => `<w:footnoteReference w:id="${this.#noteOf(id)}"`,
      )
      .replace(/<wp:docPr id="\d+"/g, () => `<wp:docPr id="${++this.#drawings}"`)
      .replace(/^<[\w:]+/, (tag) => tag + declared);
  }

  /** Whether a part's outermost element has a prefix as we use it. */
  #declares(part: string, prefix: string): boolean {
    const root = this.#rootOf(part);
    return root.includes(`xmlns:${prefix}="${NAMESPACES[prefix]}"`);
  }

  /** The start tag of a part's outermost element, which stays as it is. */
  #rootOf(part: string): string {
    const known = this.#roots.get(part);
    if (known !== undefined) return known;
    const root = /<[\w.-]+(?::[\w.-]+)?\b[^>]*>/.exec(
      (this.host.text(part) ?? "").replace(/<\?[\s\S]*?\?>|<!--[\s\S]*?-->/g, ""),
    );
    this.#roots.set(part, root?.[0] ?? "");
    return root?.[0] ?? "";
  }

  /** A table with the style of those of the host, in place of lines of its own. */
  #withTableStyle(block: string): string {
    const { tableStyle } = this.place;
    if (tableStyle === undefined) return block;
    return block.replace(
      /<w:tblPr>([\s\S]*?)<w:tblBorders>[\s\S]*?<\/w:tblBorders>/g,
      `<w:tblPr><w:tblStyle w:val="${tableStyle}"/>$1`,
    );
  }

  /** The properties of an item of a list, as far as its numbering. */
  #item(props: string, joined: string | undefined): string {
    return props.replace(
      /(?<=<w:pPr>)(?:<w:pStyle w:val="[^"]*"\/>)?((?:(?!<w:numPr>)[\s\S])*)<w:numPr><w:ilvl w:val="(\d+)"\/><w:numId w:val="(\d+)"\/><\/w:numPr>/,
      (all, between: string, level: string, list: string) => {
        const beside = this.place.item;
        if (beside && list === joined) {
          const style = beside.style === undefined ? "" : `<w:pStyle w:val="${beside.style}"/>`;
          return `${style}${between}<w:numPr><w:ilvl w:val="${beside.level + Number(level)}"/><w:numId w:val="${beside.list}"/></w:numPr>`;
        }
        return all.replace(/<w:numId w:val="\d+"/, `<w:numId w:val="${this.#listOf(list)}"`);
      },
    );
  }

  /** A list of the guest in the host, with a numbering of its own (ECMA-376 part 1, 17.9). */
  #listOf(id: string): string {
    const known = this.#lists.get(id);
    if (known !== undefined) return known;
    const guest = this.guest.needed("word/numbering.xml");
    const num = new RegExp(`<w:num w:numId="${id}"[\\s\\S]*?</w:num>`).exec(guest)![0];
    const abstractId = /<w:abstractNumId w:val="(\d+)"/.exec(num)![1]!;
    const abstract = new RegExp(
      `<w:abstractNum w:abstractNumId="${abstractId}"[\\s\\S]*?</w:abstractNum>`,
    ).exec(guest)![0];
    const name = this.#partOf(
      "numbering",
      "numbering.xml",
      `<w:numbering xmlns:w="${NAMESPACES["w"]}"></w:numbering>`,
    );
    const xml = this.host.text(name)!;
    const newAbstract = highest(xml, /\bw:abstractNumId="(\d+)"/g) + 1;
    const newId = String(highest(xml, /<w:num\b[^>]*?\bw:numId="(\d+)"/g) + 1);
    const made = abstract
      .replace(/ w15:\w+="[^"]*"/g, "")
      .replace(/w:abstractNumId="\d+"/, `w:abstractNumId="${newAbstract}"`);
    // Abstract numberings stand before all others.
    const firstNum = xml.search(/<w:num[\s>]/);
    const withAbstract =
      firstNum < 0 ? withLast(xml, "numbering", made) : xml.slice(0, firstNum) + made + xml.slice(firstNum);
    const overrides = /<w:lvlOverride[\s\S]*<\/w:lvlOverride>/.exec(num)?.[0] ?? "";
    const numbering = `<w:num w:numId="${newId}"><w:abstractNumId w:val="${newAbstract}"/>${overrides}</w:num>`;
    const lastNum = withAbstract.lastIndexOf("</w:num>");
    const all =
      lastNum < 0
        ? withLast(withAbstract, "numbering", numbering)
        : withAbstract.slice(0, lastNum + 8) + numbering + withAbstract.slice(lastNum + 8);
    this.host.set(name, all);
    this.#lists.set(id, newId);
    return newId;
  }

  /** The part of the host that its text names for something; an empty one where it names none. */
  #partOf(type: string, custom: string, empty: string): string {
    const named = [...relationsOf(this.host.parts, this.part).values()].find((each) =>
      each.type.endsWith(`/${type}`),
    );
    const name = named?.part ?? `${this.#folder}${custom}`;
    if (this.host.has(name)) return name;
    this.host.set(name, `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n${empty}`);
    addRelation(this.host, this.part, type, custom);
    addContentType(this.host, { part: name }, `${OFFICE_TYPE}.${type}+xml`);
    return name;
  }

  /** A link or a picture of the guest in the host. */
  #relationOf(id: string, part: string): string {
    const key = `${part} ${id}`;
    const known = this.#ids.get(key);
    if (known !== undefined) return known;
    const { type, target, part: from } = this.#relations.get(id) ?? this.#noteRelation(id);
    const made = type.endsWith("/hyperlink")
      ? addRelation(this.host, part, "hyperlink", target, true)
      : this.#picture(from, part);
    this.#ids.set(key, made);
    return made;
  }

  #noteRelation(id: string): Relation {
    return relationsOf(this.guest, "word/footnotes.xml").get(id)!;
  }

  #picture(from: string, part: string): string {
    const extension = from.slice(from.lastIndexOf(".") + 1);
    let name = from.slice(from.lastIndexOf("/") + 1);
    for (let number = 2; this.host.has(`${this.#folder}media/${name}`); number++)
      name = `picture${number}.${extension}`;
    this.host.set(`${this.#folder}media/${name}`, this.guest.bytes(from)!);
    const types = this.guest.needed("[Content_Types].xml");
    const type =
      new RegExp(`ContentType="([^"]*)" Extension="${extension}"`).exec(types)?.[1] ?? `image/${extension}`;
    addContentType(this.host, { extension }, type);
    return addRelation(this.host, part, "image", `media/${name}`);
  }

  /** A note of the guest in the host (ECMA-376 part 1, 17.11). */
  #noteOf(id: string): string {
    const known = this.#notes.get(id);
    if (known !== undefined) return known;
    const guest = this.guest.needed("word/footnotes.xml");
    const note = [...xmlPlaces(guest)].find(
      (place) => place.name === "footnote" && attributeAt(guest, place, "w:id") === id,
    )!;
    const separators = ["separator", "continuationSeparator"]
      .map(
        (type, at) =>
          `<w:footnote w:type="${type}" w:id="${at - 1}"><w:p><w:r><w:${type}/></w:r></w:p></w:footnote>`,
      )
      .join("");
    const name = this.#partOf(
      "footnotes",
      "footnotes.xml",
      `<w:footnotes xmlns:w="${NAMESPACES["w"]}" xmlns:r="${NAMESPACES["r"]}">${separators}</w:footnotes>`,
    );
    const newId = String(
      Math.max(0, highest(this.host.text(name)!, /<w:footnote\b[^>]*?\bw:id="(-?\d+)"/g)) + 1,
    );
    this.#notes.set(id, newId);
    const xml = this.#grafted(guest.slice(note.start, note.end), name).replace(
      /\bw:id="[^"]*"/,
      `w:id="${newId}"`,
    );
    this.host.set(name, withLast(this.host.text(name)!, "footnotes", xml));
    return newId;
  }
}

/** A plain paragraph with a style; anything else as it is. */
function withStyle(block: string, style: string | undefined): string {
  if (
    style === undefined ||
    !/^<w:p>(?!<w:pPr>(?:(?!<\/w:pPr>)[\s\S])*<w:(?:pStyle|numPr|pBdr)\b)/.test(block)
  )
    return block;
  const named = `<w:pStyle w:val="${style}"/>`;
  return block.startsWith("<w:p><w:pPr>")
    ? block.replace("<w:p><w:pPr>", `$&${named}`)
    : block.replace("<w:p>", `$&<w:pPr>${named}</w:pPr>`);
}

/** The highest number that a pattern finds; 0 where it finds none. */
export function highest(text: string, pattern: RegExp): number {
  let most = 0;
  for (const [, number] of text.matchAll(pattern)) most = Math.max(most, Number(number));
  return most;
}
