import { defined } from "../../content/defined.js";
import { fromBase64 } from "../../content/base64.js";
import { hashBytes } from "../../content/encode.js";
import { unmarked } from "../delimited/formula.js";
import { checkLength } from "../../content/limits.js";
import { safeLink } from "../../content/address.js";
import type { Content, Item, List, Picture, Run } from "../../content/model.js";
import { notice, type Notice, type Reading } from "../../content/notice.js";
import { readPictureBytes } from "../../content/picture.js";
import { attributeOf, type Declaration, type HtmlTreeAdapter } from "./tree-adapter.js";
import { FlowBuilder } from "./flow-builder.js";
import {
  computeStyle,
  PLAIN_STYLE,
  isPresentationalAttribute,
  type ComputedStyle,
} from "./computed-style.js";
import { defaultsOf } from "./page-defaults.js";
import { RecentCache } from "./recent-cache.js";
import { StyleSheet, type Selectable } from "./style-sheet.js";
import { readTable } from "./table.js";
import { Asides } from "../asides.js";
import type { ReadDocument } from "../format.js";
import { mathText, type MathTree } from "../mathml.js";
import { listMarker } from "./list-marker.js";
import { HtmlNotes, mayHaveNotes } from "./notes.js";
import { markerFacts, officeListOf } from "./office-list.js";
import { stripClipboardWrapper } from "./clipboard-wrapper.js";
import { contentNotices } from "../../messages/en/notices/content.js";

/** How HTML is to be read. */
export interface HtmlReadOptions<Node = unknown> {
  /** The parser to use; without it parse5, loaded on first use. */
  readonly adapter?: HtmlTreeAdapter<Node>;
}

/**
 * Reads HTML, a whole page or a clipboard's fragment, in one walk over the parser's tree. Scripts, handlers, forms and
 * style rules have no place in content and are left behind; a picture whose bytes are not in the HTML itself becomes
 * its alternative text, with a notice.
 *
 * @throws DrawerError `too-large` past {@link LIMITS}
 *
 * @example
 * ```js
 * import { readHtml, writeMarkdown } from "drawer";
 *
 * const { content, notices } = await readHtml("<p>A <b>wren</b><script>alert(1)</script></p>");
 * console.log(writeMarkdown(content), notices.length); // A **wren** 0
 * ```
 */
export async function readHtml<Node>(html: string, options: HtmlReadOptions<Node> = {}): Promise<Reading> {
  const { content, pictures, notices } = await readHtmlDocument(html, options);
  return { content, pictures, notices };
}

/** @internal Reads HTML as {@link readHtml} does, and says which flows its notices are about. */
export async function readHtmlDocument<Node>(
  html: string,
  options: HtmlReadOptions<Node> = {},
): Promise<ReadDocument> {
  checkLength(html, "HTML");
  const bare = unmarked(stripClipboardWrapper(html));
  if (options.adapter) {
    await options.adapter.prepare?.(bare);
    return new HtmlReader(options.adapter).read(bare);
  }
  parse5 ??= await import("./parse5.js");
  return new HtmlReader(parse5.parse5Adapter).read(bare);
}

let parse5: typeof import("./parse5.js") | undefined;

/** Elements that end the line before them and after them. */
const BLOCKS = new Set(
  (
    "address article aside blockquote body center dd details dialog dir div dl dt fieldset figcaption figure footer " +
    "form h1 h2 h3 h4 h5 h6 header hgroup hr html legend li main menu nav ol p pre search section summary table tbody " +
    "td tfoot th thead tr ul caption colgroup col optgroup option"
  ).split(" "),
);

