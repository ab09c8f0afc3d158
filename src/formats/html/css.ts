import type { CssNode } from "css-tree";
import generate from "css-tree/generator";
import parse from "css-tree/parser";
import type { Declaration, StyleRule } from "./tree-adapter.js";

/** Reads a style sheet with css-tree. Rules inside conditions are left out. */
export function parseRules(styleSheet: string): StyleRule[] {
  const rules: StyleRule[] = [];
  const sheet = parse(styleSheet, { parseValue: false, parseRulePrelude: false });
  if (sheet.type !== "StyleSheet") return rules;
  sheet.children.forEach((node) => {
    if (node.type === "Rule")
      rules.push({ selector: generate(node.prelude), declarations: declarationsOf(node.block) });
  });
  return rules;
}

/** Reads the declarations of a `style` attribute with css-tree. */
export function parseDeclarations(style: string): Declaration[] {
  return declarationsOf(parse(style, { context: "declarationList", parseValue: false }));
}

function declarationsOf(list: CssNode): Declaration[] {
  const declarations: Declaration[] = [];
  if (list.type !== "Block" && list.type !== "DeclarationList") return declarations;
  list.children.forEach((node) => {
    if (node.type !== "Declaration") return;
    declarations.push({
      property: node.property.toLowerCase(),
      value: generate(node.value).trim(),
      important: node.important !== false,
    });
  });
  return declarations;
}
