import { grouped } from "../phrases.js";

/** What is told of documents and sheets that were read or written. */
export const officeNotices = {
  /** Comments on a document were left out. */
  "left-out/comments": ({ file, count }: { file: string; count: number }) =>
    `Left out of “${file}”: ${count === 1 ? "one comment" : `${count} comments`} beside the text.`,
  /** Charts and diagrams of a document are there only by their words. */
  "as-text/diagrams": ({ file, count }: { file: string; count: number }) =>
    `${count === 1 ? "One chart or diagram" : `${count} charts and diagrams`} of “${file}” ${count === 1 ? "is" : "are"} there only by the words in ${count === 1 ? "it" : "them"}.`,
  /** Pictures of a document are in a form that Drawer does not read. */
  "left-out/pictures": ({ file, count }: { file: string; count: number }) =>
    `Left out of “${file}”: ${count === 1 ? "one picture" : `${count} pictures`} in a form that Drawer does not read.`,

  /** A format has no place for a picture. */
  "not-shown/picture": ({ alt }: { alt: string }) =>
    `${alt === "" ? "A picture" : `The picture “${alt}”`} cannot stand in this format; its description stands in its place.`,
  /** A sheet that is hidden in its workbook was read. */
  "hidden-parts/sheet": ({ sheet }: { sheet: string }) =>
    `The sheet “${sheet}” is hidden in its file; it was read all the same.`,
  /** Rows and columns that are hidden in a sheet were read. */
  "hidden-parts/cells": ({ sheet, rows, columns }: { sheet: string; rows: number; columns: number }) => {
    const parts = [
      ...(rows > 0 ? [rows === 1 ? "1 row" : `${grouped(rows)} rows`] : []),
      ...(columns > 0 ? [columns === 1 ? "1 column" : `${grouped(columns)} columns`] : []),
    ];
    const isOne = rows + columns === 1;
    return `${parts.join(" and ")} of the sheet “${sheet}” ${isOne ? "is" : "are"} hidden in its file; ${isOne ? "it was" : "they were"} read all the same.`;
  },
  /** Formulas have no result in the file, so their cells are blank. */
  "no-result": ({ sheet, count }: { sheet: string; count: number }) =>
    `${count === 1 ? "1 formula" : `${grouped(count)} formulas`} on the sheet “${sheet}” ${count === 1 ? "has" : "have"} no result in the file: ${count === 1 ? "its cell is" : "their cells are"} blank. Opening and saving it in a sheet program fills them.`,
  /** A sheet's cells have no place for pictures. */
  "not-shown/pictures-in-cells": () =>
    "Pictures cannot stand in a sheet's cells; their descriptions stand in their places.",
  /** Cells hold more text than a cell of a workbook can. */
  "not-shown/long-cells": ({ count, most }: { count: number; most: number }) =>
    `${count === 1 ? "One cell holds" : `${grouped(count)} cells hold`} more than the ${grouped(most)} characters that a cell of this format can; what is beyond them is not in the file.`,
};
