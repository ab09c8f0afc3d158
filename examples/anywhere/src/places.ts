import { changesOf } from "./editors/changes.js";
import { COLUMNS, ROWS } from "./editors/rows.js";

/** A place: what it is called above it, and what shows it. */
interface Shown {
  readonly title: string;
  readonly show: (holder: HTMLElement) => Promise<void> | void;
}

/** A place that is HTML alone, and tells of its changes as the browser does. */
const plain = (title: string, html: string): Shown => ({
  title,
  show(holder) {
    holder.innerHTML = html;
    holder.addEventListener("input", changesOf(holder));
  },
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
  editable: plain(
    "An editable text",
    `<div contenteditable role="textbox" aria-multiline="true" aria-label="Editable"><p>Seen: </p></div>`,
  ),
  plaintext: plain(
    "An editable text without a look",
    `<div contenteditable="plaintext-only" role="textbox" aria-multiline="true" aria-label="Plain text">Seen: </div>`,
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
  inputs: {
    title: "A table of fields",
    show(holder) {
      holder.addEventListener("input", changesOf(holder));
      const heads = Object.values(COLUMNS).map((title) => `<th scope="col">${title}</th>`);
      const rows = ROWS.map(
        (row, at) =>
          `<tr>${Object.entries(row)
            .map(([name, value]) => `<td><input aria-label="${name} ${at + 1}" value="${value}" /></td>`)
            .join("")}</tr>`,
      );
      holder.innerHTML = `<table><thead><tr>${heads.join("")}</tr></thead><tbody>${rows.join("")}</tbody></table>`;
    },
  },
  tabulator: {
    title: "Tabulator",
    show: async (holder) => (await import("./editors/tabulator.js")).show(holder),
  },
  aggrid: { title: "AG Grid", show: async (holder) => (await import("./editors/aggrid.js")).show(holder) },
  handsontable: {
    title: "Handsontable",
    show: async (holder) => (await import("./editors/handsontable.js")).show(holder),
  },
  shadow: {
    title: "A field in a shadow tree",
    show(holder) {
      holder.addEventListener("input", changesOf(holder));
      const tree = holder.attachShadow({ mode: "open" });
      tree.innerHTML = `<input aria-label="Shadow" style="font: inherit; width: 100%; box-sizing: border-box" />`;
    },
  },
  frame: {
    title: "A frame of the same site",
    async show(holder) {
      holder.innerHTML = `<iframe title="Frame" srcdoc="<html lang=en><title>Frame</title><textarea aria-label='In the frame' style='width: 90%'>Seen: </textarea>"></iframe>`;
      const frame = holder.querySelector("iframe")!;
      await new Promise((loaded) => frame.addEventListener("load", loaded, { once: true }));
      frame.contentDocument!.addEventListener("input", changesOf(holder));
    },
  },
};
