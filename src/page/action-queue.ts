import { DrawerError, reasonOf } from "../content/error.js";
import type { Notice } from "../content/notice.js";
import { pageErrors } from "../messages/en/errors/page.js";
import { BindingEvents } from "./events.js";
import { LiveRegion } from "./live-region.js";
import type { Placing } from "./places/place.js";

/** What is told of an act: what was done, or why it could not be. */
export interface ActionResult {
  readonly notices: readonly Notice[];
  readonly error?: DrawerError;
}

/** Something that was placed, and how it is taken back. */
export interface Placed {
  readonly what: string;
  readonly placing: Placing;
  /** What else is to be done when it was taken back. */
  readonly afterwards?: (() => Promise<unknown>) | undefined;
}

/** The acts on a page: they are done one after another, said aloud, and told to listeners. */
export class ActionQueue extends BindingEvents {
  /** What was placed since anything else was done, the latest last. */
  protected placed: Placed[] = [];
  readonly #liveRegion = new LiveRegion();
  readonly #listeners = new Set<(told: ActionResult) => void>();
  /** Settles when all that was asked for is done. */
  #turn: Promise<void> = Promise.resolve();

  /**
   * Does something, when all that was asked for before is done, and tells how it went. What is no refusal but a fault is told
   * too, so that nobody waits for what does not come, and thrown.
   * @param isOfPlacing whether what was placed before can still be taken back first
   */
  act(action: () => Promise<readonly Notice[]>, isOfPlacing = false): Promise<void> {
    const act = () => this.#act(action, isOfPlacing);
    const done = this.#turn.then(act);
    // Who asked for it hears of a fault; what comes after it goes on.
    this.#turn = done.catch(() => undefined);
    return done;
  }

  async #act(action: () => Promise<readonly Notice[]>, isOfPlacing: boolean): Promise<void> {
    const placed = this.placed.length;
    try {
      const notices = await action();
      // What is done after a placing is what is undone first.
      if (!isOfPlacing && this.placed.length === placed && notices.length > 0) this.placed = [];
      this.tell({ notices });
    } catch (error) {
      this.tellFailure(error);
      if (!(error instanceof DrawerError)) throw error;
    }
  }

  /** Tells why something could not be done. */
  protected tellFailure(error: unknown): void {
    this.tell({ notices: [], error: refusalFor(error) });
  }

  /** @internal Tells what was done, here or elsewhere for this page. */
  tell(told: ActionResult): void {
    if (told.notices.length === 0 && !told.error) return;
    const sentences = [
      ...told.notices.map(({ message }) => message),
      ...(told.error ? [told.error.message] : []),
    ];
    this.say(sentences.join(" "));
    for (const listener of this.#listeners) listener(told);
    this.emit("told", told);
  }

  /** Says a sentence to those who use a screen reader. */
  say(sentence: string): void {
    this.#liveRegion.say(sentence);
  }

  /** Calls `listener` after every act. Returns an unsubscribe function. */
  listen(listener: (told: ActionResult) => void): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** @internal Whether anybody still listens to it. */
  get isHeard(): boolean {
    return this.#listeners.size > 0;
  }

  /** Tells nobody anything any more. */
  protected fallSilent(): void {
    this.#liveRegion.remove();
    this.#listeners.clear();
  }
}

/** How browsers say that a part of a program could not be fetched; there is nothing else to tell it by. */
const NOT_LOADED = /dynamically imported module|module script failed/i;

/** What is told of an error, whatever it is. */
export function refusalFor(error: unknown): DrawerError {
  if (error instanceof DrawerError) return error;
  if (NOT_LOADED.test(String(error)))
    return new DrawerError(pageErrors, "failed/loading", {}, { cause: error });
  return new DrawerError(pageErrors, "failed", { why: reasonOf(error) }, { cause: error });
}
