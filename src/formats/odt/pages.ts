import { attributeAt, childPlaces, plainText, xmlPlaces, type XmlPlace } from "../office/xml-text.js";
import { addAutomaticStyles } from "./automatic-styles.js";

/** What keeps a text from standing in one file several times. */
export type Unrepeatable = "notes" | "tracked" | "controls" | "page-frames";

/**
 * Why the text of a document cannot stand in one file several times; nothing when it can.
 * @param text `content.xml`
 */
export function unrepeatableIn(text: string): Unrepeatable | undefined {
  // Their numbers would go on from one to the next, and endnotes stand after the last.
  if (/<text:note\b/.test(text)) return "notes";
  if (/<text:change(?:-start)?\b/.test(text)) return "tracked";
  if (/<draw:control\b/.test(text)) return "controls";
  return / text:anchor-type="page"/.test(text) ? "page-frames" : undefined;
}

/**
 * Texts of one document, filled differently, as one text, in which each begins on a page of its own.
 *
 * @param texts `content.xml`, so many times; the automatic styles are those of the first
 * @param styles `styles.xml`: what its styles and its pages are
 * @param areCounted whether the pages of each are counted from 1
 */
export function pagesOf(texts: readonly string[], styles: string, areCounted: boolean): string {
  const [first] = texts as [string, ...string[]];
  const { innerEnd } = aroundText(first);
  const breaks = new Breaks(first, styles, areCounted);
  const outline = countsHeadings(styles);
  const copies = texts.slice(1).map((text, at) => {
    const around = aroundText(text);
    const copy = apart(text.slice(around.start, around.innerEnd), at + 2);
    return breaks.before(outline ? countedAnew(copy) : copy);
  });
  return breaks.withStyles(first.slice(0, innerEnd) + copies.join("") + first.slice(innerEnd));
}

/** What is declared once, before the text itself (ODF 1.3 part 3, 5.1 and 7.4). */
const DECLARED =
  /^(?:tracked-changes|forms|(?:sequence|variable|user-field|dde-connection)-decls|alphabetical-index-auto-mark-file|calculation-settings)$/;

/** Where the text itself begins and ends. */
function aroundText(text: string): { start: number; innerEnd: number } {
  const body = xmlPlaces(text).find((place) => place.name === "text" && place.parent?.name === "body")!;
  const declared = childPlaces(text, body).filter(({ name }) => DECLARED.test(name));
  return { start: declared.at(-1)?.end ?? body.inner, innerEnd: body.innerEnd };
}

/** Elements whose `text:name` is a name of their own; of fields it is that of a variable. */
const NAMED =
  /<text:(?:bookmark|reference-mark)(?:-start|-end)?\b[^>]*>|<text:(?:section|table-of-content|illustration-index|table-index|object-index|user-index|alphabetical-index|bibliography)\b[^>]*>/g;
/** Attributes that are names or ids of one place, or speak of one. */
const NAMES =
  / (?:text:(?:ref-name|id|continue-list)|table:name|draw:(?:name|id|chain-next-name)|office:name|xml:id)="([^"]*)"/g;

/** A text that stands again in one file: what has a name of its own has another one, and what speaks of it speaks of that. */
function apart(text: string, number: number): string {
  const known = new Set([...text.matchAll(NAMES)].map(([, name]) => name!));
  for (const [tag] of text.matchAll(NAMED)) known.add(/ text:name="([^"]*)"/.exec(tag)?.[1] ?? "");
  const renamed = (name: string) => (known.has(name) ? `${name}_${number}` : name);
  const inAttribute = (all: string, name: string) => all.replace(`"${name}"`, () => `"${renamed(name)}"`);
  return text
    .replace(NAMED, (tag) => tag.replace(/ text:name="([^"]*)"/, inAttribute))
    .replace(NAMES, inAttribute)
    .replace(/ xlink:href="#([^"|]*)/g, (_, name: string) => ` xlink:href="#${renamed(name)}`);
}

/** Whether headings are numbered by the outline of the document (ODF 1.3 part 3, 16.34). */
function countsHeadings(styles: string): boolean {
  return /<text:outline-level-style\b[^>]*\btext:level="1"[^>]*\bstyle:num-format="[^"]|<text:outline-level-style\b[^>]*\bstyle:num-format="[^"]+"[^>]*\btext:level="1"/.test(
    styles,
  );
}

/** A text whose headings count from 1 again. */
function countedAnew(text: string): string {
  return text.replace(
    /<text:h\b(?=[^>]*\btext:outline-level="1")(?![^>]*\btext:(?:restart-numbering|start-value)=)/,
    (tag) => `${tag} text:restart-numbering="true" text:start-value="1"`,
  );
}

/** What the first of a text stands in, which breaks no page. */
const AROUND =
  /^(?:list|list-item|list-header|section|index-body|index-title|table-of-content|(?:illustration|table|object|user|alphabetical)-index|bibliography|numbered-paragraph)$/;

