/**
 * Takes off what clipboards wrap around the HTML that was copied: the header lines of the Windows clipboard, NULs at
 * the end, and puts a table around rows and cells that come without one (a parser would drop them).
 */
export function stripClipboardWrapper(html: string): string {
  let bare = html.replace(/\u0000/g, "").replace(/^\uFEFF/, "");
  if (/^Version:\d/.test(bare)) {
    const first = bare.indexOf("<");
    bare = first < 0 ? "" : bare.slice(first);
  }
  return startsWithRow(bare) ? `<table>${bare}</table>` : bare;
}

/** What may stand before the first element that shows anything, one piece at a time. */
const BEFORE = /\s+|<!--|<!doctype[^>]*>|<\/?(?:html|head|body|meta|link)\b[^>]*>/iy;
const ROW = /<(?:tr|td|th|tbody|thead|tfoot)\b/iy;

function startsWithRow(html: string): boolean {
  let at = 0;
  for (;;) {
    ROW.lastIndex = at;
    if (ROW.test(html)) return true;
    BEFORE.lastIndex = at;
    if (!BEFORE.test(html)) return false;
    at = BEFORE.lastIndex;
    if (html.startsWith("<!--", at - 4)) {
      const end = html.indexOf("-->", at - 2);
      if (end < 0) return false;
      at = end + 3;
    }
  }
}
