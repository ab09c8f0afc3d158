import { hashBytes } from "../encode.js";
import { checkLength } from "../limits.js";
import { safeLink, type Content, type Item, type List, type Picture, type Run } from "../model.js";
import type { Notice, Reading } from "../notice.js";
import { readPictureBytes } from "../picture.js";
import type { Declaration, HtmlDoor } from "./door.js";
import { FlowBuilder } from "./line.js";
import { lookInside, PLAIN, type Look, type Styled } from "./look.js";
import { defaultsOf } from "./defaults.js";
import { StyleSheet, type Selectable } from "./sheet.js";
import { readTable } from "./table.js";
import { markerFacts, officeListOf } from "./office-list.js";
import { dropWrapping } from "./wrapping.js";

/** How HTML is to be read. */
export interface HtmlReadOptions<Node = unknown> {
  /** The parser to use; without it parse5, loaded on first use. */
  readonly door?: HtmlDoor<Node>;
}

/**
 * Reads HTML, a whole page or a clipboard's fragment, in one walk over the parser's tree. Scripts, handlers, forms and
 * style rules have no place in content and are left behind; a picture whose bytes are not in the HTML itself becomes
 * its alternative text, with a notice.
 *
 * @throws DrawerError `too-large` past {@link LIMITS}
 */
export async function readHtml<Node>(html: string, options: HtmlReadOptions<Node> = {}): Promise<Reading> {
  checkLength(html, "HTML");
  const bare = dropWrapping(html);
  if (options.door) {
    await options.door.prepare?.(bare);
    return new HtmlReader(options.door).read(bare);
  }
  const { parse5Door } = await import("./parse5.js");
  return new HtmlReader(parse5Door).read(bare);
}

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
    "noscript object param script select style svg math template textarea title video track source comment o:p"
  ).split(" "),
);

/** An element on its way through the walk. */
interface Place extends Selectable {
  readonly heading: number | undefined;
  /** What style sheets say of the elements in it, by name, class and id: siblings of one sort are looked up once. */
  readonly known: Map<string, readonly Declaration[]>;
}

/** @internal One reading of one payload. */
export class HtmlReader<Node> {
  readonly notices: Notice[] = [];
  readonly #pictures = new Map<string, Uint8Array>();
  readonly #declarations = new Map<string, readonly Declaration[]>();
  #sheet = new StyleSheet([]);
  #officeLists = false;

  constructor(readonly door: HtmlDoor<Node>) {}

  read(html: string): Reading {
    const root = this.door.parse(html);
    this.#officeLists = /\bmso-list\b/i.test(html);
    if (/<style/i.test(html)) this.#sheet = new StyleSheet(this.#styleRules(root));
    const look = defaultsOf(this, root, PLAIN);
    const builder = new FlowBuilder();
    this.children(root, look, undefined, builder);
    return { content: builder.done(), pictures: this.#pictures, notices: this.notices };
  }

  #styleRules(node: Node): ReturnType<HtmlDoor<Node>["rules"]> {
    const children = this.door.children(node);
    if (this.door.name(node) === "style") {
      let css = "";
      for (let i = 0; i < children.length; i++) css += this.door.text(children[i]!) ?? "";
      return this.door.rules(css.replace(/^\s*<!--|-->\s*$/g, ""));
    }
    const rules = [];
    for (let i = 0; i < children.length; i++) rules.push(...this.#styleRules(children[i]!));
    return rules;
  }

  /** Reads all children of a node into a builder. */
  children(node: Node, look: Look, place: Place | undefined, builder: FlowBuilder): void {
    const children = this.door.children(node);
    for (let i = 0; i < children.length; i++) this.#node(children[i]!, look, place, builder);
  }

  #node(node: Node, look: Look, place: Place | undefined, builder: FlowBuilder): void {
    const text = this.door.text(node);
    if (text !== undefined) {
      builder.text(text, look, place?.heading);
      return;
    }
    const name = this.door.name(node);
    if (name === undefined || SKIPPED.has(name)) return;
    if (name === "br") {
      if (this.door.attribute(node, "class") !== "Apple-interchange-newline")
        builder.lineBreak(look, place?.heading);
      return;
    }
    const inner = this.enter(node, name, look, place);
    if (inner.look.hidden) return;
    const office = this.#officeLists ? officeListOf(this.declarations(node, inner.place)) : undefined;
    if (office === "marker") return;
    if (office) {
      const marker = this.#markerOf(node);
      builder.listLine({
        ...office,
        ...markerFacts(marker),
        flows: this.flowsOf(node, inner.look, inner.place),
      });
      return;
    }
    this.#element(node, name, inner.look, inner.place, builder);
  }

