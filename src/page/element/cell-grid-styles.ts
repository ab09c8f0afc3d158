import { css } from "lit";

/** The looks of a grid of cells. */
export const cellGridStyles = css`
  :host {
    display: block;
    /* As high as what it stands in allows, with room for what stands around it. */
    max-height: max(19em, 100cqb - 15em);
    overflow: auto;
    border: 1px solid var(--rule);
    font: 0.85em var(--plain);
    user-select: none;
  }
  table {
    border-collapse: separate;
    border-spacing: 0;
  }
  th,
  td {
    height: 1.9em;
    box-sizing: border-box;
    max-width: 12em;
    padding: 0 0.5em;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    text-align: start;
    border: solid var(--rule);
    border-width: 0 1px 1px 0;
  }
  th,
  .corner {
    position: sticky;
    color: var(--faint);
    background: var(--drawer-paper-shown, var(--wash));
    font-weight: 400;
    text-align: center;
  }
  thead :is(th, td) {
    top: 0;
    z-index: 1;
  }
  tbody th {
    left: 0;
  }
  .room td {
    padding: 0;
    border: 0;
  }
  td[aria-selected="true"] {
    background: var(--mark);
  }
  td.marked {
    box-shadow: inset 0 0 0 1px var(--tide);
  }
  td:focus-visible {
    outline: 2px solid var(--tide);
    outline-offset: -2px;
  }
  @media (forced-colors: active) {
    td[aria-selected="true"] {
      outline: 1px solid Highlight;
      outline-offset: -2px;
    }
  }
`;
