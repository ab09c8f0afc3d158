import { basicSetup, EditorView } from "codemirror";
import { changesOf } from "./changes.js";

export function show(holder: HTMLElement): void {
  const label = EditorView.contentAttributes.of({ "aria-label": "CodeMirror" });
  const changed = changesOf(holder);
  const tell = EditorView.updateListener.of(({ docChanged }) => docChanged && changed());
  new EditorView({ parent: holder, doc: "Seen: ", extensions: [basicSetup, label, tell] });
}
