import type { Content } from "../content/model.js";
import { notice, type Notice } from "../content/notice.js";
import { editNotices } from "../messages/en/edit.js";
import { writeText } from "./text/write.js";
import type { WriteInput } from "./write-input.js";

/** What a named place of a file is. */
export type PlaceKind = "control" | "field" | "bookmark" | "name" | "braces";

/** A place of a file that has a name, and what stands there. */
export interface NamedPlace {
  readonly name: string;
  readonly kind: PlaceKind;
  /** What it says now. */
  readonly text: string;
  /** The cells that have the name, as a spot. */
  readonly spot?: string;
}

/** What goes into named places, by their names in small letters. */
export type Values = ReadonlyMap<string, Content>;

/** A file whose named places are filled, and the names of those that were. */
export interface Filled {
  readonly data: Uint8Array;
  readonly filled: ReadonlySet<string>;
  readonly notices: readonly Notice[];
}

/** What finds the named places of files of a format, and fills them. */
export interface Template {
  /** @throws DrawerError `unreadable` */
  places(bytes: Uint8Array, file: string): Promise<NamedPlace[]>;
  /**
   * Fills all places whose names have a value; the others stay as they are.
   * @throws DrawerError `unreadable`, `cannot-edit`
   */
  fill(bytes: Uint8Array, file: string, values: Values, picture: WriteInput["picture"]): Promise<Filled>;
  /**
   * Fills a file for each of some values, and makes one file of them, each on pages of its own. What stands at the edges of pages is
   * there once: it takes what all values say alike.
   * @throws DrawerError `unreadable`, `cannot-edit`
   */
  fillPages?(
    bytes: Uint8Array,
    file: string,
    each: readonly Values[],
    picture: WriteInput["picture"],
  ): Promise<Filled>;
}

/** A name as it is compared: in small letters, with one space where there are several. */
export function plainName(name: string): string {
  return name.trim().replace(/\s+/g, " ").toLowerCase();
}

/** Whether content is one line of text that looks one way, which takes the look of its place. */
export function isLine(content: Content): boolean {
  const [first, ...others] = content;
  if (others.length > 0 || first?.type !== "paragraph") return content.length === 0;
  return first.runs.every((run) => run.type === "text" && Object.keys(run.marks ?? {}).length === 0);
}

/**
 * What several values say alike, and the names of what they say otherwise: what stands at the edges of pages is there once for all of
 * them.
 */
export function saidAlike(each: readonly Values[]): { alike: Values; differing: ReadonlySet<string> } {
  const [first, ...others] = each as [Values, ...Values[]];
  const isAlike = ([name, content]: readonly [string, Content]) =>
    others.every((values) => writeText(values.get(name) ?? []) === writeText(content));
  const names = new Set(each.flatMap((values) => [...values.keys()]));
  const alike = new Map([...first].filter(isAlike));
  return { alike, differing: new Set([...names].filter((name) => !alike.has(name))) };
}

/**
 * What is told of the edges of pages that are there once for all.
 * @param names the places in them that stay as they are
 * @param countsPages whether it is said somewhere how many pages there are
 */
export function edgeNotices({
  file,
  names,
  countsPages,
}: {
  readonly file: string;
  readonly names: readonly string[];
  readonly countsPages: boolean;
}): Notice[] {
  return [
    ...(names.length > 0
      ? [notice(editNotices, "not-kept/edges", { file, names: [...new Set(names)] })]
      : []),
    ...(countsPages ? [notice(editNotices, "not-kept/page-count", { file })] : []),
  ];
}

/**
 * The places of a text that have a value, in their order, each with it; notes their names as filled. What stands inside a place that is
 * filled goes with what was there.
 */
export function* placesToFill<
  Place extends { readonly name: string; readonly from: number; readonly to: number },
>(places: Iterable<Place>, values: Values, filled: Set<string>): Generator<readonly [Place, Content], void> {
  let last = 0;
  for (const place of places) {
    const name = plainName(place.name);
    const content = values.get(name);
    if (content === undefined || place.from < last) continue;
    last = place.to;
    filled.add(name);
    yield [place, content];
  }
}
