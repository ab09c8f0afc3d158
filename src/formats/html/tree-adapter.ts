/**
 * What the HTML reader needs to know of a parsed page: a narrow view of a tree of nodes. Node's tree comes from
 * parse5; a web page gives its own, so that it ships no second parser.
 */
export interface HtmlTreeAdapter<Node> {
  /** Gets ready for this HTML, where that takes time. */
  prepare?(html: string): Promise<void>;
  /** Parses HTML into a document. Nothing in it is run or fetched. Throws a DrawerError when it is nested too deep. */
  parse(html: string): Node;
  /** The children of a node, in order. */
  children(node: Node): ArrayLike<Node>;
  /** The lower-case name of an element; for anything else nothing. */
  name(node: Node): string | undefined;
  /** The text of a text node; for anything else nothing. */
  text(node: Node): string | undefined;
  /** An element's attributes; none for what is no element. */
  attributes(node: Node): ArrayLike<{ readonly name: string; readonly value: string }>;
  /** Reads a style sheet. Rules in conditions that may not hold (`@media print`) and rules it cannot read are left out. */
  rules(styleSheet: string): readonly StyleRule[];
  /** Reads the declarations of a `style` attribute. */
  declarations(style: string): readonly Declaration[];
}

/** An attribute's value; nothing when the element does not have it, and for what is no element. */
export function attributeOf<Node>(
  adapter: HtmlTreeAdapter<Node>,
  node: Node,
  name: string,
): string | undefined {
  const attributes = adapter.attributes(node);
  for (let i = 0; i < attributes.length; i++) if (attributes[i]!.name === name) return attributes[i]!.value;
  return undefined;
}

/** All text in a node. */
export function textOf<Node>(adapter: HtmlTreeAdapter<Node>, node: Node): string {
  const text = adapter.text(node);
  if (text !== undefined) return text;
  const children = adapter.children(node);
  let all = "";
  for (let i = 0; i < children.length; i++) all += textOf(adapter, children[i]!);
  return all;
}

/** How long all text in a node is. */
export function textLength<Node>(adapter: HtmlTreeAdapter<Node>, node: Node): number {
  const text = adapter.text(node);
  if (text !== undefined) return text.length;
  const children = adapter.children(node);
  let length = 0;
  for (let i = 0; i < children.length; i++) length += textLength(adapter, children[i]!);
  return length;
}

/** A rule of a style sheet: its selector list as it was written, and its declarations in order. */
export interface StyleRule {
  readonly selector: string;
  readonly declarations: readonly Declaration[];
}

/** A property and its value; both in lower case but for what is quoted or named in the value. */
export interface Declaration {
  readonly property: string;
  readonly value: string;
  readonly important: boolean;
}
