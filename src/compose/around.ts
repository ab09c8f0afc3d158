import { paragraph, type Content, type Run } from "../content/model.js";

/** A piece with text before and after it: on its first and last line, where these are lines of text. */
export function around(content: Content, before: string, after: string): Content {
  let flows = [...content];
  if (before !== "") {
    const [first, ...rest] = flows;
    const runs = paragraph(before).runs;
    if (first?.type === "paragraph" || first?.type === "heading")
      flows = [{ ...first, runs: [...runs, ...first.runs] }, ...rest];
    else flows = [{ type: "paragraph", runs }, ...flows];
  }
  if (after !== "") {
    const last = flows.at(-1);
    const runs: readonly Run[] = paragraph(after).runs;
    if (last?.type === "paragraph" || last?.type === "heading")
      flows[flows.length - 1] = { ...last, runs: [...last.runs, ...runs] };
    else flows.push({ type: "paragraph", runs });
  }
  return flows;
}
