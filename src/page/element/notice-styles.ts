import { css } from "lit";

/** The looks of what was reported last. */
export const noticeStyles = css`
  .notice {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    gap: 1em;
    margin: 0;
    min-height: 2.2em;
    padding: 0.3em var(--edge);
    border-top: 1px solid var(--rule);
    font: 0.85em/1.4 var(--plain);
    color: var(--faint);
  }
  /* Two lines at most, so that the list stays where it is; all of them while one is there. */
  .notice > span:first-child {
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    overflow: hidden;
  }
  .notice:is(:hover, :focus-within) > span:first-child {
    -webkit-line-clamp: none;
  }
  .notice .both {
    flex: none;
  }
  .notice.refused {
    color: var(--alarm);
  }
`;
