/** Functions that are called when something happens. `Args` is what they are told. */
export class Listeners<Args extends readonly unknown[] = []> {
  readonly #listeners = new Set<(...args: Args) => void>();

  /** Adds one. Returns an unsubscribe function. */
  add(listener: (...args: Args) => void): () => void {
    this.#listeners.add(listener);
    return () => void this.#listeners.delete(listener);
  }

  /** Calls all that are there now; one that is added meanwhile hears of the next. */
  call(...args: Args): void {
    for (const listener of [...this.#listeners]) listener(...args);
  }

  /** Calls them all once what is going on has ended, so that none of them can disturb it. */
  callSoon(...args: Args): void {
    for (const listener of this.#listeners) queueMicrotask(() => listener(...args));
  }

  /** How many there are. */
  get size(): number {
    return this.#listeners.size;
  }

  /** Forgets them all. */
  clear(): void {
    this.#listeners.clear();
  }
}