/** Styles by which what is first in a text begins on a new page (20.196, 20.338). */
class Breaks {
  readonly #made = new Map<string, { readonly name: string; readonly style: string }>();
  readonly #automatic: ReadonlyMap<string, string>;

  constructor(
    readonly text: string,
    readonly styles: string,
    readonly areCounted: boolean,
  ) {
    this.#automatic = new Map(
      [
        ...text.matchAll(/<style:style\b[^>]*?\bstyle:name="([^"]*)"[^>]*?(?:\/>|>[\s\S]*?<\/style:style>)/g),
      ].map(([style, name]) => [name!, style]),
    );
  }

  /** A text whose first paragraph, or table, begins on a new page. */
  before(text: string): string {
    const first = this.#firstIn(text);
    if (!first) return `<text:p text:style-name="${this.#styleFor("Standard", "paragraph")}"/>${text}`;
    const isTable = first.name === "table";
    const attribute = isTable ? "table:style-name" : "text:style-name";
    const before = plainText(attributeAt(text, first, attribute) ?? "");
    const style = this.#styleFor(before, isTable ? "table" : "paragraph");
    const tag = text.slice(first.start, first.inner);
    const changed =
      before === ""
        ? tag.replace(/^<[\w:-]+/, (name) => `${name} ${attribute}="${style}"`)
        : tag.replace(new RegExp(` ${attribute}="[^"]*"`), ` ${attribute}="${style}"`);
    return text.slice(0, first.start) + changed + text.slice(first.inner);
  }

  #firstIn(text: string): XmlPlace | undefined {
    const places = xmlPlaces(text).sort((one, other) => one.start - other.start);
    return places.find(
      ({ name }) => !AROUND.test(name) && name !== "soft-page-break" && name !== "index-title-template",
    );
  }

  /** The name of a style that is like this one, and begins on a new page. */
  #styleFor(like: string, family: "paragraph" | "table"): string {
    // One that says on which kind of page it stands begins a new one.
    if (!this.areCounted && this.#ownPageOf(like) !== undefined) return like;
    const key = `${family} ${like}`;
    const known = this.#made.get(key);
    if (known) return known.name;
    const name = `page-break-${this.#made.size + 1}`;
    this.#made.set(key, { name, style: this.#styleOf(name, like, family) });
    return name;
  }

  #styleOf(name: string, like: string, family: "paragraph" | "table"): string {
    const automatic = this.#automatic.get(like);
    const parent = like === "" ? "" : ` style:parent-style-name="${like}"`;
    const base = automatic ?? `<style:style style:name="" style:family="${family}"${parent}/>`;
    const [, tag, rest = ""] = /^(<style:style\b[^>]*?)(?:\/>|>([\s\S]*)<\/style:style>)$/.exec(base)!;
    const page = this.areCounted ? (this.#ownPageOf(like) ?? this.#usualPage) : undefined;
    const own = tag!
      .replace(/ style:name="[^"]*"/, ` style:name="${name}"`)
      .replace(/ style:master-page-name="[^"]*"/, "");
    const breaks = page === undefined ? ' fo:break-before="page"' : ' style:page-number="1"';
    const master = page === undefined ? "" : ` style:master-page-name="${page}"`;
    const properties = `<style:${family}-properties`;
    const [, attributes = "", inside = "/>"] =
      new RegExp(`^\\s*${properties}\\b([^>]*?)(/>|>[\\s\\S]*?</style:${family}-properties>)`).exec(rest) ??
      [];
    const others = rest.replace(
      new RegExp(`^\\s*${properties}\\b[^>]*?(?:/>|>[\\s\\S]*?</style:${family}-properties>)`),
      "",
    );
    const kept = attributes.replace(/ (?:fo:break-before|style:page-number)="[^"]*"/g, "");
    return `${own}${master}>${properties}${kept}${breaks}${inside}${others}</style:style>`;
  }

  /** The kind of page that a style, or the one that it is like, begins. */
  #ownPageOf(like: string): string | undefined {
    const automatic = this.#automatic.get(like);
    const parent = automatic && / style:parent-style-name="([^"]*)"/.exec(automatic)?.[1];
    const named = new RegExp(`<style:style\\b[^>]*\\bstyle:name="${parent ?? like}"[^>]*>`).exec(
      this.styles,
    )?.[0];
    return [automatic, named]
      .map((style) => / style:master-page-name="([^"]+)"/.exec(style ?? "")?.[1])
      .find(Boolean);
  }

  /** The kind of page on which a document begins that says none. */
  get #usualPage(): string {
    const all = [...this.styles.matchAll(/<style:master-page\b[^>]*\bstyle:name="([^"]*)"/g)].map(
      ([, name]) => name!,
    );
    return all.includes("Standard") ? "Standard" : (all[0] ?? "Standard");
  }

  /** A text with these styles. */
  withStyles(text: string): string {
    const styles = [...this.#made.values()].map(({ style }) => style).join("");
    const edit = addAutomaticStyles(text, styles);
    return styles === "" ? text : text.slice(0, edit.from) + edit.text + text.slice(edit.to);
  }
}
