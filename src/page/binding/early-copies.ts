import { Copies, type CopiedOnPage } from "../capture/copies.js";

/** Hears what is copied on a page while its drawer is still being opened, so that the first copy is not lost either. */
export class EarlyCopies {
  readonly #heard: CopiedOnPage[] = [];
  readonly #stop = new AbortController();

  constructor() {
    const copies = new Copies({
      isWanted: () => true,
      copied: (copied) => void this.#heard.push(copied),
      signal: this.#stop.signal,
    });
    copies.follow(document);
  }

  /** Hears no more, and gives what was copied, in order; another time nothing. */
  take(): readonly CopiedOnPage[] {
    this.#stop.abort();
    return this.#heard.splice(0);
  }
}
