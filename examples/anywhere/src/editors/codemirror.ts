import { basicSetup, EditorView } from "codemirror";

export function show(holder: HTMLElement): void {
  const label = EditorView.contentAttributes.of({ "aria-label": "CodeMirror" });
  new EditorView({ parent: holder, doc: "Seen: ", extensions: [basicSetup, label] });
}
