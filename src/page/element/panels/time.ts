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
