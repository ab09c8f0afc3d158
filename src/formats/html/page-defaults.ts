import type { ComputedStyle } from "./computed-style.js";
import { parseColor, parseFont, parseSize } from "./css-values.js";
import type { StyleScope } from "./style-scope.js";
import { attributeOf, textOf, type Declaration, type HtmlTreeAdapter } from "./tree-adapter.js";

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
  const children = adapter.children(body);
  for (let i = 0; i < children.length; i++) {
    const written = attributeOf(adapter, children[i]!, "style");
    if (!written || !WRITTEN_BY_BROWSER.test(written)) continue;
    const weight = textOf(adapter, children[i]!).length;
    const value = lastValues(scope.styleOf(written));
    vote(votes.color, parseColor(value.get("color") ?? ""), weight);
    vote(votes.font, parseFont(value.get("font-family") ?? ""), weight);
    vote(votes.size, parseSize(value.get("font-size") ?? "", style.size), weight);
  }
  const color = winner(votes.color) ?? style.color;
  const font = winner(votes.font) ?? style.font;
  const size = winner(votes.size) ?? style.size;
  return { ...style, color, font, size, baseColor: color, baseFont: font, baseSize: size, hidden: false };
}

/** Properties that no person writes on an element, and browsers write on each. */
const WRITTEN_BY_BROWSER = /-webkit-text-stroke-width|caret-color|orphans:/i;

function find<Node>(adapter: HtmlTreeAdapter<Node>, parent: Node, name: string): Node | undefined {
  const children = adapter.children(parent);
  for (let i = 0; i < children.length; i++) if (adapter.name(children[i]!) === name) return children[i];
  return undefined;
}

function lastValues(declarations: readonly Declaration[]): Map<string, string> {
  return new Map(declarations.map(({ property, value }) => [property, value]));
}

function vote<Value>(votes: Map<Value, number>, value: Value | undefined, weight: number): void {
  if (value !== undefined) votes.set(value, (votes.get(value) ?? 0) + weight);
}

function winner<Value>(votes: ReadonlyMap<Value, number>): Value | undefined {
  return [...votes].sort(([, a], [, b]) => b - a)[0]?.[0];
}
