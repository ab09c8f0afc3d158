import type { Recipe } from "../compose/recipe.js";
import { hasControls } from "../content/controls.js";
import { DrawerError } from "../content/error.js";
import type { Kind } from "../content/measure.js";
import type { Notice } from "../content/notice.js";
import { writeText } from "../content/write/text.js";
import { perform } from "./act.js";
import { hide, keep, label, move, putInto, release, unhide } from "./arrange.js";
import type { Change } from "./change.js";
import { collect, type Collected } from "./collect.js";
import type { Gathered } from "./draft.js";
import type { Entry } from "./entry.js";
import { contextOf, searchTerms, type Context } from "./find.js";
import { shownLogOf, undoOrRedo } from "./history.js";
import { append, merge, split } from "./join.js";
import { discard, empty, emptyForGood, restore, shownGoneFrom } from "./leave.js";
import type { Place } from "./pick.js";
import { nothingPicked, pickFrom, positioned, readSnippets, snippetsOf, type Snippet } from "./picking.js";
import { makeRoom } from "./room.js";
import { checkRules, DEFAULT_RULES, rulesOf, sayRules, type Rules } from "./rules.js";
import type { DrawerSize, Gone, Positioned, Store } from "./store.js";
import { leavingBy, privateUntil, tend } from "./tend.js";
import { VALUES } from "./values.js";

/** Which snippets to list. */
export interface ListQuery {
  readonly kind?: Kind;
  /** The name of the document they came from. */
  readonly document?: string;
  /** The position of the first to give, of all that match. Without it, `limit` counts from the last. */
  readonly first?: number;
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
  readonly context: Context;
}

/**
 * A drawer: a named, ordered collection of snippets in a store. Positions start at 1, in the order of gathering. It
 * holds no state of its own, so any number of them, in any number of processes, can work on one store at once. What an
 * operation has to say it gives as notices; what it refuses it throws as a DrawerError, and then nothing has changed.
 */
export class Drawer {
  /** Without spaces around it. */
  readonly name: string;

