import { createElement } from "react";
import { createRoot } from "react-dom/client";
import { createEditor, type Descendant } from "slate";
import { withHistory } from "slate-history";
import { Editable, Slate, withReact } from "slate-react";
import { changesOf } from "./changes.js";

export function show(holder: HTMLElement): void {
  const editor = withHistory(withReact(createEditor()));
  const initialValue: Descendant[] = [{ type: "paragraph", children: [{ text: "Seen: " }] } as Descendant];
  const editable = createElement(Editable, { "aria-label": "Slate" });
  createRoot(holder).render(
    createElement(Slate, { editor, initialValue, onValueChange: changesOf(holder), children: editable }),
  );
}
