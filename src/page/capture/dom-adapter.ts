import type { Declaration, HtmlTreeAdapter, StyleRule } from "../../formats/html/tree-adapter.js";
import { trustedHtml } from "../places/trusted-html.js";

/**
 * The browser's own parser as the HTML reader's door. It works in documents that are inert: nothing in them runs, and
 * nothing is fetched.
 */
export const domAdapter: HtmlTreeAdapter<Node> = {
  /** A browser drops the properties that office programs add of their own; where there are any, css-tree is loaded. */
  async prepare(html) {
    if (/\bmso-/i.test(html)) officeCss ??= await import("../../formats/html/css.js");
  },
  parse: (html) => new DOMParser().parseFromString(trustedHtml(html), "text/html"),
  children: (node) => node.childNodes,
  name: (node) => (node.nodeType === Node.ELEMENT_NODE ? (node as Element).localName : undefined),
  text: (node) => (node.nodeType === Node.TEXT_NODE ? (node as Text).data : undefined),
  attributes: (node) => (node.nodeType === Node.ELEMENT_NODE ? (node as Element).attributes : []),
  rules(styleSheet) {
    if (officeCss && /\bmso-/i.test(styleSheet)) return officeCss.parseRules(styleSheet);
    const sheet = new CSSStyleSheet();
    sheet.replaceSync(styleSheet);
    const rules: StyleRule[] = [];
    for (const rule of sheet.cssRules) {
      if (rule instanceof CSSStyleRule) {
        rules.push({ selector: rule.selectorText, declarations: declarationsOf(rule.style) });
      }
    }
    return rules;
  },
  declarations(style) {
    if (officeCss && /\bmso-/i.test(style)) return officeCss.parseDeclarations(style);
    probe ??= document.implementation.createHTMLDocument("").createElement("span");
    probe.style.cssText = style;
    return declarationsOf(probe.style);
  },
};

let probe: HTMLElement | undefined;
let officeCss: typeof import("../../formats/html/css.js") | undefined;

function declarationsOf(style: CSSStyleDeclaration): Declaration[] {
  return Array.from(style, (property) => ({
    property,
    value: style.getPropertyValue(property),
    important: style.getPropertyPriority(property) === "important",
  }));
}
