import { Block } from "../../compose/block.js";
import { compose } from "../../compose/compose.js";
import { DrawerError } from "../../content/error.js";
import { fold } from "../../content/fold.js";
import { paragraph, type Cell, type Content } from "../../content/model.js";
import type { Snippet } from "../../drawer/snippets.js";
import { cellText } from "../../formats/text/write.js";
import { pageErrors } from "../../messages/en/page.js";
import { setChecked, setChosen } from "./choices.js";
import { describePlace, labelOf } from "./name.js";
import { allOrNone, type Placing } from "./place.js";
import { placeOf } from "./index.js";

/** A value for a field, by the label that it goes to. */
interface Labelled {
  readonly label: string;
  readonly content: Content;
  /** The value behind what is shown, as a field for it takes it: a date in ISO 8601, a number. */
  readonly value?: string | undefined;
}

/** A field of a form, and what it is to get. */
export interface FieldToFill {
  readonly field: HTMLElement;
  /** What users know the field by. */
  readonly name: string;
  readonly text: string;
}

/** What a form would get of some snippets. */
export interface FillPlan {
  readonly fields: readonly FieldToFill[];
  /** Fields that have a value, and do not take it; with why. */
  readonly refused: readonly (FieldToFill & { readonly why: "closed" | "form" })[];
  /** Labels that no field is called by. */
  readonly unmatched: readonly string[];
}

/** What a form is filled in by a user. By what a secret is written in it nobody is filled. */
const FIELDS =
  "input:not([type=hidden], [type=password], [type=file], [type=submit], [type=button], [type=reset], [type=image]), textarea, select, [contenteditable]";

/** What the purposes that a field declares are called by people (HTML, autofill). */
const PURPOSES: Readonly<Record<string, readonly string[]>> = {
  name: ["full name"],
  "given-name": ["first name", "forename"],
  "family-name": ["last name", "surname"],
  email: ["e mail", "mail", "e mail address", "email address"],
  tel: ["telephone", "phone", "phone number"],
  organization: ["company", "firm"],
  "street-address": ["address", "street"],
  "postal-code": ["postcode", "zip", "zip code"],
  "address-level2": ["town", "city", "place"],
  country: ["country"],
  "country-name": ["country"],
  bday: ["birthday", "date of birth"],
  url: ["website", "web address", "homepage"],
};

/** The form around an element: what it calls so, or what holds a few fields at least; the whole page otherwise. */
export function formAround(element: Element | undefined): ParentNode {
  if (!element?.isConnected) return document.forms[0] ?? document;
  const form = element.closest("form, [role=form]");
  if (form) return form;
  let around: Element | null = element;
  while (around && around.querySelectorAll(FIELDS).length < 2) around = around.parentElement;
  return around ?? (element.getRootNode() as Document | ShadowRoot);
}

/**
 * Plans which fields of a form get what of snippets that have labels, or are tables of two columns: by the label of a field,
 * its name, or the purpose that it declares. Nothing is filled.
 *
 * @param isOfPage tells which fields may be filled
 */
export function planFill(
  form: ParentNode,
  snippets: readonly Snippet[],
  isOfPage: (element: Element) => boolean = () => true,
): FillPlan {
  const fields = [...form.querySelectorAll<HTMLElement>(FIELDS)]
    .filter(isOfPage)
    .map((field) => ({ field, name: labelOf(field) ?? field.localName, called: namesOf(field) }));
  const plan = {
    fields: [] as FieldToFill[],
    refused: [] as FillPlan["refused"][number][],
    unmatched: [] as string[],
  };
  const taken = new Set<HTMLElement>();
  for (const labelled of snippets.flatMap(labelledOf)) {
    const free = fields.filter(({ field }) => !taken.has(field));
    const found = matching(free, simplified(labelled.label));
    if (!found) {
      plan.unmatched.push(labelled.label);
      continue;
    }
    const { field, name } = found;
    for (const each of groupOf(field)) taken.add(each);
    const text = textFor(field, labelled);
    const why = isClosed(field) ? "closed" : isTaken(field, text) ? undefined : "form";
    if (why) plan.refused.push({ field, name, text, why });
    else plan.fields.push({ field, name, text });
  }
  return plan;
}

/** What snippets say by labels: one with a label its content, a table of two columns each of its rows. */
function labelledOf({ label, content }: Snippet): readonly Labelled[] {
  const [table, ...others] = content;
  if (table?.type === "table" && others.length === 0 && table.rows.every((row) => row.length === 2))
    return table.rows.slice(table.headerRows).flatMap(([name, value]) => {
      const said = cellText(name!.flows).trim();
      return said === "" ? [] : [{ label: said, content: value!.flows, value: valueOf(value!) }];
    });
  return label === undefined ? [] : [{ label, content, value: undefined }];
}

function valueOf({ value }: Cell): string | undefined {
  if (value?.type === "date") return value.date;
  if (value?.type === "number") return String(value.number);
  return value && String(value.boolean);
}

/** A label without what does not tell it from others: case, accents, and signs. */
function simplified(label: string): string {
  return fold(label.replace(/([a-z])([A-Z])/g, "$1 $2"))
    .replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();
}

