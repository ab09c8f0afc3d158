import type { Command } from "commander";
import { answer, listed, type CommonOptions } from "../answer.js";
import { begin, several } from "../command.js";
import { gather, type GatherOptions } from "../gather.js";
import { withDrawer } from "../home.js";

type CollectOptions = CommonOptions & GatherOptions;

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
    .option("--header <yes|no>", "whether the first row of a table names its columns (told from the table)")
    .option("--clipboard", "take what was copied last on this desktop")
    .option("--label <text>", "a label for what is collected")
    .option("--private", "it is private: shown nowhere, never found or exported, and soon gone")
    .option("--not-private", "it is not private, whatever it looks like")
    .action(async (files: readonly string[], options: CollectOptions) => {
      const gathered = await gather(files, options);
      const { collected, notices } = await withDrawer(options.drawer, (drawer) => drawer.collect(gathered));
      answer(options, notices, { collected: collected.map(listed) });
    });
}
