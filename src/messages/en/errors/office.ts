import { formats } from "../formats.js";
import { grouped, size } from "../phrases.js";

const SAVE_AGAIN = "Open it in its own program and save it again.";

/** What is refused of documents and sheets. */
export const officeErrors = {
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
    what: "bytes" | "elements" | "depth";
    most: number;
  }) =>
    what === "bytes"
      ? `“${file}” unpacks to more than ${size(most)}, which no real document does. It was not read.`
      : what === "elements"
        ? `“${file}” has more than ${grouped(most)} elements in one part. It was not read; save it in parts.`
        : `“${file}” has elements nested more than ${grouped(most)} deep. It was not read; save it in parts.`,
};
