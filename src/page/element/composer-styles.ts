import { css } from "lit";

/** The looks of the sentence, of the block as it will land, and of what is done with it. */
export const composerStyles = css`
  .fold {
    display: block;
    width: 100%;
    padding: 0.35em var(--edge);
    overflow: hidden;
    text-align: start;
    text-overflow: ellipsis;
    white-space: nowrap;
    color: var(--ink);
  }
  .fold::before {
    content: "";
    display: inline-block;
    width: 0.45em;
    height: 0.45em;
    margin-inline-end: 0.7em;
    border: solid var(--tide);
    border-width: 1.5px 1.5px 0 0;
    rotate: -45deg;
    translate: 0 0.1em;
  }
  .fold[aria-expanded="true"]::before {
    rotate: 135deg;
    translate: 0 -0.1em;
  }
  /* As high whatever is in it, so that the list stays as it is while one picks; what is shown of the block has what is left. */
  :host {
    --unfolded: 22em;
  }
  :host([compact]) {
    --unfolded: 16em;
  }
  .composer:not(.folded) {
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
  .unfolded {
    display: flex;
    flex: 1 1 0;
    flex-direction: column;
    min-height: 0;
    overflow-y: auto;
  }
  /* In a strip it is two lines until one unfolds it: what, and the button. */
  @container drawer (max-width: 46rem) {
    .folded :is(.unfolded, .lands, .acts) {
      display: none;
    }
    .sides:has(> .composer:not(.folded)) {
      grid-template-rows: minmax(0, 1fr) auto minmax(var(--unfolded), 1fr);
    }
    .composer:not(.folded) .sentence {
      padding-top: 0;
    }
    /* In a low window the list has what is left, and at least a row, so that nothing has to be scrolled to for the rest. */
    @media (max-height: 50rem) {
      :host(:not([compact])) .sides:has(> .composer:not(.folded)) {
        grid-template-rows: minmax(5em, 1fr) auto min(var(--unfolded), 56svh);
      }
      :host(:not([compact])) .sides:has(> .composer:not(.folded)) :is(.side, .list) {
        min-height: 5em;
      }
    }
  }
  :host(:is([panel], [compact])) .folded :is(.unfolded, .lands, .acts) {
    display: none;
  }
  :host(:is([panel], [compact])) .sides:has(> .composer:not(.folded)) {
    grid-template-rows: minmax(0, 1fr) auto minmax(var(--unfolded), 1fr);
  }
  :host(:is([panel], [compact])) .composer:not(.folded) .sentence {
    padding-top: 0;
  }
  @container wide (min-width: 46rem) {
    .fold {
      display: none;
    }
  }
  .sentence {
    margin: 0;
    padding: 0.7em var(--edge) 0.6em;
    font-size: 1.1em;
  }
  .word select {
    field-sizing: content;
    appearance: none;
    color: var(--tide);
    text-decoration: underline;
    text-underline-offset: 0.2em;
    text-decoration-thickness: 1px;
  }
  .word {
    white-space: nowrap;
  }
  .sentence option {
    color: var(--ink);
    background: var(--card);
  }
  /* On light paper by night too: the colours of documents are made for it. */
  .preview {
    --faint: #5d6d6b;
    --rule: #d3dad3;
    color-scheme: light;
    color: #22302f;
    background: var(--drawer-preview, #fcfdfa);
    flex: 1 0 0;
    min-height: 4em;
    margin: 0 var(--edge);
    padding: 0.1em 0.6em;
    overflow: auto;
    border-top: 1px dotted var(--rule);
    font-size: 0.95em;
  }
  .preview table {
    border-collapse: collapse;
  }
  .preview :is(th, td) {
    border: 1px solid var(--rule);
    padding: 0.15em 0.5em;
    text-align: start;
  }
  .preview :is(ul, ol) {
    padding-inline-start: 1.5em;
  }
  .preview :is(h1, h2, h3, h4, h5, h6) {
    font-size: 1.1em;
    margin: 0.6em 0;
  }
  .details {
    margin: 0 var(--edge) 0.4em;
    font: 0.85em var(--plain);
    color: var(--faint);
  }
  .details summary {
    min-height: 24px;
    cursor: pointer;
  }
  .details label {
    display: grid;
    grid-template-columns: 11em minmax(0, 1fr);
    align-items: center;
    margin: 0.15em 0;
  }
  .details :is(input, select) {
    min-height: 24px;
    min-width: 0;
    padding: 0.1em 0.4em;
    border: 1px solid var(--rule);
    border-radius: 3px;
    font: inherit;
    color: var(--ink);
    background: var(--card);
  }
  .lands {
    margin: 0.6em 0 0;
    padding: 0 var(--edge);
  }
  .going {
    display: flex;
    gap: 0.5em;
    margin: 0.2em var(--edge) 0.5em;
  }
  .suggested {
    flex: none;
    padding: 0.4em 0.9em;
    box-shadow: inset 0 0 0 1px var(--tide);
    border-radius: 4px;
    font: 0.95em var(--plain);
    color: var(--tide);
  }
  .go {
    flex: 1;
    padding: 0.4em;
    border-radius: 4px;
    font: 600 0.95em var(--plain);
    color: var(--card);
    background: var(--tide);
  }
  .acts,
  .dealing {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1.2em;
    margin: 0.1em var(--edge) 0.5em;
    font: 0.85em var(--plain);
    color: var(--faint);
  }
  .dealing {
    margin-bottom: 0;
    color: var(--ink);
  }
  .dealing span {
    flex: 1 0 100%;
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    overflow: hidden;
  }
  .acts :disabled,
  .dealing :disabled {
    cursor: default;
    opacity: 0.5;
  }
  .go:disabled {
    cursor: default;
    opacity: 0.45;
  }
  @media (forced-colors: active) {
    .go {
      color: ButtonText;
      background: ButtonFace;
      border: 1px solid ButtonText;
    }
    .preview {
      color: CanvasText;
      background: Canvas;
    }
  }
`;
