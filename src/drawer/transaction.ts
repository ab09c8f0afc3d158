import type { Hash } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import { actErrors } from "../messages/en/acts.js";
import { makeRoom, roomAtEnd, type Arriving, type Room, type RoomAtEnd } from "./limits.js";
import { changeOf, valueEdit, type Edit, type OperationName, type ValueEdit } from "./model/change.js";
import type { Entry } from "./model/entry.js";
import { newId } from "./model/ids.js";
import type { SnippetRef } from "./model/pick.js";
import { type Rules } from "./model/rules.js";
import { rulesOf } from "./rules-of.js";
import {
  pickSome,
  pickToGiveOut,
  readSnippets,
  snippetAt,
  snippetsOf,
  someToGiveOut,
  unique,
  type GivenOut,
  type Snippet,
} from "./snippets.js";
import { Conflict, type Commit, type DrawerSize, type Positioned, type Store } from "./store.js";

/** Where an operation is done: a drawer in a store. */
export interface Context {
  readonly store: Store;
  /** The name of the drawer. */
  readonly drawer: string;
}

/** What an operation comes to: what is to be written, and what it gives back once that is written. */
export interface Plan<Result> {
  readonly edits?: readonly Edit[];
  readonly values?: readonly ValueEdit[];
  /** The bytes of the contents that come, by hash. */
  readonly contents?: ReadonlyMap<Hash, Uint8Array>;
  readonly result: Result;
}

/**
 * An operation on a drawer, as a value. It reads what it needs, and plans what is to be written; it is planned again
 * when somebody else changes the drawer meanwhile, so it must change nothing itself.
 */
export interface Operation<Args extends readonly unknown[], Result> {
  /** What the log, undo, the command line and a page call it. */
  readonly name: OperationName;
  /** Plans it; called again when somebody else came between. */
  plan(transaction: Transaction, ...args: Args): Promise<Plan<Result>>;
}

/** An operation that is no single transaction: it reads only, or does several, or asks the store for more than edits. */
export interface Procedure<Args extends readonly unknown[], Result> {
  /** Does it. */
  run(context: Context, ...args: Args): Result;
}

/** What an operation reads while it is planned; rules and size once. */
export class Transaction implements Context {
  #rules: Promise<Rules> | undefined;
  #size: Promise<DrawerSize> | undefined;

  constructor(
    readonly store: Store,
    readonly drawer: string,
  ) {}

  /** The rules of the drawer. */
  rules(): Promise<Rules> {
    return (this.#rules ??= rulesOf(this.store, this.drawer));
  }

  /** How many snippets the drawer holds, and the bytes of their contents. */
  size(): Promise<DrawerSize> {
    return (this.#size ??= this.store.size(this.drawer));
  }

  /**
   * The snippets of a pick, each once, and at least one.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   */
  async pick(pick: string): Promise<Positioned[]> {
    return unique(await pickSome(snippetsOf(this.store, this.drawer), pick));
  }

  /**
   * The snippets of a pick that may go out of the drawer, each once, also when there is none; and what is told of the others.
   * @throws DrawerError `bad-pick`, `no-position`, `private`
   */
  async anyToGiveOut(pick: string): Promise<GivenOut> {
    const { picked, notices } = await pickToGiveOut(snippetsOf(this.store, this.drawer), pick);
    return { picked: unique(picked), notices };
  }

  /**
   * The same, and at least one.
   * @throws DrawerError `bad-pick`, `no-position`, `private`, `nothing`
   */
  async someToGiveOut(pick: string): Promise<GivenOut> {
    const { picked, notices } = await someToGiveOut(snippetsOf(this.store, this.drawer), pick);
    return { picked: unique(picked), notices };
  }

  /**
   * The snippet at a place.
   * @throws DrawerError `no-position`, `nothing`
   */
  at(place: SnippetRef): Promise<Positioned> {
    return snippetAt(snippetsOf(this.store, this.drawer), place);
  }

  /**
   * Adds the contents to listed snippets.
   * @throws DrawerError `store` when a content is missing
   */
  read(listed: readonly Positioned[]): Promise<Snippet[]> {
    return readSnippets(this.store, listed);
  }

  /** See {@link makeRoom}. */
  async makeRoom(arriving: Arriving, staying?: ReadonlySet<string>): Promise<Room> {
    return makeRoom(this.store, await this.rules(), await this.size(), arriving, staying);
  }

  /** See {@link roomAtEnd}. */
  roomAtEnd(arriving: readonly Positioned[], drawer = this.drawer): Promise<RoomAtEnd> {
    return roomAtEnd(this.store, drawer, arriving);
  }
}

/** The edits that take entries out. */
export function removals(entries: readonly Entry[]): Edit[] {
  return entries.map((entry) => ({ id: entry.id, before: entry, after: null }));
}

/** The edit of a small value, if it does not stay as it is. */
export function valueEdits(name: string, before: string | undefined, after: string | undefined): ValueEdit[] {
  return before === after ? [] : [valueEdit(name, before, after)];
}

/** How often an operation is planned again when others keep changing the drawer under it. */
const ATTEMPTS = 200;

/** How many edits one change holds at most; a larger operation is written as several changes of one group. */
const LARGEST_CHANGE = 1000;

/** Plans an operation and commits it; again, from the start, whenever somebody else came between. */
export async function transact<Result>(
  { store, drawer }: Context,
  operation: OperationName,
  plan: (transaction: Transaction) => Promise<Plan<Result>>,
): Promise<Result> {
  return retryOnConflict(drawer, async () => {
    const { result, ...planned } = await plan(new Transaction(store, drawer));
    const commits = commitsOf(planned, drawer, operation);
    if (commits.length > 0) await store.commit(commits);
    return result;
  });
}

/**
 * Tries something again for as long as others come between.
 * @throws DrawerError `conflict` when they do so without a pause
 */
export async function retryOnConflict<Result>(
  drawer: string,
  attempt: () => Promise<Result>,
): Promise<Result> {
  for (let tried = 1; ; tried++) {
    try {
      return await attempt();
    } catch (error) {
      if (!(error instanceof Conflict)) throw error;
      if (tried === ATTEMPTS) throw new DrawerError(actErrors, "conflict", { drawer }, { cause: error });
      await new Promise((resolve) => setTimeout(resolve, Math.random() * Math.min(tried, 20)));
    }
  }
}

function commitsOf(
  { edits = [], values = [], contents = new Map() }: Omit<Plan<unknown>, "result">,
  drawer: string,
  operation: OperationName,
): Commit[] {
  if (edits.length === 0 && values.length === 0) return [];
  const withValues = values.length > 0 && { values };
  if (edits.length <= LARGEST_CHANGE)
    return [{ change: { ...changeOf(drawer, operation), edits, ...withValues }, contents }];
  const groupId = newId();
  return Array.from({ length: Math.ceil(edits.length / LARGEST_CHANGE) }, (_, index) => ({
    change: {
      ...changeOf(drawer, operation),
      groupId,
      part: index + 1,
      edits: edits.slice(index * LARGEST_CHANGE, (index + 1) * LARGEST_CHANGE),
      ...(index === 0 && withValues),
    },
    contents: index === 0 ? contents : new Map(),
  }));
}
