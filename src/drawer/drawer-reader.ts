import { checkOptions, checkText, checkValue } from "../content/check.js";
import { DrawerError } from "../content/error.js";
import type { Kind } from "../content/kind.js";
import { loadedOnce } from "../content/loaded-once.js";
import type { Notice } from "../content/notice.js";
import { writeText } from "../formats/text/write.js";
import { drawerErrors } from "../messages/en/drawer.js";
import type { LoggedAction } from "./action-log.js";
import { dayIn, isWithin } from "./days.js";
import { contextOf, searchTerms, type FoundContext } from "./find.js";
import type { PositionedGone } from "./gone.js";
import type { Change } from "./model/change.js";
import { checkDrawerName, type Entry } from "./model/entry.js";
import type { Rules } from "./model/rules.js";
import { privateUntil } from "./private-age.js";
import { rulesOf } from "./rules-of.js";
import {
  pickFrom,
  pickSome,
  positioned,
  readSnippets,
  snippetsOf,
  pickToGiveOut,
  someToGiveOut,
  type GivenOut,
  type Snippet,
} from "./snippets.js";
import type { DrawerSize, Positioned, Store } from "./store.js";

/** What changes a drawer; a door of its own, so that a page shows its list before that is there. */
export const changing = loadedOnce(() => import("./changing.js"));

/** Which snippets to list. */
export interface ListQuery {
  readonly kind?: Kind;
  /** The name of the document they came from. */
  readonly document?: string;
  /** The position of the first to give, of all that match. Without it, `limit` counts from the last. */
  readonly first?: number;
  /** How many to give at most. */
  readonly limit?: number;
}

/** What to find. */
export interface FindOptions {
  readonly kind?: Kind;
  /** The name of the document they came from. */
  readonly document?: string;
  /** How many at most, the newest; without it, all. */
  readonly limit?: number;
  /** How many characters of each are shown around the match; 100 when it is left out. */
  readonly length?: number;
}

/** A snippet that was found, and where in it. */
export interface Found {
  readonly entry: Entry;
  readonly context: FoundContext;
}

/** What can be asked of a drawer. Nothing here changes it, but for {@link DrawerReader.applyRetention}, which the rules ask for. */
export class DrawerReader {
  /** Without spaces around it. */
  readonly name: string;

  /**
   * @param store where the drawer lives
   * @param name one line of at most 200 characters
   * @throws DrawerError `bad-option` for a name that is blank, too long, or has control characters in it
   */
  constructor(
    readonly store: Store,
    name = "main",
  ) {
    checkValue("store", store, isStore(store), "a store, such as new MemoryStore()");
    this.name = checkDrawerName(name);
  }

  /** How many snippets it holds, and the bytes of their contents. */
  size(): Promise<DrawerSize> {
    return this.store.size(this.name);
  }

  /** How many snippets it holds. */
  async count(): Promise<number> {
    return (await this.size()).count;
  }

  /**
   * Does what is due by the rules: forgets private snippets whose time is over (in all drawers of the store), lets go
   * of what is too old, forgets what left long ago. Call it when the drawer is opened, and now and then while it is.
   */
  async applyRetention(): Promise<Notice[]> {
    return (await changing()).applyRetention(this.store, this.name);
  }

  /** The drawer's rules. */
  rules(): Promise<Rules> {
    return rulesOf(this.store, this.name);
  }

  /**
   * What would leave by rules that are changed so: by the limits at once, by age and privacy when next what is due is
   * done.
   * @param changes the rules that would change
   * @throws DrawerError `bad-option`, `full`
   */
  async wouldLeave(changes: Partial<Rules>): Promise<Entry[]> {
    const { checkRules, leavingBy } = await changing();
    checkRules(changes);
    return leavingBy(this.store, this.name, { ...(await this.rules()), ...changes });
  }

