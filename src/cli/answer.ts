import type { Notice } from "../content/notice.js";
import { toldOrigin } from "../content/origin.js";
import type { Drawer } from "../drawer/drawer.js";
import type { Entry } from "../drawer/model/entry.js";
import { masked, type Snippet } from "../drawer/snippets.js";
import type { Positioned } from "../drawer/store.js";
import { writeText } from "../formats/text/write.js";
import { facts } from "../messages/en/cli-answers.js";
import { print, printJson } from "./terminal.js";

/** Options that every command has. */
export interface CommonOptions {
  readonly drawer: string;
  readonly json?: boolean;
}

/** Answers with notices: a sentence a line for people, one value for programs. */
export function answer(options: CommonOptions, notices: readonly Notice[], more: object = {}): void {
  if (options.json) printJson({ ...more, notices: plain(notices) });
  else for (const notice of notices) print(notice.message + "\n");
}

/** Answers with one sentence of the command line's own. */
export function answerWith(options: CommonOptions, code: string, message: string, more: object = {}): void {
  if (options.json) printJson({ ...more, notices: [{ code, message }] });
  else print(message + "\n");
}

/** Notices as programs get them. */
export function plain(notices: readonly Notice[]): { code: string; message: string }[] {
  return notices.map(({ code, message }) => ({ code, message }));
}

/** Snippets as `--json` lists them, of private ones nothing of what they say; with what a command has to add of each. */
export async function listed<Listed extends Positioned>(
  drawer: Drawer,
  snippets: readonly Listed[],
  more: (one: Listed) => object = () => ({}),
): Promise<object[]> {
  const read = await drawer.read(snippets);
  return read.map((snippet, index) => ({
    ...listedSnippet(masked(snippet)),
    ...more(snippets[index]!),
  }));
}

/** Entries as `--json` lists them: those that are in a drawer with their positions, in order; those that have left it after them. */
export async function listedEntries(drawer: Drawer, entries: readonly Entry[]): Promise<object[]> {
  const here = await drawer.positioned(entries);
  here.sort((a, b) => a.position - b.position);
  const ids = new Set(here.map(({ entry }) => entry.id));
  const left = entries.filter(({ id }) => !ids.has(id)).map((entry) => ({ position: 0, entry }));
  return [...(await listed(drawer, here)), ...(await listed(drawer, left, () => ({ position: null })))];
}

/** A snippet as `--json` lists it, with the whole of the content that it is given with. */
export function listedSnippet({ position, entry, content }: Snippet): object {
  const { id, kind, text: beginning, label, kept, origin, collectedAt, pictures = [] } = entry;
  const notes = [
    ...(kept ? [facts.kept] : []),
    ...(entry.private ? [facts.private] : []),
    ...(pictures.length > 0 ? [facts.pictures(pictures.length)] : []),
  ];
  return {
    position,
    id,
    kind,
    beginning,
    text: writeText(content),
    label: label ?? null,
    kept,
    private: entry.private,
    origin: toldOrigin(origin),
    collectedAt,
    notes,
  };
}
