import { defined } from "../content/defined.js";
import { decodeContent, type Hash } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import { fold } from "../content/fold.js";
import { type Content, paragraph } from "../content/model.js";
import { notice, type Notice } from "../content/notice.js";
import { type PickedFrom, drawerErrors, drawerNotices } from "../messages/en/drawer.js";
import { isWithin } from "./days.js";
import { searchTerms } from "./find.js";
import { MASK } from "./mask.js";
import type { Entry, Origin } from "./model/entry.js";
import {
  checkSnippetRef,
  noPosition,
  parsePick,
  positionOf,
  type SnippetRef,
  type Position,
  type Term,
} from "./model/pick.js";
import type { EntryQuery, Positioned, Store } from "./store.js";

/** A snippet with all that it holds. */
export interface Snippet extends Positioned {
  readonly content: Content;
  /** The bytes of the content's pictures, by hash. */
  readonly pictures: ReadonlyMap<Hash, Uint8Array>;
  readonly label?: string;
  readonly origin: Origin;
  /** ISO 8601, in UTC. */
  readonly collectedAt: string;
}

/** Numbered snippets that one can pick from: those of a drawer, or those that have left it. */
export interface Pickable {
  /** Whose they are, for refusals. */
  readonly from: PickedFrom;
  count(): Promise<number>;
  entries(query: Omit<EntryQuery, "drawer">): Promise<Positioned[]>;
  /** Those that hold all of the terms, in order. */
  holding(terms: readonly string[]): Promise<Positioned[]>;
}

/** The snippets of a drawer, to pick from. */
export function snippetsOf(store: Store, drawer: string): Pickable {
  return {
    from: { drawer, isGone: false },
    count: async () => (await store.size(drawer)).count,
    entries: (query) => store.entries({ ...query, drawer }),
    async holding(terms) {
      const entries = await store.find({ drawer, terms, limit: Infinity });
      return (await positioned(store, entries)).sort((a, b) => a.position - b.position);
    },
  };
}

/** Adds their positions to entries; those that are not there any more are left out. */
export async function positioned(store: Store, entries: readonly Entry[]): Promise<Positioned[]> {
  const positions = await store.positions(entries);
  return entries.flatMap((entry) => {
    const position = positions.get(entry.id);
    return position === undefined ? [] : [{ position, entry }];
  });
}

/**
 * The snippets of a pick, in the pick's order. One that is picked twice comes twice.
 * @throws DrawerError `bad-pick`, `no-position`
 */
export async function pickFrom(from: Pickable, pick: string): Promise<Positioned[]> {
  return (await readPick(from, pick)).picked;
}

/** The snippets of a pick, in its order, and the ids of those that it names by their own number or id. */
async function readPick(from: Pickable, pick: string) {
  const terms = parsePick(pick);
  const known: Known = {
    byId: await snippetsById(from, terms.flatMap(idsOf)),
    byPosition: await snippetsByPosition(from, terms.flatMap(positionsOf)),
  };
  const excluded = new Set<number>();
  const named = new Set<string>();
  const picked: Positioned[] = [];
  for (const term of terms) {
    if (term.type === "not")
      for (const { position } of await matching(from, term.term, known)) excluded.add(position);
    else
      for (const one of await matching(from, term, known)) {
        picked.push(one);
        if (term.type === "place" && !("beforeLast" in term.place)) named.add(one.entry.id);
      }
  }
  const chosen = terms.every((term) => term.type === "not") ? await from.entries({}) : picked;
  return { picked: chosen.filter(({ position }) => !excluded.has(position)), named };
}

/** What of a pick goes out of the drawer, and what is told of what does not. */
export interface GivenOut {
  readonly picked: readonly Positioned[];
  readonly notices: readonly Notice[];
}

/**
 * The snippets of a pick that may go out of the drawer: what is private only where it is named by its own number or id; a range, the
 * last, all, the kept ones, a kind and words do not name it.
 * @throws DrawerError `bad-pick`, `no-position`; `private` when all that was picked is left out for that
 */
