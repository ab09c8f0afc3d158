import { HEADERS, oneOf, type HeaderChoice } from "../compose/recipe.js";
import { DrawerError } from "../content/error.js";
import type { Reading } from "../content/notice.js";
import { withHeader } from "../content/table.js";
import type { Gathered } from "../drawer/draft.js";
import type { Source } from "../files/source.js";
import { openFile, openStandardInput } from "./input.js";

/** What is to be gathered, as it is typed. */
export interface GatherOptions {
  readonly at?: readonly string[];
  readonly type?: string;
  readonly label?: string;
  readonly clipboard?: boolean;
  readonly private?: boolean;
  readonly notPrivate?: boolean;
  readonly header?: string;
}

/** Reads everything before anything is collected: all of it, or, if one part is refused, none. */
export async function gather(files: readonly string[], options: GatherOptions): Promise<Gathered[]> {
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

function cut(source: Source, document: string | undefined, options: GatherOptions): Gathered[] {
  const { at } = options;
  const header = options.header === undefined ? undefined : oneOf("header", HEADERS, options.header);
  const spots = at?.flatMap((written) => source.spots(written));
  return (spots ?? [undefined]).map((spot, index) => ({
    ...headed(source.at(spot), header, index === 0),
    ...saidOf(options),
    origin: {
      ...(document !== undefined && { document }),
      ...(spot !== undefined && { at: spot }),
      ...(source.title !== undefined && { title: source.title }),
    },
  }));
}

/** A reading whose tables have the header that the user has said. */
function headed(reading: Reading, header: HeaderChoice | undefined, isFirst: boolean): Reading {
  if (header === undefined) return reading;
  return { ...reading, content: withHeader(reading.content, header === "yes", isFirst) };
}

/** What the user says of what is gathered. */
function saidOf({
  label,
  private: isPrivate,
  notPrivate,
}: GatherOptions): Pick<Gathered, "label" | "private"> {
  if (isPrivate && notPrivate)
    throw new DrawerError(
      "bad-option",
      "It is private or it is not: give one of --private and --not-private.",
    );
  return {
    ...(label !== undefined && { label }),
    ...((isPrivate || notPrivate) && { private: isPrivate === true }),
  };
}

async function fromClipboard(files: readonly string[], options: GatherOptions): Promise<Gathered> {
  if (files.length > 0 || options.at || options.type !== undefined) {
    throw new DrawerError(
      "bad-option",
      "What was copied last is collected whole: --clipboard goes without files, --at and --type.",
    );
  }
  const { readClipboard } = await import("../desktop/clipboard.js");
  const { readFlavours } = await import("../content/read/flavours.js");
  const { secret, ...flavours } = await readClipboard();
  return {
    ...(await readFlavours(flavours)),
    ...(secret && { private: true }),
    ...saidOf(options),
    origin: { app: "the clipboard" },
  };
}
