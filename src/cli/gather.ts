import { existsSync, realpathSync } from "node:fs";
import { HEADERS, oneOf, type HeaderChoice } from "../compose/options.js";
import { defined } from "../content/defined.js";
import { withHeader } from "../content/make-table.js";
import type { Incoming } from "../drawer/incoming.js";
import type { Source } from "../files/source.js";
import { UNITS } from "../files/units.js";
import { openFile, STANDARD, type SaidOfInput } from "./input.js";
import { endReading } from "./reading-bar.js";
import { UsageError } from "./refusal.js";

/** What is to be incoming, as it is typed. */
export interface GatherOptions extends SaidOfInput {
  readonly at?: readonly string[];
  readonly label?: string;
  readonly clipboard?: boolean;
  readonly private?: boolean;
  readonly notPrivate?: boolean;
  readonly header?: string;
  /** What it is to be taken by, each as a snippet. */
  readonly each?: string;
}

/**
 * The file and the spots that were typed, of which those after the first (`--at p3 p5`) come among the files: what is no file there is one.
 * @throws UsageError when there are several files
 */
export function fileAndSpots(
  typed: readonly string[],
  at: readonly string[],
): { readonly files: readonly string[]; readonly at: readonly string[] } {
  if (typed.length < 2) return { files: typed, at };
  const files = typed.filter((name) => existsSync(name));
  if (files.length > 1) throw new UsageError("bad-option/spots", {});
  const file = files[0] ?? typed[0]!;
  return { files: [file], at: [...at, ...typed.filter((name) => name !== file)] };
}

/** Reads everything before anything is collected: all of it, or, if one part is refused, none. */
export async function gather(typed: readonly string[], given: GatherOptions): Promise<Incoming[]> {
  const { files, at } = given.at ? fileAndSpots(typed, given.at) : { files: typed };
  const options: GatherOptions = { ...given, ...defined({ at }) };
  if (options.clipboard && options.each !== undefined) throw new UsageError("bad-option/each-clipboard", {});
  if (options.clipboard) return [await fromClipboard(files, options)];
  const incoming: Incoming[] = [];
  for (const file of files.length === 0 ? [STANDARD] : files) {
    const pieces = await cut(await openFile(file, options, options.at), options);
    incoming.push(...(file === STANDARD ? pieces.map(withoutDocument) : withPath(pieces, file)));
  }
  return incoming;
}

/** Pieces that know where on this device their file is. */
export function withPath(pieces: readonly Incoming[], file: string): Incoming[] {
  const path = realpathSync(file);
  return pieces.map((piece) => ({ ...piece, origin: { ...piece.origin, path } }));
}

/** What was led in has no document that one could open again. */
function withoutDocument({ origin: { document: _, ...origin }, ...piece }: Incoming): Incoming {
  return { ...piece, origin };
}

async function cut(source: Source, options: GatherOptions): Promise<Incoming[]> {
  const { at } = options;
  const header = options.header === undefined ? undefined : oneOf("header", HEADERS, options.header);
  for (const written of at ?? []) await source.open(written);
  const named = at?.flatMap((written) => source.spots(written));
  const unit = options.each === undefined ? undefined : oneOf("each", UNITS, options.each);
  const units = unit && (named ?? [undefined]).map((spot) => source.each(unit, spot));
  const spots = units ? units.flatMap((each) => each.spots) : named;
  const told = units?.flatMap((each) => each.notices) ?? [];
  const pieces = (spots ?? [undefined]).map((spot, index) => {
    const piece = headed(source.at(spot), header, index === 0);
    const notices = index === 0 ? [...told, ...piece.notices] : piece.notices;
    return { ...piece, notices, ...saidOf(options) };
  });
  endReading();
  return pieces;
}

/** A piece whose tables have the header that the user has said. */
function headed(piece: Incoming, header: HeaderChoice | undefined, isFirst: boolean): Incoming {
  if (header === undefined) return piece;
  return { ...piece, content: withHeader(piece.content, header === "yes", isFirst) };
}

/** What the user says of what is incoming. */
function saidOf({
  label,
  private: isPrivate,
  notPrivate,
}: GatherOptions): Pick<Incoming, "label" | "private" | "stays"> {
  if (isPrivate && notPrivate) throw new UsageError("bad-option/private", {});
  return {
    ...defined({ label }),
    ...((isPrivate || notPrivate) && { private: isPrivate === true }),
    // What a person makes private stays so until a person says.
    ...(isPrivate && { stays: true }),
  };
}

async function fromClipboard(files: readonly string[], options: GatherOptions): Promise<Incoming> {
  if (files.length > 0 || options.at || options.type !== undefined || options.separator !== undefined) {
    throw new UsageError("bad-option/clipboard", {});
  }
  const { readClipboard } = await import("../desktop/clipboard.js");
  const { incomingOf } = await import("../desktop/to-incoming.js");
  return { ...(await incomingOf(await readClipboard())), ...saidOf(options) };
}
