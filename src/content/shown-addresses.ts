import { textRun, type Content, type Run } from "./model.js";
import { runsText } from "./runs.js";
import { eachFlow, isLine, mapContent, someRun } from "./traverse.js";

/**
 * Content as text alone can show it: after the words of a link stands its address in brackets, where the words do not say it
 * themselves. Tables are left as they are: a cell that said more than its source would be another value.
 */
export function withAddressesShown(content: Content): Content {
  if (!someRun(content, (run) => linkOf(run) !== undefined)) return content;
  const shown = mapContent(content, { runs: lineWithAddresses });
  return shown.map((flow, at) => (flow.type === "table" ? content[at]! : flow));
}

/** How many links there are whose words do not say their addresses: in the cells of tables, or in all lines. */
export function addressesNotShown(content: Content, where: "cells" | "lines"): number {
  let count = 0;
  for (const flow of content) {
    if (where === "cells" && flow.type !== "table") continue;
    eachFlow([flow], (inner) => {
      if (isLine(inner)) count += linksOf(inner.runs).filter(({ isShown }) => !isShown).length;
    });
  }
  return count;
}

function lineWithAddresses(line: readonly Run[]): readonly Run[] {
  const links = linksOf(line).filter(({ isShown }) => !isShown);
  if (links.length === 0) return line;
  const after = new Map(links.map(({ end, address }) => [end, address]));
  return line.flatMap((run, at) => (after.has(at) ? [run, textRun(` (${after.get(at)!})`)] : [run]));
}

/** A link in a line, which may be several runs of different looks. */
interface LinkInLine {
  readonly address: string;
  /** Its last run. */
  readonly end: number;
  /** Whether its words say the address. */
  readonly isShown: boolean;
}

function linksOf(line: readonly Run[]): LinkInLine[] {
  const links: LinkInLine[] = [];
  for (let at = 0; at < line.length; at++) {
    const address = linkOf(line[at]!);
    if (address === undefined) continue;
    const start = at;
    while (at + 1 < line.length && linkOf(line[at + 1]!) === address) at++;
    const words = runsText(line.slice(start, at + 1));
    links.push({ address, end: at, isShown: words.trim() === "" || plain(words) === plain(address) });
  }
  return links;
}

/** The address that a run is a link to. */
export function linkOf(run: Run): string | undefined {
  return run.type === "text" ? run.marks?.link : undefined;
}

/** An address without what people leave out when they write it. */
function plain(address: string): string {
  return address
    .trim()
    .toLowerCase()
    .replace(/^(?:https?:\/\/|mailto:|tel:)/, "")
    .replace(/^www\./, "")
    .replace(/[\s/]+$/, "")
    .replace(/^([\d+().\s-]+)$/, (digits) => digits.replace(/[^\d+]/g, ""));
}
