/** For how long what has just come is marked, in milliseconds. */
const MARKED = 2_500;

/** What has come of late: what of it is marked for a moment, and what came while one looked elsewhere in the list. */
export class Arrivals {
  /** How many have come while one looked elsewhere. */
  unseen = 0;
  /** The position after which rows are marked. */
  #since = Infinity;
  #until: ReturnType<typeof setTimeout> | undefined;

  /** @param changed is called when something else is to be drawn */
  constructor(readonly changed: () => void) {}

  /** Whether the row at a position has just come. */
  isNew(position: number): boolean {
    return position > this.#since;
  }

  /**
   * Takes note of what has come.
   * @param before how many there were
   * @param isFollowed whether one looks at the end, and sees it
   */
  came(count: number, before: number, isFollowed: boolean): void {
    if (!isFollowed) this.unseen += count;
    // What is there from the beginning is not new.
    if (before > 0) this.#mark(before);
    this.changed();
  }

  /** All that came is seen now. */
  see(): void {
    if (this.unseen === 0) return;
    this.unseen = 0;
    this.changed();
  }

  #mark(before: number): void {
    this.#since = Math.min(this.#since, before);
    clearTimeout(this.#until);
    this.#until = setTimeout(() => {
      this.#since = Infinity;
      this.changed();
    }, MARKED);
  }
}
