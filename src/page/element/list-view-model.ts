import { defined } from "../../content/defined.js";
import type { Notice } from "../../content/notice.js";
import type { Drawer } from "../../drawer/drawer.js";
import type { Rules } from "../../drawer/model/rules.js";
import type { Gone, Positioned } from "../../drawer/store.js";
import type { ListRow } from "./row.js";
import { smallGrid, type SmallGrid } from "./small-grid.js";
import { DRAWN_PICTURE, SmallPictures } from "./small-picture.js";

/** How many rows are read beyond those that can be seen, on either side. */
export const SPARE = 12;
/** How many snippets are found at once, the newest. */
export const FOUND = 100;
/** How many of them are found at once as one types, and how long one has stopped before the rest is, in milliseconds. */
const FOUND_AT_ONCE = 12;
const PAUSE = 250;

/** How large a table may be, in bytes, to be read for being drawn. */
const DRAWN_BYTES = 64 * 1024;

/** Which snippets one speaks of. */
export type SnippetScope = "picked" | "found" | "all" | "last";

/** Where one looks: how many rows are scrolled past, and how many can be seen at most. */
export interface Viewport {
  readonly top: number;
  readonly seen: number;
  /** Whether the end is in sight: what comes is followed then. */
  readonly isAtEnd: boolean;
}

/**
 * What of a drawer is in sight: how much there is, the rows around where one looks, what was found, what is picked. Only
 * that is read, so the drawer may be of any size; of several readings under way only the last one counts.
 */
export class ListViewModel {
  /** How many snippets there are. */
  count = 0;
  /** How many of them are private. */
  privateCount = 0;
  isLastPrivate = false;
  /** The rows that were read: those that can be seen, and some to spare. */
  rows: readonly ListRow[] = [];
  /** How many rows stand before them. */
  from = 0;
  /** The words that are looked for. */
  words = "";
  /** Those that hold the words; nothing when none are looked for. */
  found: readonly ListRow[] | undefined;
  /** How many were looked for: there may be more. */
  mostFound = FOUND;
  rules: Rules | undefined;
  /** What has left; read when it is wanted. */
  gone: readonly (Gone & Positioned)[] = [];
  /** The snippets that are picked, in the order of picking. */
  picked: readonly Positioned[] = [];
  #turns: ReadonlyMap<string, number> = new Map();
  /** The tables that were read, by their contents. */
  readonly #grids = new Map<string, SmallGrid | undefined>();
  readonly #pictures = new SmallPictures();
  #reading = 0;
  #lastReading: Promise<boolean> | undefined;
  #looking = 0;
  #lookedFor = "";
  #lookingFurther: ReturnType<typeof setTimeout> | undefined;

  /**
   * @param place tells where one looks
   * @param changed is called when something else is in sight
   */
  constructor(
    readonly drawer: Drawer,
    readonly place: () => Viewport,
    readonly changed: () => void,
  ) {}

