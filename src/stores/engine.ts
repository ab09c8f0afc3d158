import type { Notice } from "../content/notice.js";
import type { FindQuery } from "../drawer/store.js";
import type { work } from "../messages/en/stores.js";
import type { EntryRow, Key, TableName, Tables } from "./schema.js";

/**
 * What an engine is asked to do with rows. Engines know nothing of drawers: which rows a change means stands in
 * `semantics.ts`, and which answer a question in `queries.ts`. Each method may give a promise or a plain value.
 */
export interface Rows {
  /**
   * The rows with these keys, in their order; undefined where there is none.
   *
   * @param index the index whose keys they are; the primary key when it is left out
   * @param columns the columns that are wanted; a hint, as others may be given too
   */
  get<Name extends TableName, Column extends keyof Tables[Name] = keyof Tables[Name]>(
    table: Name,
    keys: readonly (readonly Key[])[],
    index?: string,
    columns?: readonly Column[],
  ): Answer<(Pick<Tables[Name], Column> | undefined)[]>;

  /** The rows of a range, in the order of its index. */
  range<Name extends TableName, Column extends keyof Tables[Name] = keyof Tables[Name]>(
    range: Range<Name, Column>,
  ): Answer<Pick<Tables[Name], Column>[]>;

  /** How many rows there are within each of these bounds. */
  count(bounds: readonly Bounds[]): Answer<number[]>;

  /**
   * Writes a row in place of the one with the same key. A row of a numbered table that has no number gets the next one.
   * @param before what the row is now, where that is known; then only what differs need be written
   * @returns its number, in a numbered table
   * @throws Conflict when a unique index has another row with the same values
   */
  put<Name extends TableName>(table: Name, row: Tables[Name], before?: Tables[Name]): Answer<number>;

  /** Writes a row unless there is one with the same key. */
  putIfAbsent<Name extends TableName>(table: Name, row: Tables[Name]): Answer<void>;

  /** Deletes the row with this key, if there is one. */
  delete(table: TableName, key: readonly Key[]): Answer<void>;

  /** Deletes all rows of a table. */
  clear(table: TableName): Answer<void>;

  /** An index of words, for engines that have one; without, every text is looked through. */
  readonly search?: SearchIndex;
}

/** What an index of words reads of an entry's row. */
export type IndexedRow = Pick<EntryRow, "number" | "drawer" | "id" | "entry">;

/** What it gives of a row that was found. */
export type FoundRow = Pick<EntryRow, "entry">;

/** An index of the words of snippets, kept in the same transaction as their rows. */
export interface SearchIndex {
  /** Puts an entry into the index, in place of what the index had of it. Its row and content have been written. */
  add(row: IndexedRow): Answer<void>;
  /** Takes an entry out of the index. */
  remove(row: Pick<IndexedRow, "number" | "drawer">): Answer<void>;
  /** The entries of a query, those that came last first. */
  find(query: FindQuery): Answer<FoundRow[]>;
}

/** A value, or a promise of it. */
export type Answer<Value> = Value | Promise<Value>;

/** Where some rows of a table begin and end that are next to each other in one index. */
export interface Bounds {
  readonly table: TableName;
  /** The primary key when it is left out. */
  readonly index?: string;
  /** What the first columns of the index are. */
  readonly equal?: readonly Key[];
  /** The column after those begins here, … */
  readonly from?: Key;
  /** … or after this, … */
  readonly after?: Key;
  /** … and ends before this. */
  readonly before?: Key;
}

/** Some rows of a table, next to each other in one index, and what is wanted of them. */
export interface Range<
  Name extends TableName,
  Column extends keyof Tables[Name] = keyof Tables[Name],
> extends Bounds {
  readonly table: Name;
  readonly reverse?: boolean;
  readonly offset?: number;
  readonly limit?: number;
  /** A hint: only these columns are wanted. */
  readonly columns?: readonly Column[];
  /** A hint: only rows with these values are wanted. Others may be given too, so no `limit` goes with it. */
  readonly where?: Partial<Tables[Name]>;
  /** A hint: only rows whose JSON holds one of these texts are wanted. Others may be given too. */
  readonly holding?: readonly string[];
}

/**
 * Work on rows, written once for engines that answer at once and for engines that answer with promises: a generator
 * that yields what it asks of the rows, and is given the answers.
 */
export type Job<Result> = Generator<(rows: Rows) => unknown, Result, unknown>;

/** Asks something of the rows, inside a job: `const [row] = yield* ask((rows) => rows.get("sizes", [["main"]]));` */
export function* ask<Value>(request: (rows: Rows) => Value): Job<Awaited<Value>> {
  return (yield request) as Awaited<Value>;
}

/** Does a job on rows that answer at once. */
export function runNow<Result>(job: Job<Result>, rows: Rows): Result {
  let step = job.next();
  while (!step.done) step = job.next(step.value(rows));
  return step.value;
}

/** Does a job on rows that answer with promises. */
export async function run<Result>(job: Job<Result>, rows: Rows): Promise<Result> {
  let step = job.next();
  while (!step.done) step = job.next(await step.value(rows));
  return step.value;
}

/**
 * Where rows live. An engine carries tables as `schema.ts` lays them out, transactions, and the news that something has
 * changed; a new one is this interface and a line in the contract suite (`test/stores/contract.test.ts`).
 */
export interface Engine {
  /** Whether nothing can be written, because the disk on which it lives cannot. */
  readonly isReadOnly?: boolean;

  /** Does a job that only reads. */
  read<Result>(job: () => Job<Result>): Promise<Result>;

  /**
   * Does a job in one transaction: all that it writes, durably, or, when it throws, nothing.
   *
   * @param work what others are told that wait for it, when it takes long
   * @throws Conflict as the rows do
   * @throws DrawerError `store` when it cannot be written
   */
  write<Result>(job: () => Job<Result>, work?: LongWork): Promise<Result>;

  /**
   * Wipes out, as far as it can, what its files still hold of rows that were deleted.
   *
   * @param reach how far such traces may lie
   * @returns whether all of that was wiped out, and a notice of where traces stay all the same
   */
  wipe?(reach: WipeReach): Promise<{ readonly isWhole: boolean; readonly trace?: Notice }>;

  /** Calls `listener` soon after something was written, here or by somebody else. Returns an unsubscribe function. */
  watch(listener: () => void): () => void;

  /** Lets go of what the engine holds open. */
  close(): Promise<void>;
}

/** Work during which others may have to wait. */
export type LongWork = keyof typeof work;

/** What has to be wiped out: nothing but the contents of private snippets, more than these, or all of a drawer. */
export type WipeReach = "secrets" | "everywhere" | "everything";
