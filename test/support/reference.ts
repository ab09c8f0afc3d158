import { generateNKeysBetween } from "fractional-indexing";

/**
 * What a drawer is to do, said as simply as can be: a map of items, a log of edits for each drawer, and nothing else.
 * It is what the real one is compared with, so it shares nothing with it but the package that makes keys of an order.
 */

/** A snippet. */
export interface Item {
  readonly id: number;
  readonly drawer: string;
  readonly order: string;
  /** Its lines, parted by `\n`. */
  readonly text: string;
  readonly label: string;
  readonly kept: boolean;
  /** Which hiding made it private; 0 when it is not. */
  readonly hidden: number;
  /** When it was collected, as the real one says. */
  readonly at: string;
  readonly parts?: readonly Item[];
}

interface Edit {
  readonly before?: Item;
  readonly after?: Item;
}

interface Values {
  readonly snippets: number | null;
  readonly repeats: "skip" | "allow" | "move";
  readonly collecting: boolean;
  readonly recipes: readonly string[];
}

interface Change {
  readonly edits: readonly Edit[];
  readonly values?: readonly [before: Values, after: Values];
  /** Whether what goes by it can be brought back. */
  readonly isLeaving: boolean;
}

/** That something is refused; then nothing has changed. */
export class Refused extends Error {}

const SAME = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);

/** Two drawers or more in one store. */
export class Reference {
  readonly items = new Map<number, Item>();
  readonly gone = new Map<string, Item[]>();
  readonly #arrived = new Map<number, number>();
  readonly #values = new Map<string, Values>();
  readonly #done = new Map<string, Change[]>();
  readonly #undone = new Map<string, Change[]>();
  /** All that was ever written, what was undone too. */
  #log: Edit[] = [];
  #count = 0;

  /** The snippets of a drawer, in order. */
  list(drawer: string): Item[] {
    return [...this.items.values()]
      .filter((item) => item.drawer === drawer)
      .sort((a, b) => (a.order < b.order ? -1 : 1));
  }

  goneOf(drawer: string): Item[] {
    return this.gone.get(drawer) ?? [];
  }

  values(drawer: string): Values {
    const usual = { snippets: 1000, repeats: "skip", collecting: true, recipes: [] } as const;
    return this.#values.get(drawer) ?? usual;
  }

