/** Letters that a writer without them spells otherwise, and that no decomposition takes apart. */
const SPELLED: Readonly<Record<string, string>> = {
  ß: "ss",
  æ: "ae",
  œ: "oe",
  ø: "o",
  ł: "l",
  đ: "d",
  ð: "d",
  þ: "th",
  ħ: "h",
  ı: "i",
  ς: "σ",
};

/** Text as it is searched and compared: small letters, without accents. */
export function fold(text: string): string {
  if (/^[\x00-\x7f]*$/.test(text)) return text.toLowerCase();
  return text
    .normalize("NFKD")
    .replace(/\p{M}+/gu, "")
    .toLowerCase()
    .replace(/[ßæœøłđðþħıς]/g, (letter) => SPELLED[letter]!);
}

/** A name as it is compared with others: without case, accents and white space. */
export function foldName(name: string): string {
  // Most names are one word of plain letters.
  if (/^[\x21-\x7e]*$/.test(name)) return name.toLowerCase();
  return fold(name).replace(/[\s\u00ad\u200b-\u200f\u2060\ufeff]+/gu, "");
}
