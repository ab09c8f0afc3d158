import { basename } from "node:path";
import type { Block } from "../compose/block.js";
import { DrawerError } from "../content/error.js";
import type { Notice } from "../content/notice.js";
import { writeFile, WRITTEN_FORMATS } from "../files/write.js";
import { page } from "./page.js";
import { UsageError } from "./refusal.js";

/** What a block is written as, and the names by which the format is asked for: its own and the endings of files. */
interface Output {
  readonly names: readonly string[];
  /** The whole of a file; of text formats also what goes to standard output. */
  readonly write: (block: Block, title: string | undefined, guard: boolean) => Written | Promise<Written>;
  /** Whether it is bytes, which nobody wants on a terminal. */
  readonly isBinary?: true;
}

/** What is written, and what it could not hold. */
export interface Written {
  readonly data: string | Uint8Array;
  readonly notices: readonly Notice[];
}

const text = (data: string): Written => ({ data, notices: [] });
/** Text for a terminal or a file ends with a line end; an empty text stays empty. */
const line = (words: string): Written => text(words === "" ? "" : words + "\n");

const OUTPUTS: readonly Output[] = [
  { names: ["text", "txt"], write: (block) => line(block.text) },
  { names: ["markdown", "md"], write: (block) => line(block.markdown) },
  {
    names: ["html", "htm"],
    write: (block, title) => (title === undefined ? line(block.html) : text(page(block.html, title))),
  },
  { names: ["csv"], write: (block, _, guard) => text(block.delimited(",", { guard })) },
  { names: ["tsv", "tab"], write: (block, _, guard) => text(block.delimited("\t", { guard })) },
  { names: ["json"], write: (block) => line(JSON.stringify(block.content)) },
  ...WRITTEN_FORMATS.map((format): Output => ({
    names: [format],
    isBinary: true,
    async write({ content, picture }, title) {
      const { bytes, notices } = await writeFile(
        { content, picture, ...(title !== undefined && { title }) },
        format,
      );
      return { data: bytes, notices };
    },
  })),
];

/** The names of the formats, each as it is called first. */
export const OUTPUT_NAMES = OUTPUTS.map(({ names }) => names[0]!);

/**
 * The format that is wanted: as it was said, as the file's ending says, or text.
 * @throws DrawerError `bad-option`, `unknown-format`
 */
export function outputOf(out: string | undefined, to: string | undefined): Output {
  if (out !== undefined) {
    const said = named(out);
    if (said) return said;
    throw new UsageError("bad-option/out", { out, outputs: OUTPUT_NAMES });
  }
  if (to === undefined) return OUTPUTS[0]!;
  const found = named(/\.([^./\\]+)$/.exec(to)?.[1] ?? "");
  if (found) return found;
  const endings = OUTPUTS.map(({ names }) => `.${names.at(-1)}`);
  throw new DrawerError("unknown-format/write", { file: to, endings });
}

function named(name: string): Output | undefined {
  return OUTPUTS.find(({ names }) => names.includes(name.toLowerCase()));
}

/** The title of a file that a block is put into: its name without the ending. */
export function titleOf(path: string): string {
  return basename(path).replace(/\.[^.]+$/, "");
}
