import { grouped, quotedAll } from "../phrases.js";

/** What is told of content that was read, composed or written. */
export const contentNotices = {
  /** Facts that stand before a Markdown text were left out. */
  "left-out/front-matter": () =>
    "Left out: the facts about the document that stand before its text (front matter).",
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
  /** Text has no place for pictures. */
  "not-shown/pictures-in-text": ({ count }: { count: number }) =>
    `Text has no place for pictures: ${count === 1 ? "the description of one stands" : `the descriptions of ${count} stand`} for them.`,
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
