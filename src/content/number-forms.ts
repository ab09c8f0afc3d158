const LATIN = "abcdefghijklmnopqrstuvwxyz";
const GREEK = "αβγδεζηθικλμνξοπρστυφχψω";
const RUSSIAN = "абвгдежзиклмнопрстуфхцчшщыэюя";
/** Letters of half the width; their compatibility forms (NFKC, Unicode Annex 15) are those of the full one. */
const KATAKANA = "ｱｲｳｴｵｶｷｸｹｺｻｼｽｾｿﾀﾁﾂﾃﾄﾅﾆﾇﾈﾉﾊﾋﾌﾍﾎﾏﾐﾑﾒﾓﾔﾕﾖﾗﾘﾙﾚﾛﾜｦﾝ";
const IROHA = "ｲﾛﾊﾆﾎﾍﾄﾁﾘﾇﾙｦﾜｶﾖﾀﾚｿﾂﾈﾅﾗﾑｳヰﾉｵｸﾔﾏｹﾌｺｴﾃｱｻｷﾕﾒﾐｼヱﾋﾓｾｽﾝ";

/**
 * The ways in which lists write their numbers, by the names of CSS where it has one (Counter Styles Level 3; Ready-made Counter Styles,
 * W3C Note); decimal is none of them. Each gives the text of a number from 1, or nothing for a number that it has no signs for.
 */
export const NUMBER_FORMS = {
  "lower-alpha": alphabet(LATIN),
  "upper-alpha": alphabet(LATIN.toUpperCase()),
  "lower-roman": roman,
  "upper-roman": (number) => roman(number)?.toUpperCase(),
  /** After the last letter each is there twice: y, z, aa, bb. */
  "lower-alpha-repeated": repeated(LATIN),
  "upper-alpha-repeated": repeated(LATIN.toUpperCase()),
  "decimal-leading-zero": (number) => String(number).padStart(2, "0"),
  "lower-greek": alphabet(GREEK),
  "upper-greek": alphabet(GREEK.toUpperCase()),
  "lower-russian": alphabet(RUSSIAN),
  "upper-russian": alphabet(RUSSIAN.toUpperCase(), true),
  "arabic-indic": digits("٠١٢٣٤٥٦٧٨٩"),
  devanagari: digits("०१२३४५६७८९"),
  thai: digits("๐๑๒๓๔๕๖๗๘๙"),
  "cjk-decimal": digits("〇一二三四五六七八九"),
  "fullwidth-decimal": digits("０１２３４５６７８９"),
  "circled-decimal": signs([0x2460, 20], [0x3251, 15], [0x32b1, 15]),
  "dotted-decimal": signs([0x2488, 20]),
  "parenthesized-decimal": signs([0x2474, 20]),
  hebrew,
  "hebrew-alphabetic": alphabet("אבגדהוזחטיכלמנסעפצקרשת"),
  "arabic-alphabetic": alphabet("أبتثجحخدذرزسشصضطظعغفقكلمنهوى"),
  "arabic-abjad": alphabet("ابجدهوزحطيكلمنسعفصقرشتثخذضظغ"),
  "hindi-consonants": alphabet("कखगघङचछजझञटठडढणतथदधनपफबभमयरलवशषसह"),
  katakana: cycle(KATAKANA.normalize("NFKC")),
  "halfwidth-katakana": cycle(KATAKANA),
  "katakana-iroha": cycle(IROHA.normalize("NFKC")),
  "halfwidth-katakana-iroha": cycle(IROHA),
  hangul: cycle("가나다라마바사아자차카타파하"),
  "hangul-consonant": cycle("ㄱㄴㄷㄹㅁㅂㅅㅇㅈㅊㅋㅌㅍㅎ"),
  "cjk-heavenly-stem": fixed("甲乙丙丁戊己庚辛壬癸"),
  "cjk-earthly-branch": fixed("子丑寅卯辰巳午未申酉戌亥"),
  "thai-alphabetic": alphabet("กขคงจฉชซฌญฎฏฐฑฒณดตถทธนบปผฝพฟภมยรฤลฦวศษสหฬอฮ"),
  "japanese-informal": eastern({ isOneSaid: false, zero: "" }),
  "simp-chinese-informal": eastern({ isOneSaid: true, zero: "零" }),
  "simp-chinese-formal": formal("壹贰叁肆伍陆柒捌玖"),
  "trad-chinese-formal": formal("壹貳參肆伍陸柒捌玖"),
  "korean-digits": digits("영일이삼사오육칠팔구"),
  "korean-hanja-digits": digits("零一二三四五六七八九"),
  "korean-hangul-formal": eastern({
    isOneSaid: false,
    zero: "",
    names: "일이삼사오육칠팔구",
    units: "천백십",
  }),
  /** Signs that call notes: *, †, ‡, §, **. */
  "note-signs": repeated("*†‡§"),
  dashed: (number) => `- ${number} -`,
  ordinal: (number) => `${number}${ordinalEnd(number)}`,
  "ordinal-words": (number) => capital(ordinalWords(number)),
  "cardinal-words": (number) => capital(cardinalWords(number)),
  hexadecimal: (number) => number.toString(16).toUpperCase(),
} as const satisfies Readonly<Record<string, (number: number) => string | undefined>>;

