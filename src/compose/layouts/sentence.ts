import { DrawerError } from "../../content/error.js";
import { type Run, textRun } from "../../content/model.js";
import { mergeRuns, runsText } from "../../content/runs.js";
import { contentErrors } from "../../messages/en/content.js";
import type { LaidOut, Layout, LayoutOptions, Piece } from "../layout.js";
import { betweenText } from "../options.js";
import { dividersLeftOut, inlineOf } from "./lines-of.js";

/**
 * The pieces as the parts of one sentence, “a, b and c”, by the words and signs of a language (Intl.ListFormat, ECMA-402).
 * What was asked for between them takes the place of those.
 */
export const sentence: Layout = {
  lay: laySentence,
  isTable: false,
  between: "any",
  renamesColumns: false,
};

function laySentence(pieces: readonly Piece[], { locale, between }: LayoutOptions): LaidOut {
  const parts = pieces.map(({ content }, index) => {
    const runs = inlineOf(content);
    return index < pieces.length - 1 ? withoutStop(runs) : runs;
  });
  const runs: Run[] = [];
  for (const { type, value } of listParts(parts.length, locale)) {
    if (type === "element") for (const run of parts[Number(value)]!) runs.push(run);
    else runs.push(textRun(between === undefined ? value : betweenText(between)));
  }
  return {
    content: runs.length === 0 ? [] : [{ type: "paragraph", runs: mergeRuns(runs) }],
    notices: dividersLeftOut(pieces.map(({ content }) => content)),
  };
}

/** A part in the middle of a sentence does not end with a full stop of its own; that of an abbreviation stays. */
function withoutStop(runs: Run[]): Run[] {
  const last = runs.at(-1);
  if (last?.type !== "text" || !last.text.endsWith(".")) return runs;
  if (endsAbbreviated(runsText(runs))) return runs;
  return [...runs.slice(0, -1), { ...last, text: last.text.slice(0, -1) }];
}

/** Abbreviations with a vowel in them, which their letters do not show to be any. */
const ABBREVIATIONS =
  /^(?:al|approx|appt|apr|assoc|aug|ave|avg|bd|bzw|ca|capt|cf|co|col|corp|dec|dept|dipl|ed|eds|est|etc|evtl|excl|feb|fig|figs|gen|gov|ggf|inc|incl|ing|inkl|jan|lat|lieut|max|min|misc|nov|no|nos|obs|oct|op|orig|pag|par|prof|ref|rel|resp|rev|sen|sep|sept|sog|tel|univ|usw|var|vol|zzgl)$/iu;

/** Whether a text ends in an abbreviation: letters with stops between them, a single letter, or letters without a vowel. */
function endsAbbreviated(text: string): boolean {
  const word = /([\p{L}\p{M}.]+)\.$/u.exec(text)?.[1];
  if (word === undefined) return text.endsWith("..");
  return (
    word.includes(".") ||
    /^\p{L}$/u.test(word) ||
    ABBREVIATIONS.test(word) ||
    // Scripts without capital letters are not read this way.
    (/^\p{Script=Latin}+$/u.test(word) && word.length <= 5 && !/[aeiouyà-ÿāăąēĕėęěīĭįōŏőūŭůűų]/iu.test(word))
  );
}

/** The parts of a list of so many: elements by their number, and what stands between them. */
function listParts(
  count: number,
  locale: string | undefined,
): { type: "element" | "literal"; value: string }[] {
  try {
    return new Intl.ListFormat(locale, { type: "conjunction" }).formatToParts(
      Array.from({ length: count }, (_, index) => String(index)),
    );
  } catch (error) {
    throw new DrawerError(contentErrors, "bad-option/locale", { locale: locale ?? "" }, { cause: error });
  }
}
