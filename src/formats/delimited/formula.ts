import type { Run } from "../../content/model.js";
import { runsText } from "../../content/runs.js";

/** How text is kept from being run as a formula by a sheet that it lands in, and how that is taken off again. */

/**
 * Where in a cell a sheet may see the beginning of a formula, and what stands there: at the cell's beginning, and after what parts
 * cells or rows in the languages of other sheets, where quotation marks do not hold the cell together.
 */
const BEGINNINGS = /(?<=^|[;\t\r\n])'* *[=@+-][^;\t\r\n]*/g;

/** Whether there is such a place; most texts have none, which is quickly seen. */
const BEGINS = /(?:^|[;\t\r\n])'* *[=@+-]/;

/** What begins with a sign and is no formula: amounts and measures, telephone numbers with spaces, and dashes before words. */
const HARMLESS = [
  /^[+-] ?\p{Sc}? ?[\d.,'’ \u00A0\u202F]*[%‰]?$/u,
  /^[+-] ?\d[\d.,]*[ \u00A0\u202F]?(?:[%‰\p{Sc}]|°?\p{L}{1,12}\.?)$/u,
  /^\+\d(?=.*(?:\d \d|\) ?\d|\d ?\())[\d ()/.-]*$/,
  /^- +(?!.*(?:[=|!*^&<>]|[\p{L}\d_.]\())\p{L}/u,
];

/** Whether a sheet would run what stands at such a place. */
function isRun(text: string): boolean {
  const said = text.replace(/^'* */, "").trimEnd();
  return !HARMLESS.some((form) => form.test(said));
}

/** The text of a cell with an apostrophe, by which sheets know text, before whatever a sheet would run. */
export function guardFormula(text: string): string {
  return BEGINS.test(text) ? text.replace(BEGINNINGS, (at) => (isRun(at) ? `'${at}` : at)) : text;
}

/** The text of a cell as it was before {@link guardFormula}. */
export function unguardFormula(text: string): string {
  if (!text.includes("'")) return text;
  return text.replace(BEGINNINGS, (at) => (at.startsWith("'") && isRun(at) ? at.slice(1) : at));
}

/** A sign that shows nothing, and keeps a line of text outside tables from being a formula (U+2060, word joiner). */
const JOINER = "\u2060";

/** What sheets run of a line that stands in a cell of its own: beginnings of formulas, and of calls by other signs. */
const RUN_LINE = /^\s*(?:=|@[\w.]*\(|[+-](?=.*[(!|]))/;

/**
 * The runs of one line in HTML, with a sign before it that shows nothing where a sheet would run the line. Code is marked
 * only where it could not be meant otherwise, so that it stays what it is.
 */
export function markedLine(runs: readonly Run[]): readonly Run[] {
  if (!RUN_LINE.test(runsText(runs))) return runs;
  const first = runs.findIndex((run) => run.type === "text" && run.text.trim() !== "");
  return runs.map((run, at) =>
    at === first && run.type === "text" ? { ...run, text: run.text.replace(/\S/, `${JOINER}$&`) } : run,
  );
}

/** Code with a sign before each line that a sheet would run. */
export function markedCode(text: string): string {
  return text.replace(/^(\s*)(?==)/gm, `$1${JOINER}`);
}

/** HTML without those signs. */
export function unmarked(html: string): string {
  return html.includes(JOINER) ? html.replace(/\u2060(?=[=@+-])/g, "") : html;
}

/** Whether a sheet might take some line of a cell for something else than text. */
export function looksTyped(text: string): boolean {
  return /^[\s\d=+\-@.'(\p{Sc}]/mu.test(text) || /^(?:true|false)$/im.test(text);
}
