import { formats } from "./formats.js";
import { action, type ActionSummary } from "./actions.js";
import type { NamedSnippet } from "../names.js";
import { grouped, limits, many, named, quotedAll, SECRETS, size } from "./phrases.js";

/** Whose positions a pick counts: a drawer's snippets, or what has left it. */
export interface PickedFrom {
  readonly drawer: string;
  readonly isGone: boolean;
}

const whereOf = ({ drawer, isGone }: PickedFrom): string =>
  isGone ? `what has left the drawer “${drawer}”` : `the drawer “${drawer}”`;

const isEmpty = (drawer: string): string => `The drawer “${drawer}” is empty. Collect something first.`;
const noneGone = (drawer: string): string =>
  `Nothing has left the drawer “${drawer}” that could be brought back.`;

const PICK_FORMS =
  "3, 2..5, 5..2, 3.., ..3, first, last, last-1, all, kept, text, table, picture, link, from:diary.docx, /words/ or !3";

const SAVE_AGAIN = "Open it in its own program and save it again.";

/** Drawer's refusals: what is wrong, where, and the way out. The part before the slash is the code that programs tell by. */
export const errors = {
  /** The file cannot be read, whatever it is. Check its name and whether you may read it. */
  "no-file": ({ path, why }: { path: string; why: keyof typeof whyNotRead | { readonly text: string } }) =>
    `“${path}” cannot be read: ${typeof why === "string" ? whyNotRead[why] : why.text}.`,
  /** A device or a pipe was named as a file. Lead it into standard input, which ends at a limit. */
  "no-file/device": ({ path }: { path: string }) => `“${path}” is no file but a device or a pipe.`,

  /** A part that the file must have is missing or not whole. */
  "unreadable/part": ({ file, part }: { file: string; part?: string }) =>
    part === undefined
      ? `“${file}” is damaged: a part of it is not whole. ${SAVE_AGAIN}`
      : `“${file}” is damaged: its part “${part}” is missing. ${SAVE_AGAIN}`,
  /** The file is no whole archive or workbook. */
  "unreadable/damaged": ({ file }: { file: string }) => `“${file}” is damaged or cut short. ${SAVE_AGAIN}`,
  /** The file has the ending of a format whose content it does not hold. */
  "unreadable/not-one": ({ file, what }: { file: string; what: keyof typeof formats.kinds }) =>
    `“${file}” is not a ${formats.kinds[what].name}: it has no ${formats.kinds[what].lacks}.`,
  /** The file of the user's keys holds something else. */
  "unreadable/keys": ({ file }: { file: string }) =>
    `“${file}” does not hold keys. Put it right, or take it away and set your keys again.`,
  /** The picture is of a type that Drawer does not read, or an SVG that does more than draw. */
  "unreadable/picture": ({ file }: { file: string }) =>
    `“${file}” is not a picture that Drawer reads: PNG, JPEG, GIF, WebP, or an SVG without scripts and outside addresses.`,
  /** A quotation mark in CSV or TSV is never closed. */
  "unreadable/quote": ({ row }: { row: number }) =>
    `Row ${row} of this table has a quotation mark that is never closed. Close it, or collect it as text.`,

  /** The document can only be opened with a password. */
  locked: ({ file }: { file: string }) =>
    `“${file}” is protected with a password. Open it in its own program and save a copy without one.`,
  /** The document is in an office format from before 2007. */
  "unknown-format/old": ({ file }: { file: string }) =>
    `“${file}” is in an old office format. Save it as docx, odt, xlsx or ods.`,
  /** Drawer does not read files with this ending. */
  "unknown-format/read": ({
    file,
    ending,
    formats: read,
  }: {
    file: string;
    ending?: string;
    formats: string;
  }) =>
    ending === undefined
      ? `“${file}” has no ending that tells what it is. Drawer reads ${read}.`
      : `Drawer does not read “.${ending}” files (“${file}”). It reads ${read}.`,
  /** Drawer does not write files with this ending. */
  "unknown-format/write": ({ file, endings }: { file: string; endings: readonly string[] }) =>
    `“${file}” does not end in a format that Drawer writes (${endings.join(" ")}). Change its ending.`,

  /** A text has more characters than Drawer takes at once. */
  "too-large/characters": ({ what, characters, most }: { what: string; characters: number; most: number }) =>
    `This ${what} has ${grouped(characters)} characters; Drawer takes at most ${grouped(most)} at once. Collect it in parts.`,
  /** A file, or standard input, has more bytes than Drawer takes at once. */
  "too-large/bytes": ({ file, most }: { file?: string; most: number }) =>
    `${file === undefined ? "Standard input" : `“${file}”`} has more than ${size(most)}; Drawer takes at most that. Collect it in parts.`,
  /** What was copied has more bytes than Drawer takes at once. */
  "too-large/clipboard": ({ most }: { most: number }) =>
    `What was copied has more than ${size(most)}; Drawer takes at most that. Copy it in parts.`,
  /** A table has more cells than Drawer takes at once. */
  "too-large/cells": ({ most }: { most: number }) =>
    `This table has more than ${grouped(most)} cells. Collect it in parts.`,
  /** A workbook has more cells than Drawer takes at once. */
  "too-large/workbook": ({
    file,
    most,
    isByRepeats,
  }: {
    file: string;
    most: number;
    isByRepeats: boolean;
  }) =>
    isByRepeats
      ? `“${file}” repeats rows and cells to more than ${grouped(most)} cells. It was not read; save the sheets you need by themselves.`
      : `“${file}” has more than ${grouped(most)} cells. It was not read; save the sheets you need by themselves.`,
  /** A range of a sheet has more cells than Drawer takes at once. */
  "too-large/range": ({
    sheet,
    cells,
    most,
    example,
  }: {
    sheet: string;
    cells: number;
    most: number;
    example: string;
  }) =>
    `The sheet “${sheet}” reaches over ${grouped(cells)} cells; Drawer takes at most ${grouped(most)} at once. Name a smaller range of it, such as ${example}.`,
  /** Elements, tables or lists are nested deeper than in any real document. */
  "too-large/nesting": ({
    file,
    what,
    depth,
  }: {
    file?: string;
    what: "elements" | "tables" | "lists or tables";
    depth: number;
  }) =>
    file === undefined
      ? `This HTML has elements nested more than ${depth} deep, which no real page has. Collect it as text instead.`
      : `“${file}” has ${what} nested more than ${depth} deep. It was not read.`,
  /** A document has more elements, or unpacks to more bytes, than any real one. */
  "too-large/document": ({
    file,
    what,
    most,
  }: {
    file: string;
    what: "bytes" | "elements" | "depth";
    most: number;
  }) =>
    what === "bytes"
      ? `“${file}” unpacks to more than ${size(most)}, which no real document does. It was not read.`
      : what === "elements"
        ? `“${file}” has more than ${grouped(most)} elements in one part. It was not read; save it in parts.`
        : `“${file}” has elements nested more than ${grouped(most)} deep. It was not read; save it in parts.`,
  /** A drawer file has a line longer than any that Drawer writes. */
  "too-large/line": ({ file, most }: { file: string; most: number }) =>
    `Nothing was imported: “${file}” has a line of more than ${size(most)}, which no drawer file has.`,
  /** A drawer file has more bytes than Drawer imports at once. */
  "too-large/import": ({ file, most }: { file: string; most: number }) =>
    `“${file}” has more than ${size(most)}; Drawer imports at most that. Export it in parts.`,

  /** A document has no such spot. */
  "no-spot": ({ file, spot, has }: { file: string; spot: string; has: Parts }) =>
    `“${file}” has no ${spot}: it has ${partsOf(has)}.`,
  /** A workbook has no such sheet. */
  "no-spot/sheet": ({ file, sheet, sheets }: { file: string; sheet: string; sheets: string }) =>
    `“${file}” has no sheet “${sheet}”. Its sheets are: ${sheets}.`,
  /** A workbook has no such cells. */
  "no-spot/cells": ({
    file,
    spot,
    example,
    sheets,
  }: {
    file: string;
    spot: string;
    example: string;
    sheets: string;
  }) =>
    `“${file}” has no ${spot}. Write cells as ${example}!A2:G2, rows as 3:5, columns as A:C, or the name of a sheet: ${sheets}.`,
  /** A table of a document has no such cells. */
  "no-spot/table": ({
    file,
    spot,
    rows,
    columns,
  }: {
    file: string;
    spot: string;
    rows: number;
    columns: number;
  }) => `“${file}” has no cells ${spot}: the table has ${rows} rows and ${columns} columns.`,
  /** Lines are counted in plain text only. */
  "no-spot/lines": ({ file, spot }: { file: string; spot: string }) =>
    `“${file}” has no lines to count: ${spot} is for plain text. Use p3 or p3..p6.`,
  /** What was written is not the form of a spot. */
  "bad-spot": ({ spot }: { spot: string }) =>
    `“${spot}” is not a spot of a document. Write p3, p3..p6, t1, t1!A1:C2, i1, s2, or in plain text l10..l14.`,

  /** There is no snippet at this position. */
  "no-position": ({ place, from, count }: { place: string; from: PickedFrom; count: number }) =>
    count === 0
      ? `There is no snippet ${place}: ${whereOf(from)} is empty.`
      : `There is no snippet ${place}: ${whereOf(from)} holds ${count === 1 ? "one snippet, 1" : `${count} snippets, 1 to ${count}`}.`,
  /** A position was given, and the drawer holds nothing. */
  "no-position/empty": ({ drawer }: { drawer: string }) => isEmpty(drawer),
  /** A position was given, and nothing has left the drawer. */
  "no-position/none-gone": ({ drawer }: { drawer: string }) => noneGone(drawer),
  /** The pick holds nothing. */
  "bad-pick/empty": () => `The pick is empty. Say which snippets: ${PICK_FORMS}.`,
  /** A word of the pick is none. */
  "bad-pick/word": ({ word }: { word: string }) =>
    `“${word}” is not a pick. Write a pick like ${PICK_FORMS}.`,
  /** A word is no position. */
  "bad-pick/place": ({ word }: { word: string }) =>
    `“${word}” is not a position. Write a number, first, last, or last-1.`,

  /** There is no such name among those that can be given. */
  "bad-option/name": ({ what, name, names }: { what: string; name: string; names: readonly string[] }) =>
    `There is no ${what} “${name}”. There is: ${names.join(", ")}.`,
  /** The locale is not a language tag (BCP 47). */
  "bad-option/locale": ({ locale }: { locale: string }) =>
    `“${locale}” is not the name of a language. Write one like en, de or pt-BR.`,
  /** A layout has no place for this text between pieces. */
  "bad-option/between": ({
    as,
    between,
    instead,
  }: {
    as: string;
    between: string;
    instead: keyof typeof BETWEEN_INSTEAD;
  }) =>
    `The layout “${as}” has no place for “${between}” between pieces. ${BETWEEN_INSTEAD[instead]}; with as joined or sentence any text stands between them.`,
  /** Columns are renamed only where rows are stacked. */
  "bad-option/columns": ({ as }: { as: string }) =>
    `Columns are called otherwise only with as rows, not “${as}”.`,
  /** A drawer's name is blank, too long, or has control characters. */
  "bad-option/drawer-name": () =>
    "A drawer needs a name of at most 200 characters, on one line and without control characters.",
  /** A recipe's name is not one short word. */
  "bad-option/recipe-name": () => "A recipe needs a name of one word, of at most 60 characters.",
  /** A label is too long. */
  "bad-option/label": ({ most }: { most: number }) => `A label has at most ${most} characters.`,
  /** Snippets are to be put into the drawer in which they are. */
  "bad-option/same-drawer": ({ drawer }: { drawer: string }) =>
    `They are in the drawer “${drawer}” already. Name another one.`,
  /** A position or a count of a list is no whole number in its range. */
  "bad-option/number": ({ name, value, least }: { name: string; value: unknown; least: number }) =>
    `“${String(value)}” cannot be “${name}”: it is a whole number from ${least} on.`,
  /** A number can be read in two ways. */
  "bad-option/ambiguous": ({
    digits,
    readings: [one, other],
  }: {
    digits: string;
    readings: readonly [string, string];
  }) => `“${digits}” can be read as ${one} or as ${other}. Write ${one} or ${other}.`,
  /** There is no such rule. */
  "bad-option/rule": ({ name, names }: { name: string; names: readonly string[] }) =>
    `There is no rule “${name}”. The rules are: ${names.join(", ")}.`,
  /** A rule was named without a value. */
  "bad-option/rule-without-value": ({ name, form }: { name: string; form: keyof typeof FORM_WORDS }) =>
    `Say what ${name} shall be. Write ${name}= and ${FORM_WORDS[form].typed}.`,
  /** A rule cannot have this value. */
  "bad-option/rule-value": ({
    name,
    value,
    form,
    isTyped,
  }: {
    name: string;
    value: string;
    form: keyof typeof FORM_WORDS;
    isTyped: boolean;
  }) =>
    isTyped
      ? `“${value}” is nothing that ${name} can be. Write ${name}= and ${FORM_WORDS[form].typed}.`
      : `“${value}” is nothing that the rule “${name}” can be. It can be ${FORM_WORDS[form].given}.`,

  /** The drawer holds nothing. */
  "nothing/empty": ({ drawer }: { drawer: string }) => isEmpty(drawer),
  /** Nothing has left the drawer that could be brought back. */
  "nothing/none-gone": ({ drawer }: { drawer: string }) => noneGone(drawer),
  /** The pick matches no snippet. */
  "nothing/no-match": ({ pick, from }: { pick: string; from: PickedFrom }) =>
    `Nothing in ${whereOf(from)} matches “${pick}”.`,
  /** There was nothing to append, or it is blank. */
  "nothing/append": ({ place }: { place?: string }) =>
    `Nothing appended: ${place === undefined ? "nothing was given" : blank(place)}.`,
  /** Merging takes two snippets or more. */
  "nothing/merge": ({ pick, count }: { pick: string; count: 0 | 1 }) =>
    `“${pick}” is ${count === 0 ? "no snippet" : "one snippet"}: merging takes two or more.`,
  /** The snippet was never merged or appended to. */
  "nothing/split": ({ position, snippet }: { position: number; snippet: NamedSnippet }) =>
    `Snippet ${position} is of one piece: ${named(snippet)} was never merged or appended to.`,
  /** No operation stands that could be undone. */
  "nothing/undo": () => "There is nothing to undo.",
  /** Nothing was undone since the last operation. */
  "nothing/redo": () => "There is nothing to do again.",
  /** No deal has been begun. */
  "nothing/deal": () => "Nothing is being dealt. Begin a deal with a pick first.",
  /** No recipe has this name. */
  "nothing/recipe": ({ name, drawer, names }: { name: string; drawer: string; names: readonly string[] }) =>
    `There is no recipe “${name}” in the drawer “${drawer}”. ${names.length === 0 ? "None is kept yet." : `Kept are: ${names.join(", ")}.`}`,
  /** In a page, no place has been chosen for a block. */
  "nothing/target": () => "Click first where it should go: in the text, or in a field.",
  /** On a page, nothing is selected that could be collected. */
  "nothing/selected-here": () => "Nothing is selected. Select something first.",
  /** On a page, no field of the form is called like a label of the snippets. */
  "nothing/fill": () =>
    "No field is filled: none is called like a label of the snippets. Give labels, or pick a table of labels and values.",
  /** The browser does not let the page copy. */
  "failed/clipboard": () =>
    "The browser does not let this page write to the clipboard. Allow it, or select the block and copy it.",
  /** Something failed that is no fault of the user's. */
  failed: ({ why }: { why: string }) => `That failed: ${why}`,
  /** The place where the user last was takes no block: a password, a frame of another site, a control. */
  "not-placed/kind": ({ place }: { place: string }) =>
    `Nothing was placed: ${place}, where you were last, takes no text from here. Click where it should go.`,
  /** The field lets nobody write. */
  "not-placed/closed": ({ place }: { place: string }) =>
    `Nothing was placed: ${place} cannot be written in now.`,
  /** A field takes only so many characters. */
  "not-placed/long": ({ place, length, most }: { place: string; length: number; most: number }) =>
    `Nothing was placed: ${place} takes ${grouped(most)} characters, and would have ${grouped(length)}.`,
  /** A field of dates, times or other values does not take what is no such value. */
  "not-placed/form": ({ place, type, text }: { place: string; type: string; text: string }) =>
    `Nothing was placed: “${text.slice(0, 40)}” is not what ${place} takes (${type}).`,
  /** The place did not take it. */
  "not-placed/refused": ({ place }: { place: string }) =>
    `Nothing was placed: ${place} did not take it. Click where it should go, and try again.`,
  /** In a page, the cells from the chosen one on are too few. */
  "not-placed/room": ({ place }: { place: string }) =>
    `Nothing was placed: from ${place} on there are not enough cells. Choose one further up or to the left.`,
  /** In a page, nothing was placed that could be taken back. */
  "nothing/placed": () => "Nothing was placed that could be taken back.",
  /** In a page, the text has changed since the block was placed. */
  "nothing/changed": () => "The text has changed since. Use the undo of the text itself.",

  /** Collecting is paused. Resume it. */
  paused: ({ drawer }: { drawer: string }) =>
    `Nothing was collected: collecting is paused in the drawer “${drawer}”. Resume it first.`,
  /** Even without all that may go there is no room by the drawer's rules. */
  full: ({ drawer, snippets, bytes, arriving }: Limits & { drawer: string; arriving?: number }) =>
    `Nothing was put in: the drawer “${drawer}” takes at most ${limits({ snippets, bytes })}, and ${arriving === undefined ? "there is no room, even without all that is not kept" : `${grouped(arriving)} pieces at once are more than it takes`}. Raise its rules “snippets” or “size”, or release or discard some.`,
  /** With what was to be appended the snippet would be too large for the drawer's rules. */
  "full/append": ({ snippet }: { snippet: NamedSnippet }) =>
    `Nothing appended: ${named(snippet)} would be too large for the drawer's rules.`,
  /** The drawer's rules do not let a whole drawer file in. */
  "full/import": ({
    file,
    count,
    drawer,
    snippets,
    bytes,
  }: Limits & { file: string; count: number; drawer: string }) =>
    `Nothing was imported: “${file}” holds ${many(count)}, and the drawer “${drawer}” takes at most ${limits({ snippets, bytes })}. Raise its rules “snippets” or “size”, or import into another drawer.`,

  /** What is private is not appended to another snippet. */
  "private/append": ({ looks }: { looks?: keyof typeof SECRETS }) =>
    `Nothing appended: ${looks === undefined ? "it is private" : `it looks like ${SECRETS[looks]}`}, and what is private stays by itself. Collect it, or say that it is not private.`,
  /** A private snippet is not joined with others. */
  "private/join": ({ position, operation }: { position: number; operation: "append" | "merge" }) =>
    `Nothing ${operation === "append" ? "appended" : "merged"}: snippet ${position} is private, and what is private stays by itself. Take the privacy off first, if that is wrong.`,
  /** A private snippet is not copied into another drawer. */
  "private/copy": ({ position }: { position: number }) =>
    `Nothing copied: snippet ${position} is private, and stays by itself.`,

  /** Others changed the drawer without a pause. */
  conflict: ({ drawer }: { drawer: string }) =>
    `The drawer “${drawer}” is being changed by others without a pause. Try again.`,
  /** What was done has been changed since, in this drawer or in another. */
  "conflict/undo": ({
    operation,
    done,
    drawers,
  }: {
    operation: "undo" | "redo";
    done: ActionSummary;
    drawers: readonly string[];
  }) =>
    `This cannot be ${operation === "undo" ? "undone" : "done again"}: ${action(done)}. It has been changed since${drawers.length > 0 ? ` in the drawer ${quotedAll(drawers)}` : ""}; undo that first.`,
  /** Another process has gone on with the same deal. */
  "conflict/deal": () =>
    "Another program has gone on with this deal at the same moment, and may have handed out the same snippet.",
  /** Another import into the drawer is under way. */
  "conflict/import": ({ drawer }: { drawer: string }) =>
    `Nothing was imported: another import into the drawer “${drawer}” is under way. Try again when it has ended.`,

  /** The file is empty. */
  "bad-file/empty": ({ file }: { file: string }) => `“${file}” is empty, and so no drawer file.`,
  /** The file holds fewer or more snippets than it says. */
  "bad-file/count": ({ file, expected, found }: { file: string; expected: number; found: number }) =>
    `Nothing was imported: “${file}” should hold ${many(expected)} and holds ${grouped(found)}; it was cut short or changed. Export it again.`,
  /** The file is no drawer file. */
  "bad-file/other": ({ file }: { file: string }) =>
    `“${file}” is no drawer file. To take it in as a document, use “collect”.`,
  /** The file was written by a newer Drawer. */
  "bad-file/newer": ({ file, version, known }: { file: string; version: number; known: number }) =>
    `“${file}” was written by a newer Drawer (version ${version} of the form; this one reads ${known}). Nothing was imported. Update Drawer first.`,
  /** A line of the file is not what it should be. */
  "bad-file/line": ({ file, line, fault }: { file: string; line: number; fault: LineFault }) =>
    `Nothing was imported: “${file}”, line ${line}, ${faultOf(fault)}.`,

  /** The content of a snippet is missing from the store. */
  "store/missing": ({ position, snippet }: { position: number; snippet: NamedSnippet }) =>
    `The content of snippet ${position} is not in the store any more. It was ${named(snippet)}.`,
  /** What left cannot come back, because its content is missing from the store. */
  "store/missing-gone": ({ snippet }: { snippet: NamedSnippet }) =>
    `${named(snippet)} cannot be brought back: its content is not in the store any more.`,
  /** A snippet cannot be exported, because its content is missing from the store. */
  "store/missing-export": ({ snippet }: { snippet: NamedSnippet }) =>
    `Nothing was exported: the content of a snippet that began ${named(snippet)} is not in the store any more.`,
  /** The drawers cannot be opened. */
  "store/open": ({ path, why }: { path: string; why: string }) =>
    `The drawers in “${path}” cannot be opened: ${why}.`,
  /** A link stands in place of the file. */
  "store/link": ({ path }: { path: string }) =>
    `The drawers in “${path}” were not opened: a link stands there in place of the file. Set DRAWER_HOME to the folder where they are.`,
  /** The drawers were written by a newer Drawer. */
  "store/newer": ({ path, version, known }: { path: string; version: number; known: number }) =>
    `The drawers in “${path}” were written by a newer Drawer (form ${version}; this one knows ${known}). They were left as they are. Update Drawer to open them.`,
  /** The disk cannot be written. */
  "store/read-only": ({ folder }: { folder: string }) =>
    `Nothing was changed: the drawers in “${folder}” can be read but not written.`,
  /** A change could not be written. */
  "store/write": ({ why, reason }: { why: "full" | "busy" | "other"; reason: string }) =>
    `Nothing was changed, and nothing is lost: the drawers could not be written, because ${
      why === "full"
        ? `the disk is full or cannot be written (${reason}). Free some space and try again`
        : why === "busy"
          ? "another program has been writing to them for a long time. Try again when it has ended"
          : reason
    }.`,
  /** The drawers are elsewhere, and cannot be reached there. */
  "store/away": ({ reason }: { reason: string }) =>
    `Nothing was changed: the drawers cannot be reached (${reason}). Open the window again with “drawer open”.`,
  /** The browser does not let the drawers be opened. */
  "store/browser": ({ reason }: { reason: string }) =>
    `This browser does not let the drawers be opened (${reason}). Private windows often refuse it.`,
  /** The drawers in this browser were written by a newer page. */
  "store/browser-newer": () =>
    "The drawers in this browser were written by a newer Drawer, and were left as they are. Load this page again to get it.",
  /** The browser has no more room. */
  "store/browser-full": () =>
    "Nothing was changed, and nothing is lost: this browser has no more room for drawers. Discard some snippets, or free space on the disk.",
  /** The browser could not write a change. */
  "store/browser-write": ({ reason }: { reason: string }) =>
    `Nothing was changed: the drawers could not be written (${reason}).`,
  /** The database is damaged, or none of Drawer's. */
  damaged: ({ path, reason }: { path: string; reason: string }) =>
    `“${path}” cannot be opened: it is no database of drawers, or a damaged one (${reason}).`,

  /** There is no desktop whose clipboard Drawer reaches. */
  "no-clipboard": () =>
    "There is no desktop here whose clipboard Drawer reaches. Pipe it in (… | drawer collect), and out (drawer place … | …).",
  /** The desktop's display does not let Drawer in. */
  "no-clipboard/display": ({ display }: { display: string }) =>
    `The desktop's display “${display}” could not be reached, or lets nobody in. Look whether DISPLAY names the right one.`,
  /** The desktop's display went away. */
  "no-clipboard/gone": () => "The desktop's display is gone.",
  /** The program that owns the clipboard does not answer. */
  "no-clipboard/silent": () =>
    "The program that was copied in did not give what it offers: it hangs, or has ended. Copy it again.",
  /** Another program does not give the clipboard away. */
  "no-clipboard/kept": () => "Another program keeps the clipboard to itself. Try again.",
  /** The program that was to hold a block on the clipboard could not begin. */
  "no-clipboard/holder": ({ why }: { why: string }) =>
    `The block could not be put on the clipboard (${why}). Try again.`,
  /** Nothing was copied. */
  "no-clipboard/empty": () => "The clipboard is empty. Copy something first.",

  /** The program that reaches this desktop's clipboard is not there. */
  "no-clipboard/not-installed": ({ program, hint }: { program: string; hint: string }) =>
    `The clipboard of this desktop is reached by “${program}”, which is not there. ${hint}`,
  /** The program that reaches this desktop's clipboard has failed. */
  "no-clipboard/program": ({ program, why }: { program: string; why: string }) =>
    `The clipboard could not be reached: “${program}” says “${why}”. Try again.`,

  /** The desktop shows no notifications. */
  "no-notifications": () =>
    "This desktop shows no notifications: no program for them answers on the session's D-Bus.",
  /** The desktop does not let programs do something with the windows of others. */
  "no-windows": () =>
    "This desktop lets no program take keys, or copy and paste in another. On X11 it does. Use “drawer watch”, and --to clipboard.",
  /** No block was pasted yet. */
  "no-window": () =>
    "It is not known where to send it: no block was pasted yet. Place one on the clipboard and paste it there first.",
  /** The window in which the last block was pasted is gone, or does not come to the front. */
  "no-window/gone": ({ title = "" }: { title?: string }) =>
    `The window “${title}” is gone, or does not come to the front. Paste a block where you want the next to go.`,
  /** A program was asked to copy, and did not. */
  "nothing/selected": ({ title = "" }: { title?: string }) =>
    `Nothing is selected in the window “${title}”, or it does not copy. Select something first.`,
  /** A program was asked to paste, and did not. */
  "not-pasted": ({ title = "" }: { title?: string }) =>
    `The window “${title}” did not paste it. It is on the clipboard: put the caret where it shall go, and paste.`,
  /** There is no such key. */
  "bad-key": ({ typed }: { typed: string }) =>
    `“${typed}” is no key that Drawer knows. Keys look like this: Super+F9, Ctrl+Alt+B, Pause.`,
  /** The key is one that people type with. */
  "bad-key/typing": ({ typed }: { typed: string }) =>
    `People type with “${typed}”. Add Ctrl, Alt or Super to it.`,
  /** The keyboard has no such key. */
  "bad-key/missing": ({ key }: { key: string }) => `This keyboard has no key “${key}”. Choose another.`,
  /** Another program has taken the key. */
  "key-taken": ({ key }: { key: string }) =>
    `Another program, or the desktop, has taken “${key}” for itself. Choose another key.`,

  /** A file is there already. */
  exists: ({ path }: { path: string }) =>
    `“${path}” is there already and was left as it is. Choose another name.`,
  /** A file could not be written. */
  "not-written": ({ path, why }: { path: string; why: WhyNotWritten }) =>
    `“${path}” was not written: ${whyText(why)}.`,
  /** A snippet could not be put onto the end of a file, and so was not handed out. */
  "not-written/hand-out": ({ path, why }: { path: string; why: WhyNotWritten }) =>
    `Nothing was put onto “${path}”: ${whyText(why)}. It has not been handed out.`,
};

