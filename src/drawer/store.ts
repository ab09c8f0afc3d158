import type { Hash } from "../content/encode.js";
import type { Kind } from "../content/kind.js";
import type { Notice } from "../content/notice.js";
import type { Change, OperationName } from "./model/change.js";
import type { Entry } from "./model/entry.js";

/** Which entries of a drawer to give, in their order. */
export interface EntryQuery {
  readonly drawer: string;
  readonly kind?: Kind;
  /** The name of the document they came from. */
  readonly document?: string;
  /** Only those that are kept, or only those that are not. */
  readonly kept?: boolean;
  /** Only those with this content. */
  readonly content?: Hash;
  /** Only those with these ids. */
  readonly ids?: readonly string[];
  /** How many of those that match to pass over first. */
  readonly offset?: number;
  /** How many to give at most. */
  readonly limit?: number;
  /** How many to give at most, of those at the end. Then there is no `offset` and no `limit`. */
  readonly last?: number;
}

/** Whether an entry is one that a query asks for, by what it says of itself. */
export function matches(
  entry: Entry,
  query: Omit<EntryQuery, "drawer" | "offset" | "limit" | "last">,
): boolean {
  const { kind, document, kept, content, ids } = query;
  return (
    (kind === undefined || entry.kind === kind) &&
    (document === undefined || entry.origin.document === document) &&
    (kept === undefined || entry.kept === kept) &&
    (content === undefined || entry.content === content) &&
    (ids === undefined || ids.includes(entry.id))
  );
}

/** An entry with its position among all of its drawer, counting from 1. */
export interface Positioned {
  readonly position: number;
  readonly entry: Entry;
}

/** Which of the entries that are not kept to give, those first that came into the drawer first. */
export interface OldestQuery {
  readonly drawer: string;
  /** Only pictures, or only what is no picture. */
  readonly picture?: boolean;
  /** Only those that came before this time, in milliseconds since 1970. */
  readonly cameBefore?: number;
  readonly limit: number;
}

/** Which entries of a drawer to find; the newest come first. */
export interface FindQuery {
  readonly drawer: string;
  /** What each of them must hold, somewhere in its text, label or origin, as `searchTerms` of `drawer/find.ts` gives them. */
  readonly terms: readonly string[];
  readonly kind?: Kind;
  readonly document?: string;
  readonly limit: number;
}

/** Which changes to give, the newest first. */
export interface ChangeQuery {
  /** Only those in the log of this drawer. */
  readonly drawer?: string;
  /** Only those that speak of one of these: ids of snippets or of groups, or hashes of contents. */
  readonly about?: readonly string[];
  readonly offset?: number;
  readonly limit?: number;
}

/** A drawer and how much it holds: its snippets, and the bytes of their contents. */
export interface DrawerSize {
  readonly drawer: string;
  readonly count: number;
  readonly bytes: number;
}

/** An entry that has left its drawer, and can be brought back. */
export interface Gone {
  readonly entry: Entry;
  /** When it left; ISO 8601, in UTC. */
  readonly at: string;
  /** What it left by. */
  readonly by: OperationName;
}

/** A private snippet that a store holds, in a drawer or among what has left one. */
export interface PrivateEntry {
  readonly id: string;
  readonly drawer: string;
  /** The name under which its content is stored. */
  readonly content: Hash;
  readonly kept: boolean;
  /** When it came, in milliseconds since 1970. */
  readonly came: number;
  /** How long it stays, where that does not go by the rule of its drawer; see {@link Entry.privateAge}. */
  readonly privateAge?: number | null;
}

/** What a store is to forget, of one drawer. */
export interface Forgetting {
  readonly drawer: string;
  /**
   * Private snippets to forget wherever they, the pieces they were made of, or what has left with the same content are:
   * in the drawers, in their logs, among what has left them.
   */
  readonly ids?: readonly string[];
  /** The part of the log, and what left, up to this time (ISO 8601, in UTC). */
  readonly until?: string;
  /** Whether all that is not kept is to be forgotten, and the whole log, and all that left, and what is being dealt. */
  readonly everything?: boolean;
}

