import type { Content, Run } from "drawer";

/** Content on one line: paragraphs parted by ¶, tables in brackets, heads and what is bold between stars, links in angles. */
export function contentInShort(content: Content): string {
  return content
    .flatMap((flow): string | string[] => {
      if (flow.type === "list") return flow.items.map(({ flows }) => `• ${contentInShort(flows)}`);
      if (flow.type === "table")
        return `[${flow.rows
          .map((row, at) => {
            const star = at < flow.headerRows ? "**" : "";
            return row.map(({ flows }) => `${star}${contentInShort(flows)}${star}`).join(" | ");
          })
          .join(" / ")}]`;
      if (flow.type === "picture") return "(picture)";
      return "runs" in flow ? runsInShort(flow.runs) : flow.type;
    })
    .join(" ¶ ");
}

function runsInShort(runs: readonly Run[]): string {
  return runs
    .map((run) => {
      if (run.type === "picture") return "(picture)";
      if (run.type !== "text") return run.type === "break" ? "↵" : "";
      const { bold, link } = run.marks ?? {};
      const text = bold ? `**${run.text}**` : run.text;
      return link ? `<${text}>` : text;
    })
    .join("");
}

/** The same of an element of a page. It runs in the page. */
export function pageInShort(selector: string): string {
  const paragraphs: string[] = [];
  const inline = (node: Node): string => {
    if (node.nodeType === 3) return node.textContent!.replace(/\s+/g, " ");
    const element = node as HTMLElement;
    if (element.localName === "img") return "(picture)";
    const text = [...element.childNodes].map(inline).join("");
    if (text === "") return "";
    if (["b", "strong", "th"].includes(element.localName)) return `**${text}**`;
    return element.localName === "a" ? `<${text}>` : text;
  };
  const block = (element: Element): void => {
    let line = "";
    const end = () => {
      if (line.trim() !== "") paragraphs.push(line.trim());
      line = "";
    };
    for (const child of element.childNodes) {
      const name = (child as Element).localName;
      if (name === "table") {
        end();
        const rows = [...(child as HTMLTableElement).rows].map((row) =>
          [...row.cells].map((cell) => inline(cell).trim()).join(" | "),
        );
        paragraphs.push(`[${rows.join(" / ")}]`);
      } else if (name === "li") {
        end();
        paragraphs.push(`• ${inline(child).trim()}`);
      } else if (/^(p|div|ul|ol|h\d|blockquote|figure|tbody)$/.test(name ?? "")) {
        end();
        block(child as Element);
      } else line += inline(child);
    }
    end();
  };
  block(document.querySelector(selector)!);
  return paragraphs.join(" ¶ ");
}
