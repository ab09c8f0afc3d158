import { spokenLanguage } from "../../../messages/core/language.js";

/** The language in which dates are written: the one that is spoken, as the page or the browser writes it. */
export function dateLanguage(): string {
  const { tag } = spokenLanguage();
  return (
    [document.documentElement.lang, navigator.language].find((each) => each.split("-")[0] === tag) ?? tag
  );
}

/** A time as people read it here: day, month, hour and minute. */
export function shownTime(iso: string): string {
  return new Date(iso).toLocaleString(dateLanguage(), { dateStyle: "medium", timeStyle: "short" });
}

/** How long ago a time is as people say it, `2 minutes ago`; of more than a day ago the time itself. */
export function saidTime(iso: string): string {
  const minutes = Math.round((Date.parse(iso) - Date.now()) / 60_000);
  if (minutes <= -24 * 60) return shownTime(iso);
  const said = new Intl.RelativeTimeFormat(dateLanguage(), { numeric: "auto" });
  if (minutes > -1) return said.format(0, "second");
  return minutes > -60 ? said.format(minutes, "minute") : said.format(Math.round(minutes / 60), "hour");
}
