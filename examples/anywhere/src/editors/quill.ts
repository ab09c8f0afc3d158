import Quill from "quill";
import "quill/dist/quill.snow.css";

export function show(holder: HTMLElement): void {
  holder.innerHTML = "<p>Seen: </p>";
  const quill = new Quill(holder, { theme: "snow" });
  quill.root.setAttribute("aria-label", "Quill");
}
