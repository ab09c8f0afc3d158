import { defaultTreeAdapter, parse, type DefaultTreeAdapterTypes as Tree } from "parse5";
import { DrawerError } from "../error.js";
import { LIMITS } from "../limits.js";
import { parseDeclarations, parseRules } from "./css.js";
import type { HtmlDoor } from "./door.js";

const { isElementNode, isTextNode } = defaultTreeAdapter;
const NONE: readonly Tree.Node[] = [];

/** The door of Node and of any other place without a parser of its own: parse5 and css-tree. */
export const parse5Door: HtmlDoor<Tree.Node> = {
  parse(html) {
    let depth = 0;
    const treeAdapter = {
      ...defaultTreeAdapter,
      onItemPush() {
        if (++depth > LIMITS.depth) {
          throw new DrawerError(
            "too-large",
            `This HTML has elements nested more than ${LIMITS.depth} deep, which no real page has. Collect it as text instead.`,
          );
        }
      },
      onItemPop() {
        depth--;
      },
    };
    return parse(html, { treeAdapter, scriptingEnabled: false });
  },
  children: (node) => ("childNodes" in node ? node.childNodes : NONE),
  name: (node) => (isElementNode(node) ? node.tagName : undefined),
  text: (node) => (isTextNode(node) ? node.value : undefined),
  attribute(element, name) {
    if (!isElementNode(element)) return undefined;
    for (const attribute of element.attrs) if (attribute.name === name) return attribute.value;
    return undefined;
  },
  rules: parseRules,
  declarations: parseDeclarations,
};
