import { generateNKeysBetween } from "fractional-indexing";
import { appended } from "../compose/append.js";
import { compose } from "../compose/compose.js";
import type { Recipe } from "../compose/recipe.js";
import { encodeContent, hashBytes, type Hash } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import { isBlank } from "../content/measure.js";
import type { Content } from "../content/model.js";
import type { Notice } from "../content/notice.js";
import { perform } from "./act.js";
import { blankPlace, paused, type Collected } from "./collect.js";
import { contentFacts, draft, type Gathered } from "./draft.js";
import type { Entry, Origin } from "./entry.js";
import { newId } from "./ids.js";
import { positionOf, type Place } from "./pick.js";
import { pickFrom, readSnippets, snippetsOf, unique } from "./picking.js";
import { makeRoom } from "./room.js";
import { rulesOf } from "./rules.js";
import { naming, said } from "./saying.js";
import { Conflict, type Positioned, type Store } from "./store.js";

/** Adds pieces to the end of a snippet. It can be split again into what it was and what was added. */
export async function append(
  store: Store,
  drawer: string,
  gathered: readonly Gathered[],
  to: Place,
  between: string,
): Promise<Collected> {
  const blank = gathered.find(({ content }) => isBlank(content));
  if (gathered.length === 0 || blank)
    throw new DrawerError(
      "nothing",
      `Nothing appended: ${blank ? blankPlace(blank.origin) : "nothing was given"}.`,
    );
  let result: Collected | undefined;
  await perform(store, drawer, "append", async () => {
    const rules = await rulesOf(store, drawer);
    if (!rules.collecting) throw paused(drawer);
    const added = gathered.map((piece) => draft(piece, drawer, rules.detect));
    const secret = added.find((one) => one.entry.private);
    if (secret) {
      const looks = secret.looks === undefined ? "it is private" : `it looks like ${secret.looks}`;
      throw new DrawerError(
        "private",
        `Nothing appended: ${looks}, and what is private stays by itself. Collect it, or say that it is not private.`,
      );
    }
    const size = await store.size(drawer);
    const target = await targetOf(store, drawer, to, size.count);
    refusePrivate([target], "Nothing appended");
    const { entry } = target;
    const { parts = [entry] } = entry;
    let { content } = target;
    const told: Notice[] = [];
    for (const piece of gathered) {
      const longer = appended(content, piece.content, between);
      content = longer.content;
      told.push(...piece.notices, ...longer.notices);
    }
    const pieces = [...parts, ...added.map((one) => ({ ...one.entry, order: entry.order }))];
    const made = madeOf(content, pieces);
    const after: Entry = { ...entry, ...made.facts };
    const room = await makeRoom(store, rules, size, { count: 0, bytes: after.bytes - entry.bytes });
    if (room.leaving.some(({ id }) => id === entry.id))
      throw new DrawerError(
        "full",
        `Nothing appended: ${said(entry)} would be too large for the drawer's rules.`,
      );
    const leaving = room.leaving.map(({ before }) => before!);
    const position = target.position - (await earlier(store, leaving, target.position));
    const names = added.map((one) => naming(one.entry)).join(", ");
    const message = `Appended to ${position}: ${names}. It reads now ${said(after)}, ${pieces.length} pieces; split parts them again.`;
    result = {
      collected: [{ position, entry: after }],
      notices: [...told, { code: "appended", message }, ...room.notices],
    };
    return {
      edits: [...room.leaving, { id: entry.id, before: entry, after }],
      contents: new Map([...added.flatMap((one) => [...one.blobs]), ...made.contents]),
    };
  });
  return result!;
}

async function targetOf(store: Store, drawer: string, to: Place, count: number) {
  const offset = positionOf(to, count, `the drawer “${drawer}”`) - 1;
  const [target] = await readSnippets(store, await store.entries({ drawer, offset, limit: 1 }));
  if (!target) throw new Conflict("The snippet has gone.");
  return target;
}

/** How many of these stand before a position. */
async function earlier(store: Store, entries: readonly Entry[], position: number): Promise<number> {
  if (entries.length === 0) return 0;
  return [...(await store.positions(entries)).values()].filter((each) => each < position).length;
}

