import { css } from "lit";

/** The looks of the sentence, of the block as it will land, and of what is done with it. */
export const composerStyles = css`
  .composer {
    flex: none;
    border-top: 1px solid var(--rule);
    background: var(--card);
  }
  .sentence {
    margin: 0;
    padding: 0.7em 1.25em 0.6em;
    font-size: 1.1em;
  }
  .sentence select {
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
    max-height: 9em;
    margin: 0 1.25em;
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
  .lands {
    margin: 0.5em 0 -0.4em;
    padding: 0 calc(1.25em / 0.9);
  }
  .lands.after {
    margin: 0.5em 0 0;
  }
  .go {
    display: block;
    width: calc(100% - 2.5em);
    margin: 0.9em 1.25em 0;
    padding: 0.6em;
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
    margin: 0.5em 1.25em 0.7em;
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
