import parseStyle from "css-tree/parser";
import generateStyle from "css-tree/generator";
import { defaultTreeAdapter, parse, type DefaultTreeAdapterTypes as Tree } from "parse5";
import type { CssNode } from "css-tree";
import { DrawerError } from "../error.js";
import { LIMITS } from "../limits.js";
import type { Declaration, HtmlDoor, StyleRule } from "./door.js";

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
  rules(styleSheet) {
    const rules: StyleRule[] = [];
    const sheet = parseStyle(styleSheet, { parseValue: false, parseRulePrelude: false });
    if (sheet.type !== "StyleSheet") return rules;
    sheet.children.forEach((node) => {
      if (node.type === "Rule") {
        rules.push({ selector: generateStyle(node.prelude), declarations: declarationsOf(node.block) });
      }
    });
    return rules;
  },
  declarations: (style) =>
    declarationsOf(parseStyle(style, { context: "declarationList", parseValue: false })),
};

function declarationsOf(list: CssNode): Declaration[] {
  const declarations: Declaration[] = [];
  if (list.type !== "Block" && list.type !== "DeclarationList") return declarations;
  list.children.forEach((node) => {
    if (node.type !== "Declaration") return;
    declarations.push({
      property: node.property.toLowerCase(),
      value: generateStyle(node.value).trim(),
      important: node.important !== false,
    });
  });
  return declarations;
}
