import type { Content } from "../../content/model.js";
import type { Asides } from "../asides.js";
import type { ComputedStyle } from "./computed-style.js";
import type { FlowBuilder } from "./flow-builder.js";
import type { StyleContext, StyledContext } from "./known-places.js";
import type { HtmlTreeAdapter } from "./tree-adapter.js";

/** What has to be told of a page: a picture that is only an address, an equation that became text. */
export type HtmlAside = { readonly type: "picture"; readonly name: string } | { readonly type: "equation" };

/** The reading of one tree, as far as those who read one kind of element need it. */
export interface ElementReader<Node> {
  readonly adapter: HtmlTreeAdapter<Node>;
  readonly asides: Asides<HtmlAside>;
  /** What an element hands down to what stands in it. */
  enter(node: Node, name: string, around: ComputedStyle, parent: StyleContext | undefined): StyledContext;
  /** Reads a node into a builder. */
  node(node: Node, style: ComputedStyle, place: StyleContext | undefined, builder: FlowBuilder): void;
  /** The flows of a container that is read by itself. */
  flowsOf(node: Node, style: ComputedStyle, place: StyleContext): Content;
  /** An attribute's value; nothing when the element does not have it, and for what is no element. */
  attribute(node: Node, name: string): string | undefined;
  /** Whether an element is the body of a note, which comes along with the line that calls it. */
  isNoteBody(node: Node): boolean;
}