/** How many of something a document has, and the letter of its spots. */
interface Parts {
  readonly count: number;
  readonly letter: string;
  readonly what: "paragraph" | "table" | "picture" | "heading" | "line";
}

function partsOf({ count, letter, what }: Parts): string {
  if (count === 0) return `no ${what}s`;
  return count === 1 ? `one ${what}, ${letter}1` : `${count} ${what}s, ${letter}1 to ${letter}${count}`;
}

interface Limits {
  readonly snippets: number | null;
  readonly bytes: number | null;
}

const BETWEEN_INSTEAD = {
  lines:
    "Each piece stands on lines of its own: between can be newline, blank, or a text for a line of its own",
  none: "Its pieces stand by themselves",
};

/** What a rule can be: where it is typed, and where a program gives it. */
const FORM_WORDS = {
  "on-off": { typed: "on, off", given: "true or false" },
  blanks: { typed: "skip, allow", given: '"skip", "allow"' },
  repeats: { typed: "skip, allow, move", given: '"skip", "allow", "move"' },
  time: {
    typed: "a time such as “2 minutes”, “12 hours” or “30 days”, or never",
    given: "a whole number above 0, or null for no limit",
  },
  bytes: {
    typed: "a size such as “256 MB” or “2 GB”, or any",
    given: "a whole number above 0, or null for no limit",
  },
  count: { typed: "a number such as 1000, or any", given: "a whole number above 0, or null for no limit" },
};

