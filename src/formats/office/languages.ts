import { getLocale, listLocales } from "numfmt";

/** The languages that number formats name: by a Windows number in hexadecimal (`407`), or by a tag (`de-DE`, BCP 47). */

/** The tag of a language that a format names in either way; nothing for one that is not known. */
export function languageTag(given: string): string | undefined {
  if (/^[a-z]{2,3}(-|$)/.test(given)) return given;
  const data = getLocale(given);
  return data ? listLocales().find((known) => getLocale(known) === data) : undefined;
}

/** The number by which formats name a language (MS-LCID); nothing for one that is not known. */
export function languageNumber(tag: string): string | undefined {
  if (!numbers.has(tag)) numbers.set(tag, findNumber(tag));
  return numbers.get(tag);
}

const numbers = new Map<string, string | undefined>();

/** A number is made of that of a language, and that of a place where it is spoken. */
const LANGUAGES = 0x80;
const PLACES = 0x14;

function findNumber(tag: string): string | undefined {
  const data = getLocale(tag) ?? getLocale(tag.split("-")[0]!);
  if (!data) return undefined;
  for (let place = 1; place < PLACES; place++)
    for (let language = 1; language < LANGUAGES; language++) {
      const number = (place << 10) | language;
      if (getLocale(number) === data) return number.toString(16).toUpperCase();
    }
  return undefined;
}
