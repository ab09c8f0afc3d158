import { generateNKeysBetween } from "fractional-indexing";
import { v7 as uuid } from "uuid";
import { appended } from "../compose/append.js";
import { compose } from "../compose/compose.js";
import type { Recipe } from "../compose/recipe.js";
import { decodeContent, encodeContent, hashBytes, type Hash } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import { beginning, isBlank, kindOf, picturesOf } from "../content/measure.js";
import type { Content } from "../content/model.js";
import type { Notice, Reading } from "../content/notice.js";
import { originText } from "../content/origin.js";
import { lastStanding, lastUndone, reversed, type Change, type Edit, type What } from "./change.js";
import { TEXT_LENGTH, type Entry, type Origin } from "./entry.js";
import { parsePick, positionOf, type Place, type Term } from "./pick.js";
import { describeChange, naming, said } from "./saying.js";
import { Conflict, type Positioned, type Store } from "./store.js";

/** Something to collect: what was read, and where it came from. */
export interface Gathered extends Reading {
  readonly origin: Origin;
  readonly label?: string;
}

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

/** What was collected, and what the drawer has to say of it. */
export interface Collected {
  readonly collected: readonly Positioned[];
  readonly notices: readonly Notice[];
}

/** Which snippets to list. */
export interface ListQuery {
  readonly kind?: Entry["kind"];
  /** How many at most, counted from the last. */
  readonly limit?: number;
}

/** How often an operation is computed again when others keep changing the drawer under it. */
const ATTEMPTS = 200;

/**
 * A drawer: a named, ordered collection of snippets in a store. Positions start at 1, in the order of gathering. It
 * holds no state of its own, so any number of them, in any number of processes, can work on one store at once.
 */
export class Drawer {
  constructor(
    readonly store: Store,
    readonly name = "main",
  ) {
    if (name.trim() === "" || name.length > 200) {
      throw new DrawerError("bad-option", "A drawer needs a name of at most 200 characters.");
    }
  }

  /** How many snippets it holds. */
  count(): Promise<number> {
    return this.store.count(this.name);
  }

  /**
   * Collects all of these, in order, or none of them. What is blank, or the same as the snippet before it, is skipped,
   * and a notice says so: nothing in the drawer is ever replaced.
   */
  async collect(gathered: readonly Gathered[]): Promise<Collected> {
    const notices: Notice[] = gathered.flatMap((piece) => piece.notices);
    const drafts: { entry: Omit<Entry, "order">; blobs: Map<Hash, Uint8Array> }[] = [];
    for (const piece of gathered) {
      if (isBlank(piece.content))
        notices.push({ code: "blank", message: `Nothing collected: ${blankPlace(piece.origin)}.` });
      else drafts.push(this.#draft(piece));
    }
    let collected: Positioned[] = [];
    const contents = new Map<Hash, Uint8Array>();
    const told: Notice[] = [];
    await this.#change(
      "collect",
      async () => {
        const count = await this.count();
        const last =
          count > 0
            ? (await this.store.entries({ drawer: this.name, offset: count - 1, limit: 1 }))[0]
            : undefined;
        told.length = 0;
        contents.clear();
        let before = last?.entry.content;
        const fresh = drafts.filter(({ entry, blobs }) => {
          const isRepeat = entry.content === before;
          before = entry.content;
          if (isRepeat)
            told.push({
              code: "repeat",
              message: `Not collected again: ${said(entry)} is the same as the snippet before it.`,
            });
          else blobs.forEach((bytes, hash) => contents.set(hash, bytes));
          return !isRepeat;
        });
        const orders = generateNKeysBetween(last?.entry.order ?? null, null, fresh.length);
        collected = fresh.map(({ entry }, index) => ({
          position: count + index + 1,
          entry: { ...entry, order: orders[index]! },
        }));
        for (const { position, entry } of collected) {
          told.push({ code: "collected", message: `Collected as ${position}: ${naming(entry)}.` });
        }
        return collected.map(({ entry }) => ({ id: entry.id, before: null, after: entry }));
      },
      contents,
    );
    return { collected, notices: [...notices, ...told] };
  }