/** The name of a way to write numbers. */
export type NumberForm = keyof typeof NUMBER_FORMS;

/** Those that a browser knows by these names; the others it writes as decimal. */
export const CSS_NUMBER_FORMS: ReadonlySet<NumberForm> = new Set<NumberForm>([
  ...([
    "lower-alpha",
    "upper-alpha",
    "lower-roman",
    "upper-roman",
    "decimal-leading-zero",
    "lower-greek",
  ] as const),
  ...(["arabic-indic", "devanagari", "thai", "cjk-decimal", "hebrew", "katakana", "katakana-iroha"] as const),
  ...(["cjk-heavenly-stem", "cjk-earthly-branch", "japanese-informal", "simp-chinese-informal"] as const),
  ...(["simp-chinese-formal", "trad-chinese-formal", "korean-hangul-formal"] as const),
]);

/**
 * Letters that go on as the columns of a sheet do: y, z, aa, ab.
 * @param isCapital whether only the first of several is a capital
 */
function alphabet(letters: string, isCapital = false): (number: number) => string {
  const all = [...letters];
  const text = (number: number): string => {
    const rest = Math.floor((number - 1) / all.length);
    const last = all[(number - 1) % all.length]!;
    return rest > 0 ? text(rest) + (isCapital ? last.toLowerCase() : last) : last;
  };
  return text;
}

/** Letters that begin again when all were there. */
function cycle(letters: string): (number: number) => string {
  const all = [...letters];
  return (number) => all[(number - 1) % all.length]!;
}

/** Letters that are there once more each time when all were: y, z, aa, bb. */
function repeated(letters: string): (number: number) => string {
  const all = [...letters];
  return (number) => all[(number - 1) % all.length]!.repeat(Math.ceil(number / all.length));
}

function fixed(letters: string): (number: number) => string | undefined {
  const all = [...letters];
  return (number) => all[number - 1];
}

/** Decimal numbers in other digits. */
function digits(ten: string): (number: number) => string {
  const all = [...ten];
  return (number) => [...String(number)].map((digit) => all[Number(digit)]!).join("");
}

/** Signs of numbers that follow each other, in ranges of Unicode: where each begins, and how many there are. */
function signs(...ranges: readonly (readonly [first: number, count: number])[]) {
  return (number: number): string | undefined => {
    let at = number - 1;
    for (const [first, count] of ranges) {
      if (at < count) return String.fromCodePoint(first + at);
      at -= count;
    }
    return undefined;
  };
}

const ROMAN: readonly (readonly [value: number, sign: string])[] = [
  ...([
    [1000, "m"],
    [900, "cm"],
    [500, "d"],
    [400, "cd"],
    [100, "c"],
    [90, "xc"],
    [50, "l"],
  ] as const),
  ...([
    [40, "xl"],
    [10, "x"],
    [9, "ix"],
    [5, "v"],
    [4, "iv"],
    [1, "i"],
  ] as const),
];

function roman(number: number): string | undefined {
  return number > 3999 ? undefined : inSums(number, ROMAN);
}

