import { css } from "lit";

/**
 * The element's looks. Every colour and size is a custom property, so that a page can make them its own; by night or day it is
 * as the page is, by the page's own `color-scheme`.
 */
export const styles = css`
  :host {
    --ink: var(--drawer-ink, light-dark(#22302f, #e2e8e3));
    --faint: var(--drawer-faint, light-dark(#5d6d6b, #98a8a5));
    --paper: var(--drawer-paper, light-dark(#f3f5f0, #182021));
    --card: var(--drawer-card, light-dark(#fcfdfa, #1f292a));
    --rule: var(--drawer-rule, light-dark(#d3dad3, #344142));
    --tide: var(--drawer-accent, light-dark(#14606a, #7cc4c9));
    --wash: var(--drawer-wash, light-dark(#e2eceb, #233436));
    --alarm: var(--drawer-alarm, light-dark(#9a3412, #f0a07a));
    --mark: var(--drawer-mark, light-dark(#f2e3a6, #5d5320));
    --text: var(--drawer-text-font, Charter, "Bitstream Charter", "Source Serif 4", Cambria, Georgia, serif);
    --plain: var(--drawer-plain-font, Seravek, "Gill Sans Nova", Ubuntu, Calibri, "DejaVu Sans", sans-serif);
    --size: var(--drawer-size, 15px);
    container: drawer / inline-size;
    display: flex;
    flex-direction: column;
    min-height: 0;
    /* Where there is too little room for all, as with large type, it is scrolled as a whole. */
    overflow-y: auto;
    color: var(--ink);
    background: var(--paper);
    font: var(--size) / 1.45 var(--text);
  }
  * {
    box-sizing: border-box;
  }
  button,
  select {
    font: inherit;
    color: inherit;
    background: none;
    border: 0;
    padding: 0;
    /* What a finger can hit (WCAG 2.2, 2.5.8). */
    min-width: 24px;
    min-height: 24px;
    cursor: pointer;
  }
  :focus-visible {
    outline: 2px solid var(--tide);
    outline-offset: 2px;
    border-radius: 3px;
  }
  .top {
    display: flex;
    align-items: baseline;
    gap: 0.75em;
    padding: 0.7em 1.25em 0.4em;
    border-bottom: 1px solid var(--rule);
  }
  h2 {
    margin: 0;
    font-size: 1.15em;
    font-weight: 600;
  }
  .top {
    flex-wrap: wrap;
  }
  h2 {
    display: flex;
    align-items: baseline;
    gap: 0.6em;
  }
  .state {
    margin-inline-start: auto;
    text-align: end;
    font: 0.85em var(--plain);
    color: var(--faint);
  }
  .state .kept {
    display: block;
    margin-top: 0.3em;
    color: var(--alarm);
  }
  .heard {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
    white-space: nowrap;
  }
  .both,
  .openers {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2em 1.1em;
  }
  .drawers,
  .state select,
  .acts select {
    appearance: none;
    field-sizing: content;
    max-width: 12em;
    text-decoration: underline;
    text-decoration-color: var(--rule);
    text-underline-offset: 0.2em;
  }
  .drawers {
    font: 0.75em var(--plain);
    color: var(--faint);
  }
  select option {
    color: var(--ink);
    background: var(--card);
  }
  .state button,
  .ways button,
  .panel button,
  .notice button,
  .acts button,
  .dealing button,
  .actions button {
    text-decoration: underline;
    text-decoration-color: var(--rule);
    text-underline-offset: 0.2em;
  }
  .state button:hover,
  .ways button:hover,
  .panel button:hover,
  .notice button:hover,
  .acts button:hover,
  .dealing button:hover,
  .actions button:hover {
    text-decoration-color: currentColor;
  }
  .ways {
    display: flex;
    align-items: baseline;
    flex-wrap: wrap;
    gap: 0.5em 1.25em;
    padding: 0.6em 1.25em;
    border-bottom: 1px solid var(--rule);
    font: 0.9em var(--plain);
  }
  .ways input {
    flex: 1 1 5em;
    min-width: 5em;
    padding: 0.3em 0.6em;
    font: inherit;
    color: inherit;
    background: var(--card);
    border: 1px solid var(--rule);
    border-radius: 4px;
  }
  .ways input::placeholder {
    color: var(--faint);
    opacity: 1;
  }
  .ways button[aria-expanded="true"] {
    color: var(--tide);
  }
  mark {
    color: inherit;
    background: var(--mark);
    border-radius: 2px;
  }
  .panel {
    flex: 1 1 0;
    min-height: 6em;
    overflow-y: auto;
    padding: 0.6em 1.25em;
  }
  .panel .rule {
    margin: 0.35em 0;
  }
  .panel .rule select {
    max-width: 100%;
    appearance: none;
    field-sizing: content;
    color: var(--tide);
    text-decoration: underline;
    text-underline-offset: 0.2em;
    text-decoration-thickness: 1px;
  }
  .panel :is(ul, ol) {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  .panel li {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0.1em 1em;
    padding: 0.5em 0;
    border-bottom: 1px solid var(--rule);
  }
  .panel li .from {
    grid-row: 2;
  }
  .panel li > :is(button, .both) {
    grid-column: 2;
    grid-row: 1 / 3;
    font: 0.85em var(--plain);
  }
  .panel input,
  .label input {
    padding: 0.2em 0.5em;
    font: inherit;
    color: inherit;
    background: var(--card);
    border: 1px solid var(--rule);
    border-radius: 4px;
  }
  .panel input:not([type="checkbox"]),
  .label input {
    box-sizing: border-box;
    min-block-size: 24px;
  }
  .label {
    padding: 0.7em 0;
  }
  .label input {
    width: 100%;
  }
  .panel dl {
    margin: 0.4em 0;
  }
  .panel dl div {
    display: grid;
    grid-template-columns: 7em 1fr;
    gap: 1em;
    padding: 0.2em 0;
  }
  .panel dd {
    margin: 0;
  }
  kbd {
    font: 0.9em var(--plain);
    color: var(--tide);
    white-space: nowrap;
  }
  .panel.parts fieldset {
    min-width: 0;
    margin: 0 0 1em;
    padding: 0;
    border: 0;
  }
  .panel.parts > .acts {
    position: sticky;
    top: -0.6em;
    z-index: 2;
    margin: -0.6em calc(-1.25em / 0.85) 0.4em;
    padding: 0.8em calc(1.25em / 0.85);
    background: var(--paper);
    border-bottom: 1px solid var(--rule);
  }
  .panel.parts legend {
    padding: 0;
    font-weight: 600;
  }
  .panel.parts :is(label, .every) {
    display: block;
    position: relative;
    padding-inline-start: 1.8em;
    cursor: pointer;
  }
  .panel.parts label input {
    position: absolute;
    inset-inline-start: 0;
    width: 1.1em;
    height: 1.1em;
    margin: 0.2em 0 0;
    accent-color: var(--tide);
  }
  .panel.parts .every {
    padding-inline-start: calc(1.8em / 0.85);
    padding-block: 0.5em;
    font: 0.85em var(--plain);
    color: var(--faint);
  }
  .panel.parts ul li {
    display: block;
    content-visibility: auto;
    contain-intrinsic-size: auto 3.4em;
  }
  .panel.parts ol li > button {
    grid-row: auto;
  }
  .panel.parts select {
    appearance: none;
    field-sizing: content;
    color: var(--tide);
    text-decoration: underline;
    text-underline-offset: 0.2em;
  }
  .panel.fill li {
    grid-template-columns: 8em 1fr;
    align-items: baseline;
    padding: 0.25em 0;
  }
  .panel.fill li .from {
    grid-row: auto;
  }
  .panel.fill .why {
    grid-column: 2;
  }
  .panel.fill .why {
    color: var(--alarm);
  }
  .panel button.fill {
    margin-inline-end: 1.2em;
    color: var(--tide);
  }
  .found {
    margin: 0;
    padding: 0.6em 1.25em 0.3em;
  }
  .sides,
  .side {
    display: flex;
    flex-direction: column;
    min-width: 0;
  }
  .sides {
    flex: 1 0 auto;
  }
  .side {
    flex: 1 1 13em;
    min-height: 0;
  }
  /* Where there is room, the block stands beside the run. */
  @container drawer (min-width: 46rem) {
    .sides {
      flex: 1 1 18em;
      flex-direction: row;
    }
    .side {
      flex: 1 1 0;
    }
    .sides .composer {
      display: flex;
      flex: 1 1 0;
      flex-direction: column;
      border-top: 0;
      border-inline-start: 1px solid var(--rule);
    }
    .sides .preview {
      flex: 1 1 0;
      max-height: none;
    }
  }
  .notice {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    gap: 1em;
    margin: 0;
    min-height: 2.6em;
    padding: 0.6em 1.25em;
    font: 0.85em/1.4 var(--plain);
    color: var(--faint);
  }
  .notice .both {
    flex: none;
  }
  .notice.refused {
    color: var(--alarm);
  }
  .list {
    flex: 1 1 0;
    min-height: 6em;
    margin: 0;
    padding: 0;
    overflow-y: auto;
    list-style: none;
  }
  .list li {
    position: relative;
    height: 5.6em;
    overflow: hidden;
    display: grid;
    grid-template-columns: 2.6em 1fr;
    padding-inline-end: 1.25em;
    border-bottom: 1px solid var(--rule);
  }
  .list li:is(:hover, :focus-within, .current) {
    background: var(--wash);
  }
  .position {
    align-self: start;
    padding: 0.55em 0;
    text-align: center;
    font-size: 1.15em;
    font-variant-numeric: oldstyle-nums;
    color: var(--tide);
  }
  .position b {
    display: inline-block;
    min-width: 1.5em;
    line-height: 1.5;
    border-radius: 1em;
    color: var(--card);
    background: var(--tide);
    font-weight: 600;
    font-variant-numeric: lining-nums;
  }
  .list li.picked {
    background: var(--wash);
  }
  .snippet {
    align-self: start;
    padding: 0.7em 0;
    text-align: start;
    min-width: 0;
  }
  .says {
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    overflow: hidden;
    overflow-wrap: anywhere;
  }
  .says img {
    display: block;
    max-width: 100%;
    height: 2.7em;
    object-fit: contain;
    object-position: left;
  }
  /* A table in the run: its first rows, small. */
  .grid {
    display: table;
    border-collapse: collapse;
    font: 0.82em/1.35 var(--plain);
  }
  .grid .line {
    display: table-row;
  }
  .grid .cell {
    display: table-cell;
    max-width: 9em;
    padding: 0 0.5em;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    border: 1px solid var(--rule);
  }
  .grid .head {
    font-weight: 600;
    background: var(--wash);
  }
  .from {
    display: block;
    margin-top: 0.2em;
    font: 0.8em var(--plain);
    color: var(--faint);
  }
  .actions {
    position: absolute;
    inset-inline: 3em 1.4em;
    bottom: 0;
    display: none;
    gap: 0.85em;
    padding: 0.2em 0 0.6em;
    overflow-x: auto;
    scrollbar-width: none;
    white-space: nowrap;
    background: var(--wash);
    font: 0.8em var(--plain);
    color: var(--faint);
  }
  .list li:is(:hover, :focus-within, .current) .actions {
    display: flex;
  }
  .list:hover li.current:not(:hover, :focus-within) .actions {
    display: none;
  }
  .actions button:disabled,
  .acts :disabled,
  .dealing :disabled {
    cursor: default;
    opacity: 0.5;
  }
  .note {
    font: 0.9em var(--plain);
    color: var(--faint);
  }
  .from {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .none {
    flex: 1 1 0;
    overflow-y: auto;
    padding: 1em 1.25em;
    color: var(--faint);
  }
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
  @media (forced-colors: active) {
    .list li.picked {
      outline: 1px solid Highlight;
      outline-offset: -2px;
    }
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
  .go:disabled {
    cursor: default;
    opacity: 0.45;
  }
`;
