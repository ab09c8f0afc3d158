import { lettersOf } from "../../content/byte-letters.js";
import { decodeAs } from "../../content/decode.js";
import { encodingOfPage } from "./encodings.js";
import { tokensOf } from "./tokens.js";

/** Words that stand for signs where HTML stands in a file ([MS-OXRTFEX] 2.1.3.1). */
const SIGNS: Readonly<Record<string, string>> = {
  ...{ par: "\r\n", line: "\r\n", tab: "\t", lquote: "&lsquo;", rquote: "&rsquo;", ldblquote: "&ldquo;" },
  ...{
    rdblquote: "&rdquo;",
    bullet: "&bull;",
    endash: "&ndash;",
    emdash: "&mdash;",
    "~": "&nbsp;",
    _: "&shy;",
  },
  ...{ "{": "{", "}": "}", "\\": "\\" },
};
/** Groups that say nothing of the HTML. */
const HEAD = new Set([
  "fonttbl",
  "colortbl",
  "stylesheet",
  "info",
  "pntext",
  "listtable",
  "listoverridetable",
]);

/**
 * The HTML that a mail program has put into Rich Text Format ([MS-OXRTFEX]); nothing when the file was not made of HTML.
 * @param bytes the whole of the Rich Text Format
 */
export function htmlInRtf(bytes: Uint8Array): string | undefined {
  const head = lettersOf(bytes.subarray(0, 1000));
  if (!/\\fromhtml1?\b/.test(head)) return undefined;
  let page = 1252;
  let html = "";
  let pending: number[] = [];
  /** Whether text is none of the HTML, and how many characters stand for one of Unicode; a group has both back when it ends. */
  let state = { isLeft: false, isTag: false, skips: 1 };
  const groups: (typeof state)[] = [];
  let skipped = 0;
  let isAfterStar = false;
  const flush = () => {
    html += decodeAs(encodingOfPage(page), Uint8Array.from(pending));
    pending = [];
  };
  for (const token of tokensOf(bytes)) {
    if (token.type === "byte") {
      if (skipped > 0) skipped--;
      else if (!state.isLeft) pending.push(token.byte);
      continue;
    }
    flush();
    if (token.type === "open") {
      groups.push(state);
      state = { ...state };
    } else if (token.type === "close") {
      state = groups.pop() ?? state;
      skipped = 0;
    } else if (token.type === "word") {
      const { name, number } = token;
      if (name === "ansicpg") page = number ?? page;
      else if (name === "uc") state.skips = number ?? 1;
      // What stands between these says again in RTF what the HTML says.
      else if (name === "htmlrtf") state.isLeft = number !== 0;
      else if (name === "htmltag" && isAfterStar) state = { ...state, isLeft: false, isTag: true };
      else if (HEAD.has(name) || (isAfterStar && name !== "*")) state.isLeft = true;
      else if (name === "u" && number !== undefined) {
        if (!state.isLeft) html += String.fromCharCode(number & 0xffff);
        skipped = state.skips;
      } else if (!state.isLeft) html += SIGNS[name] ?? "";
    }
    isAfterStar = token.type === "word" && token.name === "*";
  }
  flush();
  return html;
}
