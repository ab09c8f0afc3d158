import type { Content, Run } from "./model.js";
import { isBlank } from "./traverse.js";

/** What sort of thing a snippet is, in one word. */
export type Kind = (typeof KINDS)[number];

/** The kinds there are. */
export const KINDS = ["text", "table", "picture", "link"] as const;

/**
 * Tells what sort of thing some content is: a lone picture, a lone link, and a table or nothing but tables, as of a whole workbook, is
 * named for what it is; anything else is text.
 * @param content what a snippet holds
 */
export function kindOf(content: Content): Kind {
  const flows = content.filter((flow) => !isBlank([flow]));
  if (flows.length > 0 && flows.every((flow) => flow.type === "table")) return "table";
  const only = flows.length === 1 ? flows[0] : undefined;
  if (!only) return "text";
  if (only.type === "picture") return only.type;
  if (only.type !== "paragraph") return "text";
  if (only.runs.length > 0 && only.runs.every((run) => run.type === "picture")) return "picture";
  return linkOf(only.runs) === undefined ? "text" : "link";
}

/** The one address that all of these runs link to, if they are one link and nothing else. */
function linkOf(runs: readonly Run[]): string | undefined {
  let link: string | undefined;
  for (const run of runs) {
    if (run.type === "text" && run.text.trim() === "") continue;
    if (run.type !== "text" || !run.marks?.link || (link !== undefined && link !== run.marks.link))
      return undefined;
    link = run.marks.link;
  }
  return link;
}
