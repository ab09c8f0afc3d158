import { Editor } from "@tiptap/core";
import StarterKit from "@tiptap/starter-kit";

export function show(holder: HTMLElement): void {
  const editorProps = { attributes: { "aria-label": "TipTap" } };
  new Editor({ element: holder, extensions: [StarterKit], content: "<p>Seen:&nbsp;</p>", editorProps });
}
