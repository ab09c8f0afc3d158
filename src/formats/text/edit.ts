import { decodeAs } from "../../content/decode.js";
import { DrawerError } from "../../content/error.js";
import { withAddressesShown } from "../../content/shown-addresses.js";
import { editErrors } from "../../messages/en/edit.js";
import type { LinesPlace, TextEditor } from "../edit.js";
import { notShownInText } from "../left-out.js";
import { decodeText } from "./decode.js";
import { writeText } from "./write.js";

/** Puts lines into plain text and takes them out; its encoding and the ends of its lines stay. */
export const textEditor: TextEditor = {
  type: "text",
  put(bytes, file, { from, to }, put, input) {
    const { lines, data } = parted(bytes, file);
    const written = writeText(withAddressesShown(input.content)).split("\n");
    const end = usualEnd(lines);
    const isInstead = put === "instead";
    const at = put === "before" || isInstead ? from - 1 : to;
    // A last line without an end gets one, and what follows it then is the last.
    const isLast = at === lines.length && lines.at(-1)?.end === "";
    const added = written.map((text, index) => ({
      text,
      end: isLast && index === written.length - 1 ? "" : end,
    }));
    const before = lines
      .slice(0, at)
      .map((line, index) => (isLast && index === at - 1 ? { ...line, end } : line));
    const after = lines.slice(isInstead ? to : at);
    if (isInstead && after.length === 0 && lines.at(-1)?.end === "") added.at(-1)!.end = "";
    return Promise.resolve({
      data: data([...before, ...added, ...after]),
      notices: notShownInText(input.content),
    });
  },
  takeOut(bytes, file, places) {
    const { lines, data } = parted(bytes, file);
    const isTaken = (at: number) => places.some((place) => isIn(place, at + 1));
    return Promise.resolve({ data: data(lines.filter((_, at) => !isTaken(at))), notices: [] });
  },
};

function isIn({ from, to }: LinesPlace, line: number): boolean {
  return line >= from && line <= to;
}

/** A line, and what ends it: nothing after the last of some files. */
interface Line {
  readonly text: string;
  end: string;
}

/** The lines of a file, and what makes a file of lines again, in its encoding. */
function parted(
  bytes: Uint8Array,
  file: string,
): { lines: Line[]; data: (lines: readonly Line[]) => Uint8Array } {
  const text = decodeText(bytes);
  const lines = [...text.matchAll(/([^\r\n]*)(\r\n|\r|\n|$)/g)]
    .map(([, line, end]) => ({ text: line!, end: end! }))
    .filter(({ text: line, end }) => line !== "" || end !== "");
  return {
    lines,
    data: (made) => encodedLike(bytes, made.map(({ text: line, end }) => line + end).join(""), file),
  };
}

/** How most lines end. */
function usualEnd(lines: readonly Line[]): string {
  const counts = new Map<string, number>();
  for (const { end } of lines) if (end !== "") counts.set(end, (counts.get(end) ?? 0) + 1);
  return [...counts].sort(([, one], [, other]) => other - one)[0]?.[0] ?? "\n";
}

/**
 * A text in the encoding of a file, with its byte order mark.
 * @throws DrawerError `cannot-edit` when an old encoding has no sign for something
 */
export function encodedLike(bytes: Uint8Array, text: string, file: string): Uint8Array {
  const [a, b, c] = bytes;
  const isLittle = a === 0xff && b === 0xfe;
  if (isLittle || (a === 0xfe && b === 0xff)) {
    const made = new Uint8Array(2 + text.length * 2);
    const view = new DataView(made.buffer);
    view.setUint16(0, 0xfeff, isLittle);
    for (let at = 0; at < text.length; at++) view.setUint16(2 + at * 2, text.charCodeAt(at), isLittle);
    return made;
  }
  const utf8 = new TextEncoder().encode(text);
  if (a === 0xef && b === 0xbb && c === 0xbf) return Uint8Array.of(0xef, 0xbb, 0xbf, ...utf8);
  return isUtf8(bytes) ? utf8 : inWindows1252(text, file);
}

function isUtf8(bytes: Uint8Array): boolean {
  try {
    new TextDecoder("utf-8", { fatal: true }).decode(bytes);
    return true;
  } catch {
    return false;
  }
}

/** The encoding that files are read in which are in no other. */
function inWindows1252(text: string, file: string): Uint8Array {
  const all = decodeAs(
    "windows-1252",
    Uint8Array.from({ length: 256 }, (_, byte) => byte),
  );
  const codes = new Map([...all].map((sign, byte) => [sign, byte]));
  return Uint8Array.from([...text], (sign) => {
    const code = codes.get(sign);
    if (code === undefined) throw new DrawerError(editErrors, "cannot-edit/encoding", { file, sign });
    return code;
  });
}
