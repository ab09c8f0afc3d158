import type { CellValue } from "./model.js";
import { dateToSerial, serialToDate } from "./serial.js";

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
  const date = `${year}-${month.padStart(2, "0")}-${day.padStart(2, "0")}`;
  const serial = dateToSerial(date);
  // The 31st of April is another day, or none.
  return Number.isFinite(serial) && serialToDate(serial) === date ? { date, order: by } : undefined;
}

/** The order in which texts are dates, where more of them can be in it than in the other; nothing where they can be in both. */
export function dateOrderIn(texts: readonly string[]): DateOrder | undefined {
  const can = (order: DateOrder) => texts.filter((text) => readDate(text, order)?.order === order).length;
  const [dmy, mdy] = [can("dmy"), can("mdy")];
  return dmy === mdy ? undefined : dmy > mdy ? "dmy" : "mdy";
}

/**
 * What reads the days that all of some texts say, with the number format that shows them so; nothing where they are not all written
 * alike, or leave a doubt of the order.
 */
export function dayReader(texts: readonly string[]): ((text: string) => CellValue | undefined) | undefined {
  const first = DATE.exec(texts[0] ?? "");
  if (!first) return undefined;
  const order = first[1]!.length === 4 ? "ymd" : dateOrderIn(texts);
  const sign = first[2]!;
  if (!order || !texts.every((text) => text.includes(sign) && readDate(text, order)?.order === order))
    return undefined;
  const parts = texts.flatMap((text) => text.split(sign));
  const isBare = parts.some((part) => part.length === 1);
  if (isBare && parts.some((part) => part.startsWith("0"))) return undefined;
  const letters = isBare ? { d: "d", m: "m", y: "yyyy" } : { d: "dd", m: "mm", y: "yyyy" };
  const format = [...order].map((part) => letters[part as keyof typeof letters]).join(sign);
  return (text) => {
    const day = readDate(text, order);
    return day && { type: "date", date: day.date, format };
  };
}