/** What is wrong with a line of a drawer file. */
export type LineFault =
  | { readonly is: "no-json" | "no-drawer-file" }
  | { readonly is: "no-header" | "no-snippet"; readonly why: string }
  | { readonly is: "bad-picture"; readonly hash: string };

function faultOf(fault: LineFault): string {
  switch (fault.is) {
    case "no-json":
      return "is not JSON";
    case "no-drawer-file":
      return "is no drawer file: its first line is not JSON";
    case "no-header":
      return `is no header: ${fault.why}`;
    case "no-snippet":
      return `is no snippet: ${fault.why}`;
    case "bad-picture":
      return `has a picture that is damaged or of no known type (${fault.hash.slice(0, 8)}…)`;
  }
}

/** What is said of a place that holds nothing. */
export function blank(place: string): string {
  return place === "" ? "it is blank" : `${place} is blank`;
}

/** Why a file cannot be read. */
export const whyNotRead = {
  ENOENT: "there is no such file",
  EISDIR: "it is a folder",
  EACCES: "you are not allowed to",
  ENOTDIR: "a part of its path is not a folder",
  ENAMETOOLONG: "its name is too long",
};

/** Why a file cannot be written. */
export const whyNotWritten = {
  ENOENT: "there is no such folder",
  ENOTDIR: "a part of its path is not a folder",
  EISDIR: "it is a folder",
  EACCES: "you are not allowed to write there",
  EPERM: "you are not allowed to write there",
  EROFS: "the disk is read-only",
  ENOSPC: "the disk is full",
  ELOOP: "its links lead in a circle",
  "no-file": "it is no file",
  "no-text": "it is no text file; onto the end of documents nothing can be put yet",
};

/** A known reason, or what the system says. */
export type WhyNotWritten = keyof typeof whyNotWritten | { readonly text: string };

/** Why a file cannot be written, in words. */
export function whyText(why: WhyNotWritten): string {
  return typeof why === "string" ? whyNotWritten[why] : why.text;
}
