import { type Marks, type TextRun, textRun } from "../../content/model.js";

/**
 * What the signs of symbol fonts are in Unicode. Documents name them by the place they have in their font, in the range
 * from U+F020 on or without its beginning.
 */

/** The font Symbol from 0x20 on (as in its encoding vector; places without a sign are spaces). */
const SYMBOL =
  " !∀#∃%&∋()∗+,−./0123456789:;<=>?≅ΑΒΧΔΕΦΓΗΙϑΚΛΜΝΟΠΘΡΣΤΥςΩΞΨΖ[∴]⊥_‾αβχδεφγηιϕκλμνοπθρστυϖωξψζ{|}∼";
/** From 0xA0 on. */
const SYMBOL_HIGH =
  "€ϒ′≤⁄∞ƒ♣♦♥♠↔←↑→↓°±″≥×∝∂•÷≠≡≈…⏐⎯↵ℵℑℜ℘⊗⊕∅∩∪⊃⊇⊄⊂⊆∈∉∠∇®©™∏√⋅¬∧∨⇔⇐⇑⇒⇓◊〈®©™∑⎛⎜⎝⎡⎢⎣⎧⎨⎩⎪ 〉∫⌠⎮⌡⎞⎟⎠⎤⎥⎦⎫⎬⎭";

/** Signs of Wingdings that writers use: ticks, crosses, arrows, boxes, hands, bullets. */
const WINGDINGS: Readonly<Record<number, string>> = {
  ...{
    0x21: "✏",
    0x22: "✂",
    0x28: "☎",
    0x2a: "✉",
    0x36: "⌛",
    0x41: "✌",
    0x43: "👍",
    0x44: "👎",
    0x45: "☜",
  },
  ...{ 0x46: "☞", 0x47: "☝", 0x48: "☟", 0x4a: "☺", 0x4c: "☹", 0x4e: "☠", 0x51: "✈", 0x52: "☼", 0x54: "❄" },
  ...{ 0x6c: "●", 0x6d: "❍", 0x6e: "■", 0x6f: "□", 0x71: "❑", 0x72: "❒", 0x73: "⬧", 0x74: "⧫", 0x75: "◆" },
  ...{ 0x76: "❖", 0x77: "⬥", 0x9e: "·", 0x9f: "•", 0xa1: "○", 0xa7: "▪", 0xa8: "◻", 0xaa: "✦", 0xab: "★" },
  ...{ 0xd5: "⌫", 0xd8: "➢", 0xdf: "←", 0xe0: "→", 0xe1: "↑", 0xe2: "↓", 0xe8: "➔", 0xef: "⇦", 0xf0: "⇨" },
  ...{ 0xf1: "⇧", 0xf2: "⇩", 0xf3: "⬄", 0xfb: "✗", 0xfc: "✓", 0xfd: "☒", 0xfe: "☑" },
};

/** A run of text as it is shown in a font. What was a place in a font of symbols is a sign of any font, and keeps none. */
export function runInFont(text: string, font: string | undefined, marks: Marks): TextRun {
  const shown = textInFont(text, font);
  if (shown === text) return textRun(text, marks);
  const { font: _, ...others } = marks;
  return textRun(shown, others);
}

/** Text as it is shown in a font: in those of symbols each sign is a place in its table. */
function textInFont(text: string, font: string | undefined): string {
  const isSymbols = font !== undefined && /^(symbol|wingdings)$/i.test(font);
  if (!isSymbols && !/[\uf020-\uf0ff]/.test(text)) return text;
  return [...text]
    .map((sign) => {
      const code = sign.codePointAt(0)!;
      const isPlace = (code >= 0xf020 && code <= 0xf0ff) || (isSymbols && code > 0x20 && code <= 0xff);
      // Without the font's name, most writers of such places mean the font Symbol.
      return isPlace ? symbolText(isSymbols ? font : "Symbol", code) : sign;
    })
    .join("");
}

/** A sign of a font by its place; a bullet for one that Unicode has no common sign for. */
export function symbolText(font: string, place: number): string {
  const code = place >= 0xf000 && place <= 0xf0ff ? place - 0xf000 : place;
  if (/^symbol$/i.test(font)) {
    const sign = code >= 0xa0 ? [...SYMBOL_HIGH][code - 0xa0] : [...SYMBOL][code - 0x20];
    return sign ?? "•";
  }
  if (/^wingdings$/i.test(font)) return WINGDINGS[code] ?? "•";
  if (place >= 0xf000 && place <= 0xf0ff) return "•";
  return Number.isFinite(place) ? String.fromCodePoint(Math.min(place, 0x10ffff)) : "";
}
