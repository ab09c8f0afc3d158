import type { Flow } from "../content/model.js";
import { NumberedElement, type Element } from "./office/xml.js";

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
  /** The numbers of the elements that have been met since the last flow, and those of the last flow. */
  #met: readonly number[] = [];
  #last: readonly number[] = [];
  readonly #elements = new WeakMap<Flow, readonly number[]>();

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
    this.#placeOf(flow, before);
    if (this.#waiting.length === 0 && !before) return;
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

  /**
   * Says that an element is being read. Nothing is kept of one without a number.
   * @param isContinued whether what was met before goes on with it
   */
  meet(element: Element, isContinued = false): void {
    if (this.#enclosures === 0 && element instanceof NumberedElement)
      this.#met = [...(isContinued ? this.#met : []), element.number];
  }

  #placeOf(flow: Flow, before: Flow | undefined): void {
    if (this.#met.length === 0 && this.#last.length === 0 && !before) return;
    const elements = [...((before && this.#elements.get(before)) ?? []), ...this.#met];
    // A second flow of an element is made of it as well.
    if (elements.length > 0) this.#last = elements;
    if (this.#last.length > 0) this.#elements.set(flow, this.#last);
    this.#met = [];
  }

  /** The numbers in their part of the elements that a flow was made of, in their order. */
  elementsOf(flow: Flow): readonly number[] {
    return this.#elements.get(flow) ?? [];
  }

  /** What was said of these flows. */
  of(flows: readonly Flow[]): T[] {
    return flows.flatMap((flow) => this.#byFlow.get(flow) ?? []);
  }
}
