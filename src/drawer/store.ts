import type { Hash } from "../content/encode.js";
import type { Kind } from "../content/measure.js";
import type { Change } from "./change.js";
import type { Entry } from "./entry.js";

/** Which entries of a drawer to give, in their order. */
export interface EntryQuery {
  readonly drawer: string;
  readonly kind?: Kind;
  /** The name of the document they came from. */
  readonly document?: string;
  /** How many of those that match to pass over first. */
  readonly offset?: number;
  /** How many to give at most. */
  readonly limit?: number;
}

/** An entry with its position among all of its drawer, counting from 1. */
export interface Positioned {
  readonly position: number;
  readonly entry: Entry;
}

/** Which changes of a drawer's log to give, the newest first. */
export interface ChangeQuery {
  readonly drawer: string;
  readonly offset?: number;
  readonly limit?: number;
}

/**
 * Where drawers live. A store keeps three things: entries, contents by their hash, and the log of changes; everything
 * that a drawer does is written above this interface. Processes and tabs may share one store: `commit` is what keeps
 * them from harming each other.
 */
export interface Store {
  /** The entries that match, in order. */
  entries(query: EntryQuery): Promise<Positioned[]>;

  /** How many entries a drawer holds. */
  count(drawer: string): Promise<number>;

  /** The bytes stored under these hashes. A hash that is not there is left out of the map. */
  contents(hashes: readonly Hash[]): Promise<Map<Hash, Uint8Array>>;

  /**
   * Makes a change: checks that each edit's `before` still stands, stores the contents that are not there yet, writes
   * each `after`, and adds the change to the log; all of it, durably, or nothing.
   *
   * @throws Conflict when a `before` no longer stands, or an `after` would take another entry's place in the order
   */
  commit(change: Change, contents: ReadonlyMap<Hash, Uint8Array>): Promise<void>;

  /** The changes that match, the newest first. */
  changes(query: ChangeQuery): Promise<Change[]>;

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
  keepValue(
    drawer: string,
    name: string,
    before: string | undefined,
    after: string | undefined,
  ): Promise<void>;

  /** Calls `listener` soon after a change was made here or by somebody else. Gives what stops it. */
  watch(listener: () => void): () => void;

  /** Lets go of what the store holds open. */
  close(): Promise<void>;
}

/** Somebody else changed what a change was computed from. The operation is to be computed again. */
export class Conflict extends Error {
  override readonly name = "Conflict";
}
