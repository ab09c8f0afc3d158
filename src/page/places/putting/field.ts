import type { Block } from "../../../compose/block.js";
import { DrawerError } from "../../../content/error.js";
import { addressesOf } from "../../../content/traverse.js";
import { escapeHtml } from "../../../formats/html/escape.js";
import { pageErrors } from "../../../messages/en/page.js";
import { WITHOUT_CARET, type Field } from "../field-types.js";
import { describePlace } from "../name.js";
import type { Caret, Placing } from "../place.js";
import { trustedHtml } from "../trusted-html.js";
import { isItem, standsAlone } from "./lines.js";

/** A text without line ends. */
const asLine = (text: string) => text.replace(/\s*\n\s*/g, " ");

/** What a field of one line, of a type, gets of a block. */
function lineFor(field: HTMLInputElement, block: Block): string {
  const line = asLine(block.text);
  if (field.type === "url") return addressesOf(block.content)[0] ?? line;
  return field.type === "number" ? numberIn(line) : line;
}

/** A number as a field for numbers takes it: a comma that can only be a decimal one becomes a point. */
function numberIn(line: string): string {
  const [, whole, decimals] = /^\s*([+-]?\d+),(\d+)\s*$/.exec(line) ?? [];
  return whole === undefined || decimals!.length === 3 ? line.trim() : `${Number(whole)}.${decimals!}`;
}

/** Refuses a text that a field of its own form would show and not hold, before anything is written. */
function refuseForm(field: Field, text: string): void {
  if (!WITHOUT_CARET.test(field.type)) return;
  const { ownerDocument: document, type } = field;
  const trial = document.createElement("input");
  Object.assign(trial, { type, multiple: (field as HTMLInputElement).multiple, value: text });
  const isHeld = trial.value !== "" && !trial.validity.typeMismatch;
  if (!isHeld && text.trim() !== "") throw notOfForm(field, text);
}

function notOfForm(field: Field, text: string): DrawerError {
  return new DrawerError(pageErrors, "not-placed/form", {
    place: describePlace(field),
    type: field.type,
    text,
  });
}

/** Whether a field has several lines; told by its name, as an element of a frame is of the frame's classes. */
const isArea = (field: Field): field is HTMLTextAreaElement => field.localName === "textarea";

/** What a field of several lines gets of a block. Several lines, or a list, do not begin in the middle of a line. */
function linesFor({ value, selectionStart }: HTMLTextAreaElement, block: Block): string {
  const isMidLine = /[^\n]$/.test(value.slice(0, selectionStart));
  const isAlone = (standsAlone(block) && block.text.includes("\n")) || isItem(block);
  return (isMidLine && isAlone ? "\n" : "") + block.text;
}

/** Whether a field does not let one write. */
function isClosed(field: Field): boolean {
  return field.readOnly || field.matches(":disabled");
}

/** Refuses what is put into a field that does not let one write. */
function refuseClosed(field: Field): void {
  if (isClosed(field))
    throw new DrawerError(pageErrors, "not-placed/closed", { place: describePlace(field) });
}

/** Puts a block into a field in which one writes, as {@link Place.put}. */
export function putIntoField(element: Field, block: Block, caret?: Caret): Promise<Placing> {
  return put(element, (field) => (isArea(field) ? linesFor(field, block) : lineFor(field, block)), caret);
}

/** Puts a text in, in one line where the field has one. */
export function putTextIntoField(element: Field, text: string, caret?: Caret): Promise<Placing> {
  return put(element, (field) => (isArea(field) ? text : asLine(text)), caret);
}

/** Puts in what is told once the caret is in the field. */
async function put(field: Field, textFor: (field: Field) => string, caret?: Caret): Promise<Placing> {
  refuseClosed(field);
  const before = field.value;
  refuseForm(field, textFor(field));
  // A field whose caret a page can neither see nor set gets it back with the focus.
  if (WITHOUT_CARET.test(field.type)) field.blur();
  field.focus();
  select(field, caret?.offsets);
  const { selectionStart } = field;
  // Where the caret cannot be seen, it is at the end, or all is selected: the browser knows.
  const [start, end] = selectionStart === null ? [] : [selectionStart, field.selectionEnd!];
  const text = textFor(field);
  if (start !== undefined) refuseTooLong(field, before.length - (end! - start) + text.length);
  write(field, text);
  const wanted = start === undefined ? undefined : before.slice(0, start) + text + before.slice(end);
  // With what was there before, it may be of no form: a field for numbers holds nothing then, and shows all of it.
  if (field.validity.badInput || field.validity.typeMismatch) {
    setValue(field, "0");
    setValue(field, before);
    throw notOfForm(field, text);
  }
  const isThere = wanted === undefined ? field.value !== before : field.value === wanted;
  if (!isThere) {
    if (field.value !== before) setValue(field, before);
    throw new DrawerError(pageErrors, "not-placed/refused", { place: describePlace(field) });
  }
  const after = field.value;
  const selected = start === undefined ? "" : before.slice(start, end);
  return {
    async takeBack() {
      if (!field.isConnected || field.value !== after || isClosed(field)) return false;
      field.focus();
      if (start === undefined) setValue(field, before);
      else {
        field.setSelectionRange(start, start + text.length);
        write(field, selected);
      }
      return field.value === before;
    },
  };
}

/** Selects what is to be written over, or puts the caret back. */
function select(field: Field, offsets: Caret["offsets"]): void {
  if (!offsets || offsets[1] > field.value.length) return;
  if (field.selectionStart !== null) field.setSelectionRange(...offsets);
  else if (offsets[0] === 0 && offsets[1] === field.value.length) field.select();
}

function refuseTooLong(field: Field, length: number): void {
  const { maxLength } = field;
  if (maxLength >= 0 && length > maxLength)
    throw new DrawerError(pageErrors, "not-placed/long", {
      place: describePlace(field),
      length,
      most: maxLength,
    });
}

/** Sets a field that holds a value of its own form to a block's line. */
export async function setFieldTo(field: HTMLInputElement, block: Block): Promise<Placing> {
  refuseClosed(field);
  field.focus();
  const before = field.value;
  const text = lineFor(field, block).trim();
  setValue(field, text);
  if (field.value !== text) {
    setValue(field, before);
    throw notOfForm(field, text);
  }
  return {
    async takeBack() {
      if (!field.isConnected || field.value !== text) return false;
      setValue(field, before);
      return true;
    },
  };
}

/**
 * Writes text in place of what is selected in a field, as one step of its own undo. The old editing command is the one
 * way of writing that the browser's undo takes back; and of the two there are, the one for HTML is a step of its own, and
 * does not write line by line.
 */
function write(field: Field, text: string): void {
  const document = field.ownerDocument;
  const before = field.value;
  if (text === "") document.execCommand("delete");
  else if (
    !document.execCommand("insertHTML", false, trustedHtml(escapeHtml(text))) ||
    field.value === before
  )
    document.execCommand("insertText", false, text);
}

/**
 * Sets the whole value as the user's own writing does: libraries that keep values of their own are told too.
 * @param told which events tell of it: that it is being written, or that it is done as well
 */
export function setValue(field: Field, value: string, told: "input" | "change" = "change"): void {
  Object.getOwnPropertyDescriptor(Object.getPrototypeOf(field) as object, "value")!.set!.call(field, value);
  field.dispatchEvent(new Event("input", { bubbles: true, composed: true }));
  if (told === "change") field.dispatchEvent(new Event("change", { bubbles: true }));
}
