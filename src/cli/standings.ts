import { defined } from "../content/defined.js";
import { DrawerError } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import type { Drawer } from "../drawer/drawer.js";
import type { Refreshed } from "../drawer/operations/refresh.js";
import type { Snippet } from "../drawer/snippets.js";
import { standingOf, type Standing } from "../files/check.js";
import type { Source } from "../files/source.js";
import { cliNotices } from "../messages/en/cli.js";
import { openFile } from "./input.js";

/** What has become of a snippet in the file that it came from; nothing is known of one that does not say where that is. */
export interface Checked {
  readonly snippet: Snippet;
  readonly standing:
    Standing | { readonly type: "unknown" } | { readonly type: "missing"; readonly why: string };
}

/**
 * Looks after the snippets of a pick in the files that they came from, each of which is opened once.
 * @throws DrawerError `bad-pick`, `no-position`, `nothing`
 */
export async function standingsOf(
  drawer: Drawer,
  pick: string,
): Promise<{ checked: Checked[]; notices: readonly Notice[] }> {
  const { snippets, notices } = await drawer.snippetsToGiveOut(pick);
  const sources = new Map<string, Promise<Source | DrawerError>>();
  const sourceAt = (path: string) => {
    const known = sources.get(path) ?? openFile(path, {}).catch(refusal);
    sources.set(path, known);
    return known;
  };
  const checked: Checked[] = [];
  for (const snippet of snippets) {
    const { path, at } = snippet.entry.origin;
    if (path === undefined) {
      checked.push({ snippet, standing: { type: "unknown" } });
      continue;
    }
    const source = await sourceAt(path);
    if (source instanceof DrawerError)
      checked.push({ snippet, standing: { type: "missing", why: source.message } });
    else {
      // What is attached may be gone.
      if (at !== undefined)
        await source.open(at).catch((error: unknown) => {
          if (!(error instanceof DrawerError)) throw error;
        });
      checked.push({
        snippet,
        standing: standingOf(source, { content: snippet.content, ...defined({ at }) }),
      });
    }
  }
  return { checked, notices };
}

/**
 * Takes the snippets of a pick anew from the files that they came from.
 * @throws DrawerError `bad-pick`, `no-position`, `nothing`
 */
export async function refreshPick(drawer: Drawer, pick: string): Promise<readonly Notice[]> {
  const { checked, notices } = await standingsOf(drawer, pick);
  const fresh: Refreshed[] = checked.flatMap(({ snippet, standing }) => {
    if (standing.type !== "changed" && standing.type !== "moved") return [];
    const { id, content: from } = snippet.entry;
    const { content, pictures, notices: told = [] } = standing.now;
    const reading = { content, pictures: pictures ?? new Map<string, Uint8Array>(), notices: told };
    return [{ place: { id }, reading, from, ...(standing.spot !== "" && { at: standing.spot }) }];
  });
  const left = checked.filter(({ standing }) => /^(gone|unknown|missing)$/.test(standing.type));
  const positions = left.map(({ snippet }) => snippet.position);
  return [
    ...(fresh.length > 0 ? (await drawer.refresh(fresh)).notices : []),
    ...(fresh.length === 0 && left.length === 0 ? [notice(cliNotices, "refresh/same", {})] : []),
    ...(left.length > 0 ? [notice(cliNotices, "refresh/left", { positions })] : []),
    ...notices,
  ];
}

function refusal(error: unknown): DrawerError {
  if (error instanceof DrawerError) return error;
  throw error;
}
