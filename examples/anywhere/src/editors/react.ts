import { createElement, useState } from "react";
import { createRoot } from "react-dom/client";
import { changesOf } from "./changes.js";

function Field({ changed }: { readonly changed: () => void }) {
  const [text, setText] = useState("Seen: ");
  return createElement(
    "label",
    null,
    "Species ",
    createElement("input", {
      value: text,
      onChange: (event: { target: { value: string } }) => {
        setText(event.target.value);
        changed();
      },
    }),
    createElement("output", null, `${text.length} characters`),
  );
}

export function show(holder: HTMLElement): void {
  createRoot(holder).render(createElement(Field, { changed: changesOf(holder) }));
}
