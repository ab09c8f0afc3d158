import { attributeOf, childrenOf, descendantsOf, type Element } from "../office/xml.js";

/** The words of drawn things that are no pictures (ECMA-376 part 1, 21.2 and 21.4), and what lies in drawings. */

/** The words of a chart: its titles, and the names of its series and categories, each once, in the order of the file. */
export function chartWords(chart: Element): string[] {
  const words = new Set<string>();
  const visit = (element: Element): void => {
    if (element.localName === "title") words.add(textOf(element, "t"));
    else if (element.localName === "tx" || element.localName === "cat")
      for (const point of descendantsOf(element, "v")) words.add(point.textContent);
    else for (const child of childrenOf(element)) visit(child);
  };
  visit(chart);
  words.delete("");
  return [...words];
}

/** The words of a diagram, those of each of its shapes as a line. */
export function diagramWords(data: Element): string[] {
  return descendantsOf(data, "pt")
    .flatMap((point) => descendantsOf(point, "p"))
    .map((line) => textOf(line, "t"))
    .filter((words) => words !== "");
}

function textOf(element: Element, name: string): string {
  return descendantsOf(element, name)
    .map((text) => text.textContent)
    .join("")
    .trim();
}

/** Whether a drawing is a line across the page, as word processors and converters put it in. */
export function isRule(drawing: Element): boolean {
  return descendantsOf(drawing, "rect").some((rect) => /^(t|true|1)$/.test(attributeOf(rect, "hr") ?? ""));
}

/** The descendants of a name that stand in no other of that name. */
export function outermost(element: Element, name: string): Element[] {
  return [...childrenOf(element)].flatMap((child) =>
    child.localName === name ? [child] : outermost(child, name),
  );
}

/** The descendants of a name that do not stand inside an element of another name. */
export function descendantsOutside(element: Element, name: string, other: string): Element[] {
  return [...childrenOf(element)]
    .filter(({ localName }) => localName !== other)
    .flatMap((child) => [
      ...(child.localName === name ? [child] : []),
      ...descendantsOutside(child, name, other),
    ]);
}
