import { DrawerError } from "../../content/error.js";
import { textRun, type Run } from "../../content/model.js";
import { mergeRuns } from "../../content/table.js";
import type { Layout } from "../layout.js";
import { betweenText } from "../recipe.js";
import { dividersLeftOut, inlineOf } from "./lines-of.js";

/**
 * The pieces as the parts of one sentence, “a, b and c”, by the words and signs of a language (Intl.ListFormat, ECMA-402).
 * What was asked for between them takes the place of those.
 */
export const sentence: Layout = (pieces, { locale, between }) => {
  const parts = pieces.map(({ content }, index) => {
    const runs = inlineOf(content);
    return index < pieces.length - 1 ? withoutStop(runs) : runs;
  });
  const runs: Run[] = [];
  for (const { type, value } of listParts(parts.length, locale)) {
    if (type === "element") runs.push(...parts[Number(value)]!);
    else runs.push(textRun(between === undefined ? value : betweenText(between)));
  }
  return {
    content: runs.length === 0 ? [] : [{ type: "paragraph", runs: mergeRuns(runs) }],
    notices: dividersLeftOut(pieces.map(({ content }) => content)),
  };
};

/** A part in the middle of a sentence does not end with a full stop of its own. */
function withoutStop(runs: Run[]): Run[] {
  const last = runs.at(-1);
  return last?.type === "text" && /[^.]\.$/.test(last.text)
    ? [...runs.slice(0, -1), { ...last, text: last.text.slice(0, -1) }]
    : runs;
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
    throw new DrawerError(
      "bad-option",
      `“${locale}” is not the name of a language. Write one like en, de or pt-BR.`,
      { cause: error },
    );
  }
}
