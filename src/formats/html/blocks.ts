import { defaultTreeAdapter as tree, parse, type DefaultTreeAdapterTypes as Tree } from "parse5";

/** A part of a page that holds no others: a line, a table or a picture, and where it stands in the text of the page. */
export interface HtmlBlock {
  readonly kind: "p" | "t" | "i";
  readonly from: number;
  readonly to: number;
  /** Where something beside it goes, where its element has neighbours of its own kind only, such as a term and what it means. */
  readonly inner?: { readonly from: number; readonly to: number };
  /** The item of a list that it is the first line of: where it begins and ends. */
  readonly item?: {
    readonly from: number;
    readonly to: number;
    readonly list: { readonly from: number; readonly to: number };
  };
}

const HIDDEN =
  /^(head|script|style|template|noscript|title|meta|link|iframe|object|form|input|select|textarea|button|svg|math)$/;
const LINES = /^(p|h[1-6]|pre|dt|dd|figcaption|address|summary|caption|legend)$/;
/** Elements beside which only others of their kind may stand. */
const OWN_KIND = /^(dt|dd|figcaption|summary|caption|legend)$/;
const CONTAINERS =
  /^(html|body|main|div|section|article|aside|header|footer|nav|blockquote|figure|ul|ol|menu|li|dl|details|center|fieldset)$/;

/** Where something stands in the text of a page. An element whose end is not written ends where the next begins. */
export function rangeOf(html: string, { sourceCodeLocation }: Tree.ChildNode): { from: number; to: number } {
  const { startOffset: from, endOffset } = sourceCodeLocation ?? { startOffset: 0, endOffset: 0 };
  return { from, to: from + html.slice(from, endOffset).trimEnd().length };
}

/** The line end and the spaces that stand right before a place, where it begins a line. */
export function lineBefore(html: string, at: number): string {
  return /(?:\r\n|\r|\n)[ \t]*$/.exec(html.slice(Math.max(0, at - 1000), at))?.[0] ?? "";
}

/** The parts of a page that hold no others, in their order. */
export function htmlBlocks(html: string): HtmlBlock[] {
  const blocks: HtmlBlock[] = [];
  const range = (node: Tree.ChildNode) => rangeOf(html, node);
  const textOf = (node: Tree.Node): string => {
    if (tree.isTextNode(node)) return node.value;
    if (tree.isElementNode(node) && HIDDEN.test(node.tagName)) return "";
    return "childNodes" in node ? node.childNodes.map(textOf).join("") : "";
  };
  const hasPicture = (node: Tree.Node): boolean =>
    (tree.isElementNode(node) && node.tagName === "img") ||
    ("childNodes" in node && node.childNodes.some(hasPicture));
  const isShown = (nodes: readonly Tree.Node[]) =>
    nodes.some((node) => textOf(node).trim() !== "" || hasPicture(node));

  const walk = (parent: Tree.ParentNode): void => {
    let inline: Tree.ChildNode[] = [];
    const end = () => {
      if (isShown(inline)) {
        const shown = inline.filter((node) => isShown([node]));
        const place = { from: range(shown[0]!).from, to: range(shown.at(-1)!).to };
        // White space around it is none of it.
        const text = html.slice(place.from, place.to);
        const from = place.from + (text.length - text.trimStart().length);
        const isOnlyPicture = inline.every((node) => textOf(node).trim() === "");
        const item = itemOf(parent, from);
        blocks.push({ kind: isOnlyPicture ? "i" : "p", from, to: place.to, ...(item && { item }) });
      }
      inline = [];
    };
    for (const child of parent.childNodes) {
      if (!tree.isElementNode(child)) {
        if (tree.isTextNode(child)) inline.push(child);
        continue;
      }
      const { tagName } = child;
      if (tagName === "table") {
        end();
        blocks.push({ kind: "t", ...range(child) });
      } else if (LINES.test(tagName)) {
        end();
        const item = itemOf(parent, range(child).from);
        const { startTag, endTag } = child.sourceCodeLocation ?? {};
        const inner = OWN_KIND.test(tagName) &&
          startTag && { from: startTag.endOffset, to: endTag?.startOffset ?? range(child).to };
        const kind = textOf(child).trim() === "" ? "i" : "p";
        if (isShown([child]))
          blocks.push({ kind, ...range(child), ...(item && { item }), ...(inner && { inner }) });
      } else if (CONTAINERS.test(tagName)) {
        end();
        walk(child);
      } else if (!HIDDEN.test(tagName) && tagName !== "hr") inline.push(child);
      else if (tagName === "hr") end();
    }
    end();
  };
  const itemOf = (node: Tree.ParentNode, from: number): HtmlBlock["item"] => {
    if (!tree.isElementNode(node) || node.tagName !== "li") return undefined;
    const list = node.parentNode;
    const isFirst = !blocks.some((block) => block.from >= range(node).from && block.from < from);
    if (!isFirst || !list || !tree.isElementNode(list)) return undefined;
    return { ...range(node), list: range(list) };
  };
  walk(parse(html, { sourceCodeLocationInfo: true }));
  return blocks;
}
