import { notice, type Notice } from "../../content/notice.js";
import type { Snippet } from "../../drawer/snippets.js";
import { page as words } from "../../messages/core/page-sentences.js";
import { pageNotices } from "../../messages/en/page.js";
import type { FieldToFill, FillPlan } from "../places/form.js";
import { forms } from "./lazy.js";
import type { Placed } from "./placements.js";

/**
 * Plans what the form around an element would get of snippets, by their labels.
 * @param isWanted whether a field is one that may be filled
 */
export async function planFillOf(
  snippets: readonly Snippet[],
  element: Element | undefined,
  isWanted: (field: Element) => boolean,
): Promise<FillPlan> {
  const { formAround, planFill } = await forms();
  return planFill(formAround(element), snippets, isWanted);
}

/** Puts what was planned into the fields of a form. Returns what was placed, and what is told of it. */
export async function fillForm(
  fields: readonly FieldToFill[],
): Promise<{ readonly filled: Placed; readonly notices: readonly Notice[] }> {
  const { fillFields } = await forms();
  const placing = await fillFields(fields);
  return {
    filled: { placing, what: words.fields(fields.length) },
    notices: [notice(pageNotices, "filled/page", { count: fields.length })],
  };
}
