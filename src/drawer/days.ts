/** A span of time, in milliseconds since 1970: from its beginning until just before its end. */
export interface Span {
  readonly from: number;
  readonly until: number;
}

/** The local day that is so many days from the one in which a time lies. */
function day(now: number, offset = 0): Date {
  const date = new Date(now);
  return new Date(date.getFullYear(), date.getMonth(), date.getDate() + offset);
}

function span(from: Date, until: Date): Span {
  return { from: from.getTime(), until: until.getTime() };
}

const today = (now: number) => span(day(now), day(now, 1));
const yesterday = (now: number) => span(day(now, -1), day(now));
const thisWeek = (now: number) => span(monday(now), monday(now, 1));
const lastWeek = (now: number) => span(monday(now, -1), monday(now));

/** The spans that words name, in each language of pages, as seen from a time. Weeks begin on Monday (ISO 8601). */
const NAMED: Readonly<Record<string, (now: number) => Span>> = {
  ...{ today, yesterday, "this week": thisWeek, "last week": lastWeek },
  ...{ heute: today, gestern: yesterday, "diese woche": thisWeek, "letzte woche": lastWeek },
};

/** A day as it is named or written among other words. */
const SAID = new RegExp(
  `(?<![\\p{L}\\p{N}])(?:${Object.keys(NAMED).join("|").replaceAll(" ", "\\s+")}|[\\d.-]+\\d)(?![\\p{L}\\p{N}])`,
  "giu",
);

function monday(now: number, weeks = 0): Date {
  return day(now, weeks * 7 - ((new Date(now).getDay() + 6) % 7));
}

/** A date as it is written: `2031-04-08`, or a month, `2031-04` (ISO 8601); or `8.4.2031`. Nothing for what is none. */
function spanOfDate(written: string): Span | undefined {
  const iso = /^(\d{4})-(\d{2})(?:-(\d{2}))?$/.exec(written);
  const dotted = /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/.exec(written);
  const [year, month, date] = iso
    ? [Number(iso[1]), Number(iso[2]), iso[3] === undefined ? undefined : Number(iso[3])]
    : dotted
      ? [Number(dotted[3]), Number(dotted[2]), Number(dotted[1])]
      : [];
  if (year === undefined || month === undefined || month < 1 || month > 12) return undefined;
  const from = new Date(year, month - 1, date ?? 1);
  if (date !== undefined && from.getDate() !== date) return undefined;
  return span(from, date === undefined ? new Date(year, month, 1) : new Date(year, month - 1, date + 1));
}

/** The span that a word of a pick names: `today`, `yesterday`, a date. */
export function spanOf(word: string, now = Date.now()): Span | undefined {
  return NAMED[word.toLowerCase()]?.(now) ?? spanOfDate(word);
}

/** Whether a time (ISO 8601) lies in a span. */
export function isWithin({ from, until }: Span, time: string): boolean {
  const at = Date.parse(time);
  return at >= from && at < until;
}

/** The day that stands in what is searched, and what is left of it without that. Nothing when there is none. */
export function dayIn(
  words: string,
  now = Date.now(),
): { readonly span: Span; readonly rest: string } | undefined {
  for (const { 0: said, index } of words.matchAll(SAID)) {
    const named = spanOf(said.replace(/\s+/g, " "), now);
    if (named)
      return { span: named, rest: `${words.slice(0, index)} ${words.slice(index + said.length)}`.trim() };
  }
  return undefined;
}
