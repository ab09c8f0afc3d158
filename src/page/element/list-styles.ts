import { css } from "lit";

/** The looks of the run and of a row in it. */
export const listStyles = css`
  .found {
    margin: 0;
    padding: 0.6em 1.25em 0.3em;
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
  /* Too many for the row are scrolled, not laid over each other. */
  .actions button {
    flex: none;
  }
  .actions button:disabled {
    cursor: default;
    opacity: 0.5;
  }
  .label {
    padding: 0.7em 0;
  }
  .label input {
    width: 100%;
  }
  .none {
    flex: 1 1 0;
    overflow-y: auto;
    padding: 1em 1.25em;
    color: var(--faint);
  }
  @media (forced-colors: active) {
    .list li.picked {
      outline: 1px solid Highlight;
      outline-offset: -2px;
    }
  }
`;
