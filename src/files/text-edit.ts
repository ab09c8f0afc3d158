import { DrawerError } from "../content/error.js";
import type { LinesPlace } from "../formats/edit.js";
import { decodeText } from "../formats/text/decode.js";
import { editErrors } from "../messages/en/edit.js";
import { filesErrors } from "../messages/en/files.js";
import { parseSpot } from "./spot.js";

/**
 * The lines of plain text that a spot names; a paragraph is a line that says something.
 * @throws DrawerError `bad-spot`, `no-spot`, `cannot-edit`
 */
export function linesPlace(bytes: Uint8Array, file: string, written: string): LinesPlace {
  const spot = parseSpot(written);
  const lines = decodeText(bytes, "text").split(/\r\n|\r|\n/);
  if (lines.at(-1) === "") lines.pop();
  const filled = lines.flatMap((line, at) => (line.trim() === "" ? [] : [at + 1]));
  const isLines = spot.type === "lines";
  if (!isLines && spot.type !== "paragraphs")
    throw new DrawerError(editErrors, "cannot-edit/put", { file, spot: written, put: "at" });
  const count = isLines ? lines.length : filled.length;
  if (spot.to > count)
    throw new DrawerError(filesErrors, "no-spot", {
      ...{ file, spot: written },
      has: { count, letter: isLines ? "l" : "p", what: isLines ? "line" : "paragraph" },
    });
  const [from, to] = isLines ? [spot.from, spot.to] : [filled[spot.from - 1]!, filled[spot.to - 1]!];
  return { spot: written, from, to };
}