  /**
   * Reads everything again. Returns whether it was read: of several readings under way only the last one is, and all settle with
   * it.
   */
  read(options: { readonly gone?: boolean } = {}): Promise<boolean> {
    return (this.#lastReading = this.#readAll(options));
  }

  async #readAll({ gone: wantsGone = false }): Promise<boolean> {
    const reading = ++this.#reading;
    const { drawer } = this;
    const ids = this.picked.map(({ entry }) => entry.id);
    // Asked all at once: a store may be as far away as a server is.
    const [{ count }, rules, privateCount, gone, there] = await Promise.all([
      drawer.size(),
      drawer.rules(),
      drawer.privateCount(),
      wantsGone ? drawer.gone() : [],
      ids.length === 0 ? [] : drawer.store.entries({ drawer: drawer.name, ids }),
    ]);
    const grown = count > this.count;
    const { top, seen, isAtEnd } = this.place();
    const [window, [last]] = await Promise.all([
      this.#window({ top: grown && isAtEnd ? count - seen : top, seen }),
      privateCount > 0 ? drawer.list({ limit: 1 }) : [],
    ]);
    const isLastPrivate = last?.entry.private ?? false;
    if (reading !== this.#reading) {
      await this.#lastReading;
      return false;
    }
    const now = new Map<string, Positioned | undefined>(ids.map((id) => [id, undefined]));
    for (const one of there) now.set(one.entry.id, one);
    Object.assign(this, {
      privateCount,
      isLastPrivate,
      count,
      rules,
      gone,
      ...window,
    });
    // What was picked while this was read is as it was then.
    this.#setPicked(
      this.picked.flatMap((one) => (now.has(one.entry.id) ? (now.get(one.entry.id) ?? []) : one)),
    );
    if (this.words !== "") void this.look(this.words);
    this.changed();
    return true;
  }

  /** Reads the rows that can be seen, when they are not there. */
  async readRows(): Promise<void> {
    const { top, seen } = this.place();
    const isThere = top >= this.from && Math.min(this.count, top + seen) <= this.from + this.rows.length;
    if (isThere) return;
    const reading = this.#reading;
    const window = await this.#window({ top, seen });
    // A reading of everything that came between reads the rows as well.
    if (reading === this.#reading && this.place().top === top) {
      Object.assign(this, window);
      this.changed();
    } else await this.readRows();
  }

  async #window({ top, seen }: Omit<Viewport, "isAtEnd">): Promise<Pick<ListViewModel, "from" | "rows">> {
    const from = Math.max(0, top - SPARE);
    const rows = await this.drawer.list({ first: from + 1, limit: top + seen + SPARE - from });
    const until = rows.some(({ entry }) => entry.private)
      ? await this.drawer.privateUntil()
      : new Map<string, number>();
    const timed = rows.map((row): ListRow => {
      const goesAt = until.get(row.entry.id);
      return goesAt === undefined ? row : { ...row, goesAt };
    });
    return { from, rows: await this.#drawn(timed) };
  }

  /** Rows with the tables and pictures among them ready to be drawn small; large ones stay a line of text. */
  async #drawn(rows: readonly ListRow[]): Promise<ListRow[]> {
    const unread = rows.filter(({ entry: { kind, content, bytes, private: isPrivate } }) => {
      if (isPrivate) return false;
      if (kind === "picture") return bytes <= DRAWN_PICTURE && !this.#pictures.has(content);
      return kind === "table" && bytes <= DRAWN_BYTES && !this.#grids.has(content);
    });
    for (const snippet of await this.drawer.read(unread)) {
      if (snippet.entry.kind === "picture") this.#pictures.add(snippet);
      else this.#grids.set(snippet.entry.content, smallGrid(snippet.content));
    }
    return rows.map((row) => {
      const { private: isPrivate, content } = row.entry;
      if (isPrivate) return row;
      return { ...row, ...defined({ grid: this.#grids.get(content), picture: this.#pictures.get(content) }) };
    });
  }

  /** Lets go of what it holds for drawing. */
  close(): void {
    this.#pictures.clear();
  }

  /** Looks for words; for none, and the list is there again. The first few are found as one types, the rest after a pause. */
  async look(words: string): Promise<void> {
    this.words = words;
    const looking = ++this.#looking;
    clearTimeout(this.#lookingFurther);
    const isAny = words.trim() !== "";
    // What is there already stays as long as it was found before.
    const most = isAny && this.mostFound === FOUND && words === this.#lookedFor ? FOUND : FOUND_AT_ONCE;
    const isLast = await this.#lookFor(words, most, looking);
    if (!isAny || isLast || looking !== this.#looking) return;
    this.#lookingFurther = setTimeout(() => void this.#lookFor(words, FOUND, looking), PAUSE);
  }

  /** Finds so many at most. Returns whether these are all that there will be. */
  async #lookFor(words: string, most: number, looking: number): Promise<boolean> {
    const found =
      words.trim() === "" ? undefined : await this.drawer.find(words, { limit: most, length: 140 });
    if (looking !== this.#looking) return true;
    const positioned = found && (await this.drawer.positioned(found.map(({ entry }) => entry)));
    if (looking !== this.#looking) return true;
    const contexts = new Map(found?.map(({ entry, context }) => [entry.id, context]));
    this.found = positioned?.map((one) => ({ ...one, context: contexts.get(one.entry.id)! }));
    this.mostFound = most;
    this.#lookedFor = words;
    this.changed();
    return most === FOUND || (found?.length ?? 0) < most;
  }

  /**
   * Picks these snippets, as on the command line, in place of those that were picked; with an empty pick, none. What is private is
   * picked only by its own number or id. Returns what is told of what is not.
   */
  async pickOnly(pick: string): Promise<readonly Notice[]> {
    const { picked, notices } =
      pick.trim() === "" ? { picked: [], notices: [] } : await this.drawer.pickToGiveOut(pick);
    this.#setPicked(picked);
    this.changed();
    return notices;
  }

  /** Picks the snippets from one position to another in this direction, after those that are picked. */
  async pickFurther(from: number, to: number): Promise<void> {
    const [first, last] = [Math.min(from, to), Math.max(from, to)];
    const between = await this.drawer.list({ first, limit: last - first + 1 });
    if (from > to) between.reverse();
    const known = new Set(this.picked.map(({ entry }) => entry.id));
    // What is private goes out only when it is picked by its own box.
    const more = between.filter((one) => isOpen(one) && !known.has(one.entry.id));
    this.#setPicked([...this.picked, ...more]);
    this.changed();
  }

  /** The turn of a snippet in the pick; 0 when it is not picked. */
  turnOf(id: string): number {
    return this.#turns.get(id) ?? 0;
  }

  #setPicked(picked: readonly Positioned[]): void {
    this.picked = picked;
    this.#turns = new Map(picked.map(({ entry }, index) => [entry.id, index + 1]));
  }

  /** Picks a snippet, or takes it out of the pick. */
  pick(row: ListRow): void {
    const without = this.picked.filter(({ entry }) => entry.id !== row.entry.id);
    this.#setPicked(without.length < this.picked.length ? without : [...this.picked, row]);
    this.changed();
  }

  /** The snippets one speaks of, in the order in which they are placed; at most so many. */
  async chosen(which: SnippetScope, limit = Infinity): Promise<readonly Positioned[]> {
    if (which === "picked") return this.picked.slice(0, limit);
    if (which === "found")
      return [...(this.found ?? [])].sort((one, other) => one.position - other.position).slice(0, limit);
    // What is private goes out only when it is picked by its own box.
    if (which === "last") return (await this.drawer.list({ limit: 1 })).filter(isOpen);
    const reach = limit + this.privateCount;
    const all = await this.drawer.list({ first: 1, ...(Number.isFinite(reach) && { limit: reach }) });
    return all.filter(isOpen).slice(0, limit);
  }

  /** How many snippets one speaks of. */
  chosenCount(which: SnippetScope): number {
    if (which === "picked") return this.picked.length;
    if (which === "found") return this.found?.length ?? 0;
    if (which === "last") return this.isLastPrivate ? 0 : Math.min(1, this.count);
    return this.count - this.privateCount;
  }

  /** How many of those one speaks of are left out because they are private. */
  leftOut(which: SnippetScope): number {
    // What is private is never found.
    if (which === "picked" || which === "found") return 0;
    return which === "last" ? Number(this.isLastPrivate) : this.privateCount;
  }
}

function isOpen({ entry }: Positioned): boolean {
  return !entry.private;
}
