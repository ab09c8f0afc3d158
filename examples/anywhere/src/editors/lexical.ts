import { createEmptyHistoryState, registerHistory } from "@lexical/history";
import { ListItemNode, ListNode } from "@lexical/list";
import { HeadingNode, QuoteNode, registerRichText } from "@lexical/rich-text";
import { $createParagraphNode, $createTextNode, $getRoot, createEditor } from "lexical";
import { changesOf } from "./changes.js";

export function show(holder: HTMLElement): void {
  const text = document.createElement("div");
  text.contentEditable = "true";
  text.setAttribute("aria-label", "Lexical");
  holder.append(text);
  const editor = createEditor({
    namespace: "anywhere",
    nodes: [HeadingNode, QuoteNode, ListNode, ListItemNode],
    onError: (error) => {
      throw error;
    },
  });
  editor.setRootElement(text);
  registerRichText(editor);
  editor.registerTextContentListener(changesOf(holder));
  registerHistory(editor, createEmptyHistoryState(), 300);
  editor.update(() => $getRoot().append($createParagraphNode().append($createTextNode("Seen: "))), {
    tag: "history-merge",
  });
}
