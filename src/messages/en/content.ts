import { counted, didYouMean, grouped, size, quotedAll } from "./phrases.js";
/** Words that stand in content or beside it: in a block, and in the list of a document's parts. */
export const content = {
  /** What stands for a picture that cannot be shown and has no description. */
  picture: "picture",
  /** The name of the column in which sources stand. */
  source: "Source",
};

/** What the parts of a document or workbook are called. */
export const parts = {
  table: ({ rows, columns }: { rows: number; columns: number }) => `table ${rows} × ${columns}`,
  picture: "picture",
  heading: ({ level, section }: { level: number; section: number }) => `heading ${level}, s${section}`,
  paragraph: "paragraph",
  code: "code",
  quote: "quote",
  item: "item",
  numberedItem: "numbered item",
  sheet: "sheet",
  attachment: ({ format }: { format?: string }) =>
    format === undefined ? "attachment, of a kind that is not read" : `attachment, ${format}`,
  size: (rows: number, columns: number) => `${counted(rows, "row")}, ${counted(columns, "column")}`,
  empty: "empty",
};

/** What is named as an origin or a file where nothing has a name of its own. */
export const sources = {
  clipboard: "the clipboard",
  standardInput: "standard input",
  otherWindow: "another window",
  file: "the file",
  /** A slide without a title. */
  slide: (number: number) => `Slide ${number}`,
};

/** The names of the headers of a mail. */
export const mailWords = {
  ...{ from: "From", to: "To", copy: "Copy to", date: "Date", subject: "Subject" },
  /** A mail that is attached to one. */
  another: "a mail",
  /** A mail of many, without a subject that can be read at once. */
  numbered: (number: number) => `Mail ${number}`,
};

/** What the columns of calendars and address books are called, and their sheets. */
export const tableWords = {
  events: {
    ...{ what: "What", begins: "Begins", ends: "Ends", where: "Where", who: "Who", about: "About" },
    ...{ repeats: "Repeats", zone: "Time zone", status: "State", due: "Due", lasts: "Lasts", web: "Web" },
  },
  cards: {
    ...{ name: "Name", organisation: "Organisation", role: "Role", telephone: "Telephone", mail: "Mail" },
    ...{ address: "Address", web: "Web", birthday: "Birthday", note: "Note" },
  },
  ...{ eventSheet: "Events", taskSheet: "Tasks", cardSheet: "Cards" },
  /** What people call facts that have no column. */
  facts: {
    ...{ valarm: "reminders", geo: "coordinates", attach: "attachments", exdate: "days on which it is not" },
    ...{
      rdate: "further days",
      photo: "photographs",
      logo: "pictures of firms",
      key: "keys",
      tz: "time zones",
    },
    ...{ nickname: "nicknames", "recurrence-id": "which of several times it is", lang: "languages" },
  } as Readonly<Record<string, string>>,
};

/** What callers get wrong, wherever they call. */
export const argumentErrors = {
  /** There is no such name among those that can be given. */
  "bad-option/name": ({ what, name, names }: { what: string; name: string; names: readonly string[] }) =>
    `There is no ${what} “${name}”.${didYouMean(name, names)} There is: ${names.join(", ")}.`,
  /** An argument is of another kind than it may be. */
  "bad-option/value": ({ name, value, expected }: { name: string; value: string; expected: string }) =>
    `“${name}” cannot be ${value}: it is ${expected}.`,
};