/** Makes one snippet of several, where the first of the pick stood. */
export async function merge(store: Store, drawer: string, pick: string, recipe: Recipe): Promise<Collected> {
  let result: Collected | undefined;
  await perform(store, drawer, "merge", async () => {
    const merging = unique(await pickFrom(snippetsOf(store, drawer), pick));
    if (merging.length < 2)
      throw new DrawerError(
        "nothing",
        `“${pick}” is ${merging.length === 0 ? "no snippet" : "one snippet"}: merging takes two or more.`,
      );
    refusePrivate(merging, "Nothing merged");
    const block = compose(await readSnippets(store, merging), recipe);
    const [first] = merging as [Positioned, ...Positioned[]];
    const made = madeOf(
      block.content,
      merging.map((one) => one.entry),
    );
    const entry: Entry = {
      id: newId(),
      drawer,
      order: first.entry.order,
      kept: merging.some((one) => one.entry.kept),
      private: false,
      origin: commonOrigin(merging),
      collectedAt: new Date().toISOString(),
      ...made.facts,
    };
    const position = first.position - merging.filter((one) => one.position < first.position).length;
    const numbers = merging.map((one) => one.position).join(", ");
    const notice = {
      code: "merged" as const,
      message: `Merged ${numbers} into ${position}: ${said(entry)}. Split makes them ${merging.length} again.`,
    };
    result = { collected: [{ position, entry }], notices: [...block.notices, notice] };
    const edits = [
      ...merging.map((one) => ({ id: one.entry.id, before: one.entry, after: null })),
      { id: entry.id, before: null, after: entry },
    ];
    return { edits, contents: made.contents };
  });
  return result!;
}

/** Parts a snippet that was merged or appended to into the snippets it was made of, where it stands. */
export async function split(store: Store, drawer: string, place: Place): Promise<Collected> {
  let collected: Positioned[] = [];
  await perform(store, drawer, "split", async () => {
    const { count } = await store.size(drawer);
    const position = positionOf(place, count, `the drawer “${drawer}”`);
    const near = await store.entries({ drawer, offset: Math.max(0, position - 2), limit: 3 });
    const at = near.findIndex((one) => one.position === position);
    const { entry } = near[at]!;
    if (!entry.parts)
      throw new DrawerError(
        "nothing",
        `Snippet ${position} is of one piece: ${said(entry)} was never merged or appended to.`,
      );
    const orders = generateNKeysBetween(
      near[at - 1]?.entry.order ?? null,
      near[at + 1]?.entry.order ?? null,
      entry.parts.length,
    );
    // Who kept the whole wants the pieces kept; who kept a piece has said which.
    const keepAll = entry.kept && !entry.parts.some((part) => part.kept);
    const parts = entry.parts.map((part, index): Entry => ({
      ...part,
      drawer,
      kept: part.kept || keepAll,
      order: orders[index]!,
    }));
    collected = parts.map((part, index) => ({ position: position + index, entry: part }));
    const same = parts.find(({ id }) => id === entry.id);
    const rest = parts
      .filter((part) => part !== same)
      .map((part) => ({ id: part.id, before: null, after: part }));
    return { edits: [{ id: entry.id, before: entry, after: same ?? null }, ...rest] };
  });
  const names = collected.map(({ position, entry }) => `${position}, ${naming(entry)}`).join("; ");
  return { collected, notices: [{ code: "split", message: `Split into ${collected.length}: ${names}.` }] };
}

/** What is private goes soon, and would take with it what it was joined to. */
function refusePrivate(joining: readonly Positioned[], refused: string): void {
  const found = joining.find(({ entry }) => entry.private);
  if (found)
    throw new DrawerError(
      "private",
      `${refused}: snippet ${found.position} is private, and what is private stays by itself. Take the privacy off first, if that is wrong.`,
    );
}

/** What an entry says of a content that was made of several snippets, and the bytes of that content. */
function madeOf(content: Content, parts: readonly Entry[]) {
  const bytes = encodeContent(content);
  const hash = hashBytes(bytes);
  const pictures = [...new Set(parts.flatMap((part) => part.pictures ?? []))];
  const facts = {
    ...contentFacts(content, hash, false),
    ...(pictures.length > 0 && { pictures }),
    bytes: bytes.length + parts.reduce((sum, part) => sum + part.bytes, 0),
    parts,
  };
  return { facts, contents: new Map<Hash, Uint8Array>([[hash, bytes]]) };
}

/** What the origins of several snippets have in common. */
function commonOrigin(merging: readonly Positioned[]): Origin {
  const [first, ...rest] = merging.map(({ entry }) => entry.origin);
  const shared = Object.entries(first!).filter(([name, value]) =>
    rest.every((origin) => origin[name as keyof Origin] === value),
  );
  return Object.fromEntries(shared) as Origin;
}
