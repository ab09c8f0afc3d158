import { css } from "lit";

/** The looks of the list and of a row in it. */
export const listStyles = css`
  .found {
    margin: 0;
    padding: 0.4em var(--edge);
  }
  .list {
    position: relative;
    flex: 1 1 0;
    min-height: 6em;
    margin: 0;
    padding: 0;
    overflow-y: auto;
    /* What one looks at is held in its place by the list itself. */
    overflow-anchor: none;
  }
  .list .row {
    position: relative;
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    padding-inline-end: var(--edge);
    border-bottom: 1px solid color-mix(in srgb, var(--rule) 55%, transparent);
  }
  .list .row:is(:hover, :focus-within, .current, .picked) {
    background: var(--wash);
  }
  /* What has just come has a bar before it for a moment. */
  .list .row.new::before {
    content: "";
    position: absolute;
    inset-block: 0;
    inset-inline-start: 0;
    width: 0.3em;
    background: var(--tide);
    animation: fade 2.4s ease-in forwards;
  }
  @keyframes fade {
    to {
      opacity: 0;
    }
  }
  .of {
    display: contents;
  }
  .day {
    grid-column: 1 / -1;
    margin-inline-end: calc(-1 * var(--edge));
    padding: 0.5em var(--edge) 0.25em;
    background: var(--paper);
    font: 600 0.78em/1.2 var(--plain);
    letter-spacing: 0.02em;
    color: var(--faint);
  }
  .position {
    display: flex;
    align-self: start;
    align-items: center;
    gap: 0.45em;
    padding-block: 0.3em;
    padding-inline: var(--edge) 0.5em;
    font: 0.85em/1.45 var(--plain);
    font-variant-numeric: tabular-nums;
    color: var(--faint);
    min-width: calc(var(--edge) + 2.4em + var(--digits, 2) * 1ch);
  }
  .box {
    flex: none;
    width: 1.5em;
    height: 1.5em;
    border: 1px solid var(--faint);
    border-radius: 3px;
    line-height: 1.4;
    text-align: center;
    font-weight: 600;
    opacity: 0.55;
  }
  .picked .box {
    border-color: var(--tide);
    color: var(--card);
    background: var(--tide);
    opacity: 1;
  }
  .position:hover .box {
    border-color: var(--tide);
    opacity: 1;
  }
  .snippet {
    display: grid;
    grid-template-columns: 1.5em minmax(0, 1fr) minmax(0, auto) auto;
    align-items: baseline;
    column-gap: 0.5em;
    padding: 0.28em 0;
    text-align: start;
    min-width: 0;
  }
  .snippet:has(.says img) {
    align-items: start;
  }
  .kind {
    align-self: start;
    margin-top: 0.2em;
    width: 1em;
    height: 1em;
    fill: none;
    stroke: var(--tide);
    stroke-width: 1.2;
    opacity: 0.75;
  }
  .says {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  /* Where there are few, or one is private and shown, there is room for more. */
  .roomy .says,
  .says.whole {
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    white-space: normal;
    overflow-wrap: anywhere;
  }
  .snippet .from {
    margin: 0;
    max-width: 16em;
  }
  .standing {
    color: var(--tide);
  }
  .when {
    font: 0.8em var(--plain);
    font-variant-numeric: tabular-nums;
    color: var(--faint);
    white-space: nowrap;
  }
  .says img {
    display: block;
    max-width: 100%;
    height: 2.6em;
    object-fit: contain;
    object-position: left;
  }
  /* A table in the list: its first rows, small. */
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
  /* What can be done lies over where it came from, so that nothing moves. */
  .actions {
    position: absolute;
    inset-inline-end: 0;
    top: 0;
    display: none;
    align-items: center;
    gap: 0.65em;
    height: 2.3em;
    padding-inline: 1.8em var(--edge);
    white-space: nowrap;
    background: linear-gradient(var(--to-end, 90deg), transparent, var(--wash) 1.4em);
    /* Between its words one clicks the row. */
    pointer-events: none;
    font: 0.82em var(--plain);
    color: var(--faint);
  }
  /* Below the name of the day that stands above a row. */
  .row:has(.day) .actions {
    grid-row-start: 2;
  }
  .actions > * {
    pointer-events: auto;
  }
  .actions:dir(rtl) {
    --to-end: 270deg;
  }
  .list .row:is(:hover, :focus-within, .current) .actions {
    display: flex;
  }
  .list:hover .row.current:not(:hover, :focus-within) .actions {
    display: none;
  }
  .actions select {
    appearance: none;
    field-sizing: content;
    text-decoration: underline;
    text-decoration-color: var(--rule);
    text-underline-offset: 0.2em;
  }
  .often,
  .others {
    display: none;
    gap: 0.65em;
  }
  /* In a strip most of the row stays what one clicks to place it. */
  @container list (min-width: 36rem) {
    .often {
      display: flex;
    }
  }
  @container list (min-width: 48rem) {
    .others {
      display: flex;
    }
    .actions select {
      display: none;
    }
  }
  .actions button:disabled {
    cursor: default;
    opacity: 0.5;
  }
  .label {
    padding: 0.2em 0;
  }
  .label input {
    width: 100%;
  }
  /* Where a row that is dragged would go. */
  .list .row[data-drop]::after {
    content: "";
    position: absolute;
    inset-inline: 0;
    height: 3px;
    background: var(--tide);
  }
  .list .row[data-drop="before"]::after {
    top: -1px;
  }
  .list .row[data-drop="after"]::after {
    bottom: -2px;
  }
  /* Where it will go, what hangs over the drawer. */
  .receiving {
    margin: 0;
    padding: 0.5em var(--edge);
    border: 2px dashed var(--tide);
    border-radius: 4px;
    font: 0.9em var(--plain);
    color: var(--tide);
    background: var(--wash);
  }
  .unseen {
    align-self: center;
    margin: -2.6em 0 0.6em;
    padding: 0.2em 0.9em;
    z-index: 1;
    border-radius: 1em;
    font: 600 0.85em var(--plain);
    color: var(--card);
    background: var(--tide);
    box-shadow: 0 1px 4px rgb(0 0 0 / 25%);
  }
  .none {
    flex: 1 1 0;
    overflow-y: auto;
    padding: 1em var(--edge);
    color: var(--faint);
  }
  /* In a strip, where it came from stands below what it says. */
  @container list (max-width: 36rem) {
    .snippet {
      grid-template-columns: 1.5em minmax(0, 1fr) auto;
      padding-block: 0.18em 0.22em;
    }
    .snippet .from,
    .snippet .when {
      grid-row: 2;
      line-height: 1.3;
    }
    .snippet .from {
      grid-column: 2;
      max-width: none;
    }
    .snippet .when {
      grid-column: 3;
    }
    .kind,
    .says {
      grid-row: 1;
    }
    .says {
      grid-column: 2 / -1;
    }
    /* Where nothing is known of that, the time has room beside it. */
    .snippet:has(.from:empty) .says {
      grid-column: 2;
    }
    .snippet:has(.from:empty) .when {
      grid-row: 1;
    }
    .actions {
      top: auto;
      bottom: 0;
      height: 24px;
      background: linear-gradient(transparent 3px, var(--wash) 3px);
    }
  }
  /* For a finger all that can be done stands in one choice, and most of the row stays what one touches to place it. */
  @media (pointer: coarse) {
    .snippet {
      align-content: center;
      min-height: 48px;
    }
    .position {
      min-height: 48px;
    }
    .unseen {
      margin-block: -52px 8px;
    }
    .actions {
      top: auto;
      bottom: 0;
      background: linear-gradient(90deg, transparent, var(--wash) 1.6em);
      padding-inline-start: 2em;
    }
    /* Of a time that it lies over nothing is left to be seen beside it. */
    .list .row:is(:hover, :focus-within, .current) .when {
      visibility: hidden;
    }
    .list:hover .row.current:not(:hover, :focus-within) .when {
      visibility: visible;
    }
    .actions :is(button, .often, .others) {
      display: none;
    }
    /* What one touches reaches up beside the words, which are all to be read. */
    .actions select {
      display: block;
      align-self: end;
      min-width: 44px;
      min-height: 44px;
      padding-block-start: 22px;
    }
  }
  /* Beside a field, a row is its number and what it says. */
  :host([compact]) :is(.day, .snippet .from, .snippet .when) {
    display: none;
  }
  @media (prefers-reduced-motion: reduce) {
    .list .row.new::before {
      animation: none;
    }
  }
  @media (forced-colors: active) {
    .list .row.picked {
      outline: 1px solid Highlight;
      outline-offset: -2px;
    }
    .picked .box {
      forced-color-adjust: none;
      color: HighlightText;
      background: Highlight;
    }
    .kind {
      stroke: CanvasText;
    }
  }
  .label input {
    padding: 0.2em 0.5em;
    min-block-size: 24px;
  }
`;
