/** What is told of something that was put into a file. */
export const editNotices = {
  /** Rows were appended to a sheet by the names of columns. */
  "appended/columns": ({ count, sheet, empty }: { count: number; sheet: string; empty: readonly string[] }) =>
    `${count === 1 ? "One row was" : `${count} rows were`} matched to the columns of “${sheet}” by their names${empty.length === 0 ? "" : `; ${empty.join(", ")} ${empty.length === 1 ? "has" : "have"} nothing from the block`}.`,
  /** Rows were appended to a sheet, whose columns the block does not name. */
  "appended/order": ({ count, sheet }: { count: number; sheet: string }) =>
    `The block does not name its columns: ${count === 1 ? "its row stands" : `its ${count} rows stand`} in those of “${sheet}” from the first on. Give it a header to match them by their names.`,
  /** Texts that came under dates were read as dates. */
  "appended/dates": ({
    count,
    names,
    order,
  }: {
    count: number;
    names: readonly string[];
    order: "dmy" | "mdy" | "ymd";
  }) =>
    `${count === 1 ? "One text" : `${count} texts`} under ${names.join(", ")} became ${count === 1 ? "a date" : "dates"}, read as ${{ dmy: "day, month, year", mdy: "month, day, year", ymd: "year, month, day" }[order]}. If another day was meant, undo it, and write it as 2031-04-21.`,
  /** Figures came as texts under numbers or dates. */
  "appended/texts": ({ count, names }: { count: number; names: readonly string[] }) =>
    `${count === 1 ? "One figure stays a text" : `${count} figures stay texts`} under ${names.join(", ")}, where it is not clear how ${count === 1 ? "it is" : "they are"} meant: a sheet neither counts nor sorts ${count === 1 ? "it" : "them"} with those above. Write numbers plainly (1234.5) and days as 2031-04-21, or change them there.`,
  /** What formulas of a workbook give may be another by now. */
  "calculated-later": ({ file }: { file: string }) =>
    `What the formulas of “${file}” give is calculated when it is opened in its own program; until then Drawer shows what they gave before, or nothing.`,
  /** A change is not marked as one, though it should be. */
  "not-kept/tracked": ({ file }: { file: string }) =>
    `What was changed in “${file}” is not marked as a change: in odt that is done only with paragraphs of the text that stand after another one. Undo puts the file back, or make it in a word processor.`,
  /** What stands at the edges of pages is not filled for each of them. */
  "not-kept/edges": ({ file, names }: { file: string; names: readonly string[] }) =>
    `The head or foot of pages of “${file}” is there once, so ${names.join(", ")} ${names.length === 1 ? "stays as it is" : "stay as they are"} in it. With a name in braces in --to each row gets a file of its own.`,
  /** How many pages there are is said of all rows together. */
  "not-kept/page-count": ({ file }: { file: string }) =>
    `“${file}” says how many pages there are: in one file that is the number of all of them. With a name in braces in --to each row gets a file of its own.`,
  /** Links and merged cells of a block are not in a sheet that it was put into. */
  "not-kept/in-cells": ({ count }: { count: number }) =>
    `${count === 1 ? "One link or merged cell" : `${count} links and merged cells`} of the block ${count === 1 ? "is" : "are"} there as plain cells: set them in the sheet's own program.`,
  /** Emphasis in the cells of a block is not in a sheet that it was put into. */
  "not-kept/emphasis-in-cells": ({ count }: { count: number }) =>
    `What is bold, slanted, underlined, struck, raised or lowered in ${count === 1 ? "one cell" : `${count} cells`} of the block looks there as the cells around do: set it in the sheet's own program.`,
};

/** What keeps a document from standing in one file several times. */
const UNREPEATABLE = {
  notes: "notes or comments",
  tracked: "tracked changes",
  controls: "fields of a form",
  "page-frames": "pictures or frames that are bound to a page",
};

