import { computeStyle, isPresentationalAttribute, type ComputedStyle } from "./computed-style.js";
import { RecentCache } from "./recent-cache.js";
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

/**
 * An element on its way through the walk. Elements with the same name and the same attributes of look, in the same
 * place, are one place: a thousand rows cost what one row costs.
 */
export interface StyleContext extends Selectable {
  readonly heading: number | undefined;
  /** All declarations that hold for it, the weakest first. */
  readonly declarations: readonly Declaration[];
  /** The places inside it, by their name and attributes. */
  inside: Map<string, StyledContext> | undefined;
}

/** A place, and how text looks in it, given how it looked around it. */
export interface StyledContext {
  readonly around: ComputedStyle;
  readonly style: ComputedStyle;
  readonly place: StyleContext;
}

/** The attributes that have a say in how text looks. */
const LOOK_ATTRIBUTES = new Set("class id style dir align hidden color face size text href".split(" "));

/** What each adapter has parsed lately. */
interface Parsed {
  readonly sheets: RecentCache<StyleSheet>;
  readonly styles: RecentCache<readonly Declaration[]>;
}
const parsedBy = new WeakMap<object, Parsed>();

function parsedByAdapter(adapter: object): Parsed {
  let parsed = parsedBy.get(adapter);
  if (!parsed)
    parsedBy.set(adapter, (parsed = { sheets: new RecentCache(16), styles: new RecentCache(2000) }));
  return parsed;
}

/** How the elements of one tree look: the style sheets that it brings, and what each element hands down to those inside it. */
export class StyleScope<Node> {
  readonly #parsed: Parsed;
  readonly #outermost = new Map<string, StyledContext>();
  #sheet = NO_RULES;

  constructor(readonly adapter: HtmlTreeAdapter<Node>) {
    this.#parsed = parsedByAdapter(adapter);
  }

  /** Reads the style sheets in the head, and those that stand outermost in the body. */
  readSheets(root: Node): void {
    const css = this.#styleText(root, 0);
    this.#sheet = this.#parsed.sheets.get(css, () => new StyleSheet(this.adapter.rules(css)));
  }

  #styleText(node: Node, depth: number): string {
    const children = this.adapter.children(node);
    let css = "";
    for (let i = 0; i < children.length; i++) {
      const child = children[i]!;
      const name = this.adapter.name(child);
      if (name === "style") css += textOf(this.adapter, child).replace(/^\s*<!--|-->\s*$/g, "") + "\n";
      else if (name !== undefined && depth < 2 && /^(html|head|body)$/.test(name))
        css += this.#styleText(child, depth + 1);
    }
    return css;
  }

  /** What an element hands down to what stands in it. */
  enter(node: Node, name: string, around: ComputedStyle, parent: StyleContext | undefined): StyledContext {
    const known = parent ? (parent.inside ??= new Map()) : this.#outermost;
    const key = this.#keyOf(node, name);
    let entered = known.get(key);
    if (entered?.around !== around)
      known.set(key, (entered = this.#enterNew(node, name, key !== name, around, parent)));
    return entered;
  }

  #keyOf(node: Node, name: string): string {
    const attributes = this.adapter.attributes(node);
    let key = name;
    for (let i = 0; i < attributes.length; i++) {
      const attribute = attributes[i]!;
      if (LOOK_ATTRIBUTES.has(attribute.name)) key += `\n${attribute.name}=${attribute.value}`;
    }
    return key;
  }

  #enterNew(
    node: Node,
    name: string,
    hasAttributes: boolean,
    around: ComputedStyle,
    parent: StyleContext | undefined,
  ): StyledContext {
    const classes = hasAttributes ? attributeOf(this.adapter, node, "class") : undefined;
    const place: { -readonly [K in keyof StyleContext]: StyleContext[K] } = {
      name,
      classes: classes ? classes.trim().split(/\s+/).slice(0, 32) : NO_CLASSES,
      id: hasAttributes ? attributeOf(this.adapter, node, "id") : undefined,
      parent,
      heading: HEADINGS[name] ?? parent?.heading,
      declarations: NO_DECLARATIONS,
      inside: undefined,
    };
    place.declarations = this.#declarationsOf(
      hasAttributes ? attributeOf(this.adapter, node, "style") : undefined,
      place,
    );
    const isInline = !BLOCKS.has(name);
    const ordinary = this.#sheet.isEmpty || isInline ? NO_DECLARATIONS : this.#sheet.ordinary(name);
    const isPlain =
      !hasAttributes &&
      place.declarations.length === 0 &&
      ordinary.length === 0 &&
      !isPresentationalAttribute(name);
    if (isPlain && (isInline || around.background === undefined)) return { around, style: around, place };
    const { declarations } = place;
    const attribute = (wanted: string) =>
      hasAttributes ? attributeOf(this.adapter, node, wanted) : undefined;
    return {
      around,
      style: computeStyle(around, { name, declarations, isInline, ordinary, attribute }),
      place,
    };
  }

  #declarationsOf(style: string | undefined, element: Selectable): readonly Declaration[] {
    const fromSheet = this.#sheet.isEmpty ? NO_DECLARATIONS : this.#sheet.declarations(element);
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

const HEADINGS: Readonly<Record<string, number>> = { h1: 1, h2: 2, h3: 3, h4: 4, h5: 5, h6: 6 };
const NO_DECLARATIONS: readonly Declaration[] = [];
const NO_RULES = new StyleSheet([]);
const NO_CLASSES: readonly string[] = [];
