import { basename } from "node:path";
import { DrawerError } from "../content/error.js";
import {
  extensionOf,
  findWrittenFormat,
  formatOf,
  WRITTEN_FORMATS,
  type FormatName,
} from "../formats/registry.js";
import { UsageError } from "./refusal.js";

/**
 * The format that is wanted: as it was said, as the file's ending says, or text.
 * @throws UsageError `bad-option`
 * @throws DrawerError `unknown-format`
 */
export function outputFormat(out: string | undefined, to: string | undefined): FormatName {
  if (out !== undefined) {
    const said = findWrittenFormat(out);
    if (said) return said;
    throw new UsageError("bad-option/out", { out, outputs: WRITTEN_FORMATS });
  }
  if (to === undefined) return "text";
  const found = findWrittenFormat(extensionOf(to) ?? "");
  if (found) return found;
  const endings = WRITTEN_FORMATS.map((name) => `.${formatOf(name).extensions[0]}`);
  throw new DrawerError("unknown-format/write", { file: to, endings });
}

/** The title of a file that a block is put into: its name without the ending. */
export function titleOf(path: string): string {
  return basename(path).replace(/\.[^.]+$/, "");
}