/** Elements of which nothing is read. */
const SKIPPED = new Set(
  (
    "applet audio base basefont bgsound canvas datalist embed frame frameset head iframe link meta noembed noframes " +
    "noscript object param script select style svg template textarea title video track source comment o:p"
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
interface StyledContext {
  readonly around: ComputedStyle;
  readonly style: ComputedStyle;
  readonly place: StyleContext;
}

/** What has to be told of a page: a picture that is only an address, an equation that became text. */
type HtmlAside = { readonly type: "picture"; readonly name: string } | { readonly type: "equation" };

function noticesOf(asides: readonly HtmlAside[]): Notice[] {
  const equations = asides.filter(({ type }) => type === "equation").length;
  return [
    ...asides.flatMap((aside) =>
      aside.type === "picture" ? [notice(contentNotices, "left-out/picture", { name: aside.name })] : [],
    ),
    ...(equations > 0 ? [notice(contentNotices, "as-text/equations", { count: equations })] : []),
  ];
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

/** @internal One reading of one payload. */
export class HtmlReader<Node> {
  readonly asides = new Asides<HtmlAside>();
  readonly #pictures = new Map<string, Uint8Array>();
  readonly #parsed: Parsed;
  readonly #outermost = new Map<string, StyledContext>();
  #sheet = NO_RULES;
  #officeLists = false;
  #notes: HtmlNotes<Node> | undefined;
  readonly #noteFlows = new Map<Node, Content>();
  #isInNote = false;
  /** How text outside everything looks. */
  #root = PLAIN_STYLE;
  /** Whether the last thing read is an equation: what is drawn beside it for the eye alone says it again. */
  #isAfterMath = false;

  constructor(readonly adapter: HtmlTreeAdapter<Node>) {
    this.#parsed = parsedByAdapter(adapter);
  }

  read(html: string): ReadDocument {
    const root = this.adapter.parse(html);
    this.#officeLists = /\bmso-list\b/i.test(html);
    if (/<style/i.test(html)) {
      const css = this.#styleText(root, 0);
      this.#sheet = this.#parsed.sheets.get(css, () => new StyleSheet(this.adapter.rules(css)));
    }
    this.#root = defaultsOf(this, root, PLAIN_STYLE);
    if (mayHaveNotes(html)) this.#notes = new HtmlNotes(this.adapter, root);
    const builder = new FlowBuilder(this.asides);
    this.children(root, this.#root, undefined, builder);
    return {
      content: builder.done(),
      pictures: this.#pictures,
      notices: noticesOf(this.asides.all),
      noticesOf: (flows) => noticesOf(this.asides.of(flows)),
    };
  }

  /** The text of the style sheets in the head, and of those that stand outermost in the body. */
  #styleText(node: Node, depth: number): string {
    const children = this.adapter.children(node);
    let css = "";
    for (let i = 0; i < children.length; i++) {
      const child = children[i]!;
      const name = this.adapter.name(child);
      if (name === "style") css += this.textOf(child).replace(/^\s*<!--|-->\s*$/g, "") + "\n";
      else if (name !== undefined && depth < 2 && /^(html|head|body)$/.test(name))
        css += this.#styleText(child, depth + 1);
    }
    return css;
  }

  /** Reads all children of a node into a builder. */
  children(node: Node, style: ComputedStyle, place: StyleContext | undefined, builder: FlowBuilder): void {
    const children = this.adapter.children(node);
    for (let i = 0; i < children.length; i++) this.#node(children[i]!, style, place, builder);
  }

  #node(node: Node, style: ComputedStyle, place: StyleContext | undefined, builder: FlowBuilder): void {
    const text = this.adapter.text(node);
    if (text !== undefined) {
      builder.text(text, style, place?.heading);
      this.#isAfterMath &&= text.trim() === "";
      return;
    }
    const name = this.adapter.name(node);
    if (name === undefined || SKIPPED.has(name)) return;
    if (name === "br") {
      if (this.attribute(node, "class") !== "Apple-interchange-newline")
        builder.lineBreak(style, place?.heading);
      return;
    }
    if (this.#isAfterMath && this.attribute(node, "aria-hidden") === "true") return;
    const note = this.#notes?.bodyOf(node);
    if (note !== undefined) return this.#note(note, style, place, builder);
    if (this.#notes?.isAside(node)) return;
    const inner = this.enter(node, name, style, place);
    if (inner.style.hidden) return;
    const office = this.#officeLists ? officeListOf(inner.place.declarations) : undefined;
    if (office === "marker") return;
    if (office) {
      const marker = this.#markerOf(node);
      builder.listLine({
        ...office,
        ...markerFacts(marker, office.level),
        flows: this.flowsOf(node, inner.style, inner.place),
      });
      return;
    }
    this.#element(node, name, inner.style, inner.place, builder);
  }

  /** A note comes along with the line that calls it. */
  #note(body: Node, style: ComputedStyle, place: StyleContext | undefined, builder: FlowBuilder): void {
    if (this.#isInNote) return;
    let flows = this.#noteFlows.get(body);
    if (!flows) {
      this.#isInNote = true;
      const inner = this.enter(body, this.adapter.name(body)!, this.#root, undefined);
      flows = this.asides.within(() => this.flowsOf(body, inner.style, inner.place));
      this.#isInNote = false;
      this.#noteFlows.set(body, flows);
    }
    builder.note(flows, style, place?.heading);
  }

  /** The text of the bullet or number that an office program wrote into a list paragraph. */
  #markerOf(node: Node): string {
    const children = this.adapter.children(node);
    for (let i = 0; i < children.length; i++) {
      const child = children[i]!;
      const style = this.attribute(child, "style");
      if (style && officeListOf(this.styleOf(style)) === "marker") return this.textOf(child);
      const inside = this.#markerOf(child);
      if (inside !== "") return inside;
    }
    return "";
  }

  /** All text in a node. */
  textOf(node: Node): string {
    const text = this.adapter.text(node);
    if (text !== undefined) return text;
    const children = this.adapter.children(node);
    let all = "";
    for (let i = 0; i < children.length; i++) all += this.textOf(children[i]!);
    return all;
  }

  #element(node: Node, name: string, style: ComputedStyle, place: StyleContext, builder: FlowBuilder): void {
    switch (name) {
      case "img":
        this.#image(node, style, place, builder);
        return;
      case "input":
        if (this.attribute(node, "type")?.toLowerCase() === "checkbox") {
          builder.text(this.attribute(node, "checked") === undefined ? "☐ " : "☑ ", style, place.heading);
        }
        return;
      case "hr":
        builder.flow({ type: "divider" });
        return;
      case "ul":
      case "ol":
      case "menu":
      case "dir":
        for (const list of this.#lists(node, name === "ol", style, place)) builder.flow(list);
        return;
      case "table":
        builder.endLine();
        for (const flow of this.asides.within(() => readTable(this, node, style, place))) builder.flow(flow);
        return;
      case "math":
        this.asides.add({ type: "equation" });
        builder.text(mathText(this.#mathTree, node).trim(), style, place.heading);
        this.#isAfterMath = true;
        return;
      case "blockquote":
        builder.flow({ type: "quote", flows: this.flowsOf(node, style, place) });
        return;
      case "pre":
        this.#pre(node, style, place, builder);
        return;
      case "q":
        builder.text("“", style, place.heading);
        this.children(node, style, place, builder);
        builder.text("”", style, place.heading);
        return;
    }
    if (!BLOCKS.has(name)) {
      this.children(node, style, place, builder);
      return;
    }
    builder.endLine();
    this.children(node, style, place, builder);
    builder.endLine();
  }

  /** The flows of a container that is read by itself. */
  flowsOf(node: Node, style: ComputedStyle, place: StyleContext): Content {
    const builder = new FlowBuilder(this.asides);
    this.children(node, style, place, builder);
    return builder.done();
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
    const classes = hasAttributes ? this.attribute(node, "class") : undefined;
    const place: { -readonly [K in keyof StyleContext]: StyleContext[K] } = {
      name,
      classes: classes ? classes.trim().split(/\s+/).slice(0, 32) : NO_CLASSES,
      id: hasAttributes ? this.attribute(node, "id") : undefined,
      parent,
      heading: HEADINGS[name] ?? parent?.heading,
      declarations: NO_DECLARATIONS,
      inside: undefined,
    };
    place.declarations = this.#declarationsOf(
      hasAttributes ? this.attribute(node, "style") : undefined,
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
    const attribute = (wanted: string) => (hasAttributes ? this.attribute(node, wanted) : undefined);
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

  /** An attribute's value; nothing when the element does not have it, and for what is no element. */
  attribute(node: Node, name: string): string | undefined {
    return attributeOf(this.adapter, node, name);
  }

  readonly #mathTree: MathTree<Node> = {
    name: (node) => this.adapter.name(node),
    children: (node) =>
      Array.from(this.adapter.children(node)).filter((child) => this.adapter.name(child) !== undefined),
    text: (node) => this.textOf(node),
  };

  /** A list; several where the numbers of its items jump. */
  #lists(node: Node, ordered: boolean, style: ComputedStyle, place: StyleContext): List[] {
    const first = Number.parseInt(this.attribute(node, "start") ?? "1", 10);
    const lists: { start: number; items: Item[] }[] = [
      { start: first > 1 && first < 1e9 ? first : 1, items: [] },
    ];
    let marker = listMarker(ordered, this.attribute(node, "type"), place.declarations, place);
    let loose: FlowBuilder | undefined;
    const endLoose = () => {
      const flows = loose?.done() ?? [];
      loose = undefined;
      if (flows.length === 0) return;
      const { items } = lists.at(-1)!;
      const nested = flows.every((flow) => flow.type === "list");
      const before = nested ? items.pop() : undefined;
      items.push({ flows: [...(before?.flows ?? []), ...flows] });
    };
    const children = this.adapter.children(node);
    for (let i = 0; i < children.length; i++) {
      const child = children[i]!;
      if (this.adapter.name(child) !== "li") {
        this.#node(child, style, place, (loose ??= new FlowBuilder(this.asides)));
        continue;
      }
      endLoose();
      const inner = this.enter(child, "li", style, place);
      if (inner.style.hidden || this.#notes?.isAside(child)) continue;
      marker ??= listMarker(ordered, undefined, inner.place.declarations, place);
      const flows = this.flowsOf(child, inner.style, inner.place);
      const number = ordered ? Number.parseInt(this.attribute(child, "value") ?? "", 10) : NaN;
      const { start, items } = lists.at(-1)!;
      if (number > 0 && number < 1e9 && number !== start + items.length)
        lists.push({ start: number, items: [{ flows }] });
      else items.push({ flows });
    }
    endLoose();
    if (lists.length > 1 && lists[0]!.items.length === 0) lists.shift();
    return lists.map(({ start, items }) => ({
      type: "list",
      ordered,
      ...(ordered && start !== 1 && { start }),
      ...defined({ marker }),
      items,
    }));
  }

  /** Preformatted text without any marks is code; with marks it is text whose spaces and lines are kept. */
  #pre(node: Node, style: ComputedStyle, place: StyleContext, builder: FlowBuilder): void {
    const flows = this.flowsOf(node, style, place);
    const runs: Run[] = [];
    for (const flow of flows) {
      if (flow.type !== "paragraph") return flows.forEach((inner) => builder.flow(inner));
      if (runs.length > 0) runs.push({ type: "break" });
      // One by one: there may be more of them than a call may have arguments.
      for (const run of flow.runs) runs.push(run);
    }
    if (runs.some((run) => run.type === "picture" || (run.type === "text" && hasLook(run.marks)))) {
      for (const flow of flows) builder.flow(flow);
      return;
    }
    const text = runs.map((run) => (run.type === "text" ? run.text : "\n")).join("");
    const language = this.#language(node);
    builder.flow({ type: "code", text, ...(language && { language }) });
  }

  #language(node: Node): string | undefined {
    const inner = Array.from(this.adapter.children(node)).find(
      (child) => this.adapter.name(child) === "code",
    );
    const classes = inner === undefined ? undefined : this.attribute(inner, "class");
    return /(?:^|\s)language-([\w+#.-]{1,40})/.exec(classes ?? "")?.[1];
  }

  #image(node: Node, style: ComputedStyle, place: StyleContext, builder: FlowBuilder): void {
    const source = this.attribute(node, "src")?.trim() ?? "";
    const alt = this.attribute(node, "alt")?.replace(/\s+/g, " ").trim() ?? "";
    const picture = /^data:/i.test(source) ? this.#dataPicture(source, alt) : undefined;
    if (picture) {
      builder.picture({ ...picture, ...defined({ link: style.link }) }, style, place.heading);
      return;
    }
    const name = alt || pictureName(source);
    const link = style.link ?? safeLink(source);
    this.asides.add({ type: "picture", name });
    builder.text(name, link ? { ...style, link } : style, place.heading);
  }

  #dataPicture(source: string, alt: string): Picture | undefined {
    const match = /^data:image\/[\w.+-]+(?:;[\w=-]+)*;base64,/i.exec(source.slice(0, 200));
    if (!match) return undefined;
    // What is not base64 is named as a picture that could not be read.
    const bytes = fromBase64(source.slice(match[0].length));
    if (!bytes) return undefined;
    const facts = readPictureBytes(bytes);
    if (!facts) return undefined;
    const hash = hashBytes(bytes);
    this.#pictures.set(hash, bytes);
    return { type: "picture", hash, ...facts, alt };
  }
}

const HEADINGS: Readonly<Record<string, number>> = { h1: 1, h2: 2, h3: 3, h4: 4, h5: 5, h6: 6 };
const NO_DECLARATIONS: readonly Declaration[] = [];
const NO_RULES = new StyleSheet([]);
const NO_CLASSES: readonly string[] = [];

function hasLook(marks: object | undefined): boolean {
  return marks !== undefined && Object.keys(marks).some((name) => name !== "code");
}

function pictureName(source: string): string {
  const file = /([^/\\?#]{1,80})(?:[?#]|$)/.exec(source.slice(-400))?.[1];
  return file && !/^data:/i.test(source) ? file : "picture";
}
