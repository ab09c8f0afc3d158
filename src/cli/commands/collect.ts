import type { Command } from "commander";
import { DrawerError } from "../../content/error.js";
import { readFlavours } from "../../content/read/flavours.js";
import type { Gathered } from "../../drawer/drawer.js";
import type { Source } from "../../files/source.js";
import { answer, listed, type CommonOptions } from "../answer.js";
import { begin, several } from "../command.js";
import { withDrawer } from "../home.js";
import { openFile, openStandardInput } from "../input.js";

interface CollectOptions extends CommonOptions {
  readonly at?: readonly string[];
  readonly type?: string;
  readonly label?: string;
  readonly clipboard?: boolean;
}

/** `drawer collect [FILE…]`: copies files, or spots of a file, or standard input, into the drawer. */
export function add(program: Command): void {
  begin(
    program,
    "collect [file...]",
    "copy files, spots of a file, or standard input into the drawer; the source stays as it is",
  )
    .option(
      "--at <spot>",
      "a spot of the file (p3, p3..p6, t1, t1!A1:C2, s2, Spring!A2:G2); may be repeated",
      several,
    )
    .option("--type <type>", "what it is: text, html, markdown, csv, tsv, docx, odt, xlsx, ods, png…")
    .option("--clipboard", "take what was copied last on this desktop")
    .option("--label <text>", "a label for what is collected")
    .action(async (files: readonly string[], options: CollectOptions) => {
      const gathered = await gather(files, options);
      const { collected, notices } = await withDrawer(options.drawer, (drawer) => drawer.collect(gathered));
      answer(options, notices, { collected: collected.map(listed) });
    });
}

/** Reads everything before anything is collected: all of it, or, if one part is refused, none. */
async function gather(files: readonly string[], options: CollectOptions): Promise<Gathered[]> {
  if (options.at && files.length > 1) {
    throw new DrawerError(
      "bad-option",
      "Spots belong to one file: name one file with --at, or several files without it.",
    );
  }
  if (options.clipboard) return [await fromClipboard(files, options)];
  if (files.length === 0) return cut(await openStandardInput(options.type), undefined, options);
  const gathered: Gathered[] = [];
  for (const file of files) {
    const source = await openFile(file, options.type);
    gathered.push(...cut(source, source.name, options));
  }
  return gathered;
}

function cut(source: Source, document: string | undefined, { at, label }: CollectOptions): Gathered[] {
  return (at ?? [undefined]).map((spot) => ({
    ...source.at(spot),
    ...(label !== undefined && { label }),
    origin: {
      ...(document !== undefined && { document }),
      ...(spot !== undefined && { at: spot }),
      ...(source.title !== undefined && { title: source.title }),
    },
  }));
}

async function fromClipboard(files: readonly string[], options: CollectOptions): Promise<Gathered> {
  if (files.length > 0 || options.at || options.type !== undefined) {
    throw new DrawerError(
      "bad-option",
      "What was copied last is collected whole: --clipboard goes without files, --at and --type.",
    );
  }
  const { readClipboard } = await import("../../desktop/clipboard.js");
  const reading = await readFlavours(await readClipboard());
  return {
    ...reading,
    ...(options.label !== undefined && { label: options.label }),
    origin: { app: "the clipboard" },
  };
}
