import { css } from "lit";

/** The looks of its one line at the top: the drawer, whether it collects, the field to find in, and what opens the rest. */
export const headerStyles = css`
  .top {
    position: relative;
    display: flex;
    align-items: center;
    gap: 0.5em 0.9em;
    padding: 0.35em var(--edge);
    border-bottom: 1px solid var(--rule);
    background: var(--card);
  }
  h2 {
    display: flex;
    align-items: baseline;
    gap: 0.5em;
    min-width: 0;
    margin: 0;
    font-size: 1.05em;
    font-weight: 600;
  }
  .drawers {
    min-width: 2.5em;
    overflow: hidden;
    text-overflow: ellipsis;
    font: 600 0.9em var(--plain);
    color: var(--tide);
  }
  .state {
    flex: none;
    display: flex;
    align-items: center;
    gap: 0.4em;
    padding-inline: 0.6em;
    border: 1px solid var(--rule);
    border-radius: 1em;
    font: 0.85em var(--plain);
  }
  .state select {
    appearance: none;
    field-sizing: content;
  }
  /* A light that is on while what is copied comes in, half on where it goes onto the latest. */
  .state::before {
    content: "";
    width: 0.6em;
    height: 0.6em;
    border: 1px solid var(--tide);
    border-radius: 50%;
    background: var(--tide);
  }
  .state.latest::before {
    background: linear-gradient(90deg, var(--tide) 50%, transparent 50%);
  }
  .state.off {
    color: var(--alarm);
  }
  .state.off::before {
    border-color: var(--alarm);
    background: none;
  }
  .ways {
    flex: 1 1 6em;
    display: flex;
    align-items: center;
    gap: 0.9em;
    min-width: 6em;
    font: 0.9em var(--plain);
  }
  .ways input {
    flex: 1 1 3em;
    min-width: 3em;
    max-width: 22em;
    margin-inline-start: auto;
    padding: 0.25em 0.6em;
  }
  .ways input::placeholder {
    color: var(--faint);
    opacity: 1;
  }
  .ways .more {
    flex: none;
    color: var(--tide);
  }
  .menu {
    position: absolute;
    inset-block-start: 100%;
    inset-inline-end: 0.5em;
    z-index: 3;
    display: flex;
    flex-direction: column;
    padding: 0.4em 0;
    border: 1px solid var(--rule);
    border-radius: 4px;
    background: var(--card);
    box-shadow: 0 4px 14px rgb(0 0 0 / 18%);
    font: 0.9em var(--plain);
  }
  .menu button {
    padding: 0.3em 1.2em;
    text-align: start;
  }
  .menu button:is(:hover, :focus-visible) {
    background: var(--wash);
  }
  .kept {
    margin: 0;
    padding: 0.3em var(--edge);
    font: 0.85em var(--plain);
    color: var(--alarm);
  }
  @container drawer (max-width: 30rem) {
    h2 slot[name="title"] {
      display: none;
    }
    .top {
      gap: 0.6em;
    }
    .state {
      padding-inline: 0.45em;
    }
  }
  :host([compact]) :is(h2 slot[name="title"], .ways input) {
    display: none;
  }
`;
