import type { NumberForm } from "../../content/number-forms.js";

/** Which a way to write numbers is in the office formats. */
interface OfficeNumberForm {
  /** Its names in Office Open XML (ECMA-376 part 1, 17.18.59, ST_NumberFormat), the first of which is written. */
  readonly docx?: readonly string[];
  /** The sample by which OpenDocument calls it (ODF 1.3 part 3, 19.502; beyond the five that stand there, as LibreOffice writes it). */
  readonly odf?: string;
}

/** Every way that lists write their numbers, but for decimal. */
const NUMBER_FORMATS: { readonly [Form in NumberForm]: OfficeNumberForm } = {
  "lower-alpha": { odf: "a" },
  "upper-alpha": { odf: "A" },
  "lower-roman": { docx: ["lowerRoman"], odf: "i" },
  "upper-roman": { docx: ["upperRoman"], odf: "I" },
  "lower-alpha-repeated": { docx: ["lowerLetter"] },
  "upper-alpha-repeated": { docx: ["upperLetter"] },
  "decimal-leading-zero": { docx: ["decimalZero"], odf: "01, 02, 03, ..." },
  "lower-greek": { odf: "α, β, γ, ... (gr)" },
  "upper-greek": { odf: "Α, Β, Γ, ... (gr)" },
  "lower-russian": { docx: ["russianLower"], odf: "а, б, .., аа, аб, ... (ru)" },
  "upper-russian": { docx: ["russianUpper"], odf: "А, Б, .., Аа, Аб, ... (ru)" },
  "arabic-indic": {},
  devanagari: { docx: ["hindiNumbers"] },
  thai: { docx: ["thaiNumbers"] },
  "cjk-decimal": { docx: ["ideographDigital", "japaneseDigitalTenThousand", "taiwaneseDigital"] },
  "fullwidth-decimal": { docx: ["decimalFullWidth", "decimalFullWidth2"] },
  "circled-decimal": {
    docx: ["decimalEnclosedCircle", "decimalEnclosedCircleChinese", "ideographEnclosedCircle"],
    odf: "①, ②, ③, ...",
  },
  "dotted-decimal": { docx: ["decimalEnclosedFullstop"] },
  "parenthesized-decimal": { docx: ["decimalEnclosedParen"] },
  hebrew: { docx: ["hebrew1"], odf: "א, י, ק, ..." },
  "hebrew-alphabetic": { docx: ["hebrew2"], odf: "א, ב, ג, ..." },
  "arabic-alphabetic": { docx: ["arabicAlpha"], odf: "أ, ب, ت, ..." },
  "arabic-abjad": { docx: ["arabicAbjad"], odf: "ا, ب, ج, ..." },
  "hindi-consonants": { docx: ["hindiVowels"], odf: "क, ख, ग, ..." },
  katakana: { docx: ["aiueoFullWidth"], odf: "ア, イ, ウ, ..." },
  "halfwidth-katakana": { docx: ["aiueo"], odf: "ｱ, ｲ, ｳ, ..." },
  "katakana-iroha": { docx: ["irohaFullWidth"], odf: "イ, ロ, ハ, ..." },
  "halfwidth-katakana-iroha": { docx: ["iroha"], odf: "ｲ, ﾛ, ﾊ, ..." },
  hangul: { docx: ["ganada"], odf: "가, 나, 다, ..." },
  "hangul-consonant": { docx: ["chosung"], odf: "ㄱ, ㄴ, ㄷ, ..." },
  "cjk-heavenly-stem": { docx: ["ideographTraditional"], odf: "甲, 乙, 丙, ..." },
  "cjk-earthly-branch": { docx: ["ideographZodiac"], odf: "子, 丑, 寅, ..." },
  "thai-alphabetic": { docx: ["thaiLetters"], odf: "ก, ข, ค, ..." },
  "japanese-informal": { docx: ["japaneseCounting"] },
  "simp-chinese-informal": {
    docx: ["chineseCountingThousand", "chineseCounting", "taiwaneseCounting", "taiwaneseCountingThousand"],
    odf: "一, 二, 三, ...",
  },
  "simp-chinese-formal": { docx: ["chineseLegalSimplified"], odf: "壹, 贰, 叁, ..." },
  "trad-chinese-formal": { docx: ["ideographLegalTraditional"], odf: "壹, 貳, 參, ..." },
  "korean-digits": { docx: ["koreanDigital"], odf: "일, 이, 삼, ... (ko-x-digital)" },
  "korean-hanja-digits": { docx: ["koreanDigital2"], odf: "一, 二, 三, ... (ko)" },
  "korean-hangul-formal": { docx: ["koreanCounting"], odf: "일, 이, 삼, ..." },
  "note-signs": { docx: ["chicago"], odf: "*, †, ‡, §, **, ††, ..." },
  dashed: { docx: ["numberInDash"] },
  ordinal: { docx: ["ordinal"], odf: "1st" },
  "ordinal-words": { docx: ["ordinalText"], odf: "First" },
  "cardinal-words": { docx: ["cardinalText"], odf: "One" },
  hexadecimal: { docx: ["hex"] },
};

const forms = Object.entries(NUMBER_FORMATS) as [NumberForm, OfficeNumberForm][];

/** Ways to write numbers by their names in Office Open XML; decimal is none of them. */
export const DOCX_NUMBER_FORMS: ReadonlyMap<string, NumberForm> = new Map(
  forms.flatMap(([form, { docx = [] }]) => docx.map((name) => [name, form] as const)),
);

/** Ways to write numbers by the samples of OpenDocument; decimal is none of them. */
export const ODF_NUMBER_FORMS: ReadonlyMap<string, NumberForm> = new Map(
  forms.flatMap(([form, { odf }]) => (odf === undefined ? [] : [[odf, form] as const])),
);

/** Names of plain decimal numbers in Office Open XML. */
export const DOCX_DECIMAL: ReadonlySet<string> = new Set(["decimal", "decimalHalfWidth"]);

/** What a way to write numbers is called where it is written; decimal where the format has no name for it. */
export function docxNumberFormat(form: NumberForm | undefined): string {
  const plain = form?.replace(/-alpha$/, "-alpha-repeated") as NumberForm | undefined;
  return (plain && NUMBER_FORMATS[plain].docx?.[0]) ?? "decimal";
}

/** The sample by which OpenDocument calls a way to write numbers, and whether its letters are repeated. */
export function odfNumberFormat(form: NumberForm | undefined): {
  readonly sample: string;
  readonly isRepeated: boolean;
} {
  const plain = form?.replace(/-repeated$/, "") as NumberForm | undefined;
  return { sample: (plain && NUMBER_FORMATS[plain].odf) ?? "1", isRepeated: plain !== form };
}
