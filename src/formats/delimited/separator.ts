/** What may part the columns of delimited text. */
export const SEPARATORS = [",", "\t", ";", "|"] as const;

/** What parts the columns. */
export type Separator = (typeof SEPARATORS)[number];

/** What separators are called. */
export const SEPARATOR_NAMES = { ",": "comma", "\t": "tab", ";": "semicolon", "|": "bar" } as const;

/** How often a separator stands in the rows of a text. */
interface Use {
  readonly separator: Separator;
  /** The share of the rows that have as many of it as most have; rows that have none count for none. */
  readonly share: number;
  /** Whether what looks like it may be something else: the comma of a decimal fraction, or a comma in a sentence. */
  readonly isDoubtful: boolean;
}

/**
 * Tells what parts the columns: what cuts the most rows into equally many cells. Between several that cut all of them, a tab comes
 * first, then a comma, unless all commas stand inside figures or before spaces.
 */
export function tellSeparator(text: string): Separator {
  const uses = usesIn(text);
  const best = Math.max(...uses.map(({ share }) => share));
  const among = uses.filter(({ share }) => share === best);
  const rank = ({ separator, isDoubtful }: Use) =>
    isDoubtful ? 4 : ["\t", ",", ";", "|"].indexOf(separator);
  return best === 0
    ? ","
    : among.reduce((first, next) => (rank(next) < rank(first) ? next : first)).separator;
}

/**
 * Whether each row of a text is cut by this into equally many cells, as no prose and no program is. Figures with decimal commas
 * alone are not.
 */
export function isEvenlyCut(text: string, separator: Separator): boolean {
  const { counts, spaced, inFigures, isBroken } = countsOf(text, separator);
  const all = counts.reduce((sum, count) => sum + count, 0);
  const isFigures = separator === "," && inFigures === all;
  const isEven = counts.length > 1 && counts[0]! > 0 && counts.every((count) => count === counts[0]);
  return isEven && spaced === 0 && !isBroken && !isFigures;
}

function usesIn(text: string): Use[] {
  return SEPARATORS.map((separator) => {
    const { counts, spaced, inFigures, isBroken } = countsOf(text, separator);
    const rowsByCount = new Map<number, number>();
    let all = 0;
    for (const count of counts) {
      all += count;
      if (count > 0) rowsByCount.set(count, (rowsByCount.get(count) ?? 0) + 1);
    }
    const share = isBroken ? 0 : Math.max(0, ...rowsByCount.values()) / Math.max(1, counts.length);
    return { separator, share, isDoubtful: separator === "," && (inFigures === all || spaced === all) };
  });
}

/**
 * How often a separator stands outside quotation marks in each row that is not blank; and how many of all stand before a space or at
 * the end of a row, and how many between two digits; and whether quotation marks close in the middle of a cell, as they never do
 * where it is the right one.
 */
function countsOf(text: string, separator: Separator) {
  const counts: number[] = [];
  let [spaced, inFigures, count] = [0, 0, 0];
  let [isBlank, isQuoted, isStart, isBroken] = [true, false, true, false];
  const isDigit = (at: number) => text.charCodeAt(at) >= 48 && text.charCodeAt(at) <= 57;
  const end = () => {
    if (!isBlank) counts.push(count);
    [count, isBlank, isStart] = [0, true, true];
  };
  for (let at = 0; at < text.length; at++) {
    const sign = text[at]!;
    if (isQuoted) {
      if (sign !== '"') continue;
      if (text[at + 1] === '"') at++;
      else {
        isQuoted = false;
        isBroken ||= ![separator, "\n", "\r", undefined].includes(text[at + 1]);
      }
    } else if (sign === "\n" || sign === "\r") end();
    else {
      const isSeparator = sign === separator;
      if (sign === '"' && isStart) isQuoted = true;
      else if (isSeparator) {
        count++;
        const next = text[at + 1];
        if (next === undefined || /\s/.test(next)) spaced++;
        if (isDigit(at - 1) && isDigit(at + 1)) inFigures++;
      }
      isBlank &&= /\s/.test(sign) && !isSeparator;
      isStart = isSeparator;
    }
  }
  end();
  return { counts, spaced, inFigures, isBroken };
}
