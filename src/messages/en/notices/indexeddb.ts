/** What is told of what a browser keeps. */
export const indexeddbNotices = {
  /** The browser's own files may hold a trace. */
  "trace/browser": () =>
    "No page can read it any more; the browser's own files may hold traces of it until the browser puts them in order, or the site's data are cleared.",
};
