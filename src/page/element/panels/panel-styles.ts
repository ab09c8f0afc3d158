import { css } from "lit";

/** The looks of what stands beside the list, or over it. */
export const panelStyles = css`
  .panel {
    flex: 1 1 0;
    min-height: 6em;
    overflow-y: auto;
    padding: 0.6em var(--edge);
  }
  .back {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 1em;
    margin: 0;
    padding: 0.2em var(--edge);
    border-bottom: 1px solid var(--rule);
    font: 0.85em var(--plain);
  }
  .back button::before {
    content: "‹ " / "";
    color: var(--tide);
  }
  .panel.whole .preview {
    max-height: none;
    margin: 0;
    padding: 0.4em 0.9em;
    border: 1px solid var(--rule);
  }
  .panel.whole .edited {
    border-color: var(--tide);
    background: var(--card);
    min-height: 4em;
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
  .panel input {
    padding: 0.2em 0.5em;
  }
  .panel input:not([type="checkbox"]) {
    box-sizing: border-box;
    min-block-size: 24px;
  }
  .panel.computer h3 {
    margin: 1.2em 0 0;
    font: 600 0.9em var(--plain);
  }
  .panel.computer form {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0.5em 0.8em;
    margin-block: 0.8em;
  }
  .panel.computer [name="hub"] {
    width: 16em;
    max-width: 100%;
  }
  .panel.computer [name="invitation"] {
    width: 22em;
    max-width: 100%;
  }
  .panel.computer .invited {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: 0.3em 1em;
    align-items: start;
    margin-block: 0.8em;
  }
  .panel.computer .invited img {
    grid-row: 1 / 3;
    width: 11em;
    background: #fff;
  }
  .panel.computer .invited p {
    margin: 0;
  }
  .panel.computer .words {
    overflow-wrap: anywhere;
    user-select: text;
  }
  @container drawer (max-width: 30rem) {
    .panel.computer .invited {
      display: block;
    }
  }
  .panel.computer [name="key"] {
    width: 9em;
  }
  .panel.computer .which {
    display: none;
  }
  .panel.computer form:has([value="place"]:checked) .which {
    display: block;
  }
  .panel.computer label {
    max-width: 100%;
  }
  .panel.computer select {
    appearance: none;
    field-sizing: content;
    max-width: 100%;
    text-overflow: ellipsis;
    color: var(--tide);
    text-decoration: underline;
    text-underline-offset: 0.2em;
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
  .panel.parts {
    container-type: size;
  }
  .panel.parts > .head {
    position: sticky;
    /* The panel's own padding: nothing shows through above it. */
    top: -0.6em;
    z-index: 2;
    margin: -0.6em calc(-1 * var(--edge)) 0.4em;
    padding: 0.4em var(--edge);
    background: var(--paper);
    border-bottom: 1px solid var(--rule);
  }
  .panel.parts .head .acts {
    margin: 0;
    padding: 0;
  }
  .panel.parts .changes {
    display: flex;
    align-items: baseline;
    flex-wrap: wrap;
    gap: 0.3em 1.2em;
    margin-block: 0.4em 0;
  }
  .panel.parts legend {
    padding: 0;
    font-weight: 600;
  }
  .panel.parts label {
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
    padding: 0.3em 0;
    content-visibility: auto;
    contain-intrinsic-size: auto 2.2em;
  }
  .panel.parts ul label {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    gap: 1em;
  }
  .panel.parts ul .page {
    padding-block: 0.9em 0.2em;
    font: 0.85em var(--plain);
    color: var(--faint);
  }
  .panel.parts ul .from {
    flex: none;
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
    color: var(--alarm);
  }
  .panel button.fill {
    margin-inline-end: 1.2em;
    color: var(--tide);
  }
`;
