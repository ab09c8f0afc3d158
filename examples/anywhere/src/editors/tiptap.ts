import { Editor } from "@tiptap/core";
import StarterKit from "@tiptap/starter-kit";
import { changesOf } from "./changes.js";

export function show(holder: HTMLElement): void {
  const editorProps = { attributes: { "aria-label": "TipTap" } };
  new Editor({
    element: holder,
    extensions: [StarterKit],
    content: "<p>Seen:&nbsp;</p>",
    editorProps,
    onUpdate: changesOf(holder),
  });
}
