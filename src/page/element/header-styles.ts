import { css } from "lit";

/** The looks of its name, of whether it collects, and of the ways into it. */
export const headerStyles = css`
  .top {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0.75em;
    padding: 0.7em 1.25em 0.4em;
    border-bottom: 1px solid var(--rule);
  }
  h2 {
    display: flex;
    align-items: baseline;
    gap: 0.6em;
    margin: 0;
    font-size: 1.15em;
    font-weight: 600;
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
  }
  .ways input::placeholder {
    color: var(--faint);
    opacity: 1;
  }
  .ways button[aria-expanded="true"] {
    color: var(--tide);
  }
`;
