import { Bold, ClassicEditor, Essentials, Italic, Link, List, Paragraph } from "ckeditor5";
import "ckeditor5/ckeditor5.css";
import { changesOf } from "./changes.js";

export async function show(holder: HTMLElement): Promise<void> {
  const place = document.createElement("div");
  holder.append(place);
  const editor = await ClassicEditor.create(place, {
    licenseKey: "GPL",
    plugins: [Essentials, Paragraph, Bold, Italic, Link, List],
    toolbar: ["undo", "redo"],
    initialData: "<p>Seen:&nbsp;</p>",
    label: "CKEditor",
  });
  editor.model.document.on("change:data", changesOf(holder));
}
