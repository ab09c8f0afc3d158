import type { Stats } from "node:fs";
import { readFile, stat } from "node:fs/promises";
import { basename } from "node:path";
import { DrawerError } from "../content/error.js";
import { checkBytes } from "../content/limits.js";
import { FORMATS, tellFormatOfBytes, type Format } from "../files/format.js";
import { readSource, type Source } from "../files/source.js";
import { decodeText } from "../files/text-encoding.js";

/**
 * Reads a file from the disk.
 * @throws DrawerError `no-file`, and all that {@link readSource} throws
 */
export async function openFile(path: string, type?: string): Promise<Source> {
  const format = type === undefined ? undefined : formatNamed(type);
  let bytes: Uint8Array;
  try {
    const { size } = await regularFile(path);
    checkBytes(size, `“${basename(path)}”`);
    bytes = await readFile(path);
  } catch (error) {
    if (error instanceof DrawerError) throw error;
    throw new DrawerError(
      "no-file",
      `“${path}” cannot be read: ${WHY_NOT_READ[(error as NodeJS.ErrnoException).code ?? ""] ?? String(error)}.`,
      {
        cause: error,
      },
    );
  }
  return readSource(bytes, basename(path), format && { format });
}

/**
 * What is known of a file that is named: it must be one. Devices and pipes may never end.
 * @throws DrawerError `no-file` for what is no file; the system's error when it is not there
 */
export async function regularFile(path: string): Promise<Stats> {
  const there = await stat(path);
  if (there.isFile() || there.isDirectory()) return there;
  throw new DrawerError(
    "no-file",
    `“${path}” is no file but a device or a pipe. Lead it into standard input (drawer collect < …), which ends at a limit.`,
  );
}

/** Why a file cannot be read, by the system's code. */
export const WHY_NOT_READ: Readonly<Record<string, string>> = {
  ENOENT: "there is no such file",
  EISDIR: "it is a folder",
  EACCES: "you are not allowed to",
  ENOTDIR: "a part of its path is not a folder",
  ENAMETOOLONG: "its name is too long",
};

/**
 * Reads standard input to its end.
 * @throws DrawerError `nothing` when it is a keyboard
 */
export async function openStandardInput(type?: string): Promise<Source> {
  const format = type === undefined ? undefined : formatNamed(type);
  if (process.stdin.isTTY) {
    throw new DrawerError(
      "nothing",
      "Nothing to collect: name a file, or pipe something in (cat notes.txt | drawer collect).",
    );
  }
  const chunks: Buffer[] = [];
  let length = 0;
  for await (const chunk of process.stdin) {
    length += (chunk as Buffer).length;
    checkBytes(length, "Standard input");
    chunks.push(chunk as Buffer);
  }
  const bytes = new Uint8Array(Buffer.concat(chunks));
  return readSource(bytes, "standard input", {
    format: format ?? tellFormatOfBytes(bytes, decodeText(bytes)),
  });
}

const OTHER_NAMES: Readonly<Record<string, Format>> = {
  ...{ png: "picture", jpeg: "picture", jpg: "picture", gif: "picture", webp: "picture" },
  ...{ md: "markdown", txt: "text", htm: "html" },
};

function formatNamed(type: string): Format {
  const format = FORMATS.find((known) => known === type) ?? OTHER_NAMES[type];
  if (format) return format;
  throw new DrawerError(
    "bad-option",
    `There is no type “${type}”. The types are: ${FORMATS.join(", ")}, png, jpeg, gif, webp.`,
  );
}