  /** The text of the bullet or number that an office program wrote into a list paragraph. */
  #markerOf(node: Node): string {
    const children = this.door.children(node);
    for (let i = 0; i < children.length; i++) {
      const child = children[i]!;
      const style = this.door.attribute(child, "style");
      if (style && officeListOf(this.door.declarations(style)) === "marker") return this.textOf(child);
      const inside = this.#markerOf(child);
      if (inside !== "") return inside;
    }
    return "";
  }

  /** All text in a node. */
  textOf(node: Node): string {
    const text = this.door.text(node);
    if (text !== undefined) return text;
    const children = this.door.children(node);
    let all = "";
    for (let i = 0; i < children.length; i++) all += this.textOf(children[i]!);
    return all;
  }

  #element(node: Node, name: string, look: Look, place: Place, builder: FlowBuilder): void {
    switch (name) {
      case "img":
        this.#image(node, look, place, builder);
        return;
      case "input":
        if (this.door.attribute(node, "type")?.toLowerCase() === "checkbox") {
          builder.text(this.door.attribute(node, "checked") === undefined ? "☐ " : "☑ ", look, place.heading);
        }
        return;
      case "hr":
        builder.flow({ type: "divider" });
        return;
      case "ul":
      case "ol":
      case "menu":
      case "dir":
        builder.flow(this.#list(node, name === "ol", look, place));
        return;
      case "table":
        builder.endLine();
        for (const flow of readTable(this, node, look, place)) builder.flow(flow);
        return;
      case "blockquote":
        builder.flow({ type: "quote", flows: this.flowsOf(node, look, place) });
        return;
      case "pre":
        this.#pre(node, look, place, builder);
        return;
      case "q":
        builder.text("“", look, place.heading);
        this.children(node, look, place, builder);
        builder.text("”", look, place.heading);
        return;
    }
    if (!BLOCKS.has(name)) {
      this.children(node, look, place, builder);
      return;
    }
    builder.endLine();
    this.children(node, look, place, builder);
    builder.endLine();
  }

  /** The flows of a container that is read by itself. */
  flowsOf(node: Node, look: Look, place: Place): Content {
    const builder = new FlowBuilder();
    this.children(node, look, place, builder);
    return builder.done();
  }

  /** What an element hands down to what stands in it. */
  enter(node: Node, name: string, look: Look, parent: Place | undefined): { look: Look; place: Place } {
    const classes = this.door.attribute(node, "class");
    const place: Place = {
      name,
      classes: classes ? classes.trim().split(/\s+/).slice(0, 32) : NO_CLASSES,
      id: this.door.attribute(node, "id"),
      parent,
      heading: /^h[1-6]$/.test(name) ? Number(name[1]) : parent?.heading,
      known: new Map(),
    };
    const declarations = this.declarations(node, place);
    const styled: Styled = {
      name,
      attribute: (attribute) => this.door.attribute(node, attribute),
      declarations,
      ordinary: this.#sheet.isEmpty || !BLOCKS.has(name) ? NO_DECLARATIONS : this.#sheet.ordinary(name),
      isInline: !BLOCKS.has(name),
    };
    return { look: lookInside(look, styled), place };
  }

  /** All declarations that hold for an element, the weakest first. */
  declarations(node: Node, place: Place): readonly Declaration[] {
    const fromSheet = this.#sheet.isEmpty ? NO_DECLARATIONS : this.#fromSheet(place);
    const style = this.door.attribute(node, "style");
    if (!style) return fromSheet;
    let own = this.#declarations.get(style);
    if (!own) this.#declarations.set(style, (own = this.door.declarations(style)));
    if (fromSheet.length === 0) return own;
    const important = fromSheet.filter((declaration) => declaration.important);
    return [...fromSheet, ...own, ...important];
  }

  #fromSheet(place: Place): readonly Declaration[] {
    const known = (place.parent as Place | undefined)?.known;
    const key = `${place.name} ${place.classes.join(" ")} ${place.id ?? ""}`;
    let found = known?.get(key);
    if (!found) {
      found = this.#sheet.declarations(place);
      known?.set(key, found);
    }
    return found;
  }

  #list(node: Node, ordered: boolean, look: Look, place: Place): List {
    const items: Item[] = [];
    let loose: FlowBuilder | undefined;
    const endLoose = () => {
      const flows = loose?.done() ?? [];
      loose = undefined;
      if (flows.length === 0) return;
      const nested = flows.every((flow) => flow.type === "list");
      const before = nested ? items.pop() : undefined;
      items.push({ flows: [...(before?.flows ?? []), ...flows] });
    };
    const children = this.door.children(node);
    for (let i = 0; i < children.length; i++) {
      const child = children[i]!;
      if (this.door.name(child) !== "li") {
        this.#node(child, look, place, (loose ??= new FlowBuilder()));
        continue;
      }
      endLoose();
      const inner = this.enter(child, "li", look, place);
      if (!inner.look.hidden) items.push({ flows: this.flowsOf(child, inner.look, inner.place) });
    }
    endLoose();
    const start = Number.parseInt(this.door.attribute(node, "start") ?? "1", 10);
    return { type: "list", ordered, ...(ordered && start > 1 && start < 1e9 && { start }), items };
  }

  /** Preformatted text without any marks is code; with marks it is text whose spaces and lines are kept. */
  #pre(node: Node, look: Look, place: Place, builder: FlowBuilder): void {
    const flows = this.flowsOf(node, look, place);
    const runs: Run[] = [];
    for (const flow of flows) {
      if (flow.type !== "paragraph") return flows.forEach((inner) => builder.flow(inner));
      if (runs.length > 0) runs.push({ type: "break" });
      runs.push(...flow.runs);
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
    const inner = Array.from(this.door.children(node)).find((child) => this.door.name(child) === "code");
    const classes = inner === undefined ? undefined : this.door.attribute(inner, "class");
    return /(?:^|\s)language-([\w+#.-]{1,40})/.exec(classes ?? "")?.[1];
  }

  #image(node: Node, look: Look, place: Place, builder: FlowBuilder): void {
    const source = this.door.attribute(node, "src")?.trim() ?? "";
    const alt = this.door.attribute(node, "alt")?.replace(/\s+/g, " ").trim() ?? "";
    const picture = /^data:/i.test(source) ? this.#dataPicture(source, alt) : undefined;
    if (picture) {
      builder.picture(picture, look, place.heading);
      return;
    }
    const name = alt || pictureName(source);
    const link = look.link ?? safeLink(source);
    this.notices.push({
      code: "left-out",
      message: `The picture “${name}” is not in what was copied, only its address. Its name stands in its place.`,
    });
    builder.text(name, link ? { ...look, link } : look, place.heading);
  }

  #dataPicture(source: string, alt: string): Picture | undefined {
    const match = /^data:image\/[\w.+-]+(?:;[\w=-]+)*;base64,/i.exec(source.slice(0, 200));
    if (!match) return undefined;
    let bytes: Uint8Array;
    try {
      bytes = Uint8Array.from(atob(source.slice(match[0].length).replace(/\s+/g, "")), (sign) =>
        sign.charCodeAt(0),
      );
    } catch {
      return undefined; // not base64: the picture is named as one that could not be read
    }
    const facts = readPictureBytes(bytes);
    if (!facts) return undefined;
    const hash = hashBytes(bytes);
    this.#pictures.set(hash, bytes);
    return { type: "picture", hash, ...facts, alt };
  }
}

const NO_DECLARATIONS: readonly Declaration[] = [];
const NO_CLASSES: readonly string[] = [];

function hasLook(marks: object | undefined): boolean {
  return marks !== undefined && Object.keys(marks).some((name) => name !== "code");
}

function pictureName(source: string): string {
  const file = /([^/\\?#]{1,80})(?:[?#]|$)/.exec(source.slice(-400))?.[1];
  return file && !/^data:/i.test(source) ? file : "picture";
}
