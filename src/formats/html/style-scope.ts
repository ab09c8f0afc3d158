import { safeLink } from "../../content/address.js";
import { RecentCache } from "../../content/recent-cache.js";
import { computeStyle, isPresentationalAttribute, type ComputedStyle } from "./computed-style.js";
import { KnownPlaces, PlaceTree, type StyleContext, type StyledContext } from "./known-places.js";
import { StyleSheet, type Selectable } from "./style-sheet.js";
import { attributeOf, textOf, type Declaration, type HtmlTreeAdapter } from "./tree-adapter.js";

/** Elements that end the line before them and after them. */
export const BLOCKS = new Set(
  (
    "address article aside blockquote body center dd details dialog dir div dl dt fieldset figcaption figure footer " +
    "form h1 h2 h3 h4 h5 h6 header hgroup hr html legend li main menu nav ol p pre search section summary table tbody " +
    "td tfoot th thead tr ul caption colgroup col optgroup option"
  ).split(" "),
);

/** The attributes that have a say in how text looks, beside those that a style sheet asks for. */
const LOOK_ATTRIBUTES = new Set("style dir align hidden color face size text href".split(" "));

/** What each adapter has parsed lately. */
interface Parsed {
  readonly places: RecentCache<string, KnownPlaces>;
  readonly styles: RecentCache<string, readonly Declaration[]>;
}
const parsedBy = new WeakMap<object, Parsed>();

function parsedByAdapter(adapter: object): Parsed {
  let parsed = parsedBy.get(adapter);
  if (!parsed)
    parsedBy.set(adapter, (parsed = { places: new RecentCache(16), styles: new RecentCache(2000) }));
  return parsed;
}

/** How the elements of one tree look: the style sheets that it brings, and what each element hands down to those inside it. */
export class StyleScope<Node> {
  readonly #parsed: Parsed;
  #places: KnownPlaces;

  constructor(readonly adapter: HtmlTreeAdapter<Node>) {
    this.#parsed = parsedByAdapter(adapter);
    this.#places = this.#parsed.places.get("", () => new KnownPlaces(new StyleSheet([])));
  }

  /** Reads the style sheets in the head, and those that stand outermost in the body. */
  readSheets(root: Node): void {
    const css = this.#styleText(root, 0);
    this.#places = this.#parsed.places.get(
      css,
      () => new KnownPlaces(new StyleSheet(this.adapter.rules(css.replace(COMMENT_MARKS, "")))),
    );
  }

  #styleText(node: Node, depth: number): string {
    const children = this.adapter.children(node);
    let css = "";
    for (let i = 0; i < children.length; i++) {
      const child = children[i]!;
      const name = this.adapter.name(child);
      if (name === "style") css += `${textOf(this.adapter, child)}\n`;
      else if (depth < 2 && (name === "html" || name === "head" || name === "body"))
        css += this.#styleText(child, depth + 1);
    }
    return css;
  }

  /** What an element hands down to what stands in it. */
  enter(node: Node, name: string, around: ComputedStyle, parent: StyleContext | undefined): StyledContext {
    const inside = parent ? (parent.inside ??= new PlaceTree()) : this.#places.outermost(around);
    const { sheet } = this.#places;
    const named = inside.to(name);
    let known = named;
    let length = 0;
    const attributes = this.adapter.attributes(node);
    for (let i = 0; i < attributes.length; i++) {
      const attribute = attributes[i]!;
      if (!LOOK_ATTRIBUTES.has(attribute.name) && !sheet.selectsBy(attribute.name)) continue;
      known = known.to(attribute.name);
      if (attribute.name === "href") continue;
      known = known.to(attribute.value);
      length += attribute.value.length;
    }
    if (known.entered?.around !== around) {
      this.#places.count(length);
      known.entered = this.#enterNew(node, name, known !== named, around, parent);
    }
    const href = name === "a" ? attributeOf(this.adapter, node, "href") : undefined;
    return href === undefined ? known.entered : linked(known.entered, href);
  }

  #enterNew(
    node: Node,
    name: string,
    hasAttributes: boolean,
    around: ComputedStyle,
    parent: StyleContext | undefined,
  ): StyledContext {
    const attribute = (wanted: string) =>
      hasAttributes ? attributeOf(this.adapter, node, wanted) : undefined;
    const classes = attribute("class");
    const place: { -readonly [K in keyof StyleContext]: StyleContext[K] } = {
      name,
      classes: classes ? classes.trim().split(/\s+/).slice(0, 32) : NO_CLASSES,
      id: attribute("id"),
      parent,
      heading: HEADINGS[name] ?? parent?.heading,
      declarations: NO_DECLARATIONS,
      inside: undefined,
    };
    place.declarations = this.#declarationsOf(attribute("style"), place);
    return { around, style: this.#lookIn(place, around, attribute, hasAttributes), place };
  }

  #lookIn(
    { name, declarations }: StyleContext,
    around: ComputedStyle,
    attribute: (name: string) => string | undefined,
    hasAttributes: boolean,
  ): ComputedStyle {
    const isInline = !BLOCKS.has(name);
    const { sheet } = this.#places;
    const ordinary = sheet.isEmpty || isInline ? NO_DECLARATIONS : sheet.ordinary(name);
    const isPlain =
      !hasAttributes &&
      declarations.length === 0 &&
      ordinary.length === 0 &&
      !isPresentationalAttribute(name);
    if (isPlain && (isInline || around.background === undefined)) return around;
    return computeStyle(around, { name, declarations, isInline, ordinary, attribute });
  }

  #declarationsOf(style: string | undefined, element: Selectable): readonly Declaration[] {
    const fromSheet = this.#places.sheet.isEmpty ? NO_DECLARATIONS : this.#places.sheet.declarations(element);
    if (!style) return fromSheet;
    const own = this.styleOf(style);
    if (fromSheet.length === 0) return own;
    const important = fromSheet.filter((declaration) => declaration.important);
    return [...fromSheet, ...own, ...important];
  }

  /** The declarations of a `style` attribute. */
  styleOf(style: string): readonly Declaration[] {
    return this.#parsed.styles.get(style, () => this.adapter.declarations(style));
  }
}

/** The place inside a link. Where it goes is nobody's look, and is not remembered. */
function linked({ around, style, place }: StyledContext, href: string): StyledContext {
  return { around, style: { ...style, link: safeLink(href) }, place: { ...place, inside: undefined } };
}

/** What hides a style sheet from programs that know none. CSS leaves it out as well, between rules (Syntax Level 3, 5.4.1). */
const COMMENT_MARKS = /<!--|-->/g;

const HEADINGS: Readonly<Record<string, number>> = { h1: 1, h2: 2, h3: 3, h4: 4, h5: 5, h6: 6 };
const NO_DECLARATIONS: readonly Declaration[] = [];
const NO_CLASSES: readonly string[] = [];
