/** Those who want to hear when a store has changed. */
export class Listeners {
  readonly #listeners = new Set<() => void>();

  /** Adds one. Returns an unsubscribe function. */
  add(listener: () => void): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** Calls them all now. */
  tell(): void {
    for (const listener of this.#listeners) listener();
  }

  /** Calls them all once what is going on has ended, so that none of them can disturb it. */
  tellSoon(): void {
    for (const listener of this.#listeners) queueMicrotask(listener);
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
