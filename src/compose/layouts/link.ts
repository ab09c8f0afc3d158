import { type Address, safeLink } from "../../content/address.js";
import { type Content, type Paragraph, type Run, textRun } from "../../content/model.js";
import { notice, type Notice } from "../../content/notice.js";
import { runsText } from "../../content/runs.js";
import { contentNotices } from "../../messages/en/content.js";
import type { LaidOut, Layout, Piece } from "../layout.js";
import { dividersLeftOut, linesOf } from "./lines-of.js";

/**
 * Texts and addresses become links: a text takes the address beside it, in either order, one by one or all texts and
 * then all addresses. What is a link with words of its own already stays; what finds no partner stands by itself, and a
 * notice says so.
 */
export const link: Layout = {
  lay: layLink,
  isTable: false,
  between: "none",
  renamesColumns: false,
};

function layLink(pieces: readonly Piece[]): LaidOut {
  const lines = pieces
    .flatMap(({ content }) => linesOf(content))
    .filter(({ runs }) => runsText(runs).trim() !== "");
  const parts = lines.map((line) => ({ line, address: addressOf(line), isDone: hasNamedLink(line.runs) }));
  const texts = parts.filter(({ address, isDone }) => address === undefined && !isDone);
  const addresses = parts.filter(({ address, isDone }) => address !== undefined && !isDone);
  const partner = new Map(texts.map((text, index) => [text, addresses[index]]));
  const taken = new Set(addresses.slice(0, texts.length));
  const content = parts.flatMap((part): Content => {
    if (taken.has(part)) return [];
    const address = partner.get(part)?.address ?? (part.isDone ? undefined : part.address);
    return [
      address === undefined
        ? part.line
        : { ...part.line, runs: part.line.runs.map((run) => linked(run, address)) },
    ];
  });
  const alone = Math.abs(texts.length - addresses.length);
  const what = texts.length > addresses.length ? "text" : "address";
  const notices: Notice[] =
    alone === 0 ? [] : [notice(contentNotices, "not-shown/partner", { count: alone, what })];
  return { content, notices: [...notices, ...dividersLeftOut(pieces.map((piece) => piece.content))] };
}

function linked(run: Run, address: Address): Run {
  return run.type === "text" ? textRun(run.text, { ...run.marks, link: address }) : run;
}

/** The address that a line is: written out, or as a link on its own words. */
function addressOf({ runs }: Paragraph): Address | undefined {
  const text = runsText(runs).trim();
  return /^\S+$/.test(text) ? safeLink(text) : undefined;
}

function hasNamedLink(runs: readonly Run[]): boolean {
  return runs.some(
    (run) => run.type === "text" && run.marks?.link !== undefined && run.marks.link !== run.text.trim(),
  );
}
