import { createElement, useState } from "react";
import { createRoot } from "react-dom/client";

function Field() {
  const [text, setText] = useState("Seen: ");
  return createElement(
    "label",
    null,
    "Species ",
    createElement("input", {
      value: text,
      onChange: (event: { target: { value: string } }) => setText(event.target.value),
    }),
    createElement("output", null, `${text.length} characters`),
  );
}

export function show(holder: HTMLElement): void {
  createRoot(holder).render(createElement(Field));
}