  /** @throws DrawerError `bad-option` for a name that is blank, too long, or has control characters in it */
  constructor(
    readonly store: Store,
    name = "main",
  ) {
    this.name = name.trim();
    if (this.name === "" || this.name.length > 200 || hasControls(this.name) || /[\t\n]/.test(this.name)) {
      throw new DrawerError(
        "bad-option",
        "A drawer needs a name of at most 200 characters, on one line and without control characters.",
      );
    }
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
   * of what is too old, forgets what left long ago. Call it when the drawer is opened.
   */
  tend(): Promise<Notice[]> {
    return tend(this.store, this.name);
  }

  /** The drawer's rules. */
  rules(): Promise<Rules> {
    return rulesOf(this.store, this.name);
  }

  /**
   * Changes rules, and says of each what it is now. What no longer has room goes, and a notice names it; undo takes all
   * of it back.
   * @throws DrawerError `full` when nothing that may go would make room enough
   */
  async setRules(changes: Partial<Rules>): Promise<Notice[]> {
    checkRules(changes);
    let notices: Notice[] = [];
    await perform(this.store, this.name, "rule", async () => {
      const before = await this.rules();
      const after = { ...before, ...changes };
      const room = await makeRoom(this.store, after, await this.size(), { count: 0, bytes: 0 });
      const said = sayRules(before);
      notices = sayRules(after)
        .filter(({ key }) => key in changes)
        .map(({ key, sentence, value, name }, _, { length }): Notice => {
          const was = said.find((rule) => rule.key === key)!.value;
          const code = name !== "collecting" || length > 1 ? "rule" : value === "on" ? "resumed" : "paused";
          const note = was === value ? "as it was" : name === "collecting" ? "" : `it was ${was}`;
          return { code, message: note === "" ? sentence : `${sentence.slice(0, -1)} (${note}).` };
        });
      const leaving = room.leaving.length > 0;
      if (leaving) notices.push(...room.notices);
      const [old, fresh] = [valueOf(before), valueOf(after)];
      const values =
        old === fresh
          ? []
          : [{ name: VALUES.rules, ...(old && { before: old }), ...(fresh && { after: fresh }) }];
      return { edits: room.leaving, values };
    });
    return notices;
  }

  /**
   * What would leave by rules that are changed so: by the limits at once, by age and privacy when next what is due is
   * done.
   * @throws DrawerError `bad-option`, `full`
   */
  async wouldLeave(changes: Partial<Rules>): Promise<Entry[]> {
    checkRules(changes);
    return leavingBy(this.store, this.name, { ...(await this.rules()), ...changes });
  }

  /**
   * Collects all of these at the end, in order, by the drawer's rules; or none of them. Nothing goes, and nothing is
   * left out, without a notice.
   * @throws DrawerError `paused` when collecting is off, `full` when nothing that may go would make room enough
   */
  collect(gathered: readonly Gathered[]): Promise<Collected> {
    return collect(this.store, this.name, gathered);
  }

  /** The snippets that match, in order, without their contents. */
  async list({ first, limit, ...query }: ListQuery = {}): Promise<Positioned[]> {
    const drawer = this.name;
    if (first !== undefined)
      return this.store.entries({
        drawer,
        ...query,
        offset: first - 1,
        ...(limit !== undefined && { limit }),
      });
    if (limit === undefined) return this.store.entries({ drawer, ...query });
    if (query.kind !== undefined || query.document !== undefined)
      return (await this.store.entries({ drawer, ...query })).slice(-limit || Infinity);
    const offset = Math.max(0, (await this.count()) - limit);
    return this.store.entries({ drawer, offset, limit });
  }

  /**
   * Finds the snippets that hold all of these words, or parts of words, in their text, label or origin; in any case,
   * with or without accents; several words in quotation marks stand together. The newest come first. What is private
   * is never found.
   */
  async find(
    words: string,
    { limit = Infinity, length = 100, ...filter }: FindOptions = {},
  ): Promise<Found[]> {
    const terms = searchTerms(words);
    if (terms.length === 0) return [];
    const entries = await this.store.find({ drawer: this.name, terms, limit, ...filter });
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

  /** Adds their positions to entries; those that are not there any more are left out. */
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
   * The snippets of a pick with their contents, private ones included, in the pick's order.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing` when the pick matches none
   */
  async snippets(pick: string): Promise<Snippet[]> {
    return this.read(await this.pickSome(pick));
  }

  /**
   * The same without their contents.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing` when the pick matches none
   */
  async pickSome(pick: string): Promise<Positioned[]> {
    const picked = await this.pick(pick);
    if (picked.length === 0) throw await nothingPicked(snippetsOf(this.store, this.name), pick);
    return picked;
  }

  /** Adds the contents to listed snippets, private ones included. */
  read(listed: readonly Positioned[]): Promise<Snippet[]> {
    return readSnippets(this.store, listed);
  }

  /**
   * Adds one piece or several to the end of a snippet, all or none of them. It can be split again into what it was and
   * what was added.
   *
   * @param to the snippet; the latest when it is left out
   * @param between what stands between the two, as in a recipe
   * @throws DrawerError `no-position`, `nothing` when there is nothing to add, `private`, `paused`, `full`
   */
  append(
    gathered: Gathered | readonly Gathered[],
    to: Place = { beforeLast: 0 },
    between = "newline",
  ): Promise<Collected> {
    return append(this.store, this.name, [gathered].flat(), to, between);
  }

  /**
   * Makes one snippet of several, where the first of the pick stood; {@link split} makes the several of it again, with
   * all that was known of them.
   *
   * @throws DrawerError `bad-pick`, `no-position`, `bad-option`, `private`, `nothing` when the pick is less than two snippets
   */
  merge(pick: string, recipe: Recipe = {}): Promise<Collected> {
    return merge(this.store, this.name, pick, recipe);
  }

  /**
   * Parts a snippet that was merged or appended to into the snippets it was made of, where it stands.
   * @throws DrawerError `no-position`, `nothing` when it was made of one piece
   */
  split(place: Place): Promise<Collected> {
    return split(this.store, this.name, place);
  }

  /**
   * Moves the snippets of a pick, in the pick's order, to stand before another one, or after the last when `before` is
   * `end`.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   */
  move(pick: string, before: Place | "end"): Promise<Notice[]> {
    return move(this.store, this.name, pick, before);
  }

  /**
   * Moves the snippets of a pick to the end of another drawer, by its rules.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`, `full`
   */
  moveInto(drawer: string, pick: string): Promise<Notice[]> {
    return putInto(this.store, this.name, pick, new Drawer(this.store, drawer).name, "move");
  }

  /**
   * Copies the snippets of a pick to the end of another drawer, by its rules.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`, `full`, `private`
   */
  copyInto(drawer: string, pick: string): Promise<Notice[]> {
    return putInto(this.store, this.name, pick, new Drawer(this.store, drawer).name, "copy");
  }

  /**
   * Gives the snippets of a pick a label, or takes it off with an empty one.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`, `bad-option`
   */
  label(pick: string, text: string): Promise<Notice[]> {
    return label(this.store, this.name, pick, text);
  }

  /**
   * Keeps the snippets of a pick: limits, age and emptying leave them alone.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   */
  keep(pick: string): Promise<Notice[]> {
    return keep(this.store, this.name, pick);
  }

  /**
   * Stops keeping the snippets of a pick.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   */
  release(pick: string): Promise<Notice[]> {
    return release(this.store, this.name, pick);
  }

  /**
   * Makes the snippets of a pick private: shown nowhere, not found, not exported, and gone after their time.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   */
  hide(pick: string): Promise<Notice[]> {
    return hide(this.store, this.name, pick);
  }

  /**
   * Takes the privacy off the snippets of a pick.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   */
  unhide(pick: string): Promise<Notice[]> {
    return unhide(this.store, this.name, pick);
  }

  /**
   * Takes the snippets of a pick out. `undo` brings them back.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   */
  discard(pick: string): Promise<Notice[]> {
    return discard(this.store, this.name, pick);
  }

  /** Takes out all that are not kept. `undo` brings them back. */
  empty(): Promise<Notice[]> {
    return empty(this.store, this.name);
  }

  /** Forgets all that is not kept, all that has left, and the log, and wipes out what the store has of them. */
  async emptyForGood(): Promise<Notice[]> {
    return emptyForGood(this.store, this.name);
  }

  /** When private snippets go, by their ids, in milliseconds since 1970; those that are kept are left out. */
  privateUntil(): Promise<ReadonlyMap<string, number>> {
    return privateUntil(this.store, this.name);
  }

  /** What has left the drawer and can be brought back, numbered in the order of leaving. */
  gone(): Promise<(Gone & Positioned)[]> {
    return shownGoneFrom(this.store, this.name);
  }

  /**
   * Brings back what has left, to the end of the drawer.
   *
   * @param pick of what {@link gone} gives
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`, `full`
   */
  restore(pick: string): Promise<Notice[]> {
    return restore(this.store, this.name, pick);
  }

  /**
   * Takes back the last act that still stands, whoever did it, in whichever process.
   * @throws DrawerError `nothing` when there is none, `conflict` when another drawer is in the way
   */
  undo(): Promise<Notice[]> {
    return undoOrRedo(this.store, this.name, "undo");
  }

  /**
   * Does again what was last undone.
   * @throws DrawerError `nothing` when nothing was undone since the last act, `conflict`
   */
  redo(): Promise<Notice[]> {
    return undoOrRedo(this.store, this.name, "redo");
  }

  /** The drawer's changes, the newest first. Of what is private now they tell nothing. */
  log(): AsyncGenerator<Change> {
    return shownLogOf(this.store, this.name);
  }

  /** Calls `listener` soon after the store has changed. Gives what stops it. */
  watch(listener: () => void): () => void {
    return this.store.watch(listener);
  }
}

/** Rules as they are kept: those that are not the usual ones; nothing when all are. */
function valueOf(rules: Rules): string | undefined {
  const unusual = Object.entries(rules).filter(([key, value]) => value !== DEFAULT_RULES[key as keyof Rules]);
  return unusual.length === 0 ? undefined : JSON.stringify(Object.fromEntries(unusual));
}
