import type { CellValue } from "./model.js";

/** Dates as people write them in figures, with a year of four digits. */

/** In which order day, month and year stand. */
export type DateOrder = "dmy" | "mdy" | "ymd";

const DATE = /^(\d{1,4})([./-])(\d{1,2})\2(\d{1,4})$/;

/**
 * The day (ISO 8601) that a text says, and how it was read. What begins with its year says its order itself.
 * @param order the order that others beside it have
 */
export function readDate(
  text: string,
  order: DateOrder | undefined,
): { readonly date: string; readonly order: DateOrder } | undefined {
  const parts = DATE.exec(text);
  if (!parts) return undefined;
  const [first, second, third] = [parts[1]!, parts[3]!, parts[4]!];
  const by = first.length === 4 ? "ymd" : order;
  if (by === undefined || (by === "ymd" ? first : third).length !== 4) return undefined;
  const [year, month, day] = {
    dmy: [third, second, first],
    mdy: [third, first, second],
    ymd: [first, second, third],
  }[by] as [string, string, string];
  if (!isDay(Number(year), Number(month), Number(day))) return undefined;
  return { date: `${year}-${month.padStart(2, "0")}-${day.padStart(2, "0")}`, order: by };
}

/** Whether there is such a day in the calendar of sheets, in which those before 1900 have no number. */
function isDay(year: number, month: number, day: number): boolean {
  if (year <= 1900 || month < 1 || month > 12 || day < 1) return false;
  return day <= 28 || day <= new Date(Date.UTC(year, month, 0)).getUTCDate();
}

/** Whether a text may be a day, in whatever order. */
export function isDateText(text: string): boolean {
  return DATE.test(text);
}

/** The order in which texts are dates, where more of them can be in it than in the other; nothing where they can be in both. */
export function dateOrderIn(texts: readonly string[]): DateOrder | undefined {
  const can = (order: DateOrder) => texts.filter((text) => readDate(text, order)?.order === order).length;
  const [dmy, mdy] = [can("dmy"), can("mdy")];
  return dmy === mdy ? undefined : dmy > mdy ? "dmy" : "mdy";
}

/**
 * The days that all of some texts say, by the texts, each with the number format that shows it so; nothing where they are not all written
 * alike, or leave a doubt of the order.
 */
export function daysOf(texts: ReadonlySet<string>): ReadonlyMap<string, CellValue> | undefined {
  const all = [...texts];
  const [, begin = "", sign] = DATE.exec(all[0] ?? "") ?? [];
  const order = begin.length === 4 ? "ymd" : dateOrderIn(all);
  if (!order) return undefined;
  const dates = new Map<string, string>();
  let [isBare, isPadded] = [false, false];
  for (const text of all) {
    const day = readDate(text, order);
    if (day?.order !== order || !text.includes(sign!)) return undefined;
    dates.set(text, day!.date);
    isBare ||= /(?<!\d)\d(?!\d)/.test(text);
    isPadded ||= /(?<!\d)0/.test(text);
  }
  if (isBare && isPadded) return undefined;
  const letters = isBare ? { d: "d", m: "m", y: "yyyy" } : { d: "dd", m: "mm", y: "yyyy" };
  const format = [...order].map((part) => letters[part as keyof typeof letters]).join(sign);
  return new Map([...dates].map(([text, date]) => [text, { type: "date", date, format }]));
}
