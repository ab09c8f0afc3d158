import { toBase64 } from "../content/base64.js";
import { decodeContent, type Hash } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import type { Notice } from "../content/notice.js";
import type { Drawer } from "./drawer.js";
import { FORMAT, PAGE, VERSION, type Line, type Part } from "./drawer-file.js";
import { hashesOf, type Entry } from "./entry.js";
import { many } from "./saying.js";

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
 * @param pick which snippets, in which order
 * @throws DrawerError `bad-pick`, `no-position`
 */
export function exportDrawer(drawer: Drawer, pick = "all"): Exported {
  const notices: Notice[] = [];
  return { lines: write(drawer, pick, notices), notices };
}

async function* write(drawer: Drawer, pick: string, notices: Notice[]): AsyncGenerator<string> {
  const picked = await drawer.pick(pick);
  const open = picked.filter(({ entry }) => !entry.private);
  const header = {
    format: FORMAT,
    version: VERSION,
    snippets: open.length,
    drawer: drawer.name,
    exportedAt: new Date().toISOString(),
  };
  yield JSON.stringify(header);
  for (let from = 0; from < open.length; from += PAGE) {
    const entries = open.slice(from, from + PAGE).map(({ entry }) => entry);
    const contents = await drawer.store.contents([...new Set(entries.flatMap(hashesOf))]);
    for (const entry of entries) yield JSON.stringify(lineOf(entry, contents));
  }
  notices.push({
    code: "exported",
    message: `Exported ${many(open.length)} of the drawer “${drawer.name}”.`,
  });
  const secret = picked.length - open.length;
  if (secret > 0) {
    const message =
      secret === 1 ? "One private snippet was left out." : `${secret} private snippets were left out.`;
    notices.push({ code: "private", message });
  }
}

function lineOf(entry: Entry, contents: ReadonlyMap<Hash, Uint8Array>): Line {
  const pictures = (entry.pictures ?? []).flatMap((hash) => {
    const bytes = contents.get(hash);
    return bytes ? [[hash, toBase64(bytes)]] : [];
  });
  return {
    ...partOf(entry, contents),
    ...(pictures.length > 0 && { pictures: Object.fromEntries(pictures) }),
  };
}

function partOf(entry: Entry, contents: ReadonlyMap<Hash, Uint8Array>): Part {
  const bytes = contents.get(entry.content);
  if (!bytes)
    throw new DrawerError(
      "store",
      `Nothing was exported: the content of a snippet that began “${entry.text}” is not in the store any more.`,
    );
  const { label, kept, origin, collectedAt, parts } = entry;
  return {
    ...(label !== undefined && { label }),
    ...(kept && { kept: true as const }),
    ...{ origin, collectedAt, content: decodeContent(bytes) },
    ...(parts && { parts: parts.map((part) => partOf(part, contents)) }),
  };
}
