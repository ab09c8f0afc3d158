import { spokenThousands, type SpokenNumerals } from "../../content/number-forms.js";

/** Numerals of Chinese and Japanese, as number formats ask for them by `[DBNum1]` to `[DBNum3]` with a place (MS-XLS, 2.4.126). */

interface Numerals extends Omit<SpokenNumerals, "names"> {
  /** Zero to nine. */
  readonly digits: string;
  /** Ten thousand, and its square. */
  readonly myriads: string;
  readonly point: string;
  /** What stands before a negative number; a hyphen where it is left out. */
  readonly minus?: string;
}

const INFORMAL = "〇一二三四五六七八九";
const SIMPLIFIED: Numerals = {
  ...{ digits: INFORMAL, units: "千百十", myriads: "万亿", point: "．", isOneSaid: true, gap: "〇" },
};
const NUMERALS: Readonly<Record<string, Readonly<Record<string, Numerals>>>> = {
  zh: {
    1: SIMPLIFIED,
    2: {
      ...SIMPLIFIED,
      digits: "零壹贰叁肆伍陆柒捌玖",
      units: "仟佰拾",
      point: "点",
      minus: "负",
      gap: "零",
    },
  },
  "zh-TW": {
    1: { ...SIMPLIFIED, myriads: "萬億" },
    2: {
      ...SIMPLIFIED,
      digits: "零壹貳參肆伍陸柒捌玖",
      units: "仟佰拾",
      myriads: "萬億",
      point: "點",
      minus: "負",
      gap: "零",
    },
  },
  ja: {
    1: { ...SIMPLIFIED, myriads: "万億", isOneSaid: false, gap: "" },
    2: { ...SIMPLIFIED, digits: "〇壱弐参四伍六七八九", units: "阡百拾", myriads: "萬億", gap: "" },
  },
};

/**
 * A shown number or date with its figures in numerals: numbers as they are said, years digit by digit.
 * @param kind the number after `DBNum`
 * @param tag the language of the place (BCP 47)
 */
export function inNumerals(text: string, kind: string, tag: string, isDate: boolean): string {
  // Signs as wide as a character of these scripts.
  if (kind === "3") return text.replace(/[-\d]/g, (sign) => String.fromCharCode(sign.charCodeAt(0) + 0xfee0));
  const numerals = (NUMERALS[tag] ?? NUMERALS[tag.split("-")[0]!])?.[kind];
  if (!numerals) return text;
  const each = (digits: string) => [...digits].map((digit) => numerals.digits[Number(digit)]!).join("");
  if (isDate)
    return text.replace(/\d+/g, (figure) =>
      figure.length > 2 ? each(figure) : said(Number(figure), numerals).replace(/^[一](?=十)/, ""),
    );
  const signed = numerals.minus === undefined ? text : text.replace("-", numerals.minus);
  return signed.replaceAll(",", "").replace(/(\d+)(?:\.(\d+))?/, (whole, figure: string, rest?: string) => {
    const number = Number(figure);
    if (number >= 1e12) return whole;
    return said(number, numerals) + (rest === undefined ? "" : numerals.point + each(rest));
  });
}

/** A number as it is said: in fours of digits, each with its unit. */
function said(number: number, numerals: Numerals): string {
  if (number === 0) return numerals.digits[0]!;
  const spoken = { ...numerals, names: numerals.digits.slice(1) };
  let text = "";
  for (const [at, myriad] of [...[...numerals.myriads].reverse(), ""].entries()) {
    const four = Math.floor(number / 10_000 ** (2 - at)) % 10_000;
    if (four === 0) continue;
    const isGap = text !== "" && four < 1000;
    text += (isGap ? numerals.gap : "") + spokenThousands(four, spoken) + myriad;
  }
  return text;
}
