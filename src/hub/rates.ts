/** How often something may be asked: so many times at once, and so many a second after that. */
export interface Rate {
  readonly atOnce: number;
  readonly perSecond: number;
}

/** How many askers are remembered; when there are more, those that have not asked for longest are forgotten. */
const MOST_ASKERS = 100_000;

/** Counts who asks how often, in this process: a bucket for each that fills as time goes. */
export class Rates {
  readonly #buckets = new Map<string, { left: number; at: number }>();

  constructor(
    readonly rate: Rate,
    readonly now: () => number = Date.now,
  ) {}

  /** Whether somebody may ask now; it is counted. */
  allows(asker: string): boolean {
    const { atOnce, perSecond } = this.rate;
    const now = this.now();
    const bucket = this.#buckets.get(asker) ?? { left: atOnce, at: now };
    const left = Math.min(atOnce, bucket.left + ((now - bucket.at) / 1000) * perSecond);
    // Those that ask stand last.
    this.#buckets.delete(asker);
    this.#buckets.set(asker, { left: left >= 1 ? left - 1 : left, at: now });
    if (this.#buckets.size > MOST_ASKERS) this.#buckets.delete(this.#buckets.keys().next().value!);
    return left >= 1;
  }
}
