import { link, rename, rm, writeFile } from "node:fs/promises";
import { dirname, join } from "node:path";
import { DrawerError } from "../content/error.js";

/**
 * Writes a file whole or not at all: beside its place first, then into its place. A file that is there is replaced
 * only with `overwrite`.
 *
 * @throws DrawerError `exists`, `not-written`
 */
export async function writeNewFile(
  path: string,
  data: string | Uint8Array | AsyncIterable<string>,
  overwrite: boolean,
): Promise<void> {
  const draft = join(dirname(path), `.drawer-${process.pid}-${Date.now()}.part`);
  try {
    await writeFile(draft, data, { flag: "wx" });
    if (overwrite) await rename(draft, path);
    else await link(draft, path);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code === "EEXIST") {
      throw new DrawerError(
        "exists",
        `“${path}” is there already and was left as it is. Choose another name, or add --overwrite.`,
        { cause: error },
      );
    }
    throw new DrawerError("not-written", `“${path}” was not written: ${WHY[code ?? ""] ?? String(error)}.`, {
      cause: error,
    });
  } finally {
    await rm(draft, { force: true });
  }
}

const WHY: Readonly<Record<string, string>> = {
  ENOENT: "there is no such folder",
  ENOTDIR: "a part of its path is not a folder",
  EISDIR: "it is a folder",
  EACCES: "you are not allowed to write there",
  EROFS: "the disk is read-only",
  ENOSPC: "the disk is full",
};
