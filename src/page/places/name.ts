import { page } from "../../messages/spoken-page.js";

/** What users know a place by: its label, or what it is (Accessible Name and Description Computation, in short). */
export function nameOf(element: Element): string {
  const root = element.getRootNode() as Document | ShadowRoot;
  const byId = (element.getAttribute("aria-labelledby") ?? "")
    .split(/\s+/)
    .map((id) => (id === "" ? "" : (root.getElementById(id)?.textContent ?? "")))
    .join(" ");
  const labels = [...((element as Partial<HTMLInputElement>).labels ?? [])].map(wordsOf);
  const attributes = ["placeholder", "title", "name"].map((name) => element.getAttribute(name) ?? "");
  const said = [byId, element.getAttribute("aria-label") ?? "", labels.join(" "), ...attributes];
  const name = said.map((text) => text.replace(/\s+/g, " ").trim()).find((text) => text !== "");
  return name === undefined ? page.aPlace(element.localName) : `“${name.slice(0, 60)}”`;
}

/** What a label says, without what stands in the field that it holds. */
function wordsOf(label: Element): string {
  const isField = (node: Node) => (node as Element).matches?.("select, textarea, output, button");
  return [...label.childNodes]
    .map((node) => {
      if (isField(node)) return "";
      return node.nodeType === Node.ELEMENT_NODE ? wordsOf(node as Element) : (node.textContent ?? "");
    })
    .join("");
}
