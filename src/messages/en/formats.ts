import { counted, grouped, size } from "./phrases.js";
/** What formats are called, and what a file lacks that is none of theirs. */
export const formats = {
  kinds: {
    docx: { name: "word-processor document", lacks: "text body" },
    pptx: { name: "presentation", lacks: "list of slides" },
    epub: { name: "book", lacks: "list of its chapters" },
    mhtml: { name: "saved page", lacks: "page" },
    ics: { name: "calendar", lacks: "event or task" },
    vcf: { name: "address book", lacks: "card" },
    mail: { name: "mail", lacks: "sender, date or subject" },
    rtf: { name: "file of Rich Text Format", lacks: "beginning of one" },
    mbox: { name: "file of mails", lacks: "line that begins with “From ” before the first" },
    odp: { name: "presentation", lacks: "slides" },
    odt: { name: "text document", lacks: "text body" },
    ods: { name: "spreadsheet", lacks: "sheets" },
  },
  separators: { comma: "commas", tab: "tabs", semicolon: "semicolons", bar: "bars" },
};

/** The formats that packages read which need not be installed: what a file of one is, the packages, and what it can be saved as. */
export const optionalPackages = {
  pdf: { kind: "a PDF", packages: ["pdfjs-dist@5.6.205", "fast-png@8.0.0"] },
  xls: { kind: "a workbook of an old form", packages: ["@e965/xlsx@0.20.3"], as: "xlsx" },
  doc: { kind: "a document of an old form", packages: ["word-extractor@1.0.4"], as: "docx" },
  msg: { kind: "a mail of one mail program", packages: ["@kenjiuno/msgreader@1.28.0"], as: "eml" },
  ics: { kind: "a calendar", packages: ["ical.js@2.2.1"], as: "csv" },
  vcf: { kind: "an address book", packages: ["ical.js@2.2.1"], as: "csv" },
} as const satisfies Record<string, { kind: string; packages: readonly string[]; as?: string }>;
/** The name of a format that such a package reads. */
export type OptionalPackage = keyof typeof optionalPackages;

/** What else can be done with a file of such a format. */
const insteadOf = (what: OptionalPackage) => {
  const facts = optionalPackages[what];
  return "as" in facts ? ` Or save it as ${facts.as}.` : "";
};

const SAVE_AGAIN = "Open it in its own program and save it again.";

/** What is refused of documents and sheets. */
export const formatErrors = {
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

  /** The document can only be opened with a password. */
  locked: ({ file }: { file: string }) =>
    `“${file}” is protected with a password. Open it in its own program and save a copy without one.`,
  /** A PDF can only be opened with a password. */
  "locked/pdf": ({ file }: { file: string }) =>
    `“${file}” is protected with a password. Put the password into a file of its own, and name that (--password-file in a command).`,
  /** The password that was given does not open the file. */
  "locked/password": ({ file }: { file: string }) =>
    `The password that was given does not open “${file}”. Look whether it is the right one, and that nothing else stands in its file.`,
  /** A page of a PDF is damaged. */
  "unreadable/page": ({ file, page }: { file: string; page: number }) =>
    `Page ${page} of “${file}” is damaged. ${SAVE_AGAIN}`,
  /** A PDF, or a page of it, takes too long, or too much memory. */
  "too-large/pdf": ({ file, page }: { file: string; page?: number }) =>
    `${page === undefined ? `“${file}”` : `Page ${page} of “${file}”`} takes more time or memory to read than any real one. It was not read; print it into a new PDF from a program that shows it.`,
  /** A package that reads a format is not installed. */
  "unknown-format/package": ({ file, what }: { file: string; what: OptionalPackage }) =>
    `“${file}” is ${optionalPackages[what].kind}, which the package ${optionalPackages[what].packages[0]!.replace(/(?<=.)@.*/, "")} reads, and it is not installed here. Install it: npm install ${optionalPackages[what].packages.join(" ")}.${insteadOf(what)}`,
  /** A format is not read in a web page. */
  "unknown-format/in-page": ({ file, what }: { file: string; what: OptionalPackage }) =>
    `“${file}” is ${optionalPackages[what].kind}, which Drawer reads by its command and in its own window, and not in a web page.${insteadOf(what)}`,
  /** A file of an old form is too large, or takes too long. */
  "too-large/old-form": ({ file, what }: { file: string; what: OptionalPackage }) =>
    `“${file}” is too large, or takes too long to read, for ${optionalPackages[what].kind}.${insteadOf(what)}`,
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
  /** A document has more elements, or unpacks to more bytes, than any real one. */
  "too-large/document": ({
    file,
    what,
    most,
  }: {
    file: string;
    what: "bytes" | "characters" | "elements" | "depth";
    most: number;
  }) =>
    what === "bytes"
      ? `“${file}” unpacks to more than ${size(most)}, which no real document does. It was not read.`
      : what === "characters"
        ? `What was asked for of “${file}” comes to more than ${grouped(most)} characters. Ask for a part of it (--at in a command), or save it in parts.`
        : what === "elements"
          ? `“${file}” has more than ${grouped(most)} elements in one part. It was not read; save it in parts.`
          : `“${file}” has elements nested more than ${grouped(most)} deep. It was not read; save it in parts.`,
};