/** All that a field is called by, simplified. */
function namesOf(field: HTMLElement): readonly string[] {
  const purpose = (field.getAttribute("autocomplete") ?? "").split(/\s+/).at(-1)!;
  const attributes = ["name", "id", "placeholder", "title"].map((name) => field.getAttribute(name) ?? "");
  const group = field.closest("fieldset")?.querySelector("legend")?.textContent ?? "";
  const isChoice = field.matches("[type=radio]");
  const called = isChoice ? [group, field.getAttribute("name") ?? ""] : [labelOf(field) ?? "", ...attributes];
  return [...called, purpose, ...(PURPOSES[purpose] ?? [])].map(simplified).filter((name) => name !== "");
}

/** The field that is called by a label: exactly, or else the only one whose name begins with it, or it with the name. */
function matching<Field extends { readonly called: readonly string[] }>(
  fields: readonly Field[],
  label: string,
): Field | undefined {
  const exact = fields.find(({ called }) => called.includes(label));
  if (exact || label === "") return exact;
  const begins = (one: string, other: string) => one.startsWith(`${other} `);
  const near = fields.filter(({ called }) =>
    called.some((name) => begins(name, label) || begins(label, name)),
  );
  return near.length === 1 ? near[0] : undefined;
}

/** The fields that are one choice with a field. */
function groupOf(field: HTMLElement): readonly HTMLElement[] {
  if (!field.matches("[type=radio]")) return [field];
  const name = CSS.escape(field.getAttribute("name") ?? "");
  const root: ParentNode = field.closest("form") ?? (field.getRootNode() as Document | ShadowRoot);
  return [...root.querySelectorAll<HTMLElement>(`[type=radio][name="${name}"]`)];
}

function isClosed(field: HTMLElement): boolean {
  return field.matches(":disabled, :read-only:is(input, textarea):not([type=checkbox], [type=radio])");
}

/** Types of input whose values have a form of their own. */
const WITH_VALUE = /^(?:date|month|week|time|datetime-local|number|range|color)$/;

/** What a field gets of a value: what lies behind it where that is what such a field takes. */
function textFor(field: HTMLElement, { content, value }: Labelled): string {
  const { type } = field as HTMLInputElement;
  if (field.localName === "input" && WITH_VALUE.test(type) && value !== undefined)
    return type === "date" ? value.slice(0, 10) : type === "time" ? value.slice(11, 16) : value;
  const fit = placeOf(field)?.fit;
  return compose([{ content, pictures: new Map() }], {
    fit: fit === "page" || fit === "plain" ? fit : "line",
  }).text.trim();
}

/** Whether a field takes a text. */
function isTaken(field: HTMLElement, text: string): boolean {
  if (field.localName === "select") return optionOf(field as HTMLSelectElement, text) !== undefined;
  if (field.localName !== "input") return true;
  const { type, maxLength } = field as HTMLInputElement;
  if (type === "radio") return groupOf(field).some((each) => isMeant(each, text));
  if (type === "checkbox") return checkedBy(text) !== undefined;
  if (maxLength >= 0 && text.length > maxLength) return false;
  if (!WITH_VALUE.test(type)) return true;
  const probe = document.createElement("input");
  probe.type = type;
  probe.value = text;
  return probe.value === text || (type === "color" && probe.value === text.toLowerCase());
}

function optionOf({ options }: HTMLSelectElement, text: string): HTMLOptionElement | undefined {
  const wanted = simplified(text);
  return [...options].find((option) => [option.text, option.value].map(simplified).includes(wanted));
}

/** Whether a radio button is the one that a text means. */
function isMeant(radio: HTMLElement, text: string): boolean {
  const wanted = simplified(text);
  return [labelOf(radio) ?? "", (radio as HTMLInputElement).value].map(simplified).includes(wanted);
}

/** What a text means for a box that is checked or not. */
function checkedBy(text: string): boolean | undefined {
  const said = simplified(text);
  if (/^(?:yes|true|x|1|on|checked|ja)$/.test(said) || text.trim() === "☑" || text.trim() === "✓")
    return true;
  return /^(?:no|false|0|off|nein|)$/.test(said) ? false : undefined;
}

/**
 * Fills fields with what was planned, all or none of them.
 * @throws DrawerError `not-placed` when one does not take it after all; then all are as they were
 */
export async function fillFields(fields: readonly FieldToFill[]): Promise<Placing> {
  if (fields.length === 0) throw new DrawerError(pageErrors, "nothing/fill", {});
  return allOrNone(fields.map((field) => () => fillField(field)));
}

async function fillField({ field, name, text }: FieldToFill): Promise<Placing> {
  if (field.localName === "select")
    return setChosen(field as HTMLSelectElement, optionOf(field as HTMLSelectElement, text)!);
  if (field.matches("[type=radio]"))
    return setChecked(groupOf(field).find((each) => isMeant(each, text)) as HTMLInputElement, true);
  if (field.matches("[type=checkbox]")) return setChecked(field as HTMLInputElement, checkedBy(text)!);
  if ((field as HTMLInputElement).value === text) return { takeBack: async () => true };
  const place = placeOf(field);
  if (!place || !field.isConnected)
    throw new DrawerError(pageErrors, "not-placed/closed", { place: describePlace(field, name) });
  const block = new Block(
    text.split("\n").map((line) => paragraph(line)),
    [],
  );
  const range = field.ownerDocument.createRange();
  range.selectNodeContents(field);
  const { value } = field as HTMLInputElement;
  return place.put(block, typeof value === "string" ? { offsets: [0, value.length] } : { range });
}
