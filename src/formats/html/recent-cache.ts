/**
 * Remembers what was made for the keys that came last. Programs write the same style sheet and the same style attributes
 * into each of their payloads; they are parsed once.
 */
export class RecentCache<Value> {
  readonly #values = new Map<string, Value>();

  /** @param most how many keys are remembered */
  constructor(readonly most: number) {}

  /** What was made for a key; made now when it is not remembered. Long keys are not remembered. */
  get(key: string, make: (key: string) => Value): Value {
    let value = this.#values.get(key);
    if (value !== undefined) return value;
    value = make(key);
    if (key.length > 20_000) return value;
    if (this.#values.size >= this.most) this.#values.delete(this.#values.keys().next().value!);
    this.#values.set(key, value);
    return value;
  }
}
