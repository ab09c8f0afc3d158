import type { ComputedStyle } from "./computed-style.js";
import { parseColor, parseFont, parseSize } from "./css-values.js";
import type { StyleScope } from "./style-scope.js";
import { attributeOf, textLength, type HtmlTreeAdapter } from "./tree-adapter.js";

/**
 * The look a page gives to all its text, so that it is not taken for formatting: what its `body` says, and, where a
 * browser wrote a page's inherited defaults on every outermost element of a fragment, what most of that text has.
 */
export function defaultsOf<Node>(scope: StyleScope<Node>, root: Node, plain: ComputedStyle): ComputedStyle {
  const { adapter } = scope;
  const html = find(adapter, root, "html");
  const body = html === undefined ? undefined : find(adapter, html, "body");
  if (html === undefined || body === undefined) return plain;
  const outer = scope.enter(html, "html", plain, undefined);
  const { style } = scope.enter(body, "body", outer.style, outer.place);
  const votes = {
    color: new Map<string, number>(),
    font: new Map<string, number>(),
    size: new Map<number, number>(),
  };
  for (const [written, weight] of stylesIn(adapter, body)) {
    const said = { color: "", "font-family": "", "font-size": "" };
    let isByBrowser = false;
    for (const { property, value } of scope.styleOf(written)) {
      if (property in said) said[property as keyof typeof said] = value;
      else isByBrowser ||= WRITTEN_BY_BROWSER.has(property);
    }
    if (!isByBrowser) continue;
    vote(votes.color, parseColor(said.color), weight);
    vote(votes.font, parseFont(said["font-family"]), weight);
    vote(votes.size, parseSize(said["font-size"], style.size), weight);
  }
  const color = winner(votes.color) ?? style.color;
  const font = winner(votes.font) ?? style.font;
  const size = winner(votes.size) ?? style.size;
  return pageStyle(style, color, font, size);
}

const pageStyles = new WeakMap<ComputedStyle, Map<string, ComputedStyle>>();

/** How the text of a page looks. The same look in the same body always gives the same object, by which its places are known again. */
function pageStyle(
  body: ComputedStyle,
  color: string | undefined,
  font: string | undefined,
  size: number,
): ComputedStyle {
  let known = pageStyles.get(body);
  if (!known) pageStyles.set(body, (known = new Map()));
  const key = `${color}\n${font}\n${size}`;
  let style = known.get(key);
  if (!style) {
    style = { ...body, color, font, size, baseColor: color, baseFont: font, baseSize: size, hidden: false };
    known.set(key, style);
  }
  return style;
}

/** The `style` attributes of the children of a body, and how much text each is about. */
function stylesIn<Node>(adapter: HtmlTreeAdapter<Node>, body: Node): Map<string, number> {
  const styles = new Map<string, number>();
  const children = adapter.children(body);
  for (let i = 0; i < children.length; i++) {
    const style = attributeOf(adapter, children[i]!, "style");
    if (style) styles.set(style, (styles.get(style) ?? 0) + textLength(adapter, children[i]!));
  }
  return styles;
}

/** Properties that no person writes on an element, and browsers write on each. */
const WRITTEN_BY_BROWSER = new Set(["-webkit-text-stroke-width", "caret-color", "orphans"]);

function find<Node>(adapter: HtmlTreeAdapter<Node>, parent: Node, name: string): Node | undefined {
  const children = adapter.children(parent);
  for (let i = 0; i < children.length; i++) if (adapter.name(children[i]!) === name) return children[i];
  return undefined;
}

function vote<Value>(votes: Map<Value, number>, value: Value | undefined, weight: number): void {
  if (value !== undefined) votes.set(value, (votes.get(value) ?? 0) + weight);
}

function winner<Value>(votes: ReadonlyMap<Value, number>): Value | undefined {
  return [...votes].sort(([, a], [, b]) => b - a)[0]?.[0];
}
