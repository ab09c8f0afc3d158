/** Signs that RTF has words for, and those that it reads as its own. */
const WORDS: Readonly<Record<string, string>> = {
  ...{ "\\": "\\\\", "{": "\\{", "}": "\\}", "\t": "\\tab ", "\n": "\\line " },
  // LibreOffice makes other signs of several spaces.
  " ": "\\u32\\'20",
  ...{ "\u00a0": "\\~", "\u00ad": "\\-", "\u2011": "\\_" },
};

/** Text as it stands in a file (RTF 1.9.1, Special Characters; Unicode RTF): in ASCII alone, other signs by their numbers. */
export function escapeText(text: string): string {
  return text.replace(/[\\{}\u0000-\u001f]|(?<=^| ) |[^\u0000-\u007e]/g, (sign) => {
    const word = WORDS[sign];
    if (word !== undefined) return word;
    const code = sign.charCodeAt(0);
    if (code < 32) return "";
    // The number is signed and of 16 bits; what follows is for programs that do not know Unicode.
    return `\\u${code > 32_767 ? code - 65_536 : code}?`;
  });
}

/** A byte as it stands in the text of a list's number. */
export function escapeByte(byte: number): string {
  return `\\'${byte.toString(16).padStart(2, "0")}`;
}
