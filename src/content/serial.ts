import type { CellValue } from "./model.js";
import { RecentCache } from "./recent-cache.js";

/**
 * Dates as sheets count them: days since 1899-12-30, the time of day as a fraction. (The 1900 date system, ECMA-376
 * part 1, 18.17.4.1, from 1 March 1900 on.)
 */
const EPOCH = Date.UTC(1899, 11, 30);
const DAY = 86_400_000;

/** The serial number of an ISO local date or date-time. */
export function dateToSerial(date: string): number {
  const time = Date.parse(date.includes("T") ? `${date}Z` : `${date}T00:00:00Z`);
  return Math.round(((time - EPOCH) / DAY) * 1e10) / 1e10;
}

/** The ISO local date of a serial number, with its time when it has one (to the second). */
export function serialToDate(serial: number): string {
  return dates.get(serial, (days) => {
    const iso = new Date(EPOCH + Math.round(days * 86_400) * 1000).toISOString();
    return Number.isInteger(days) ? iso.slice(0, 10) : iso.slice(0, 19);
  });
}

/** Rows of a sheet share their days and formats. */
const dates = new RecentCache<number, string>(2000);
const datedFormats = new RecentCache<string, boolean>(500);

/** Whether a number format shows a date, or a date and a time: it has a day, a month by name, or a year in it. */
export function isDateFormat(format: string): boolean {
  return datedFormats.get(format, showsDate);
}

function showsDate(format: string): boolean {
  const bare = format
    .replace(/"[^"]*"|\\.|_.|\*./g, "")
    .replace(/\[[^\]]*\]/g, "")
    .split(";")[0]!;
  return /[yd]|mmm/i.test(bare) && !/general/i.test(bare);
}

/** The number that a sheet holds for a typed value: of a date its serial, of a truth value 1 or 0. */
export function rawNumber(value: CellValue): number {
  if (value.type === "number") return value.number;
  if (value.type === "boolean") return value.boolean ? 1 : 0;
  return dateToSerial(value.date);
}