  /**
   * The snippets that match, in order, without their contents.
   * @param asked which, and how many; all of them when it is left out
   * @throws DrawerError `bad-option` for a `first` below 1 or a `limit` below 0, and for parts of a number
   */
  async list(asked: ListQuery = {}): Promise<Positioned[]> {
    checkOptions("option of a list", asked, ["kind", "document", "first", "limit"]);
    const { first, limit, ...query } = asked;
    checkWhole("first", first, 1);
    checkWhole("limit", limit, 0);
    const few = limit === undefined ? {} : { limit };
    const last = limit === undefined ? {} : { last: limit };
    const part = first === undefined ? last : { offset: first - 1, ...few };
    return this.store.entries({ drawer: this.name, ...query, ...part });
  }

  /**
   * Finds the snippets that hold all of these words, or parts of words, in their text, label or origin; in any case,
   * with or without accents; several words in quotation marks stand together. A day among the words (`today`, `yesterday`,
   * `last week`, `2031-04-08`) also finds what was collected then and holds the others. The newest come first, by the time at
   * which they were collected. What is private is never found.
   *
   * @param words the words that are looked for
   * @param options which of those that hold them, how many, and how much is shown of each
   * @example
   * ```js
   * import { Drawer, MemoryStore, readText } from "drawer";
   *
   * const drawer = new Drawer(new MemoryStore());
   * await drawer.collect([{ ...readText("Ringing at the hut from 05:50"), origin: {} }]);
   * const [found] = await drawer.find("ring hut");
   * console.log(found.context.text); // Ringing at the hut from 05:50
   * ```
   */
  async find(words: string, options: FindOptions = {}): Promise<Found[]> {
    checkText("words", words);
    checkOptions("option of a search", options, ["kind", "document", "limit", "length"]);
    const { limit = Infinity, length = 100, ...filter } = options;
    const terms = searchTerms(words);
    if (terms.length === 0) return [];
    const holding = await this.store.find({ drawer: this.name, terms, limit, ...filter });
    const entries = newestFirst([...holding, ...(await this.#collectedOn(words, filter))]).slice(0, limit);
    // Most of what is shown is found at the beginning, which the entry has.
    const snippets = await readSnippets(
      this.store,
      entries.filter((entry) => entry.text.endsWith("…")).map((entry) => ({ position: 0, entry })),
    );
    const texts = new Map(snippets.map(({ entry, content }) => [entry.id, writeText(content)]));
    return entries.map((entry) => ({
      entry,
      context: contextOf(texts.get(entry.id) ?? entry.text, terms, length),
    }));
  }

  /** The entries that were collected on the day that is named among words, and hold the others. */
  async #collectedOn(words: string, filter: Pick<FindOptions, "kind" | "document">): Promise<Entry[]> {
    const day = dayIn(words);
    if (!day) return [];
    const query = { drawer: this.name, ...filter };
    const terms = searchTerms(day.rest);
    const entries =
      terms.length > 0
        ? await this.store.find({ ...query, terms, limit: Infinity })
        : (await this.store.entries(query)).map(({ entry }) => entry);
    return entries.filter((entry) => !entry.private && isWithin(day.span, entry.collectedAt));
  }

  /**
   * Adds their positions to entries; those that are not there any more are left out.
   * @param entries of this drawer or another of the store
   */
  positioned(entries: readonly Entry[]): Promise<Positioned[]> {
    return positioned(this.store, entries);
  }

  /**
   * The snippets of a pick, in the pick's order, without their contents. One that is picked twice comes twice.
   *
   * @param pick as {@link parsePick} reads it
   * @throws DrawerError `bad-pick`, `no-position`
   */
  pick(pick: string): Promise<Positioned[]> {
    return pickFrom(snippetsOf(this.store, this.name), pick);
  }

  /**
   * The same, and at least one.
   * @param pick which snippets, as on the command line: `1 3..5 last`
   * @throws DrawerError `bad-pick`, `no-position`, `nothing` when the pick matches none
   */
  pickSome(pick: string): Promise<Positioned[]> {
    return pickSome(snippetsOf(this.store, this.name), pick);
  }

  /**
   * The snippets of a pick with their contents, private ones included, in the pick's order.
   * @param pick which snippets, as on the command line: `1 3..5 last`
   * @throws DrawerError `bad-pick`, `no-position`, `nothing` when the pick matches none
   */
  async snippets(pick: string): Promise<Snippet[]> {
    return this.read(await this.pickSome(pick));
  }

  /**
   * The snippets of a pick that may go out of the drawer, without their contents, with what is told of the others; see
   * {@link snippetsToGiveOut}.
   * @param pick which snippets, as on the command line: `1 3..5 last`
   * @throws DrawerError `bad-pick`, `no-position`, `private` when all that was picked is left out
   */
  pickToGiveOut(pick: string): Promise<GivenOut> {
    return pickToGiveOut(snippetsOf(this.store, this.name), pick);
  }

  /**
   * The snippets of a pick as they may go out of the drawer, with what is told of the others: what is private only where it is
   * named by its own number or id, as in `3`; `all`, a range, `last`, a kind and words do not name it.
   * @param pick which snippets, as on the command line: `1 3..5 last`
   * @throws DrawerError `bad-pick`, `no-position`, `nothing` when the pick matches none, `private` when it names nothing else
   */
  async snippetsToGiveOut(pick: string): Promise<{ snippets: Snippet[]; notices: readonly Notice[] }> {
    const { picked, notices } = await someToGiveOut(snippetsOf(this.store, this.name), pick);
    return { snippets: await this.read(picked), notices };
  }

  /** How many private snippets it holds. */
  async privateCount(): Promise<number> {
    const ids = (await this.store.privateEntries()).map(({ id }) => id);
    return ids.length === 0 ? 0 : (await this.store.entries({ drawer: this.name, ids })).length;
  }

  /**
   * Adds the contents to listed snippets, private ones included.
   * @param listed snippets as `list`, `pick` or `gone` give them
   */
  read(listed: readonly Positioned[]): Promise<Snippet[]> {
    return readSnippets(this.store, listed);
  }

  /** When private snippets go, by their ids, in milliseconds since 1970; those that are kept are left out. */
  privateUntil(): Promise<ReadonlyMap<string, number>> {
    return privateUntil(this.store, this.name);
  }

  /** What has left the drawer and can be brought back, numbered in the order of leaving. */
  async gone(): Promise<PositionedGone[]> {
    return (await changing()).shownGoneFrom(this.store, this.name);
  }

  /** The drawer's changes, the newest first. Of what is private now they tell nothing. */
  async *log(): AsyncGenerator<Change> {
    yield* (await changing()).shownLogOf(this.store, this.name);
  }

  /**
   * What was done in the drawer, the latest first. Of what is private now it tells nothing.
   * @param limit how many at most
   */
  async actions(limit: number): Promise<LoggedAction[]> {
    return (await changing()).latestActions(this.log(), limit);
  }

  /**
   * Calls `listener` soon after the store has changed. Returns an unsubscribe function.
   * @param listener is called without arguments, once for several changes that come together
   */
  watch(listener: () => void): () => void {
    return this.store.watch(listener);
  }
}

/** Each of some entries once, those first that were collected last. */
function newestFirst(entries: readonly Entry[]): Entry[] {
  const distinct = [...new Map(entries.map((entry) => [entry.id, entry])).values()];
  return distinct.sort((a, b) => Date.parse(b.collectedAt) - Date.parse(a.collectedAt));
}

function isStore(store: unknown): boolean {
  const { entries, commit } = (store ?? {}) as Partial<Store>;
  return typeof entries === "function" && typeof commit === "function";
}

function checkWhole(name: string, value: number | undefined, least: number): void {
  if (value !== undefined && value !== Infinity && !(Number.isInteger(value) && value >= least))
    throw new DrawerError(drawerErrors, "bad-option/number", { name, value, least });
}
