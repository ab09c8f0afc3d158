import { html, nothing, render } from "lit";
import { ref } from "lit/directives/ref.js";
import { originText } from "../../../content/origin.js";
import type { Snippet } from "../../../drawer/snippets.js";
import { row as rowWords } from "../../../messages/core/page-sentences.js";
import { snippetPanel as words } from "../../../messages/core/panel-sentences.js";
import type { ShownBlock } from "../../binding/blocks.js";
import type { FileStanding } from "../../binding/host-files.js";
import { lookedAt, setLooks } from "../looked-at.js";
import { shownTime } from "./time.js";

/** What can be done with a snippet that is shown whole. */
export interface SnippetPanelState {
  /** Whether its words are being changed. */
  readonly isEdited: boolean;
  readonly edit: () => void;
  /** Takes what the user has made of its HTML. */
  readonly save: (html: string) => void;
  readonly leave: () => void;
  /** Something was changed in it. */
  readonly touched: () => void;
  /** What has become of it in its file, where it is not the same there. */
  readonly standing: FileStanding["type"] | undefined;
  /** Takes it anew from its file, and looks into that; nothing where it is not known where it is. */
  readonly file: { readonly refresh: () => void; readonly lookInto: () => void } | undefined;
}

/** Whether the words of what is shown can be changed there: not where it is masked, or only its beginning is shown. */
export function isEditable({ entry }: Snippet, { isCut }: ShownBlock): boolean {
  return !entry.private && !isCut;
}

/** One snippet whole, as it is written out, with where it came from and when. What is private stays masked. */
export function snippetPanel(snippet: Snippet, written: ShownBlock, state: SnippetPanelState) {
  const { position, entry } = snippet;
  const facts = [
    entry.label ?? "",
    originText(entry.origin),
    words.came(shownTime(entry.collectedAt)),
    entry.kept ? words.kept : "",
    state.standing ? rowWords.standings[state.standing] : "",
  ];
  return html`
    <section class="panel whole" aria-label=${words.name(position)} part="panel" tabindex="0">
      <p class="note">${facts.filter(Boolean).join(" · ")}</p>
      ${state.isEdited ? editor(written, position, state) : shown(written)}
      ${
        state.isEdited
          ? nothing
          : html`<p class="acts">
              ${isEditable(snippet, written) ? html`<button @click=${state.edit}>${words.edit}</button>` : nothing}
              ${state.file ? fileActs(state.file, state.standing) : nothing}
            </p>`
      }
    </section>
  `;
}

function fileActs(
  { refresh, lookInto }: NonNullable<SnippetPanelState["file"]>,
  standing: SnippetPanelState["standing"],
) {
  const isElsewhere = standing === "changed" || standing === "moved";
  return html`${isElsewhere ? html`<button @click=${refresh}>${words.refresh}</button>` : nothing}
    <button ?disabled=${standing === "missing"} @click=${lookInto}>${words.lookInto}</button>`;
}

function shown({ html: written, isCut }: ShownBlock) {
  return html`<div class="preview" dir="auto">
    ${lookedAt(written)}${isCut ? html`<p class="note">${words.more}</p>` : nothing}
  </div>`;
}

/** The field in which its words are changed, by the browser's own editing: Ctrl+Enter takes it, Escape leaves it as it was. */
function editor(
  { html: written }: ShownBlock,
  position: number,
  { save, leave, touched }: SnippetPanelState,
) {
  let field: HTMLElement | undefined;
  // Drawn once, and then the user's.
  const fill = (element: Element | undefined) => {
    field = element as HTMLElement | undefined;
    if (!field || field.childNodes.length > 0) return;
    render(lookedAt(written), field);
    setLooks(field);
    field.focus();
  };
  const take = (event: Event) => {
    const panel = (event.currentTarget as Element).closest(".panel")!;
    save(panel.querySelector(".preview")!.innerHTML);
  };
  const key = (event: KeyboardEvent) => {
    if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) take(event);
    else if (event.key === "Escape") leave();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return html`
    <div
      class="preview edited"
      dir="auto"
      contenteditable="true"
      role="textbox"
      aria-multiline="true"
      aria-label=${words.words(position)}
      @keydown=${key}
      @input=${touched}
      ${ref(fill)}
    ></div>
    <p class="acts">
      <button class="take" @click=${take}>${words.save}</button>
      <button @click=${leave}>${words.leave}</button>
      <span class="note">${words.editNote}</span>
    </p>
  `;
}