/** What is refused of content, formats and recipes. */
export const contentErrors = {
  /** The picture is of a type that Drawer does not read, or an SVG that does more than draw. */
  "unreadable/picture": ({ file }: { file: string }) =>
    `“${file}” is not a picture that Drawer reads: PNG, JPEG, GIF, WebP, BMP, TIFF, EMF, WMF, or an SVG without scripts and outside addresses.`,
  /** A quotation mark in CSV or TSV is never closed. */
  "unreadable/quote": ({ file, row }: { file?: string; row: number }) =>
    `Row ${row} of ${file === undefined ? "this table" : `“${file}”`} has a quotation mark that is never closed. Close it, or collect it as text.`,
  /** The file is of a format that other programs write, and Drawer does not read. */
  "unknown-format/other": ({ file, as }: { file: string; as: readonly string[] }) =>
    `Drawer does not read “${file}”. Open it in its own program, and save or export it as ${as.join(" or ")}.`,
  /** The file is an archive. */
  "unknown-format/packed": ({ file }: { file: string }) =>
    `“${file}” is an archive. Unpack it, and take the files that are in it.`,
  /** The document is in an office format from before 2007. */
  "unknown-format/old": ({ file }: { file: string }) =>
    `“${file}” is in an old office format. Save it as docx, odt, xlsx or ods.`,
  /** What parts the columns was said of a file that has none. */
  "bad-option/separator": ({ file, format }: { file: string; format: string }) =>
    `“${file}” is read as ${format}, whose columns nothing parts. Leave the separator out.`,
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

/** What is told of content that was read, composed or written. */
export const contentNotices = {
  /** Facts that stand before a Markdown text were left out. */
  "left-out/front-matter": () =>
    "Left out: the facts about the document that stand before its text (front matter).",
  /** Of pieces that say the same only the first is there, as was asked for. */
  "left-out/repeats": ({ count }: { count: number }) =>
    `Left out, as an earlier piece says the same: ${count === 1 ? "one piece" : `${grouped(count)} pieces`}. Take away “repeats” to have all.`,
  /** Markdown would take too long to be read as such. */
  "left-out/markdown": ({ beyond, most }: { beyond: "markers" | "signs"; most: number }) =>
    `This Markdown has ${
      beyond === "markers"
        ? `quotes and lists nested more than ${most} deep`
        : `more than ${grouped(most)} signs of emphasis, links or quotes in one paragraph`
    }. It was taken in as plain text.`,
  /** A picture is only known by its address. */
  "left-out/picture": ({ name }: { name: string }) =>
    `The picture “${name}” is not in what was copied, only its address. Its name stands in its place.`,
  /** Equations of a document are there as plain text. */
  "as-text/equations": ({ file, count }: { file?: string; count: number }) =>
    `${count === 1 ? "One equation" : `${count} equations`}${file === undefined ? "" : ` of “${file}”`} ${count === 1 ? "is" : "are"} there as plain text on one line.`,
  /** A line of text, or rows of it, have no place for the addresses of links. */
  "left-out/addresses": ({ count }: { count: number }) =>
    `Left out: ${count === 1 ? "the address of a link" : `the addresses of ${count} links`}, for which a line or a cell of text has no place. The fit “address” gives addresses alone; HTML and Markdown keep them.`,
  /** Text has no place for pictures. */
  "not-shown/pictures-in-text": ({ count }: { count: number }) =>
    `Text has no place for pictures: ${count === 1 ? "the description of one stands" : `the descriptions of ${count} stand`} for them.`,
  /** Pictures in a form of office programs, which browsers do not draw. */
  "not-shown/pictures-in-page": ({ count }: { count: number }) =>
    `Browsers do not draw ${count === 1 ? "one of the pictures: its description stands for it" : `${count} of the pictures: their descriptions stand for them`}. A docx or odt keeps TIFF, EMF and WMF as they are.`,
  /** A format has only plain numbers for lists. */
  "not-shown/numbers": ({ count }: { count: number }) =>
    `${count === 1 ? "One list is" : `${count} lists are`} numbered by letters, by Roman numbers or in brackets, which this format cannot say: ${count === 1 ? "it has" : "they have"} plain numbers.`,
  /** A text or an address has no partner to make a link with. */
  "not-shown/partner": ({ count, what }: { count: number; what: "text" | "address" }) =>
    `${count === 1 ? `One ${what} has` : `${count} ${what === "text" ? "texts" : "addresses"} have`} no partner to make a link with.`,
  /** A layout cannot show lines across the page. */
  "not-shown/dividers": ({ count }: { count: number }) =>
    `Left out: ${count === 1 ? "a line" : `${count} lines`} across the page, which this layout cannot show.`,
  /** Pieces could not go on on the same line. */
  "not-shown/same-line": ({ count }: { count: number }) =>
    `${count === 1 ? "One piece stands" : `${count} pieces stand`} below the one before: only lines of text go on on the same line.`,
  /** Tables without a header that is known went under others by the order of their columns. */
  "by-position": ({ count }: { count: number }) =>
    `${count === 1 ? "One table stands" : `${grouped(count)} tables stand`} under the columns of others by their order alone, since no header names ${count === 1 ? "its own" : "their own"}. If the first ${count === 1 ? "row does" : "rows do"}, say so: in a command --header yes, and --columns A=B where names differ.`,
  /** No header has a column that was to be called otherwise. */
  "not-shown/columns": ({ names }: { names: readonly string[] }) =>
    `No column is called ${quotedAll(names)}.`,
  /** Tables have more than two columns, where pairs were wanted. */
  "not-shown/pairs": ({ count }: { count: number }) =>
    `${count === 1 ? "One table has" : `${count} tables have`} more than two columns: what follows the label stays in columns of its own.`,
  /** Only addresses are placed, or there is none. */
  "not-shown/address": ({ isNone }: { isNone: boolean }) =>
    isNone
      ? "There is no address in what was picked."
      : "Only addresses are placed; the words beside them are not.",
};
