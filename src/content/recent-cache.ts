/**
 * Remembers what was made for the keys that came last. Programs write the same style sheet, the same attributes and the same formats
 * into each of their payloads; they are parsed once.
 */
export class RecentCache<Key extends string | number, Value> {
  readonly #values = new Map<Key, Value>();

  /** @param most how many keys are remembered */
  constructor(readonly most: number) {}

  /** What was made for a key; made now when it is not remembered. Long keys are not remembered. */
  get(key: Key, make: (key: Key) => Value): Value {
    let value = this.#values.get(key);
    if (value !== undefined) return value;
    value = make(key);
    if (typeof key === "string" && key.length > 20_000) return value;
    if (this.#values.size >= this.most) this.#values.delete(this.#values.keys().next().value!);
    this.#values.set(key, value);
    return value;
  }
}
