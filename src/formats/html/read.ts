import { checkLength } from "../../content/limits.js";
import { loadedOnce } from "../../content/loaded-once.js";
import type { Content, Run } from "../../content/model.js";
import { notice, type Notice, type Reading } from "../../content/notice.js";
import { contentNotices } from "../../messages/en/content.js";
import { Asides } from "../asides.js";
import { unmarked } from "../delimited/formula.js";
import type { ReadDocument } from "../format.js";
import { mathText, type MathTree } from "../mathml.js";
import { stripClipboardWrapper } from "./clipboard-wrapper.js";
import { PLAIN_STYLE, type ComputedStyle } from "./computed-style.js";
import type { HtmlAside, ElementReader } from "./element-reader.js";
import { FlowBuilder } from "./flow-builder.js";
import { readImage } from "./image.js";
import type { StyleContext, StyledContext } from "./known-places.js";
import { readLists } from "./list.js";
import { HtmlNotes, mayHaveNotes } from "./notes.js";
import { markerFacts, officeListOf } from "./office-list.js";
import { defaultsOf } from "./page-defaults.js";
import { BLOCKS, StyleScope } from "./style-scope.js";
import { readTable } from "./table.js";
import { attributeOf, textOf, type HtmlTreeAdapter } from "./tree-adapter.js";

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
 * @param html a document or a fragment
 * @param options how it is parsed, where that is not by the reader's own parser
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
  return new HtmlReader((await parse5()).parse5Adapter).read(bare);
}

const parse5 = loadedOnce(() => import("./parse5.js"));

/** Elements of which nothing is read. */
const SKIPPED = new Set(
  (
    "applet audio base basefont bgsound canvas datalist embed frame frameset head iframe link meta noembed noframes " +
    "noscript object param script select style svg template textarea title video track source comment o:p"
  ).split(" "),
);

function noticesOf(asides: readonly HtmlAside[]): Notice[] {
  if (asides.length === 0) return [];
  const equations = asides.filter(({ type }) => type === "equation").length;
  return [
    ...asides.flatMap((aside) =>
      aside.type === "picture" ? [notice(contentNotices, "left-out/picture", { name: aside.name })] : [],
    ),
    ...(equations > 0 ? [notice(contentNotices, "as-text/equations", { count: equations })] : []),
  ];
}

/** @internal One reading of one payload. */
class HtmlReader<Node> implements ElementReader<Node> {
  readonly asides = new Asides<HtmlAside>();
  readonly #pictures = new Map<string, Uint8Array>();
  readonly #styles: StyleScope<Node>;
  #officeLists = false;
  #notes: HtmlNotes<Node> | undefined;
  readonly #noteFlows = new Map<Node, Content>();
  #isInNote = false;
  /** How text outside everything looks. */
  #root = PLAIN_STYLE;
  /** Whether the last thing read is an equation: what is drawn beside it for the eye alone says it again. */
  #isAfterMath = false;

  constructor(readonly adapter: HtmlTreeAdapter<Node>) {
    this.#styles = new StyleScope(adapter);
  }

  read(html: string): ReadDocument {
    const root = this.adapter.parse(html);
    this.#officeLists = /\bmso-list\b/i.test(html);
    if (/<style/i.test(html)) this.#styles.readSheets(root);
    this.#root = defaultsOf(this.#styles, root, PLAIN_STYLE);
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

  /** Reads all children of a node into a builder. */
  children(node: Node, style: ComputedStyle, place: StyleContext | undefined, builder: FlowBuilder): void {
    const children = this.adapter.children(node);
    for (let i = 0; i < children.length; i++) this.node(children[i]!, style, place, builder);
  }

  node(node: Node, style: ComputedStyle, place: StyleContext | undefined, builder: FlowBuilder): void {
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
    if (this.isNoteBody(node)) return;
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
      if (style && officeListOf(this.#styles.styleOf(style)) === "marker") return textOf(this.adapter, child);
      const inside = this.#markerOf(child);
      if (inside !== "") return inside;
    }
    return "";
  }

  #element(node: Node, name: string, style: ComputedStyle, place: StyleContext, builder: FlowBuilder): void {
    switch (name) {
      case "img":
        readImage(this, node, style, place, builder, this.#pictures);
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
        for (const list of readLists(this, node, name === "ol", style, place)) builder.flow(list);
        return;
      case "li":
        // In no list, as Firefox copies a whole one: browsers show a bullet.
        builder.listLine({ level: 0, ordered: false, key: "", flows: this.flowsOf(node, style, place) });
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

  enter(node: Node, name: string, around: ComputedStyle, parent: StyleContext | undefined): StyledContext {
    return this.#styles.enter(node, name, around, parent);
  }

  isNoteBody(node: Node): boolean {
    return this.#notes?.isAside(node) ?? false;
  }

  /** An attribute's value; nothing when the element does not have it, and for what is no element. */
  attribute(node: Node, name: string): string | undefined {
    return attributeOf(this.adapter, node, name);
  }

  readonly #mathTree: MathTree<Node> = {
    name: (node) => this.adapter.name(node),
    children: (node) =>
      Array.from(this.adapter.children(node)).filter((child) => this.adapter.name(child) !== undefined),
    text: (node) => textOf(this.adapter, node),
  };

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
}

function hasLook(marks: object | undefined): boolean {
  return marks !== undefined && Object.keys(marks).some((name) => name !== "code");
}