/** Why nothing was put into a file, or taken out of one. */
export const editErrors = {
  /** A document is in a form of the standard in which Drawer changes nothing. */
  "cannot-edit/form": ({ file }: { file: string }) =>
    `Nothing was changed: “${file}” is written in a form of its standard that Drawer reads and does not change. Save it again in a word processor, as docx or odt.`,
  /** Pages for each of some rows are not made in a format. */
  "cannot-edit/pages": ({ file }: { file: string }) =>
    `Nothing was made: one file with pages for each row is made of docx and odt files, and not of “${file}”. With a name in braces in --to each row gets a file of its own (--to "letter-{{Name}}.odt").`,
  /** What is in a document cannot stand in one file several times. */
  "cannot-edit/pages-parts": ({ file, why }: { file: string; why: keyof typeof UNREPEATABLE }) =>
    `Nothing was made: “${file}” has ${UNREPEATABLE[why]}, which cannot be there for each row in one file. With a name in braces in --to each row gets a file of its own.`,
  /** Files of a format are not changed. */
  "cannot-edit/format": ({ file, format, formats }: { file: string; format: string; formats: string }) =>
    `Nothing was changed: Drawer puts nothing into ${format} files, and takes nothing out of them (“${file}”). It does with ${formats}.`,
  /** A document is a single XML file. */
  "cannot-edit/flat": ({ file, as }: { file: string; as: string }) =>
    `Nothing was changed: “${file}” is a document in a single XML file, which is read, and not changed where it is. Save it as ${as}.`,
  /** Files of a format have no named places. */
  "cannot-edit/places": ({ file, format, formats }: { file: string; format: string; formats: string }) =>
    `“${file}” has no named places: ${format} files have none. There are some in ${formats}.`,
  /** What stands at a spot is made of a part of the file that more stands in. */
  "cannot-edit/shared": ({ file, spot }: { file: string; spot: string }) =>
    `Nothing was changed: what stands at ${spot} in “${file}” is one paragraph with what stands beside it. Name both, or change it in its own program.`,
  /** Something of a field would stay behind. */
  "cannot-edit/field": ({ file, spot }: { file: string; spot: string }) =>
    `Nothing was changed: a field of “${file}” begins at ${spot} and ends elsewhere, or the other way round. Name all of its paragraphs.`,
  /** A file is in an old encoding that has no sign for something. */
  "cannot-edit/encoding": ({ file, sign }: { file: string; sign: string }) =>
    `Nothing was changed: “${file}” is in an old encoding that has no sign for “${sign}”. Save it as UTF-8 first.`,
  /** One side of marks that stand in pairs would go. */
  "cannot-edit/pair": ({ file, spot, name }: { file: string; spot: string; name: string }) =>
    `Nothing was changed: the mark “${name}” of “${file}” begins at ${spot} and ends elsewhere, or the other way round. Name all of what it is around.`,
  /** A cell holds something. */
  "cannot-edit/filled": ({ file, spot }: { file: string; spot: string }) =>
    `Nothing was changed: ${spot} in “${file}” holds something. Put the block in its place (--put instead) if that may go.`,
  /** Cells do not take what is put there. */
  "cannot-edit/shape": ({ file, spot }: { file: string; spot: string }) =>
    `Nothing was changed: ${spot} in “${file}” is not of the same number of rows and columns as the block. Name the first cell alone, or as many cells as the block has.`,
  /** A cell is part of a merged one. */
  "cannot-edit/merged": ({ file, spot, cells }: { file: string; spot: string; cells: string }) =>
    `Nothing was changed: at ${spot} in “${file}” the cells ${cells} are merged. Put it elsewhere, or part them in their own program.`,
  /** A sheet is protected. */
  "cannot-edit/protected": ({ file, sheet }: { file: string; sheet: string }) =>
    `Nothing was changed: the sheet “${sheet}” of “${file}” is protected. Take its protection off in its own program first.`,
  /** Whole rows are named by formulas elsewhere. */
  "cannot-edit/formulas": ({ file, spot, cell }: { file: string; spot: string; cell: string }) =>
    `Nothing was changed: a formula in ${cell} of “${file}” speaks of the rows ${spot}. Take out their cells instead, which stay empty.`,
  /** Rows that would move have comments. */
  "cannot-edit/comments": ({ file, spot, cell }: { file: string; spot: string; cell: string }) =>
    `Nothing was changed: the rows below ${spot} in “${file}” would move, and the comment at ${cell} with them, which Drawer does not do. Put the rows elsewhere, or in the sheet's own program.`,
  /** A spot is put something after or before that has no place for it. */
  "cannot-edit/put": ({ file, spot, put }: { file: string; spot: string; put: string }) =>
    `Nothing was changed: ${spot} in “${file}” takes nothing ${put} it.`,
  /** A block has no table for cells. */
  "cannot-edit/cells": ({ file, spot }: { file: string; spot: string }) =>
    `Nothing was changed: the block has no rows for ${spot} in “${file}”. Lay it out as one table (--as rows), or pick a table.`,
  /** The headers of a block are not those of a sheet. */
  "cannot-edit/headers": ({ file, spot, names }: { file: string; spot: string; names: readonly string[] }) =>
    `Nothing was changed: ${spot} in “${file}” has no column for ${names.map((name) => (name === "" ? "one without a name" : `“${name}”`)).join(", ")}. Name the columns alike, or take rows without their names.`,
};
