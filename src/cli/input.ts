import type { Stats } from "node:fs";
import { readFile, stat } from "node:fs/promises";
import { basename } from "node:path";
import { defined } from "../content/defined.js";
import { DrawerError } from "../content/error.js";
import { checkBytes } from "../content/limits.js";
import { readSource, type Source, type SourceOptions } from "../files/source.js";
import { SEPARATORS, SEPARATOR_NAMES, type Separator } from "../formats/delimited/separator.js";
import { tellFormatOfBytes } from "../formats/detect.js";
import { findReadFormat, READ_FORMATS, type FormatName } from "../formats/registry.js";
import { decodeText } from "../formats/text/decode.js";
import { cliErrors } from "../messages/en/cli.js";
import { sources } from "../messages/en/content.js";
import { openLongText } from "./long-text.js";
import { notRead } from "./not-read.js";
import { readingBar } from "./reading-bar.js";
import { unescaped } from "./recipe-options.js";
import { UsageError } from "./refusal.js";

/** What the user may say of what is read, as it is typed. */
export interface SaidOfInput {
  readonly type?: string;
  readonly separator?: string;
  /** A file that holds the password of what is read. */
  readonly passwordFile?: string;
}

/** What names standard input and output where a file is named; a file of that name is `./-`. */
export const STANDARD = "-";

/**
 * Reads a file from the disk, or standard input by the name `-`. Of a text that is too long for that only the lines are read that
 * are wanted.
 * @param spots the spots that are wanted, as they are written; none for all of it
 * @throws DrawerError `no-file`, and all that {@link readSource} throws
 */
export async function openFile(
  path: string,
  said: SaidOfInput,
  spots: readonly string[] = [],
): Promise<Source> {
  if (path === STANDARD) return openStandardInput(said);
  const options = await sourceOptions(said);
  let bytes: Uint8Array;
  try {
    const { size } = await regularFile(path);
    const long = await openLongText(path, size, spots);
    if (long) return long;
    checkBytes(size, basename(path));
    bytes = await readFile(path);
  } catch (error) {
    if (error instanceof DrawerError) throw error;
    throw notRead(path, error);
  }
  const onProgress = await readingBar(basename(path), bytes.length);
  return readSource(bytes, basename(path), { ...options, ...defined({ onProgress }) });
}

/**
 * Reads a file from the disk as it is.
 * @throws DrawerError `no-file`, `too-large`
 */
export async function readBytes(path: string): Promise<{ bytes: Uint8Array; name: string }> {
  const name = basename(path);
  try {
    checkBytes((await regularFile(path)).size, name);
    return { bytes: new Uint8Array(await readFile(path)), name };
  } catch (error) {
    if (error instanceof DrawerError) throw error;
    throw notRead(path, error);
  }
}

/**
 * What is known of a file that is named: it must be one. Devices and pipes may never end.
 * @throws DrawerError `no-file` for what is no file; the system's error when it is not there
 */
export async function regularFile(path: string): Promise<Stats> {
  const there = await stat(path);
  if (there.isFile() || there.isDirectory()) return there;
  throw new DrawerError(cliErrors, "no-file/device", { path });
}

/**
 * Reads standard input to its end.
 * @throws DrawerError `nothing` when it is a keyboard
 */
async function openStandardInput(said: SaidOfInput): Promise<Source> {
  const options = await sourceOptions(said);
  if (process.stdin.isTTY) {
    throw new UsageError("nothing/input", {});
  }
  const chunks: Buffer[] = [];
  let length = 0;
  for await (const chunk of process.stdin) {
    length += (chunk as Buffer).length;
    checkBytes(length);
    chunks.push(chunk as Buffer);
  }
  const bytes = new Uint8Array(Buffer.concat(chunks));
  return readSource(bytes, sources.standardInput, {
    format: tellFormatOfBytes(bytes, decodeText(bytes)),
    ...options,
  });
}

/**
 * What the user says of the input, as a source is told it.
 * @throws UsageError `bad-option`
 * @throws DrawerError `no-file`
 */
async function sourceOptions({ type, separator, passwordFile }: SaidOfInput): Promise<SourceOptions> {
  return defined({
    password: passwordFile === undefined ? undefined : await passwordIn(passwordFile),
    format: type === undefined ? undefined : formatNamed(type),
    separator: separator === undefined ? undefined : separatorNamed(separator),
  });
}

/** The password that a file holds: its first line. An argument would stand where others can read it. */
async function passwordIn(path: string): Promise<string> {
  const { bytes } = await readBytes(path);
  return decodeText(bytes).split(/\r\n?|\n/)[0]!;
}

function separatorNamed(typed: string): Separator {
  const found = SEPARATORS.find((sign) => [sign, SEPARATOR_NAMES[sign] as string].includes(unescaped(typed)));
  if (found) return found;
  throw new UsageError("bad-option/separator-sign", { typed, names: Object.values(SEPARATOR_NAMES) });
}

function formatNamed(type: string): FormatName {
  const format = findReadFormat(type);
  if (format) return format;
  throw new UsageError("bad-option/type", { type, types: [...READ_FORMATS, "png", "jpeg", "gif", "webp"] });
}