const HEBREW: readonly (readonly [value: number, sign: string])[] = [
  ...([
    [400, "ת"],
    [300, "ש"],
    [200, "ר"],
    [100, "ק"],
    [90, "צ"],
    [80, "פ"],
    [70, "ע"],
    [60, "ס"],
  ] as const),
  ...([
    [50, "נ"],
    [40, "מ"],
    [30, "ל"],
    [20, "כ"],
    [19, "יט"],
    [18, "יח"],
    [17, "יז"],
    [16, "טז"],
  ] as const),
  ...([
    [15, "טו"],
    [10, "י"],
    [9, "ט"],
    [8, "ח"],
    [7, "ז"],
    [6, "ו"],
    [5, "ה"],
    [4, "ד"],
  ] as const),
  ...([
    [3, "ג"],
    [2, "ב"],
    [1, "א"],
  ] as const),
];

function hebrew(number: number): string | undefined {
  return number > 999 ? undefined : inSums(number, HEBREW);
}

/** A number as the sum of signs, the largest first. */
function inSums(number: number, values: readonly (readonly [value: number, sign: string])[]): string {
  let text = "";
  let rest = number;
  for (const [value, sign] of values) for (; rest >= value; rest -= value) text += sign;
  return text;
}

/** How numbers are said in Chinese, Japanese and Korean. */
export interface SpokenNumerals {
  /** One to nine. */
  readonly names: string;
  /** A thousand, a hundred, ten. */
  readonly units: string;
  /** Whether one is said before a unit. */
  readonly isOneSaid: boolean;
  /** What stands for a gap within a number. */
  readonly gap: string;
}

/** A number from 1 to 9999 as it is said: each digit with its unit. */
export function spokenThousands(number: number, { names, units, isOneSaid, gap }: SpokenNumerals): string {
  let text = "";
  let isGap = false;
  for (const [at, unit] of [...units, ""].entries()) {
    const digit = Math.floor(number / 10 ** (3 - at)) % 10;
    if (digit === 0) {
      isGap = text !== "";
      continue;
    }
    text += (isGap ? gap : "") + (digit === 1 && unit !== "" && !isOneSaid ? "" : names[digit - 1]!) + unit;
    isGap = false;
  }
  return text;
}

/** Numbers as they are said, up to 9999: 十一, 二百三. The ten of the teens is said alone. */
function eastern({ isOneSaid, zero, names = "一二三四五六七八九", units = "千百十" }: EasternNumerals) {
  return (number: number): string | undefined =>
    number > 9999
      ? undefined
      : spokenThousands(number, { names, units, isOneSaid, gap: zero }).replace(/^一(?=十)/, "");
}

interface EasternNumerals {
  readonly isOneSaid: boolean;
  readonly zero: string;
  readonly names?: string;
  readonly units?: string;
}

/** Numbers as they are written in documents of law, where nothing may be added: one is said before ten as well. */
function formal(names: string) {
  const numerals = { names, units: "仟佰拾", isOneSaid: true, gap: "零" };
  return (number: number): string | undefined =>
    number > 9999 ? undefined : spokenThousands(number, numerals);
}

function ordinalEnd(number: number): string {
  const teens = number % 100;
  if (teens >= 11 && teens <= 13) return "th";
  return ["th", "st", "nd", "rd"][number % 10] ?? "th";
}

const ONES = [
  ...["", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"],
  ...["thirteen", "fourteen", "fifteen", "sixteen", "seventeen", "eighteen", "nineteen"],
];
const TENS = ["", "", "twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"];
const UNEVEN: Readonly<Record<string, string>> = {
  ...{
    one: "first",
    two: "second",
    three: "third",
    five: "fifth",
    eight: "eighth",
    nine: "ninth",
    twelve: "twelfth",
  },
};

function cardinalWords(number: number): string {
  if (number < 20) return ONES[number]!;
  if (number < 100) return [TENS[Math.floor(number / 10)]!, ONES[number % 10]!].filter(Boolean).join("-");
  const [value, name] = number < 1000 ? ([100, "hundred"] as const) : ([1000, "thousand"] as const);
  const rest = number % value;
  return `${cardinalWords(Math.floor(number / value))} ${name}${rest === 0 ? "" : ` ${cardinalWords(rest)}`}`;
}

function ordinalWords(number: number): string {
  const words = cardinalWords(number);
  const [, before, last] = /^(.*?)([a-z]+)$/.exec(words)!;
  return before + (UNEVEN[last!] ?? `${last!.replace(/y$/, "ie")}th`);
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
