import { defined } from "./defined.js";
import { settledMarker } from "./marker.js";
import type { Content, Flow, Item, List, Marker } from "./model.js";

/** A line of a list as office programs write it: a paragraph with a level, and the list it belongs to. */
export interface ListLine {
  /** 0 is the outermost. */
  readonly level: number;
  readonly ordered: boolean;
  /** Lines of one list have the same key; a line of another begins a new list. */
  readonly key: string;
  /** The number of this line, where it is ordered. */
  readonly number?: number;
  readonly marker?: Marker | undefined;
  readonly flows: Content;
}

interface OpenList {
  readonly level: number;
  readonly key: string;
  readonly ordered: boolean;
  readonly start: number | undefined;
  readonly marker: Marker | undefined;
  readonly items: { flows: Flow[] }[];
}

/** Builds nested lists out of lines that each only say how deep they stand. */
export class ListBuilder {
  readonly #open: OpenList[] = [];
  readonly #done: List[] = [];

  /** Adds the next line. */
  add(line: ListLine): void {
    while (this.#open.length > 0 && this.#open.at(-1)!.level > line.level) this.#close();
    const current = this.#open.at(-1);
    const sameLevel = current?.level === line.level;
    if (sameLevel && !continues(current, line)) this.#close();
    if (!sameLevel || this.#open.at(-1)?.level !== line.level) {
      const { level, key, ordered, number, marker } = line;
      const start = ordered && number !== 1 ? number : undefined;
      this.#open.push({ level, key, ordered, start, marker, items: [] });
    }
    this.#open.at(-1)!.items.push({ flows: [...line.flows] });
  }

  /**
   * Adds a line without a mark of its own: it goes on with the item before it. Returns whether there is one, no deeper
   * than the line stands.
   */
  extend(level: number, flows: Content): boolean {
    if (this.#open.length === 0 || this.#open[0]!.level > level) return false;
    while (this.#open.at(-1)!.level > level) this.#close();
    this.#open
      .at(-1)!
      .items.at(-1)!
      .flows.push(...flows);
    return true;
  }

  #close(): void {
    const { ordered, start, marker, items } = this.#open.pop()!;
    const list: List = {
      type: "list",
      ordered,
      ...defined({ start, marker: settledMarker(marker, (start ?? 1) + items.length - 1) }),
      items: items as Item[],
    };
    const parent = this.#open.at(-1)?.items.at(-1);
    if (parent) parent.flows.push(list);
    else this.#done.push(list);
  }

  /** Ends the lists that are open and gives them. */
  take(): List[] {
    while (this.#open.length > 0) this.#close();
    return this.#done.splice(0);
  }
}

/** Whether a line is the next item of a list: of the same list, with the number that comes next. */
function continues({ key, ordered, start = 1, items }: OpenList, line: ListLine): boolean {
  const isNext = !ordered || line.number === undefined || line.number === start + items.length;
  return key === line.key && ordered === line.ordered && isNext;
}
