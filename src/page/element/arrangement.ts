import { readValue, VALUES } from "../../drawer/model/values.js";
import { Conflict, type Store } from "../../drawer/store.js";

/** How one has arranged the element. */
interface Arranged {
  /** Whether the sentence and the block are shown also where they take room from the list. */
  readonly unfolded?: boolean;
  /** How much of the width what stands beside the list has, in hundredths. */
  readonly beside?: number;
  /** Whether one comes back from the window of another program in which something was placed. */
  readonly returns?: boolean;
}

/** Between which widths the divider goes, in hundredths, and where it is until it was moved. */
export const BESIDE = { least: 20, most: 70, usual: 38 };

/** How the element is arranged. It is kept in the store of the drawer, so that it is so wherever that is opened next. */
export class Arrangement {
  #arranged: Arranged = {};
  #store: Store | undefined;

  /** @param failed is told when it cannot be kept */
  constructor(
    readonly host: { requestUpdate(): void; readonly unfolded: boolean },
    readonly failed: (error: unknown) => void,
  ) {}

  get unfolded(): boolean {
    return this.#arranged.unfolded ?? this.host.unfolded;
  }

  get returns(): boolean {
    return this.#arranged.returns ?? false;
  }

  get beside(): number {
    return this.#arranged.beside ?? BESIDE.usual;
  }

  /** Follows a store: arranges the element as it was with it. */
  async follow(store: Store): Promise<void> {
    this.#store = store;
    const kept = readValue<Arranged>(await store.value("", VALUES.arranged), () => true);
    if (kept && store === this.#store) this.#set(kept);
  }

  /** Arranges it anew, and keeps that. */
  change(change: Arranged): void {
    this.#set({ ...this.#arranged, ...change });
    this.keep();
  }

  /** Keeps it as it is shown. */
  keep(): void {
    if (this.#store && !this.#store.isReadOnly) void this.#write(this.#store).catch(this.failed);
  }

  /** Shows another width without keeping it: while the divider is being dragged. */
  show(beside: number): void {
    this.#set({ ...this.#arranged, beside: Math.min(BESIDE.most, Math.max(BESIDE.least, beside)) });
  }

  #set(arranged: Arranged): void {
    this.#arranged = arranged;
    this.host.requestUpdate();
  }

  async #write(store: Store): Promise<void> {
    for (let isKept = false; !isKept;) {
      const before = await store.value("", VALUES.arranged);
      try {
        await store.setValue("", VALUES.arranged, before, JSON.stringify(this.#arranged));
        isKept = true;
      } catch (error) {
        // Another window has kept its own between: this one was arranged last.
        if (!(error instanceof Conflict)) throw error;
      }
    }
  }
}