export async function pickToGiveOut(from: Pickable, pick: string): Promise<GivenOut> {
  const { picked, named } = await readPick(from, pick);
  const isOpen = ({ entry }: Positioned) => !entry.private || named.has(entry.id);
  const open = picked.filter(isOpen);
  if (open.length === picked.length) return { picked, notices: [] };
  const closed = picked.filter((one) => !isOpen(one));
  const positions = unique(closed).map(({ position }) => position);
  if (open.length === 0) throw new DrawerError(drawerErrors, "private/not-named", { positions });
  return { picked: open, notices: [notice(drawerNotices, "private/left-out", { positions })] };
}

/**
 * The same, and at least one.
 * @throws DrawerError `bad-pick`, `no-position`, `nothing` when the pick matches none
 */
export async function pickSome(from: Pickable, pick: string): Promise<Positioned[]> {
  const picked = await pickFrom(from, pick);
  if (picked.length === 0) throw await nothingPicked(from, pick);
  return picked;
}

/**
 * The same, and at least one.
 * @throws DrawerError `bad-pick`, `no-position`, `private`, `nothing` when the pick matches none
 */
export async function someToGiveOut(from: Pickable, pick: string): Promise<GivenOut> {
  const given = await pickToGiveOut(from, pick);
  if (given.picked.length === 0) throw await nothingPicked(from, pick);
  return given;
}

/** Each of the picked once. */
export function unique(picked: readonly Positioned[]): Positioned[] {
  return [...new Map(picked.map((one) => [one.entry.id, one])).values()];
}

/** Why a pick gave nothing. */
async function nothingPicked({ from, count }: Pickable, pick: string): Promise<DrawerError> {
  const { drawer, isGone } = from;
  if ((await count()) > 0) return new DrawerError(drawerErrors, "nothing/no-match", { pick, from });
  return new DrawerError(drawerErrors, isGone ? "nothing/none-gone" : "nothing/empty", { drawer });
}

/** That there is no snippet at a place, or none at all. */
function notThere(place: Position, count: number, from: PickedFrom): DrawerError {
  const { drawer, isGone } = from;
  if (count > 0) return noPosition(place, count, from);
  return new DrawerError(drawerErrors, isGone ? "no-position/none-gone" : "no-position/empty", { drawer });
}

/** The ids that a term of a pick says. */
function idsOf(term: Term): string[] {
  if (term.type === "not") return idsOf(term.term);
  return term.type === "place" && "id" in term.place ? [term.place.id] : [];
}

/** The positions that a term of a pick says. */
function positionsOf(term: Term): number[] {
  if (term.type === "not") return positionsOf(term.term);
  return term.type === "place" && "position" in term.place ? [term.place.position] : [];
}

/** What was read for all terms of a pick at once. */
interface Known {
  readonly byId: (id: string) => Positioned;
  readonly byPosition: ReadonlyMap<number, Positioned>;
}

async function matching(from: Pickable, term: Term, known: Known): Promise<Positioned[]> {
  switch (term.type) {
    case "all":
      return from.entries({});
    case "kept":
      return from.entries({ kept: true });
    case "kind":
      return from.entries({ kind: term.kind });
    case "document":
      return fromDocument(from, term.document);
    case "collected":
      return (await from.entries({})).filter(({ entry }) => isWithin(term.span, entry.collectedAt));
    case "words":
      return from.holding(searchTerms(term.words));
    case "not":
      return matching(from, term.term, known);
    case "place": {
      const { place } = term;
      if ("id" in place) return [known.byId(place.id)];
      const found = "position" in place ? known.byPosition.get(place.position) : undefined;
      return [found ?? (await snippetAt(from, place))];
    }
    case "range": {
      const count = await from.count();
      if (count === 0) throw notThere(term.from, count, from.from);
      const [start, end] = [positionOf(term.from, count, from.from), positionOf(term.to, count, from.from)];
      const found = await from.entries({
        offset: Math.min(start, end) - 1,
        limit: Math.abs(end - start) + 1,
      });
      return start <= end ? found : found.reverse();
    }
  }
}

