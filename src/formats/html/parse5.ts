import {
  defaultTreeAdapter,
  parse,
  type DefaultTreeAdapterMap,
  type DefaultTreeAdapterTypes as Tree,
  type TreeAdapter,
} from "parse5";
import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { contentErrors } from "../../messages/en/content.js";
import { parseDeclarations, parseRules } from "./css.js";
import type { HtmlTreeAdapter } from "./tree-adapter.js";

const { isTextNode } = defaultTreeAdapter;
const NONE: readonly Tree.Node[] = [];
const NO_ATTRIBUTES: readonly { name: string; value: string }[] = [];

/** How many elements stand open in the parsing that is going on (parsing never pauses, so one count does for all). */
let depth = 0;

const boundedAdapter: TreeAdapter<DefaultTreeAdapterMap> = {
  ...defaultTreeAdapter,
  onItemPush() {
    if (++depth <= LIMITS.depth) return;
    throw new DrawerError(contentErrors, "too-large/nesting", { what: "elements", depth: LIMITS.depth });
  },
  onItemPop() {
    depth--;
  },
};

/** The adapter of Node and of any other place without a parser of its own: parse5 and css-tree. */
export const parse5Adapter: HtmlTreeAdapter<Tree.Node> = {
  parse(html) {
    depth = 0;
    return parse(html, { treeAdapter: boundedAdapter, scriptingEnabled: false });
  },
  // What kind of node it is is told by what it has: asked of parse5, each question would cost more than its answer.
  children: (node) => (node as Tree.Element).childNodes ?? NONE,
  name: (node) => (node as Tree.Element).tagName,
  text: (node) => (isTextNode(node) ? node.value : undefined),
  attributes: (node) => (node as Tree.Element).attrs ?? NO_ATTRIBUTES,
  rules: parseRules,
  declarations: parseDeclarations,
};