  #draft({ content, pictures, origin, label }: Gathered): {
    entry: Omit<Entry, "order">;
    blobs: Map<Hash, Uint8Array>;
  } {
    const bytes = encodeContent(content);
    const hash = hashBytes(bytes);
    const hashes = [...new Set(picturesOf(content).map((picture) => picture.hash))].filter((each) =>
      pictures.has(each),
    );
    const blobs = new Map([[hash, bytes]]);
    for (const each of hashes) blobs.set(each, pictures.get(each)!);
    const entry = {
      id: uuid(),
      drawer: this.name,
      kind: kindOf(content),
      text: beginning(content, TEXT_LENGTH),
      content: hash,
      ...(hashes.length > 0 && { pictures: hashes }),
      bytes: [...blobs.values()].reduce((sum, blob) => sum + blob.length, 0),
      ...(label && { label }),
      kept: false,
      private: false,
      origin,
      collectedAt: new Date().toISOString(),
    };
    return { entry, blobs };
  }

  /** The snippets that match, in order, without their contents. */
  async list(query: ListQuery = {}): Promise<Positioned[]> {
    if (query.kind !== undefined) {
      const found = await this.store.entries({ drawer: this.name, kind: query.kind });
      return query.limit === undefined ? found : found.slice(-query.limit || found.length);
    }
    if (query.limit === undefined) return this.store.entries({ drawer: this.name });
    const offset = Math.max(0, (await this.count()) - query.limit);
    return this.store.entries({ drawer: this.name, offset, limit: query.limit });
  }

  /**
   * The snippets of a pick, in the pick's order, without their contents. One that is picked twice comes twice.
   *
   * @param pick as {@link parsePick} reads it
   * @throws DrawerError `bad-pick`, `no-position`
   */
  async pick(pick: string): Promise<Positioned[]> {
    const terms = parsePick(pick);
    const count = await this.count();
    const excluded = new Set<number>();
    const picked: Positioned[] = [];
    for (const term of terms) {
      if (term.type !== "not") for (const one of await this.#matching(term, count)) picked.push(one);
      else for (const { position } of await this.#matching(term.term, count)) excluded.add(position);
    }
    const onlyExclusions = terms.every((term) => term.type === "not");
    const from = onlyExclusions ? await this.store.entries({ drawer: this.name }) : picked;
    return from.filter(({ position }) => !excluded.has(position));
  }

  async #matching(term: Term, count: number): Promise<Positioned[]> {
    const { name: drawer } = this;
    switch (term.type) {
      case "all":
        return this.store.entries({ drawer });
      case "kind":
        return this.store.entries({ drawer, kind: term.kind });
      case "document":
        return this.store.entries({ drawer, document: term.document });
      case "not":
        return this.#matching(term.term, count);
      case "place":
      case "range": {
        const [first, last] = term.type === "place" ? [term.place, term.place] : [term.from, term.to];
        const from = positionOf(first, count, drawer);
        const to = positionOf(last, count, drawer);
        const offset = Math.min(from, to) - 1;
        const found = await this.store.entries({ drawer, offset, limit: Math.abs(to - from) + 1 });
        return from <= to ? found : found.reverse();
      }
    }
  }

  /**
   * The snippets of a pick with their contents, in the pick's order.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing` when the pick matches none
   */
  async snippets(pick: string): Promise<Snippet[]> {
    const picked = await this.pick(pick);
    if (picked.length === 0) throw await this.#nothing(pick);
    return this.read(picked);
  }

  /** Why a pick gave nothing. */
  async #nothing(pick: string): Promise<DrawerError> {
    const isEmpty = (await this.count()) === 0;
    const why = isEmpty
      ? `The drawer “${this.name}” is empty. Collect something first.`
      : `Nothing in the drawer “${this.name}” matches “${pick}”.`;
    return new DrawerError("nothing", why);
  }

  /** Adds the contents to listed snippets. */
  async read(listed: readonly Positioned[]): Promise<Snippet[]> {
    const hashes = listed.flatMap(({ entry }) => [entry.content, ...(entry.pictures ?? [])]);
    const blobs = await this.store.contents([...new Set(hashes)]);
    return listed.map(({ position, entry }) => {
      const bytes = blobs.get(entry.content);
      if (!bytes) {
        throw new DrawerError(
          "store",
          `The content of snippet ${position} is missing in the store. Its text began: ${said(entry)}.`,
        );
      }
      const pictures = new Map<Hash, Uint8Array>();
      for (const hash of entry.pictures ?? []) if (blobs.has(hash)) pictures.set(hash, blobs.get(hash)!);
      const { label, origin, collectedAt } = entry;
      return {
        position,
        entry,
        content: decodeContent(bytes),
        pictures,
        ...(label !== undefined && { label }),
        origin,
        collectedAt,
      };
    });
  }

  /**
   * Adds to the end of a snippet. It can be split again into what it was and what was added.
   *
   * @param to the snippet; the latest when it is left out
   * @param between what stands between the two, as in a recipe
   * @throws DrawerError `no-position`, `nothing` when there is nothing to add
   */
  async append(gathered: Gathered, to: Place = { beforeLast: 0 }, between = "newline"): Promise<Collected> {
    if (isBlank(gathered.content))
      throw new DrawerError("nothing", `Nothing appended: ${blankPlace(gathered.origin)}.`);
    const added = this.#draft(gathered);
    const contents = new Map<Hash, Uint8Array>(added.blobs);
    let listed: Positioned | undefined;
    await this.#change(
      "append",
      async () => {
        const position = positionOf(to, await this.count(), this.name);
        const [target] = await this.read(
          await this.store.entries({ drawer: this.name, offset: position - 1, limit: 1 }),
        );
        if (!target) throw new Conflict("The snippet has gone.");
        const { entry } = target;
        const { parts = [entry] } = entry;
        const made = this.#madeOf(
          appended(target.content, gathered.content, between),
          [...parts, { ...added.entry, order: entry.order }],
          contents,
        );
        const after: Entry = { ...entry, ...made };
        listed = { position, entry: after };
        return [{ id: entry.id, before: entry, after }];
      },
      contents,
    );
    const { position, entry } = listed!;
    const message = `Appended to ${position}: ${naming(added.entry)}. It reads now ${said(entry)}, ${entry.parts!.length} pieces; split parts them again.`;
    return { collected: [listed!], notices: [...gathered.notices, { code: "appended", message }] };
  }

  /**
   * Makes one snippet of several, where the first of the pick stood; {@link split} makes the several of it again, with
   * all that was known of them.
   *
   * @throws DrawerError `bad-pick`, `no-position`, `bad-option`, `nothing` when the pick is less than two snippets
   */
  async merge(pick: string, recipe: Recipe = {}): Promise<Collected> {
    const contents = new Map<Hash, Uint8Array>();
    let result: Collected | undefined;
    await this.#change(
      "merge",
      async () => {
        const merging = unique(await this.pick(pick));
        if (merging.length < 2)
          throw new DrawerError(
            "nothing",
            `“${pick}” is ${merging.length === 0 ? "no snippet" : "one snippet"}: merging takes two or more.`,
          );
        const snippets = await this.read(merging);
        const block = compose(snippets, recipe);
        contents.clear();
        const [first] = merging as [Positioned, ...Positioned[]];
        const entry: Entry = {
          ...{
            id: uuid(),
            drawer: this.name,
            order: first.entry.order,
            kept: merging.some((one) => one.entry.kept),
          },
          ...{
            private: merging.some((one) => one.entry.private),
            origin: commonOrigin(merging),
            collectedAt: new Date().toISOString(),
          },
          ...this.#madeOf(
            block.content,
            merging.map((one) => one.entry),
            contents,
          ),
        };
        const position = first.position - merging.filter((one) => one.position < first.position).length;
        const numbers = merging.map((one) => one.position).join(", ");
        const notice = {
          code: "merged" as const,
          message: `Merged ${numbers} into ${position}: ${said(entry)}. Split makes them ${merging.length} again.`,
        };
        result = { collected: [{ position, entry }], notices: [...block.notices, notice] };
        return [
          ...merging.map((one) => ({ id: one.entry.id, before: one.entry, after: null })),
          { id: entry.id, before: null, after: entry },
        ];
      },
      contents,
    );
    return result!;
  }

  /**
   * Parts a snippet that was merged or appended to into the snippets it was made of, where it stands.
   * @throws DrawerError `no-position`, `nothing` when it was made of one piece
   */
  async split(place: Place): Promise<Collected> {
    let collected: Positioned[] = [];
    await this.#change("split", async () => {
      const position = positionOf(place, await this.count(), this.name);
      const near = await this.store.entries({
        drawer: this.name,
        offset: Math.max(0, position - 2),
        limit: 3,
      });
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
      const parts = entry.parts.map((part, index): Entry => ({
        ...part,
        drawer: this.name,
        order: orders[index]!,
      }));
      collected = parts.map((part, index) => ({ position: position + index, entry: part }));
      const same = parts.find(({ id }) => id === entry.id);
      const rest = parts
        .filter((part) => part !== same)
        .map((part) => ({ id: part.id, before: null, after: part }));
      return [{ id: entry.id, before: entry, after: same ?? null }, ...rest];
    });
    const message = `Split into ${collected.length}: ${collected.map(({ position, entry }) => `${position}, ${naming(entry)}`).join("; ")}.`;
    return { collected, notices: [{ code: "split", message }] };
  }

  /** What an entry says of a content that was made of several snippets; the content's bytes are added to `contents`. */
  #madeOf(content: Content, parts: readonly Entry[], contents: Map<Hash, Uint8Array>) {
    const bytes = encodeContent(content);
    const hash = hashBytes(bytes);
    contents.set(hash, bytes);
    const pictures = [...new Set(parts.flatMap((part) => part.pictures ?? []))];
    return {
      ...{
        kind: kindOf(content),
        text: beginning(content, TEXT_LENGTH),
        content: hash,
        ...(pictures.length > 0 && { pictures }),
      },
      ...{ bytes: bytes.length + parts.reduce((sum, part) => sum + part.bytes, 0), parts },
    };
  }

  /**
   * Moves the snippets of a pick, in the pick's order, to stand before another one, or after the last when `before` is
   * `end`.
   * @throws DrawerError `bad-pick`, `no-position`
   */
  async move(pick: string, before: Place | "end"): Promise<Notice[]> {
    let moving: Positioned[] = [];
    let message = "";
    await this.#change("move", async () => {
      moving = unique(await this.pick(pick));
      const count = await this.count();
      const target = before === "end" ? count + 1 : positionOf(before, count, this.name);
      const ids = new Set(moving.map(({ entry }) => entry.id));
      const offset = Math.max(0, target - 2 - moving.length);
      const near = await this.store.entries({ drawer: this.name, offset, limit: 2 * moving.length + 3 });
      const others = near.filter(({ entry }) => !ids.has(entry.id));
      const left = others.filter(({ position }) => position < target).at(-1);
      const right = others.find(({ position }) => position >= target);
      const orders = generateNKeysBetween(
        left?.entry.order ?? null,
        right?.entry.order ?? null,
        moving.length,
      );
      const first = target - moving.filter(({ position }) => position < target).length;
      message = moving.map(({ entry }, index) => `${said(entry)} is now ${first + index}`).join("; ");
      return moving.map(({ entry }, index) => ({
        id: entry.id,
        before: entry,
        after: { ...entry, order: orders[index]! },
      }));
    });
    return [{ code: "moved", message: `Moved: ${message}.` }];
  }

  /**
   * Takes the snippets of a pick out. `undo` brings them back.
   * @throws DrawerError `bad-pick`, `no-position`, `nothing`
   */
  async discard(pick: string): Promise<Notice[]> {
    let leaving: Positioned[] = [];
    await this.#change("discard", async () => {
      leaving = unique(await this.pick(pick));
      if (leaving.length === 0) throw await this.#nothing(pick);
      return leaving.map(({ entry }) => ({ id: entry.id, before: entry, after: null }));
    });
    const names = leaving.map(({ position, entry }) => `${position}, ${naming(entry)}`).join("; ");
    const left = await this.count();
    const rest =
      left === 0
        ? "The drawer is empty now"
        : left === 1
          ? "One snippet is left"
          : `${left} snippets are left`;
    return [
      {
        code: "discarded",
        message: `Discarded ${names}. ${rest}; undo brings ${leaving.length === 1 ? "it" : "them"} back.`,
      },
    ];
  }

  /**
   * Takes back the last change that still stands, whoever made it, in whichever process.
   * @throws DrawerError `nothing` when there is none
   */
  undo(): Promise<Notice[]> {
    return this.#turnBack("undo", () => lastStanding(this.log()));
  }

  /**
   * Does again what was last undone.
   * @throws DrawerError `nothing` when nothing was undone since the last change
   */
  redo(): Promise<Notice[]> {
    return this.#turnBack("redo", () => lastUndone(this.log()));
  }

  async #turnBack(what: "undo" | "redo", find: () => Promise<Change | undefined>): Promise<Notice[]> {
    let message = "";
    await this.#change(what, async () => {
      const target = await find();
      if (!target) {
        throw new DrawerError(
          "nothing",
          what === "undo" ? "There is nothing to undo." : "There is nothing to do again.",
        );
      }
      message = describeChange(target, what);
      return { deed: target.deed ?? target.what, edits: reversed(target.edits) };
    });
    return [{ code: what === "undo" ? "undone" : "redone", message }];
  }

  /** The drawer's changes, the newest first. */
  async *log(): AsyncGenerator<Change> {
    const limit = 50;
    for (let offset = 0; ; offset += limit) {
      const page = await this.store.changes({ drawer: this.name, offset, limit });
      yield* page;
      if (page.length < limit) return;
    }
  }

  /** Calls `listener` soon after the store has changed. Gives what stops it. */
  watch(listener: () => void): () => void {
    return this.store.watch(listener);
  }

  /** Computes an operation as edits and commits them; again, from the start, whenever somebody else came between. */
  async #change(
    what: What,
    compute: () => Promise<readonly Edit[] | { deed: What; edits: readonly Edit[] }>,
    contents: ReadonlyMap<Hash, Uint8Array> = new Map(),
  ): Promise<void> {
    for (let attempt = 1; ; attempt++) {
      const computed = await compute();
      const { deed, edits } = "edits" in computed ? computed : { deed: undefined, edits: computed };
      if (edits.length === 0) return;
      const change: Change = {
        id: uuid(),
        drawer: this.name,
        at: new Date().toISOString(),
        what,
        ...(deed && { deed }),
        edits,
      };
      try {
        await this.store.commit(change, contents);
        return;
      } catch (error) {
        if (!(error instanceof Conflict)) throw error;
        if (attempt === ATTEMPTS) {
          throw new DrawerError(
            "conflict",
            `The drawer “${this.name}” is being changed by others without a pause. Try again.`,
            {
              cause: error,
            },
          );
        }
        await new Promise((resolve) => setTimeout(resolve, Math.random() * Math.min(attempt, 20)));
      }
    }
  }
}

function unique(picked: readonly Positioned[]): Positioned[] {
  return [...new Map(picked.map((one) => [one.entry.id, one])).values()];
}

/** What the origins of several snippets have in common. */
function commonOrigin(merging: readonly Positioned[]): Origin {
  const [first, ...rest] = merging.map(({ entry }) => entry.origin);
  const shared = Object.entries(first!).filter(([name, value]) =>
    rest.every((origin) => origin[name as keyof Origin] === value),
  );
  return Object.fromEntries(shared) as Origin;
}

function blankPlace(origin: Origin): string {
  const place = originText(origin);
  return place === "" ? "it is blank" : `${place} is blank`;
}