/** A change, and the contents it brings. */
export interface Commit {
  readonly change: Change;
  /** The bytes of contents and pictures, by hash. */
  readonly contents: ReadonlyMap<Hash, Uint8Array>;
}

/** What was reverted. */
export interface Reverted {
  /** How many edits that were. */
  readonly count: number;
  /** The change that the operation began with. */
  readonly first: Change;
}

/**
 * Where drawers live. A store keeps entries, contents by their hash, the log of changes, what has left, and small named
 * values; everything that a drawer does is written above this interface. Processes and tabs may share one store:
 * `commit` is what keeps them from harming each other.
 */
export interface Store {
  /** Whether nothing can be written, because the disk on which it lives cannot. */
  readonly isReadOnly?: boolean;
  /** Whether what it holds is gone when the page is closed, or the program ends. */
  readonly isVolatile?: boolean;

  /** The entries that match, in order. */
  entries(query: EntryQuery): Promise<Positioned[]>;

  /** How many entries a drawer holds, and the bytes of their contents. */
  size(drawer: string): Promise<DrawerSize>;

  /** All drawers that hold something or have rules, recipes or a log, by name. */
  drawers(): Promise<DrawerSize[]>;

  /** The entries that came first of those that are not kept. */
  oldest(query: OldestQuery): Promise<Entry[]>;

  /** The entries that hold all of the terms, those that came last first. Private ones are never found. */
  find(query: FindQuery): Promise<Entry[]>;

  /** The positions of entries that are there, by id. */
  positions(entries: readonly Entry[]): Promise<Map<string, number>>;

  /** What has left a drawer and was not forgotten, in the order of leaving. */
  gone(drawer: string): Promise<Gone[]>;

  /** The private snippets of all drawers. */
  privateEntries(): Promise<PrivateEntry[]>;

  /** The bytes stored under these hashes. A hash that is not there is left out of the map. */
  contents(hashes: readonly Hash[]): Promise<Map<Hash, Uint8Array>>;

  /**
   * Makes changes: checks that each edit's `before` still stands, stores the contents that are not there yet, writes
   * each `after`, and adds the changes to the log; all of it, durably, or nothing. What is taken out by a change that
   * `isLeaving` is put among what has left.
   *
   * @param commits changes one after another, each on what the one before it left
   * @throws Conflict when a `before` no longer stands, or an `after` would take another entry's place in the order
   */
  commit(commits: readonly Commit[]): Promise<void>;

  /**
   * Reverts a change, or, when it belongs to a group, all changes of that group, from the newest on; all or none of
   * them. What is done by it stands in the log under the name of this operation.
   *
   * @throws Conflict when what they made no longer stands
   */
  revert(change: Change, operation: "undo" | "redo"): Promise<Reverted>;

  /** The changes that match, the newest first. */
  changes(query: ChangeQuery): Promise<Change[]>;

  /**
   * Forgets for good: entries, log and what left, and the contents that nothing needs any more. With `ids` or
   * `everything`, as far as the store can, no trace of them stays in its files.
   *
   * @returns how many entries were in the drawer and are not any more, and, where a trace could not be wiped out yet,
   *   why
   */
  forget(what: Forgetting): Promise<{ forgotten: number; trace?: Notice }>;

  /** A small value that belongs to a drawer, by its name, as JSON text; nothing when it was never kept. */
  value(drawer: string, name: string): Promise<string | undefined>;

  /** The names of a drawer's values that begin with these letters, in order. */
  valueNames(drawer: string, beginning: string): Promise<string[]>;

  /**
   * Keeps a small value, durably, or takes it away when `after` is nothing.
   *
   * @param before what it must still be; nothing when it must not be there
   * @throws Conflict when it is something else by now
   */
  setValue(
    drawer: string,
    name: string,
    before: string | undefined,
    after: string | undefined,
  ): Promise<void>;

  /** Calls `listener` soon after a change was made here or by somebody else. Returns an unsubscribe function. */
  watch(listener: () => void): () => void;

  /** Lets go of what the store holds open. */
  close(): Promise<void>;
}

/** Somebody else changed what a change was computed from. The operation is to be computed again. */
export class Conflict extends Error {
  override readonly name = "Conflict";
}
