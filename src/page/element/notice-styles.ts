import { css } from "lit";

/** The looks of what was reported last. */
export const noticeStyles = css`
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
`;
