import { toBase64 } from "../../content/base64.js";
import { defined } from "../../content/defined.js";
import { decodeContent, type Hash } from "../../content/encode.js";
import { DrawerError } from "../../content/error.js";
import { notice, type Notice } from "../../content/notice.js";
import { toldOrigin } from "../../content/origin.js";
import { actErrors, actNotices } from "../../messages/en/acts.js";
import { FORMAT, PAGE, VERSION, type SnippetRecord, type PartRecord } from "../drawer-file.js";
import { hashesOf, type Entry } from "../model/entry.js";
import { pickFrom, snippetsOf } from "../snippets.js";
import type { Context, Procedure } from "../transaction.js";

/** What was written into a drawer file. */
export interface Exported {
  /** The lines, each without its line end. Read them once; the notices are there after the last. */
  readonly lines: AsyncIterable<string>;
  readonly notices: Notice[];
}

/**
 * Writes snippets as a drawer file: JSON Lines in UTF-8, first a header, then a line a snippet (`docs/drawer-file.md`).
 * Private snippets are left out, and a notice counts them.
 *
 * @param pick which snippets, in which order; all when it is left out
 * @throws DrawerError, while the lines are read: `bad-pick`, `no-position`, `store` when a content is missing
 */
export const exportFile: Procedure<[pick?: string], Exported> = {
  run(context, pick = "all") {
    const notices: Notice[] = [];
    return { lines: linesOf(context, pick, notices), notices };
  },
};

async function* linesOf({ store, drawer }: Context, pick: string, notices: Notice[]): AsyncGenerator<string> {
  const picked = await pickFrom(snippetsOf(store, drawer), pick);
  const open = picked.filter(({ entry }) => !entry.private);
  const count = open.length;
  const exportedAt = new Date().toISOString();
  yield JSON.stringify({ format: FORMAT, version: VERSION, snippets: count, drawer, exportedAt });
  for (let from = 0; from < count; from += PAGE) {
    const entries = open.slice(from, from + PAGE).map(({ entry }) => entry);
    const contents = await store.contents([...new Set(entries.flatMap(hashesOf))]);
    for (const entry of entries) yield JSON.stringify(lineOf(entry, contents));
  }
  notices.push(notice(actNotices, "exported", { count, drawer }));
  if (picked.length > count)
    notices.push(notice(actNotices, "private/not-exported", { count: picked.length - count }));
}

function lineOf(entry: Entry, contents: ReadonlyMap<Hash, Uint8Array>): SnippetRecord {
  const pictures = (entry.pictures ?? []).flatMap((hash) => {
    const bytes = contents.get(hash);
    return bytes ? [[hash, toBase64(bytes)]] : [];
  });
  return {
    ...partOf(entry, contents),
    ...(pictures.length > 0 && { pictures: Object.fromEntries(pictures) }),
  };
}

function partOf(entry: Entry, contents: ReadonlyMap<Hash, Uint8Array>): PartRecord {
  const bytes = contents.get(entry.content);
  if (!bytes) throw new DrawerError(actErrors, "store/missing-export", { snippet: entry });
  const { label, kept, origin, collectedAt, parts } = entry;
  return {
    ...defined({ label }),
    ...(kept && { kept: true as const }),
    origin: toldOrigin(origin),
    collectedAt,
    content: decodeContent(bytes),
    ...(parts && { parts: parts.map((part) => partOf(part, contents)) }),
  };
}
