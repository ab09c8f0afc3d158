import type { Fit } from "../../compose/options.js";

/** What is particular of an editor. */
export interface EditorKind {
  /** How its own element is told. */
  readonly host: string;
  readonly fit: Fit;
  /** Whether it takes a paste by the event for that, or by the one before an input. */
  readonly by: "paste" | "beforeinput";
  /** Whether its tables know no header cells: it would run those together. */
  readonly isHeaderless?: boolean;
  /** Whether what is no paragraph begins a line by itself when it is pasted in the middle of one. */
  readonly beginsLines?: boolean;
}

/** Editors that are known by the element in which one writes; all others are told by being editable. */
export const EDITORS: Readonly<Record<string, EditorKind>> = {
  proseMirror: { host: ".ProseMirror", fit: "page", by: "paste" },
  lexical: { host: "[data-lexical-editor]", fit: "page", by: "paste", beginsLines: true },
  codeMirror: { host: ".cm-content", fit: "plain", by: "paste" },
  quill: { host: ".ql-editor", fit: "page", by: "paste", isHeaderless: true },
  // It takes over what it is given by a paste and writes none of it; the event before an input it takes.
  slate: { host: "[data-slate-editor]", fit: "page", by: "beforeinput" },
  ckEditor: { host: ".ck-editor__editable", fit: "page", by: "paste" },
};
/** An element that takes words alone. */
export const PLAIN: EditorKind = { host: "[contenteditable=plaintext-only]", fit: "plain", by: "paste" };
/** An editor that is known by nothing but that one can write in it. */
export const RICH: EditorKind = { host: "[contenteditable]", fit: "page", by: "paste" };
