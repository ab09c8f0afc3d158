import Quill from "quill";
import "quill/dist/quill.snow.css";
import { changesOf } from "./changes.js";

export function show(holder: HTMLElement): void {
  holder.innerHTML = "<p>Seen: </p>";
  const quill = new Quill(holder, { theme: "snow" });
  quill.on("text-change", changesOf(holder));
  quill.root.setAttribute("aria-label", "Quill");
}