  collect(drawer: string, texts: readonly string[], isPrivate: boolean, at: () => string): void {
    const { collecting, repeats } = this.values(drawer);
    if (!collecting) throw new Refused();
    const secrets = this.#secrets();
    let before = this.list(drawer).at(-1)?.text;
    let fresh: string[] = [];
    let again: Item[] = [];
    for (const text of texts) {
      if (text === "" || (repeats !== "allow" && text === before)) continue;
      before = text;
      const there = this.list(drawer).find((item) => item.text === text && item.hidden === 0);
      if (repeats === "move") {
        fresh = fresh.filter((other) => other !== text);
        if (there) again = [...again.filter((item) => item !== there), there];
      }
      if (repeats !== "move" || !there) fresh.push(text);
    }
    const orders = this.#ends(drawer, again.length + fresh.length);
    const leaving = fresh.length === 0 ? [] : this.#room(drawer, fresh.length, again);
    const young = again.map((item, index) => ({
      before: item,
      after: { ...item, order: orders[index]!, at: at() },
    }));
    const come = fresh.map((text, index) => ({
      after: this.#item(drawer, orders[again.length + index]!, text, {
        hidden: isPrivate || secrets.has(text) ? ++this.#count : 0,
        at: at(),
      }),
    }));
    this.#do(drawer, { edits: [...leaving, ...young, ...come], isLeaving: true });
  }

  append(drawer: string, at: number, text: string, time: () => string): void {
    const item = this.#at(drawer, at);
    if (!this.values(drawer).collecting || item.hidden > 0 || text === "") throw new Refused();
    const added = this.#item(drawer, item.order, text, { at: time() });
    const after = {
      ...item,
      text: `${item.text}\n${text}`,
      parts: [...(item.parts ?? [item]), added],
    };
    const leaving = this.#room(drawer, 0, []);
    if (leaving.some(({ before }) => before === item)) throw new Refused();
    this.#do(drawer, { edits: [...leaving, { before: item, after }], isLeaving: true });
  }

  merge(drawer: string, picked: readonly number[], at: () => string): void {
    const parts = this.#pick(drawer, picked);
    if (parts.length < 2 || parts.some(({ hidden }) => hidden > 0)) throw new Refused();
    const text = parts.map((part) => part.text).join("\n");
    const kept = parts.some((part) => part.kept);
    const merged = this.#item(drawer, parts[0]!.order, text, { kept, parts, at: at() });
    this.#do(drawer, {
      edits: [...parts.map((before) => ({ before })), { after: merged }],
      isLeaving: false,
    });
  }

  split(drawer: string, at: number): void {
    const item = this.#at(drawer, at);
    if (!item.parts) throw new Refused();
    const list = this.list(drawer);
    const orders = generateNKeysBetween(
      list[at - 2]?.order ?? null,
      list[at]?.order ?? null,
      item.parts.length,
    );
    const keepAll = item.kept && !item.parts.some((part) => part.kept);
    const parts = item.parts.map((part, index) => ({
      ...part,
      drawer,
      order: orders[index]!,
      kept: part.kept || keepAll,
    }));
    const same = parts.find(({ id }) => id === item.id);
    const others = parts.filter((part) => part !== same).map((after) => ({ after }));
    this.#do(drawer, {
      edits: [{ before: item, ...(same && { after: same }) }, ...others],
      isLeaving: false,
    });
  }

  move(drawer: string, picked: readonly number[], before: number | "end"): void {
    const moving = this.#pick(drawer, picked);
    const list = this.list(drawer);
    const target = before === "end" ? list.length : before - 1;
    if (before !== "end" && !list[target]) throw new Refused();
    const left = list.slice(0, target).filter((item) => !moving.includes(item));
    const right = list.slice(target).filter((item) => !moving.includes(item));
    const orders = generateNKeysBetween(left.at(-1)?.order ?? null, right[0]?.order ?? null, moving.length);
    const edits = moving.map((item, index) => ({ before: item, after: { ...item, order: orders[index]! } }));
    this.#do(drawer, { edits, isLeaving: true });
  }

  putInto(drawer: string, into: string, picked: readonly number[], way: "move" | "copy"): void {
    const items = this.#pick(drawer, picked);
    if (way === "copy" && items.some(({ hidden }) => hidden > 0)) throw new Refused();
    const orders = this.#ends(into, items.length);
    const leaving = this.#room(into, items.length, []);
    const edits = items.map((item, index) => {
      const own = way === "move" ? item : this.#copy(item);
      const after = { ...own, drawer: into, order: orders[index]! };
      return way === "move" ? { before: item, after } : { after };
    });
    this.#do(drawer, { edits: [...leaving, ...edits], isLeaving: true });
  }

  alter(drawer: string, picked: readonly number[], become: (item: Item) => Item): void {
    const edits = this.#pick(drawer, picked).map((before) => ({ before, after: become(before) }));
    this.#do(drawer, { edits: edits.filter(({ before, after }) => !SAME(before, after)), isLeaving: true });
  }

  setHidden(drawer: string, picked: readonly number[], isHidden: boolean): void {
    this.alter(drawer, picked, (item) => {
      if (item.hidden > 0 === isHidden) return item;
      const { parts, ...whole } = item;
      return isHidden
        ? { ...whole, hidden: ++this.#count }
        : { ...whole, hidden: 0, ...(parts && { parts }) };
    });
  }

  discard(drawer: string, picked: readonly number[]): void {
    this.#do(drawer, {
      edits: this.#pick(drawer, picked).map((before) => ({ before })),
      isLeaving: true,
    });
  }

  empty(drawer: string): void {
    const edits = this.list(drawer)
      .filter(({ kept }) => !kept)
      .map((before) => ({ before }));
    this.#do(drawer, { edits, isLeaving: true });
  }

  /** Forgets all that is not kept in all drawers, what has left them, and their logs. */
  emptyForGood(): void {
    for (const { id, kept } of [...this.items.values()]) if (!kept) this.items.delete(id);
    this.gone.clear();
    this.#done.clear();
    this.#undone.clear();
    this.#log = [];
  }

  restore(drawer: string, at: number): void {
    const gone = this.goneOf(drawer)[at - 1];
    if (!gone) throw new Refused();
    const { parts: _, ...whole } = gone;
    const item = gone.hidden === 0 && this.#isTrace(gone) ? { ...whole, hidden: ++this.#count } : gone;
    const [order] = this.#ends(drawer, 1);
    const leaving = this.#room(drawer, 1, []);
    this.#do(drawer, { edits: [...leaving, { after: { ...item, order: order! } }], isLeaving: true });
  }

  setValues(drawer: string, more: Partial<Values>): void {
    const before = this.values(drawer);
    const after = { ...before, ...more };
    const edits = "recipes" in more ? [] : this.#room(drawer, 0, [], after);
    const values = SAME(before, after) ? {} : { values: [before, after] as const };
    this.#do(drawer, { edits, ...values, isLeaving: true });
  }

  /** Brings all that is not private of one drawer into another; what a private snippet says is private there. */
  import(from: string, into: string): void {
    const open = this.list(from).filter(({ hidden }) => hidden === 0);
    const known = this.list(into).map(({ at, text }) => `${at} ${text}`);
    const fresh = open.filter(({ at, text }) => !known.includes(`${at} ${text}`));
    const { snippets } = this.values(into);
    if (snippets !== null && this.list(into).length + fresh.length > snippets) throw new Refused();
    const orders = this.#ends(into, fresh.length);
    const secrets = this.#secrets();
    const edits = fresh.map((item, index) => {
      const { parts, ...whole } = this.#copy(item);
      const own = secrets.has(item.text) ? { hidden: ++this.#count } : parts && { parts };
      return { after: { ...whole, ...own, drawer: into, order: orders[index]! } };
    });
    this.#do(into, { edits, isLeaving: true });
  }

  undo(drawer: string): void {
    const change = this.#done.get(drawer)?.at(-1);
    if (!change) throw new Refused();
    this.#write(drawer, reversed(change));
    this.#done.get(drawer)!.pop();
    this.#undone.set(drawer, [...(this.#undone.get(drawer) ?? []), change]);
  }

  redo(drawer: string): void {
    const change = this.#undone.get(drawer)?.at(-1);
    if (!change) throw new Refused();
    this.#write(drawer, change);
    this.#undone.get(drawer)!.pop();
    this.#done.get(drawer)!.push(change);
  }

  #do(drawer: string, change: Change): void {
    if (change.edits.length === 0 && !change.values) return;
    this.#write(drawer, change);
    this.#done.set(drawer, [...(this.#done.get(drawer) ?? []), change]);
    this.#undone.set(drawer, []);
  }

  /** Writes all edits, or, where one does not stand, none. */
  #write(drawer: string, { edits, values, isLeaving }: Change): void {
    const items = new Map(this.items);
    for (const { before } of edits) {
      if (before && !SAME(items.get(before.id), before)) throw new Refused();
      if (before) items.delete(before.id);
    }
    for (const { after } of edits) {
      if (!after) continue;
      const place = [...items.values()].find(
        (item) => item.drawer === after.drawer && item.order === after.order,
      );
      if (place || items.has(after.id)) throw new Refused();
      items.set(after.id, after);
    }
    this.#log.push(...edits);
    this.items.clear();
    for (const [id, item] of items) this.items.set(id, item);
    for (const { before, after } of edits) {
      if (before && !after && isLeaving)
        this.gone.set(before.drawer, [
          ...this.goneOf(before.drawer).filter(({ id }) => id !== before.id),
          before,
        ]);
      if (!after) continue;
      for (const [name, gone] of this.gone)
        this.gone.set(
          name,
          gone.filter(({ id }) => before !== undefined || id !== after.id),
        );
      if (!before || before.at !== after.at) this.#arrived.set(after.id, ++this.#count);
    }
    if (values) this.#values.set(drawer, values[1]);
  }

  #private(): Item[] {
    return [...this.items.values(), ...[...this.gone.values()].flat()].filter(({ hidden }) => hidden > 0);
  }

  /** What private snippets say. */
  #secrets(): ReadonlySet<string> {
    return new Set(this.#private().map(({ text }) => text));
  }

  /** Whether it is what a private snippet is, was, or was made of, or says the same. */
  #isTrace(item: Item): boolean {
    const traces = { ids: new Set(this.#private().map(({ id }) => id)), texts: new Set(this.#secrets()) };
    const add = ({ id, hidden, text, parts = [] }: Item): void => {
      traces.ids.add(id);
      if (hidden === 0) traces.texts.add(text);
      parts.forEach(add);
    };
    for (let known = -1; known !== traces.ids.size;) {
      known = traces.ids.size;
      for (const { before, after } of this.#log)
        if (traces.ids.has((before ?? after)!.id)) for (const one of [before, after]) if (one) add(one);
    }
    const is = ({ id, text, parts = [] }: Item): boolean =>
      traces.ids.has(id) || traces.texts.has(text) || parts.some(is);
    return is(item);
  }

  #item(drawer: string, order: string, text: string, more: Partial<Item> = {}): Item {
    return { id: ++this.#count, drawer, order, text, label: "", kept: false, hidden: 0, at: "", ...more };
  }

  #copy(item: Item, ids = new Map<number, number>()): Item {
    if (!ids.has(item.id)) ids.set(item.id, ++this.#count);
    const parts = item.parts?.map((part) => this.#copy(part, ids));
    return { ...item, id: ids.get(item.id)!, ...(parts && { parts }) };
  }

  #at(drawer: string, at: number): Item {
    const item = this.list(drawer)[at - 1];
    if (!item) throw new Refused();
    return item;
  }

  #pick(drawer: string, picked: readonly number[]): Item[] {
    return [...new Set(picked)].map((at) => this.#at(drawer, at));
  }

  #ends(drawer: string, count: number): string[] {
    return generateNKeysBetween(this.list(drawer).at(-1)?.order ?? null, null, count);
  }

  /** The oldest that go, so that so many have room. */
  #room(drawer: string, count: number, staying: readonly Item[], { snippets } = this.values(drawer)): Edit[] {
    const over = snippets === null ? 0 : this.list(drawer).length + count - snippets;
    if (over <= 0) return [];
    const oldest = this.list(drawer)
      .filter((item) => !item.kept && !staying.includes(item))
      .sort((a, b) => this.#arrived.get(a.id)! - this.#arrived.get(b.id)!);
    if (oldest.length < over) throw new Refused();
    return oldest.slice(0, over).map((before) => ({ before }));
  }
}

function reversed({ edits, values, isLeaving }: Change): Change {
  const swapped = edits.map(({ before, after }) => ({
    ...(after && { before: after }),
    ...(before && { after: before }),
  }));
  return {
    edits: swapped.reverse(),
    ...(values && { values: [values[1], values[0]] as const }),
    isLeaving,
  };
}
