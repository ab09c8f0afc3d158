import type { NumberForm } from "../../content/number-forms.js";
import { DOCX_NUMBER_FORMS, docxNumberFormat } from "../office/number-formats.js";

/**
 * How the items of lists are numbered, by the numbers of RTF (1.9.1, `\levelnfc`; [MS-OSHARED] 2.2.1.3): the same that Office Open XML
 * calls by names.
 */
const NAMES: readonly string[] = [
  ...["decimal", "upperRoman", "lowerRoman", "upperLetter", "lowerLetter", "ordinal", "cardinalText"],
  ...["ordinalText", "hex", "chicago", "ideographDigital", "japaneseCounting", "aiueo", "iroha"],
  ...["decimalFullWidth", "decimalHalfWidth", "japaneseLegal", "japaneseDigitalTenThousand"],
  ...["decimalEnclosedCircle", "decimalFullWidth2", "aiueoFullWidth", "irohaFullWidth", "decimalZero"],
  ...["bullet", "ganada", "chosung", "decimalEnclosedFullstop", "decimalEnclosedParen"],
  ...["decimalEnclosedCircleChinese", "ideographEnclosedCircle", "ideographTraditional", "ideographZodiac"],
  ...["ideographZodiacTraditional", "taiwaneseCounting", "ideographLegalTraditional"],
  ...["taiwaneseCountingThousand", "taiwaneseDigital", "chineseCounting", "chineseLegalSimplified"],
  ...["chineseCountingThousand", "decimal", "koreanDigital", "koreanCounting", "koreanLegal"],
  ...["koreanDigital2", "hebrew1", "arabicAlpha", "hebrew2", "arabicAbjad", "hindiVowels"],
  ...["hindiConsonants", "hindiNumbers", "hindiCounting", "thaiLetters", "thaiNumbers", "thaiCounting"],
  ...["vietnameseCounting", "numberInDash", "russianLower", "russianUpper"],
];

/** The number of bullets, and that of items without a mark. */
export const BULLET = 23;
export const NO_MARK = 255;

/** The number of a way to write numbers; decimal where there is none for it. */
export function formOfNumbers(numbers: NumberForm | undefined): number {
  return Math.max(0, NAMES.indexOf(docxNumberFormat(numbers)));
}

/** The way to write numbers that a number says; nothing for decimal, and for one that is not known. */
export function numbersOfForm(form: number): NumberForm | undefined {
  return DOCX_NUMBER_FORMS.get(NAMES[form] ?? "");
}
