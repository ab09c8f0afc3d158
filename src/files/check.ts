import { encodeContent, hashBytes } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import type { Content } from "../content/model.js";
import { isBlank, mapContent } from "../content/traverse.js";
import type { Incoming } from "../drawer/incoming.js";
import { writeText } from "../formats/text/write.js";
import type { Source } from "./source.js";

/** What has become of a piece in the file that it came from. */
export type Standing =
  /** It says the same at its spot. */
  | { readonly type: "same" }
  /** It says something else at its spot, or what stands between its neighbours at another spot. */
  | { readonly type: "changed"; readonly spot: string; readonly now: Incoming }
  /** It says the same at another spot. */
  | { readonly type: "moved"; readonly spot: string; readonly now: Incoming }
  /** Nothing there says it any more. */
  | { readonly type: "gone" };

/**
 * Tells what has become of a piece in its file: whether it says the same at its spot; where it stands, when it has moved; what it says
 * now, when it was changed. In a document a piece of one paragraph, table or picture is looked for among all of its kind.
 *
 * @param source the file as it is now
 * @param piece what was taken of it, and the spot where it stood; all of it when there is none
 * @throws DrawerError `unreadable`, `too-large`
 */
export function standingOf(source: Source, { content, at }: { content: Content; at?: string }): Standing {
  const own = keyOf(content);
  const here = readAt(source, at);
  if (here && keyOf(here.content) === own) return { type: "same" };
  const elsewhere = at === undefined || source.sheets ? undefined : found(source, content, at);
  if (elsewhere) return { type: "moved", ...elsewhere };
  if (source.sheets || at === undefined || /!|^a\d+$/.test(at)) {
    // Cells are places of their own, whatever they say.
    return !here || isBlank(here.content) ? { type: "gone" } : { type: "changed", spot: at ?? "", now: here };
  }
  const words = wordsOf(content);
  if (here && alike(words, wordsOf(here.content)) >= ALIKE.here)
    return { type: "changed", spot: at, now: here };
  const near = nearest(source, words, at);
  return near ? { type: "changed", ...near } : { type: "gone" };
}

/** How alike two pieces must be to be one that was changed, at its spot and at another: twice the words of both, among all words. */
const ALIKE = { here: 0.25, elsewhere: 0.5 };

function wordsOf(content: Content): readonly string[] {
  return (
    writeText(content)
      .toLowerCase()
      .match(/[\p{L}\p{N}]+/gu) ?? []
  );
}

function alike(one: readonly string[], other: readonly string[]): number {
  const left = new Map<string, number>();
  for (const word of one) left.set(word, (left.get(word) ?? 0) + 1);
  let both = 0;
  for (const word of other) {
    const count = left.get(word) ?? 0;
    if (count > 0) both++;
    left.set(word, count - 1);
  }
  return (2 * both) / Math.max(1, one.length + other.length);
}

/** The part that is most like a piece, where it is like it enough. */
function nearest(
  source: Source,
  words: readonly string[],
  at: string,
): { spot: string; now: Incoming } | undefined {
  let best: { spot: string; now: Incoming; share: number } | undefined;
  for (const { spot } of source.parts().filter((part) => part.spot.startsWith(at[0]!))) {
    const now = source.at(spot);
    const share = alike(words, wordsOf(now.content));
    if (share >= ALIKE.elsewhere && share > (best?.share ?? 0)) best = { spot, now, share };
  }
  return best && { spot: best.spot, now: best.now };
}

/** Content as it is compared: by all that it holds, but for what is a header, which people say. */
function keyOf(content: Content): string {
  const bare = mapContent(content, {
    flow: (flow) => [flow.type === "table" ? { ...flow, headerRows: 0 } : flow],
  });
  return hashBytes(encodeContent(bare));
}

function readAt(source: Source, at: string | undefined): Incoming | undefined {
  try {
    return source.at(at);
  } catch (error) {
    if (error instanceof DrawerError && error.code === "no-spot") return undefined;
    throw error;
  }
}

/** Where a piece stands by now: the spot nearest to where it stood of those that say the same. */
function found(source: Source, content: Content, at: string): { spot: string; now: Incoming } | undefined {
  const [, letter, first, last = first] = /^([pti])(\d+)(?:\.\.[pti]?(\d+))?$/.exec(at) ?? [];
  if (letter === undefined) return undefined;
  const length = Number(last) - Number(first) + 1;
  const beginning = writeText(content).trim().slice(0, 40);
  const spots = source
    .parts()
    .filter(({ spot }) => spot.startsWith(letter))
    .map(({ spot }) => Number(spot.slice(1)))
    .sort((one, other) => Math.abs(one - Number(first)) - Math.abs(other - Number(first)));
  const own = keyOf(content);
  for (const number of spots) {
    const spot = length === 1 ? `${letter}${number}` : `${letter}${number}..${letter}${number + length - 1}`;
    const now = readAt(source, spot);
    if (now && writeText(now.content).trim().startsWith(beginning) && keyOf(now.content) === own)
      return { spot, now };
  }
  return undefined;
}
