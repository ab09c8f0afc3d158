import type { Block } from "../../compose/block.js";
import type { Piece } from "../../compose/layout.js";
import type { Recipe } from "../../compose/recipe.js";
import { changing } from "../../drawer/drawer-reader.js";
import { isLanguageSet, setLanguage, type Language } from "../../messages/core/language.js";
import { semantics } from "../../stores/row-store.js";
import { putting } from "../places/lazy.js";

/**
 * What a page loads when it is first needed. The doors to it are here, so that a bundler makes one file of what is behind each.
 */

/** What changes a drawer. */
const changes = () => Promise.all([changing(), semantics()]);

/** What reads copies. */
export const readers = () => import("../capture/read-copied.js");

/** What tells secrets, as a question about a text. */
export const detection = async () => {
  const [{ looksSecret }, { readText }] = await Promise.all([
    import("../../drawer/secret.js"),
    import("../../formats/text/read.js"),
  ]);
  return (text: string) => looksSecret(readText(text).content) !== undefined;
};

/** What makes blocks. */
export const blocks = () => import("./blocks.js");

/** What puts other words into a snippet. */
export const rewriting = () => import("../capture/rewriting.js");

/** What hands out a deal. */
export const dealing = () => import("./dealing.js");

/** What fills forms. */
export const forms = () => import("../places/form.js");

/** What reads files. */
export const fileReaders = () => import("../capture/read-files.js");

/** What puts into files, and takes out of them. */
export const fileEditors = () => import("../../files/edit.js");

/** The languages that a page may be in, but for English. */
const languages: Readonly<Record<string, () => Promise<Language>>> = {
  de: async () => (await import("../../messages/de/index.js")).de,
};

/** Speaks the language of the page, where there is one of that name and nobody has set another. */
async function followPageLanguage(): Promise<void> {
  const language = languages[document.documentElement.lang.split("-")[0]!.toLowerCase()];
  if (!language || isLanguageSet()) return;
  const sentences = await language();
  if (!isLanguageSet()) setLanguage(sentences);
}

/** When a page has likely come to rest, in milliseconds after a drawer was bound to it. */
const IDLE = 1_000;

/** Gets a page ready: the first copy and the first block need not wait for what reads and makes them, and its language is spoken. */
export function getReady({
  signal,
  failed,
}: {
  signal: AbortSignal;
  failed: (error: unknown) => void;
}): void {
  followPageLanguage().catch(failed);
  const idle = window.setTimeout(loadAhead, IDLE);
  signal.addEventListener("abort", () => clearTimeout(idle));
}

/** Loads what every user needs sooner or later. Should it not come now, it is asked for again then, and missed aloud. */
function loadAhead(): void {
  for (const part of [changes, readers, blocks, putting]) part().catch(() => undefined);
}

/**
 * Makes a block of snippets, as `compose` does.
 * @throws DrawerError `bad-option`
 */
export async function composed(snippets: readonly Piece[], recipe: Recipe): Promise<Block> {
  const { compose } = await blocks();
  return compose(snippets, recipe);
}