/** Those from a document of this name, or, where there is none, of a name that differs in case and accents only. */
async function fromDocument(from: Pickable, name: string): Promise<Positioned[]> {
  const same = await from.entries({ document: name });
  if (same.length > 0) return same;
  const wanted = fold(name);
  return (await from.entries({})).filter(({ entry }) => fold(entry.origin.document ?? "") === wanted);
}

/** Reads the snippets with these ids at once. Returns what gives one of them by its id, or refuses it when it is not there. */
async function snippetsById({ entries, from }: Pickable, ids: readonly string[]) {
  const found = ids.length === 0 ? [] : await entries({ ids });
  const byId = new Map(found.map((one) => [one.entry.id, one]));
  return (id: string): Positioned => {
    const one = byId.get(id);
    if (!one) throw new DrawerError(drawerErrors, "no-position/left", { from });
    return one;
  };
}

/** How many snippets may be read for each that is asked for, where that takes one reading in place of many. */
const READ_FOR_ONE = 64;

/** Those of the snippets at these positions that were read at once: all of them, or none where they stand far from each other. */
async function snippetsByPosition(
  { entries }: Pickable,
  positions: readonly number[],
): Promise<ReadonlyMap<number, Positioned>> {
  let [first, last] = [Infinity, 1];
  for (const position of positions) [first, last] = [Math.min(first, position), Math.max(last, position)];
  const limit = last - Math.max(1, first) + 1;
  if (positions.length < 2 || limit > positions.length * READ_FOR_ONE) return new Map();
  const found = await entries({ offset: Math.max(1, first) - 1, limit });
  return new Map(found.map((one) => [one.position, one]));
}

/**
 * The snippet at a place.
 * @throws DrawerError `no-position`, `bad-option` for what is no place
 */
export async function snippetAt(from: Pickable, place: SnippetRef): Promise<Positioned> {
  checkSnippetRef(place);
  if ("id" in place) return (await snippetsById(from, [place.id]))(place.id);
  const isLast = "beforeLast" in place && place.beforeLast === 0;
  const position =
    "position" in place ? place.position : isLast ? 1 : (await from.count()) - place.beforeLast;
  const query = isLast ? { last: 1 } : { offset: position - 1, limit: 1 };
  const [found] = position < 1 ? [] : await from.entries(query);
  if (found) return found;
  throw notThere(place, await from.count(), from.from);
}

/** How a snippet is shown in lists: its label and text, or, when it is private, nothing of what it says. */
export function displayText({ label, text, private: isPrivate }: Entry): string {
  const says = isPrivate ? MASK : text;
  return label === undefined ? says : `${label}: ${says}`;
}

/** A snippet as it may be shown: of a private one, nothing of what it says. */
export function masked(snippet: Snippet): Snippet {
  return snippet.entry.private ? { ...snippet, content: [paragraph(MASK)], pictures: new Map() } : snippet;
}

/**
 * Adds the contents to listed snippets, private ones included.
 * @throws DrawerError `store` when a content is missing
 */
export async function readSnippets(store: Store, listed: readonly Positioned[]): Promise<Snippet[]> {
  // A store may be as far away as a server is: it is not asked for nothing.
  if (listed.length === 0) return [];
  const hashes = listed.flatMap(({ entry }) => [entry.content, ...(entry.pictures ?? [])]);
  const blobs = await store.contents([...new Set(hashes)]);
  return listed.map(({ position, entry }) => {
    const bytes = blobs.get(entry.content);
    if (!bytes) throw new DrawerError(drawerErrors, "store/missing", { position, snippet: entry });
    const pictures = new Map<Hash, Uint8Array>();
    for (const hash of entry.pictures ?? []) if (blobs.has(hash)) pictures.set(hash, blobs.get(hash)!);
    return withContent({ position, entry }, { content: decodeContent(bytes), pictures });
  });
}

/** A listed snippet with what it holds. */
export function withContent(
  { position, entry }: Positioned,
  { content, pictures }: Pick<Snippet, "content" | "pictures">,
): Snippet {
  const { label, origin, collectedAt } = entry;
  return { position, entry, content, pictures, origin, collectedAt, ...defined({ label }) };
}
