import type { NamedPlace } from "../../messages/core/names.js";

/** How long a name may be, in characters. */
const LONGEST = 60;

/** A place as messages know it: by its label, or by what it is. */
export function describePlace(element: Element, label = labelOf(element)): NamedPlace {
  return { element: element.localName, ...(label !== undefined && { label }) };
}

/** What users know an element by: its label (Accessible Name and Description Computation, in short); nothing without one. */
export function labelOf(element: Element): string | undefined {
  const root = element.getRootNode() as Document | ShadowRoot;
  const byId = (element.getAttribute("aria-labelledby") ?? "")
    .split(/\s+/)
    .map((id) => (id === "" ? "" : (root.getElementById(id)?.textContent ?? "")))
    .join(" ");
  const labels = [...((element as Partial<HTMLInputElement>).labels ?? [])].map(wordsOf);
  const attributes = ["placeholder", "title", "name"].map((name) => element.getAttribute(name) ?? "");
  const names = [byId, element.getAttribute("aria-label") ?? "", labels.join(" "), ...attributes];
  return names
    .map((text) => text.replace(/\s+/g, " ").trim())
    .find((text) => text !== "")
    ?.slice(0, LONGEST);
}

/** The words of a label, without what stands in the field that it holds. */
function wordsOf(label: Element): string {
  const isField = (node: Node) => (node as Element).matches?.("select, textarea, output, button");
  return [...label.childNodes]
    .map((node) => {
      if (isField(node)) return "";
      return node.nodeType === Node.ELEMENT_NODE ? wordsOf(node as Element) : (node.textContent ?? "");
    })
    .join("");
}
