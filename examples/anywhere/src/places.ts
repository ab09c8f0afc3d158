/** A place: what it is called above it, and what shows it. */
interface Shown {
  readonly title: string;
  readonly show: (holder: HTMLElement) => Promise<void> | void;
}

/** A place that is HTML alone. */
const plain = (title: string, html: string): Shown => ({
  title,
  show: (holder) => void (holder.innerHTML = html),
});

/** All the places, by the id of their section. Each editor is a package of its own, loaded when it is shown. */
export const places: Readonly<Record<string, Shown>> = {
  line: plain("A line", `<input aria-label="Line" value="Seen: " />`),
  lines: plain("Several lines", `<textarea aria-label="Notes" rows="4">Seen: </textarea>`),
  url: plain("An address", `<input type="url" aria-label="Address" />`),
  mail: plain("An e-mail address", `<input type="email" aria-label="Mail" />`),
  number: plain("A number", `<input type="number" aria-label="Count" />`),
  date: plain("A date", `<input type="date" aria-label="Day" />`),
  short: plain("A field of ten characters", `<input aria-label="Short" maxlength="10" />`),
  password: plain("A password", `<input type="password" aria-label="Password" value="heath-ride-7" />`),
  closed: plain("A field that is closed", `<input aria-label="Closed" readonly value="as it is" />`),
  editable: plain("An editable text", `<div contenteditable aria-label="Editable"><p>Seen: </p></div>`),
  plaintext: plain(
    "An editable text without a look",
    `<div contenteditable="plaintext-only" aria-label="Plain text">Seen: </div>`,
  ),
  prosemirror: {
    title: "TipTap (ProseMirror)",
    show: async (holder) => (await import("./editors/tiptap.js")).show(holder),
  },
  lexical: { title: "Lexical", show: async (holder) => (await import("./editors/lexical.js")).show(holder) },
  codemirror: {
    title: "CodeMirror",
    show: async (holder) => (await import("./editors/codemirror.js")).show(holder),
  },
  quill: { title: "Quill", show: async (holder) => (await import("./editors/quill.js")).show(holder) },
  slate: {
    title: "Slate (React)",
    show: async (holder) => (await import("./editors/slate.js")).show(holder),
  },
  ckeditor: {
    title: "CKEditor",
    show: async (holder) => (await import("./editors/ckeditor.js")).show(holder),
  },
  react: {
    title: "A field that React holds",
    show: async (holder) => (await import("./editors/react.js")).show(holder),
  },
  shadow: {
    title: "A field in a shadow tree",
    show(holder) {
      const tree = holder.attachShadow({ mode: "open" });
      tree.innerHTML = `<input aria-label="Shadow" style="font: inherit; width: 100%; box-sizing: border-box" />`;
    },
  },
  frame: plain(
    "A frame of the same site",
    `<iframe title="Frame" srcdoc="<textarea aria-label='In the frame' style='width: 90%'>Seen: </textarea>"></iframe>`,
  ),
};
