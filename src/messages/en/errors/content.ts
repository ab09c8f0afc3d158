import { grouped, size } from "../phrases.js";

/** What is refused of content, formats and recipes. */
export const contentErrors = {
  /** The picture is of a type that Drawer does not read, or an SVG that does more than draw. */
  "unreadable/picture": ({ file }: { file: string }) =>
    `“${file}” is not a picture that Drawer reads: PNG, JPEG, GIF, WebP, or an SVG without scripts and outside addresses.`,
  /** A quotation mark in CSV or TSV is never closed. */
  "unreadable/quote": ({ file, row }: { file?: string; row: number }) =>
    `Row ${row} of ${file === undefined ? "this table" : `“${file}”`} has a quotation mark that is never closed. Close it, or collect it as text.`,
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
  "too-large/characters": ({
    file,
    what,
    characters,
    most,
  }: {
    file?: string;
    what: string;
    characters: number;
    most: number;
  }) =>
    `${file === undefined ? `This ${what}` : `“${file}”`} has ${grouped(characters)} characters; Drawer takes at most ${grouped(most)} at once. Collect it in parts.`,
  /** A file, or standard input, has more bytes than Drawer takes at once. */
  "too-large/bytes": ({ file, most }: { file?: string; most: number }) =>
    `${file === undefined ? "Standard input" : `“${file}”`} has more than ${size(most)}; Drawer takes at most that. Collect it in parts.`,
  /** A table has more cells than Drawer takes at once. */
  "too-large/cells": ({ file, most }: { file?: string; most: number }) =>
    `${file === undefined ? "This table" : `A table in “${file}”`} has more than ${grouped(most)} cells. Collect it in parts.`,
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
};

const BETWEEN_INSTEAD = {
  lines:
    "Each piece stands on lines of its own: between can be newline, blank, or a text for a line of its own",
  none: "Its pieces stand by themselves",
};