/** Some parts of one kind: how many, and the spots of the first and the last. */
interface Ends {
  readonly count: number;
  readonly first?: string;
  readonly last?: string;
}

function partly({ count, first, last }: Ends, thing: string): string[] {
  return count === 0 ? [] : [`${counted(count, thing)} (${count === 1 ? first : `${first} to ${last}`})`];
}

/** What is told of documents and sheets that were read or written. */
export const formatNotices = {
  /** Cells that a sheet would run as formulas have an apostrophe before them. */
  guarded: ({ count }: { count: number }) =>
    `${count === 1 ? "One cell begins" : `${grouped(count)} cells begin`} like a formula and ${count === 1 ? "has" : "have"} an apostrophe before ${count === 1 ? "it" : "them"}, so that no sheet runs ${count === 1 ? "it" : "them"}. Without it (--no-guard in a command) ${count === 1 ? "it is" : "they are"} written raw.`,
  /** A file is of another format than its name says. */
  "read-as": ({ file, format }: { file: string; format: string }) =>
    `“${file}” is ${format} by its content, and was read as that. If that is wrong, say what it is (--type in a command).`,
  /** A text does not tell what its letters are encoded in, and is no UTF-8. */
  "guessed/encoding": ({ file }: { file: string }) =>
    `“${file}” does not say how its letters are encoded, and was read as Western European (Windows-1252). If some are wrong, save it as UTF-8.`,
  /** What parts the columns of a delimited text was told from its rows, and is no comma. */
  separator: ({ separator }: { separator: keyof typeof formats.separators }) =>
    `Read with ${formats.separators[separator]} between the columns. If that is wrong, say what parts them (--separator in a command).`,
  /** Comments on a document were left out. */
  "left-out/comments": ({ file, count }: { file: string; count: number }) =>
    `Left out of “${file}”: ${count === 1 ? "one comment" : `${count} comments`} beside the text.`,
  /** Charts and diagrams of a document are there only by their words. */
  "as-text/diagrams": ({ file, count }: { file: string; count: number }) =>
    `${count === 1 ? "One chart or diagram" : `${count} charts and diagrams`} of “${file}” ${count === 1 ? "is" : "are"} there only by the words in ${count === 1 ? "it" : "them"}.`,
  /** What is attached to a mail was not taken with it. */
  "left-out/attachments": ({ file, names, more }: { file: string; names: readonly string[]; more: number }) =>
    `Attached to “${file}”, and not taken with it: ${names.join(", ")}${more > 0 ? ` and ${grouped(more)} more` : ""}. ${names.length === 1 ? "It is" : "Each is"} taken by the spot in brackets (--at in a command).`,
  /** A document was taken by its paragraphs, and has parts that are none. */
  "left-out/no-paragraphs": ({ file, tables, pictures }: { file: string; tables: Ends; pictures: Ends }) => {
    const parts = [...partly(tables, "table"), ...partly(pictures, "picture")];
    return `Of “${file}” ${parts.join(" and ")} ${tables.count + pictures.count === 1 ? "was" : "were"} not taken, being no paragraphs. Each is taken by its spot (--at in a command).`;
  },
  /** Of a document of an old form only the words are read. */
  "left-out/old-document": ({ file }: { file: string }) =>
    `Of “${file}” the words were read, in paragraphs and rows: looks, headings, lists, links and pictures of a document of an old form stay behind, and lines of one cell may stand before its row. Saved as docx it comes in whole.`,
  /** What stands in a named place came in without its look. */
  "as-text/place": ({ file, name }: { file: string; name: string }) =>
    `What stands in the place “${name}” of “${file}” came in as text, without its look. By the spot of its paragraph (--at p3) it comes with it.`,
  /** Notes stand after the text. */
  "as-text/notes": ({ file }: { file: string }) =>
    `The notes of “${file}” stand after its text, without the places that call them. Saved as docx they come in where they are called.`,
  /** Comments, and what stands at the edges of pages, were left out. */
  "left-out/edges": ({ file, comments, edges }: { file: string; comments: boolean; edges: boolean }) =>
    `Left out of “${file}”: ${[comments && "its comments", edges && "what stands at the head and the foot of its pages"].filter(Boolean).join(", and ")}.`,
  /** Facts of events, tasks or persons have no column. */
  "left-out/facts": ({ file, names, more }: { file: string; names: readonly string[]; more: number }) =>
    `Left out of “${file}”, as they have no column: ${names.join(", ")}${more > 0 ? ` and ${grouped(more)} more` : ""}. What you need of them is in the file, which any editor of text opens.`,
  /** Events come again, and stand in the table once. */
  "as-text/repeats": ({ file, count }: { file: string; count: number }) =>
    `${count === 1 ? "One event" : `${grouped(count)} events`} of “${file}” ${count === 1 ? "comes" : "come"} again: ${count === 1 ? "it stands" : "each stands"} there once, with how it repeats as the file says it.`,
  /** Slides are hidden in their file. */
  "hidden-parts/slides": ({ file, count }: { file: string; count: number }) =>
    `${count === 1 ? "One slide" : `${grouped(count)} slides`} of “${file}” ${count === 1 ? "is" : "are"} hidden when it is shown; ${count === 1 ? "it was" : "they were"} read all the same.`,
  /** Slides have no title, and are called by their numbers. */
  "as-text/titles": ({ file, count }: { file: string; count: number }) =>
    `${count === 1 ? "One slide" : `${grouped(count)} slides`} of “${file}” ${count === 1 ? "has" : "have"} no title: ${count === 1 ? "its number stands" : "their numbers stand"} in its place.`,
  /** The notes of a speaker stand after their slides. */
  "as-text/speaker-notes": ({ file, count }: { file: string; count: number }) =>
    `The speaker's notes of ${count === 1 ? "one slide" : `${grouped(count)} slides`} of “${file}” stand after ${count === 1 ? "it" : "them"} as quotes.`,
  /** What stands at the edge of slides was left out. */
  "left-out/slide-furniture": ({ file, count }: { file: string; count: number }) =>
    `Left out of “${file}”: ${count === 1 ? "one line" : `${grouped(count)} lines`} at the edge of slides, their numbers, dates and feet.`,
  /** What each page of a PDF says at its edges was left out. */
  "left-out/page-furniture": ({ file, count }: { file: string; count: number }) =>
    `Left out of “${file}”: ${count === 1 ? "one line" : `${grouped(count)} lines`} at the edges of pages, their running heads, feet and numbers.`,
  /** Pages of a PDF are pictures, as a scanner makes them. */
  "as-picture/pages": ({ file, pages }: { file: string; pages: readonly number[] }) =>
    `${pagesOf(pages)} of “${file}” ${pages.length === 1 ? "is a picture" : "are pictures"} without text, as a scanner makes ${pages.length === 1 ? "it" : "them"}: there are no words to take. A program that recognises text can put some behind ${pages.length === 1 ? "it" : "them"}.`,
  /** Pages of a PDF could not be read. */
  "left-out/pages": ({ file, pages }: { file: string; pages: readonly number[] }) =>
    `${pagesOf(pages)} of “${file}” ${pages.length === 1 ? "is" : "are"} damaged, and nothing of ${pages.length === 1 ? "it was" : "them was"} read. Opening the file and saving it again may mend ${pages.length === 1 ? "it" : "them"}.`,
  /** Pictures of a PDF were left out. */
  "left-out/page-pictures": ({ file, count }: { file: string; count: number }) =>
    `Left out of “${file}”: ${count === 1 ? "one picture" : `${grouped(count)} pictures`} that ${count === 1 ? "lies" : "lie"} behind the text of a page, or ${count === 1 ? "is" : "are"} too large.`,
  /** Words that lines of a PDF break were joined. */
  "guessed/rejoined": ({ file, count }: { file: string; count: number }) =>
    `${count === 1 ? "One word" : `${grouped(count)} words`} of “${file}” ${count === 1 ? "was" : "were"} broken at the end of a line and ${count === 1 ? "is" : "are"} joined, without ${count === 1 ? "its hyphen" : "their hyphens"}. Where a hyphen belongs to a word, edit the snippet.`,
  /** Fields of a document have no text in the file. */
  "left-out/fields": ({ file, count }: { file: string; count: number }) =>
    `${count === 1 ? "One field" : `${grouped(count)} fields`} of “${file}” ${count === 1 ? "has" : "have"} no text in the file, so nothing stands for ${count === 1 ? "it" : "them"}. Opening the document in a word processor, updating its fields and saving it fills them.`,
  /** A document stands whole in another, in a form that Drawer does not read there. */
  "left-out/inserted": ({ file, count }: { file: string; count: number }) =>
    `Left out of “${file}”: ${count === 1 ? "one document that stands" : `${grouped(count)} documents that stand`} in it as ${count === 1 ? "a file of its" : "files of their"} own. Opening it in a word processor and saving it makes ${count === 1 ? "it" : "them"} part of its text.`,
  /** Numbers of a list are decimal, as they are written in a way that Drawer does not know. */
  "as-text/numbers": ({ file, count }: { file: string; count: number }) =>
    `${count === 1 ? "One item" : `${grouped(count)} items`} of “${file}” ${count === 1 ? "is" : "are"} numbered in a way that Drawer does not write: ${count === 1 ? "its number is" : "their numbers are"} plain here.`,
  /** Pictures of a document are in a form that Drawer does not read. */
  "left-out/pictures": ({ file, count }: { file: string; count: number }) =>
    `Left out of “${file}”: ${count === 1 ? "one picture" : `${count} pictures`} in a form that Drawer does not read.`,
  /** Of an old workbook only the cells are read. */
  "left-out/old-looks": ({ file }: { file: string }) =>
    `Of “${file}” the cells were read with their values and number formats; its colours, fonts, notes and pictures were not. Saved as xlsx or ods, they come along.`,
  /** A workbook names a sheet that is not in its file. */
  "left-out/sheet": ({ sheet }: { sheet: string }) =>
    `The sheet “${sheet}” is named in its file, which has nothing of it: no cell was read. Opening and saving the file in a sheet program may bring it back.`,

  /** A format has no place for a picture. */
  "not-shown/picture": ({ alt }: { alt: string }) =>
    `${alt === "" ? "A picture" : `The picture “${alt}”`} cannot stand in this format; its description stands in its place.`,
  /** A sheet that is hidden in its workbook was read. */
  "hidden-parts/sheet": ({ sheet }: { sheet: string }) =>
    `The sheet “${sheet}” is hidden in its file; it was read all the same.`,
  /** Rows and columns that are hidden in a sheet were read. */
  "hidden-parts/cells": ({ sheet, rows, columns }: { sheet: string; rows: number; columns: number }) => {
    const parts = [
      ...(rows > 0 ? [counted(rows, "row")] : []),
      ...(columns > 0 ? [counted(columns, "column")] : []),
    ];
    const isOne = rows + columns === 1;
    return `${parts.join(" and ")} of the sheet “${sheet}” ${isOne ? "is" : "are"} hidden in its file; ${isOne ? "it was" : "they were"} read all the same.`;
  },
  /** Formulas have no result in the file, so their cells are blank. */
  "no-result": ({ sheet, count }: { sheet: string; count: number }) =>
    `${count === 1 ? "1 formula" : `${grouped(count)} formulas`} on the sheet “${sheet}” ${count === 1 ? "has" : "have"} no result in the file: ${count === 1 ? "its cell is" : "their cells are"} blank. Opening and saving it in a sheet program fills them.`,
  /** A sheet's cell can be one link only. */
  "not-shown/links-in-cell": ({ count }: { count: number }) =>
    `${count === 1 ? "One cell has" : `${grouped(count)} cells have`} several links, where a sheet's cell can be one: the words are there without the addresses. The fit “address” gives those.`,
  /** A sheet's cells have no place for pictures. */
  "not-shown/pictures-in-cells": () =>
    "Pictures cannot stand in a sheet's cells; their descriptions stand in their places.",
  /** Cells hold more text than a cell of a workbook can. */
  "not-shown/long-cells": ({ count, most }: { count: number; most: number }) =>
    `${count === 1 ? "One cell holds" : `${grouped(count)} cells hold`} more than the ${grouped(most)} characters that a cell of this format can; what is beyond them is not in the file.`,
};

/** Some pages, by their numbers: page 4; pages 2, 5 and 4 more. */
function pagesOf(pages: readonly number[]): string {
  if (pages.length === 1) return `Page ${pages[0]}`;
  const [shown, more] = [pages.slice(0, 5), pages.length - 5];
  return more > 0
    ? `Pages ${shown.join(", ")} and ${grouped(more)} more`
    : `Pages ${shown.slice(0, -1).join(", ")} and ${shown.at(-1)}`;
}
