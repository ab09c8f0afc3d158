import { Editor } from "@tiptap/core";
import Highlight from "@tiptap/extension-highlight";
import Subscript from "@tiptap/extension-subscript";
import Superscript from "@tiptap/extension-superscript";
import { TableCell, TableHeader, TableKit } from "@tiptap/extension-table";
import TextAlign from "@tiptap/extension-text-align";
import { TextStyleKit } from "@tiptap/extension-text-style";
import StarterKit from "@tiptap/starter-kit";

const BEGUN = `
  <h1>Spring bulletin</h1>
  <p>The observatory opened on 1 April. What follows is from the wardens’ diary, the ringing sheet and your letters.</p>
  <p></p>
`;

/** Cells keep the background they come with. */
const background = {
  background: {
    default: null,
    parseHTML: (cell: HTMLElement) => cell.style.backgroundColor || null,
    renderHTML: ({ background: color }: { background?: string | null }) =>
      color ? { style: `background-color: ${color}` } : {},
  },
};
const ColoredCell = TableCell.extend({
  addAttributes() {
    return { ...this.parent?.(), ...background };
  },
});
const ColoredHeader = TableHeader.extend({
  addAttributes() {
    return { ...this.parent?.(), ...background };
  },
});

/** What the bar above the bulletin offers. */
const TOOLS: { words: string; label: string; run(editor: Editor): void; isOn?(editor: Editor): boolean }[] = [
  {
    words: "B",
    label: "Bold",
    run: (editor) => editor.chain().focus().toggleBold().run(),
    isOn: (editor) => editor.isActive("bold"),
  },
  {
    words: "I",
    label: "Italic",
    run: (editor) => editor.chain().focus().toggleItalic().run(),
    isOn: (editor) => editor.isActive("italic"),
  },
  {
    words: "Heading",
    label: "Heading",
    run: (editor) => editor.chain().focus().toggleHeading({ level: 2 }).run(),
    isOn: (editor) => editor.isActive("heading"),
  },
  {
    words: "Bullets",
    label: "Bullets",
    run: (editor) => editor.chain().focus().toggleBulletList().run(),
    isOn: (editor) => editor.isActive("bulletList"),
  },
  { words: "Undo", label: "Undo", run: (editor) => editor.chain().focus().undo().run() },
  { words: "Redo", label: "Redo", run: (editor) => editor.chain().focus().redo().run() },
];

/** Shows the bulletin in an editor. What is written is kept in this browser, so that a reload loses nothing. */
export function showEditor(place: HTMLElement): void {
  place.innerHTML = `<div class="tools" role="toolbar" aria-label="Formatting"></div><div class="sheet-of-paper"></div>`;
  const editor = new Editor({
    element: place.querySelector<HTMLElement>(".sheet-of-paper")!,
    extensions: [
      StarterKit,
      TextStyleKit,
      Highlight.configure({ multicolor: true }),
      Subscript,
      Superscript,
      TextAlign.configure({ types: ["heading", "paragraph"] }),
      TableKit.configure({ tableCell: false, tableHeader: false }),
      ColoredCell,
      ColoredHeader,
    ],
    content: localStorage.getItem("bulletin") ?? BEGUN,
    autofocus: "end",
    editorProps: { attributes: { "aria-label": "Bulletin", spellcheck: "false" } },
    onUpdate: ({ editor: changed }) => localStorage.setItem("bulletin", changed.getHTML()),
  });
  const bar = place.querySelector(".tools")!;
  for (const { words, label, run, isOn } of TOOLS) {
    const button = document.createElement("button");
    button.textContent = words;
    button.setAttribute("aria-label", label);
    button.addEventListener("mousedown", (event) => event.preventDefault());
    button.addEventListener("click", () => run(editor));
    bar.append(button);
    if (isOn) editor.on("transaction", () => button.setAttribute("aria-pressed", String(isOn(editor))));
  }
}
