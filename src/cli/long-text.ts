import { createReadStream } from "node:fs";
import { basename } from "node:path";
import { DrawerError } from "../content/error.js";
import { LIMITS } from "../content/limits.js";
import { isBlank } from "../content/traverse.js";
import type { Incoming } from "../drawer/incoming.js";
import { readSource, type Source } from "../files/source.js";
import { canonicalSpot, parseSpot } from "../files/spot.js";
import { namedFormat } from "../formats/registry.js";
import { filesErrors } from "../messages/en/files.js";

/** Some lines of a text. */
interface Lines {
  readonly from: number;
  readonly to: number;
}

const LINE_END = 0x0a;

/**
 * Opens some lines of a text file that is too long to be read whole; only what stands up to the last of them is read.
 * @param spots the spots that are wanted, as they are written
 * @returns nothing when the file is no plain text by its name, is short enough, or something else than lines is wanted
 * @throws DrawerError `no-spot`, `bad-spot`, `too-large`
 */
export async function openLongText(
  path: string,
  size: number,
  spots: readonly string[],
): Promise<Source | undefined> {
  if (size <= LIMITS.characters || namedFormat(path) !== "text" || spots.length === 0) return undefined;
  const wanted = spots.map((spot) => parseSpot(written(spot)));
  const lines = wanted.flatMap((spot) => (spot.type === "lines" ? [spot] : []));
  if (lines.length < wanted.length) return undefined;
  const name = basename(path);
  const pieces = new Map<string, Incoming>();
  for (const each of lines) {
    const spot = canonicalSpot(each);
    const whole = (await readSource(await bytesOfLines(path, each, spot), name, { format: "text" })).at();
    pieces.set(spot, { ...whole, origin: { document: name, at: spot } });
  }
  return {
    ...{ name, format: "text", notices: [], parts: () => [], open: async () => undefined },
    spots: (spot) => [canonicalSpot(parseSpot(written(spot)))],
    at: (spot) => pieces.get(spot!)!,
    each(unit, spot) {
      if (unit !== "line")
        throw new DrawerError(filesErrors, "no-spot/each", { file: name, unit, units: ["line"] });
      const piece = pieces.get(spot!)!;
      const { from } = lines.find((one) => canonicalSpot(one) === spot)!;
      const filled = [...piece.content.entries()].filter(([, line]) => !isBlank([line]));
      for (const [at, line] of filled)
        pieces.set(`l${from + at}`, {
          ...piece,
          content: [line],
          origin: { document: name, at: `l${from + at}` },
        });
      return { spots: filled.map(([at]) => `l${from + at}`), notices: [] };
    },
  };
}

/** A spot as it is written, in small letters. */
const written = (spot: string) => spot.trim().toLowerCase();

/** The bytes of some lines, without the end of the last. */
async function bytesOfLines(path: string, { from, to }: Lines, spot: string): Promise<Uint8Array> {
  const taken: Buffer[] = [];
  let line = 1;
  let length = 0;
  for await (const chunk of createReadStream(path)) {
    const bytes = chunk as Buffer;
    let begin = line >= from ? 0 : -1;
    let end = -1;
    for (let at = bytes.indexOf(LINE_END); at !== -1; at = bytes.indexOf(LINE_END, at + 1)) {
      line++;
      if (line === from) begin = at + 1;
      if (line > to) {
        end = at;
        break;
      }
    }
    const part = bytes.subarray(begin === -1 ? bytes.length : begin, end === -1 ? undefined : end);
    taken.push(part);
    length += part.length;
    if (end !== -1) return withoutReturn(Buffer.concat(taken));
    // What is longer is refused when it is read.
    if (length > LIMITS.bytes) break;
  }
  if (line < to)
    throw new DrawerError(filesErrors, "no-spot", {
      file: basename(path),
      spot,
      has: { count: line, letter: "l", what: "line" },
    });
  return withoutReturn(Buffer.concat(taken));
}

/** Bytes without the carriage return that belongs to the end of the last line. */
function withoutReturn(bytes: Buffer): Uint8Array {
  return new Uint8Array(bytes.at(-1) === 0x0d ? bytes.subarray(0, -1) : bytes);
}
