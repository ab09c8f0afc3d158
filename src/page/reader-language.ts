import { setLanguage } from "../messages/core/language.js";

/**
 * Speaks the language of the reader's browser, where a page of Drawer's own has it.
 * @returns its name (BCP 47): `en` where there is no other
 */
export async function speakToReader(): Promise<"de" | "en"> {
  if (!/^de\b/i.test(navigator.language)) return "en";
  const { de } = await import("../messages/de/index.js");
  setLanguage(de);
  document.documentElement.lang = de.tag;
  return "de";
}
