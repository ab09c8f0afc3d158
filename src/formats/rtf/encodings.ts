/** Encodings by the numbers of Windows' code pages, where their names do not follow from the number. */
const PAGES: Readonly<Record<number, string>> = {
  437: "ibm866",
  850: "windows-1252",
  866: "ibm866",
  874: "windows-874",
  932: "shift_jis",
  936: "gbk",
  949: "euc-kr",
  950: "big5",
  10000: "macintosh",
  65001: "utf-8",
};

/** Encodings by the character sets of fonts (RTF 1.9.1, `\fcharset`). */
const CHARSETS: Readonly<Record<number, string>> = {
  0: "windows-1252",
  77: "macintosh",
  128: "shift_jis",
  129: "euc-kr",
  134: "gbk",
  136: "big5",
  161: "windows-1253",
  162: "windows-1254",
  163: "windows-1258",
  177: "windows-1255",
  178: "windows-1256",
  186: "windows-1257",
  204: "windows-1251",
  222: "windows-874",
  238: "windows-1250",
};

/** The encoding of a code page; that of most files for one that is not known. */
export function encodingOfPage(page: number): string {
  return PAGES[page] ?? (page >= 1250 && page <= 1258 ? `windows-${page}` : "windows-1252");
}

/** The encoding of a font's character set; nothing for those that say nothing of it. */
export function encodingOfCharset(charset: number): string | undefined {
  return CHARSETS[charset];
}
