import { css } from "lit";

/** The looks of the element as a whole, and of what stands in several of its parts. Every colour and size is a custom property, so
 * that a page can make them its own; by night or day it is as the page is, by the page's own `color-scheme`. */
export const baseStyles = css`
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
    --edge: 1rem;
    container: drawer wide / inline-size;
    display: flex;
    flex-direction: column;
    min-height: 0;
    /* Where there is too little room for all, as with large type, it is scrolled as a whole. */
    overflow-y: auto;
    color: var(--ink);
    background: var(--paper);
    font: var(--size) / 1.45 var(--text);
    /* What one selects is what was collected, not the words of buttons. */
    user-select: none;
  }
  :is(input, textarea, .preview, .panel.whole, .notice, .note) {
    user-select: text;
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
  @media (pointer: coarse) {
    button,
    select,
    input,
    summary {
      min-height: 44px;
    }
    /* A word that is a choice stands in a line of text. */
    .word select {
      min-height: 32px;
    }
  }
  :focus-visible {
    outline: 2px solid var(--tide);
    outline-offset: 2px;
    border-radius: 3px;
  }
  .heard {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
    white-space: nowrap;
  }
  .both {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2em 1.1em;
  }
  .drawers,
  .acts select {
    appearance: none;
    field-sizing: content;
    max-width: 12em;
    text-decoration: underline;
    text-decoration-color: var(--rule);
    text-underline-offset: 0.2em;
  }
  select option {
    color: var(--ink);
    background: var(--card);
  }
  .kept button,
  .panel button,
  .notice button,
  .acts button,
  .dealing button,
  .actions button {
    text-decoration: underline;
    text-decoration-color: var(--rule);
    text-underline-offset: 0.2em;
  }
  .kept button:hover,
  .panel button:hover,
  .notice button:hover,
  .acts button:hover,
  .dealing button:hover,
  .actions button:hover {
    text-decoration-color: currentColor;
  }
  /* The fields that one writes in. */
  .ways input,
  .panel input,
  .label input {
    font: inherit;
    color: inherit;
    background: var(--card);
    border: 1px solid var(--rule);
    border-radius: 4px;
  }
  mark {
    color: inherit;
    background: var(--mark);
    border-radius: 2px;
  }
  .note {
    font: 0.9em var(--plain);
    color: var(--faint);
  }
  .from {
    display: block;
    margin-top: 0.2em;
    font: 0.8em var(--plain);
    color: var(--faint);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .sides {
    position: relative;
    flex: 1 0 auto;
    display: grid;
    grid-template: "list" minmax(0, 1fr) "notice" auto "down" auto / minmax(0, 1fr);
    min-width: 0;
  }
  .side {
    grid-area: list;
    container: list / inline-size;
    display: flex;
    flex-direction: column;
    min-width: 0;
    min-height: 9em;
  }
  .notice {
    grid-area: notice;
  }
  .composer {
    grid-area: down;
    /* The two lines that it has in a strip, also while what draws it is being loaded. */
    min-height: 4.7em;
    border-top: 1px solid var(--rule);
    background: var(--card);
  }
  /* What is behind “more” stands over the list in a strip. */
  .aside {
    grid-area: list;
    display: flex;
    flex-direction: column;
    min-height: 0;
    z-index: 2;
    background: var(--paper);
  }
  @container drawer (max-width: 46rem) {
    .aside ~ .side {
      visibility: hidden;
    }
  }
  /* A strip at any width, and a small one for the side of a field. */
  :host(:is([panel], [compact])) {
    container-name: drawer;
  }
  :host(:is([panel], [compact])) .aside ~ .side {
    visibility: hidden;
  }
  :host([compact]) {
    --edge: 0.6rem;
    --size: var(--drawer-size, 14px);
    block-size: 24em;
    border: 1px solid var(--rule);
    border-radius: 4px;
  }
  .divider {
    display: none;
  }
  /* Where there is room, it and the block stand beside the list. */
  @container wide (min-width: 46rem) {
    .sides {
      flex: 1 1 18em;
      grid-template: "list down" minmax(0, 1fr) "notice down" auto / minmax(0, 1fr) minmax(
          18rem,
          var(--beside, 38%)
        );
    }
    /* The parts of a file are many, and its cells wide. */
    .sides:has(.panel.parts) {
      grid-template-columns: minmax(0, 1fr) minmax(18rem, max(62%, var(--beside, 38%)));
    }
    .aside,
    .composer {
      grid-area: down;
      border-inline-start: 1px solid var(--rule);
    }
    .aside ~ .composer {
      visibility: hidden;
    }
    .divider {
      display: block;
      grid-area: down;
      justify-self: start;
      z-index: 3;
      width: 9px;
      margin-inline-start: -5px;
      cursor: col-resize;
      touch-action: none;
    }
    .divider:is(:hover, :active) {
      background: linear-gradient(90deg, transparent 3px, var(--tide) 3px, var(--tide) 6px, transparent 6px);
    }
    .sides .composer {
      display: flex;
      flex-direction: column;
      min-height: 0;
      border-top: 0;
    }
  }
`;
