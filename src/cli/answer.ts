import type { Notice } from "../content/notice.js";
import type { Positioned } from "../drawer/store.js";
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

/** A snippet as `--json` lists it. */
export function listed({ position, entry }: Positioned): object {
  const { id, kind, text, label, kept, origin, collectedAt, pictures = [] } = entry;
  const notes = [
    ...(kept ? [facts.kept] : []),
    ...(entry.private ? [facts.private] : []),
    ...(pictures.length > 0 ? [facts.pictures(pictures.length)] : []),
  ];
  return {
    position,
    id,
    kind,
    text,
    label: label ?? null,
    kept,
    private: entry.private,
    origin,
    collectedAt,
    notes,
  };
}
