import type { Flow } from "../content/model.js";

/**
 * What a reader has to say of a document beside its content, by the flows that it was met in: so that what is told of a
 * part of the document is what stands in that part.
 */
export class Asides<T> {
  /** All that was said, in reading order. */
  readonly all: T[] = [];
  /** What was said since the last flow. */
  #waiting: T[] = [];
  #enclosures = 0;
  readonly #byFlow = new WeakMap<Flow, readonly T[]>();

  /** Says something of what is being read. */
  add(aside: T): void {
    this.all.push(aside);
    this.#waiting.push(aside);
  }

  /**
   * Says that what was said since the last flow belongs to this one.
   * @param before a flow that has become part of it
   */
  standIn(flow: Flow, before?: Flow): void {
    if (this.#enclosures > 0) return;
    const asides = [...((before && this.#byFlow.get(before)) ?? []), ...this.#waiting];
    if (asides.length > 0) this.#byFlow.set(flow, [...(this.#byFlow.get(flow) ?? []), ...asides]);
    this.#waiting = [];
  }

  /** Reads what stands inside a flow, such as the cells of a table: all that is said there belongs to that flow. */
  within<R>(read: () => R): R {
    this.#enclosures++;
    try {
      return read();
    } finally {
      this.#enclosures--;
    }
  }

  /** What was said of these flows. */
  of(flows: readonly Flow[]): T[] {
    return flows.flatMap((flow) => this.#byFlow.get(flow) ?? []);
  }
}
