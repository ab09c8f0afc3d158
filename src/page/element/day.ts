import { dateLanguage } from "./panels/time.js";

function midnight(time: Date): number {
  return new Date(time.getFullYear(), time.getMonth(), time.getDate()).getTime();
}

/** The local day on which something came, as a number that is the same for the whole day. */
export function dayOf(iso: string): number {
  return midnight(new Date(iso));
}

/** How people here call the day on which something came: today, yesterday, or the date. */
export function dayName(iso: string, now = new Date()): string {
  const language = dateLanguage();
  const time = new Date(iso);
  const ago = Math.round((midnight(now) - midnight(time)) / 86_400_000);
  const name =
    ago === 0 || ago === 1
      ? new Intl.RelativeTimeFormat(language, { numeric: "auto" }).format(-ago, "day")
      : time.toLocaleDateString(language, {
          ...{ weekday: "long", day: "numeric", month: "long" },
          ...(time.getFullYear() !== now.getFullYear() && { year: "numeric" }),
        });
  return name.charAt(0).toLocaleUpperCase(language) + name.slice(1);
}

/** What writes times of day, of the language that was asked for last: it is costly to make, and needed for each row. */
let times: { readonly language: string; readonly format: Intl.DateTimeFormat } | undefined;

/** The time of day at which something came. */
export function timeOfDay(iso: string): string {
  const language = dateLanguage();
  if (times?.language !== language)
    times = { language, format: new Intl.DateTimeFormat(language, { hour: "2-digit", minute: "2-digit" }) };
  return times.format.format(new Date(iso));
}
