import type { CellValue } from "../../content/model.js";
import { rawNumber } from "../../content/serial.js";

/**
 * The attributes by which LibreOffice writes a number and its format into HTML, and reads them: `sdval="47941,25"` and
 * `sdnum="1031;0;TT.MM.JJJJ"`. The first number of `sdnum` is the language (MS-LCID) that both are written in, the second that of the
 * format, where it is another; letters and signs of the format are those of its language.
 */

const ENGLISH = 1033;

/** What languages call day, month, year and hour in formats, where that is not as in English, by the low ten bits of their numbers. */
const LETTERS: Readonly<Record<number, Readonly<Record<string, string>>>> = {
  0x06: { T: "H" },
  0x07: { T: "D", J: "Y" },
  0x0a: { A: "Y" },
  0x0b: { P: "D", K: "M", V: "Y", T: "H" },
  0x0c: { J: "D", A: "Y" },
  0x10: { G: "D", A: "Y" },
  0x13: { J: "Y", U: "H" },
  0x14: { T: "H" },
  0x16: { A: "Y" },
  0x1d: { T: "H" },
};

/** The number of a cell; nothing where it is none. */
export function readNumber(sdval: string): number | undefined {
  const text = sdval.trim().replace(/[,٫]/, ".");
  return /^[-+]?(\d|\.\d)/.test(text) ? Number(text) : undefined;
}

/** The number format of a cell, as formats are written in English; nothing where `sdnum` has none. */
export function readNumberFormat(sdnum: string, sdval: string): string | undefined {
  const first = sdnum.indexOf(";");
  const second = first < 0 ? -1 : sdnum.indexOf(";", first + 1);
  const format = second < 0 ? "" : sdnum.slice(second + 1);
  if (format === "") return undefined;
  if (format === "BOOLEAN" || format === "LOGISCH") return "BOOLEAN";
  const written = sdnum.slice(0, first);
  const other = sdnum.slice(first + 1, second);
  const language = Number(other) || Number(written);
  if (language === ENGLISH || !Number.isInteger(language)) return format;
  const english = inEnglish(format, LETTERS[language & 0x3ff] ?? {}, hasComma(format, sdval));
  // What is written in another language than the rest has names of months and days in that.
  return Number(other) > 0 && other !== written
    ? `[$-${language.toString(16).toUpperCase()}]${english}`
    : english;
}

/** Whether a comma stands before decimals. */
function hasComma(format: string, sdval: string): boolean {
  return /[,٫]/.test(sdval) || /[0?][,٫][0#?]|#[.\u00a0\u202f]##/.test(format);
}

/** A format without its letters and signs for decimals and groups of three; what stands in quotes or is a name stays. */
function inEnglish(format: string, letters: Readonly<Record<string, string>>, isComma: boolean): string {
  const parts = format.match(/"[^"]*"|\\.|\[[HTU]+\]|\[[^\]]*\]|AM\/PM|A\/P|[^"\\[A]+|[\s\S]/gi) ?? [];
  return parts
    .map((part) => {
      if (/^(?:"|\\|\[(?![HTU]+\])|AM?\/P)/i.test(part)) return part;
      const named = part.replace(/[A-Z]/gi, (letter) => letters[letter.toUpperCase()] ?? letter);
      return named.replace(/(?<=[0#?S])[.,'٫٬\u00a0\u202f](?=[0#?])/gi, (sign) =>
        /[,٫]/.test(sign) === isComma && sign !== "'" && sign !== "٬" && !/\s/.test(sign) ? "." : ",",
      );
    })
    .join("");
}

/**
 * The formats for days that LibreOffice takes out of HTML: those that some language of it has. One that none has it drops, and shows
 * the number of the day (seen in 7.4).
 */
const DAYS: Readonly<Record<string, string>> = {
  ...{ "yyyy-mm-dd": "0;YYYY-MM-DD", "yyyy-mm-dd hh:mm:ss": "0;YYYY-MM-DD HH:MM:SS" },
  ...{ "dd/mm/yyyy": "2057;DD/MM/YYYY", "d/m/yyyy": "2057;DD/MM/YYYY", "dd/mm/yy": "2057;DD/MM/YY" },
  ...{ "dd/mm/yyyy hh:mm": "2057;DD/MM/YYYY HH:MM", "dd/mm/yyyy hh:mm:ss": "2057;DD/MM/YYYY HH:MM:SS" },
  ...{ "d mmm yyyy": "2057;D MMM YYYY", "dd mmm yyyy": "2057;D MMM YYYY" },
  ...{ "d mmmm yyyy": "2057;D MMMM YYYY", "dd mmmm yyyy": "2057;D MMMM YYYY" },
  ...{ "dd.mm.yyyy": "1044;DD.MM.YYYY", "dd.mm.yy": "1031;TT.MM.JJ", "d.m.yyyy": "1035;P.K.VVVV" },
  ...{ "mm/dd/yyyy": "1033;MM/DD/YYYY", "m/d/yyyy": "1033;MM/DD/YYYY", "mm/dd/yy": "1033;MM/DD/YY" },
  ...{ "m/d/yy": "1033;M/D/YY", "mm/dd/yyyy hh:mm:ss": "1033;MM/DD/YYYY HH:MM:SS" },
  ...{ "mmm d, yyyy": "1033;MMM D, YYYY", "mmmm d, yyyy": "1033;MMMM D, YYYY" },
  ...{ "d. mmm. yyyy": "1033;D. MMM. YYYY", "d. mmmm yyyy": "1033;D. MMMM YYYY" },
  ...{ "yyyy/mm/dd": "1041;YYYY/MM/DD", "dd-mm-yyyy": "1030;DD-MM-YYYY", "d-m-yyyy": "1030;DD-MM-YYYY" },
};

/** Those for times, and shares in a hundred. */
const TIMES: Readonly<Record<string, string>> = {
  ...{ "h:mm": "HH:MM", "h:mm:ss": "HH:MM:SS", "[h]:mm": "[HH]:MM:SS", "[hh]:mm": "[HH]:MM:SS" },
  ...{ "[h]:mm:ss": "[HH]:MM:SS", "h:mm am/pm": "HH:MM AM/PM" },
};

/** What `sdval` and `sdnum` say of a value: its number, and the format that comes nearest among those that are taken. */
export function writtenNumber(value: CellValue): { readonly sdval: string; readonly sdnum: string } {
  return { sdval: String(rawNumber(value)), sdnum: `${ENGLISH};${takenFormat(value)}` };
}

function takenFormat(value: CellValue): string {
  if (value.type === "boolean") return "0;BOOLEAN";
  const format = value.format ?? "";
  const plain = format
    .replace(/^\[\$-[^\]]*\]/, "")
    .replace(/\\(.)/g, "$1")
    .toLowerCase();
  if (value.type === "date")
    return DAYS[plain] ?? DAYS[value.date.includes("T") ? "yyyy-mm-dd hh:mm:ss" : "yyyy-mm-dd"]!;
  if (/^0\.0+%$/.test(plain)) return "0;0.00%";
  return `0;${TIMES[plain] ?? format}`;
}
