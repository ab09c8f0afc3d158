import { DrawerError, reasonOf } from "../../content/error.js";
import type { Notice } from "../../content/notice.js";
import { CollectingSession, type ActionResult } from "../../drawer/collecting-session.js";
import type { Drawer } from "../../drawer/drawer.js";
import { pageErrors } from "../../messages/en/page.js";
import { BindingEvents, type PlaceDetail } from "./events.js";
import { LiveRegion } from "./live-region.js";
import { Placements } from "./placements.js";

/** The actions on a page: they are done one after another, announced, and told as events. */
export abstract class Actions extends BindingEvents {
  /** What was placed since anything else was done. */
  protected readonly placements = new Placements(
    (detail) => this.beforePlacing(detail),
    (detail) => void this.emit("placed", detail),
  );
  readonly #liveRegion = new LiveRegion();
  /** @internal Does one after another what was asked for. */
  readonly session = new CollectingSession({
    drawer: () => this.drawer,
    report: (result) => this.report(result),
    fail: (error) => this.reportFailure(error),
  });

  /** The drawer that is worked with. */
  abstract readonly drawer: Drawer;

  /** Tells of a block that is about to be placed. Returns whether nobody has prevented it. */
  protected beforePlacing(detail: PlaceDetail): boolean {
    return this.emit("placing", detail);
  }

  /**
   * Does something, when all that was asked for before is done, and reports how it went. What is no refusal but a fault is
   * reported too, so that nobody waits for what does not come, and thrown.
   * @param isOfPlacing whether what was placed before can still be taken back first
   */
  async act(action: () => Promise<readonly Notice[]>, isOfPlacing = false): Promise<void> {
    try {
      await this.session.act(async () => {
        const placed = this.placements.count;
        const notices = await action();
        // What is done after a placing is what is undone first.
        if (!isOfPlacing && this.placements.count === placed && notices.length > 0) this.placements.clear();
        return notices;
      });
    } catch (error) {
      this.reportFailure(error);
      throw error;
    }
  }

  /** Reports why something could not be done. */
  protected reportFailure(error: unknown): void {
    this.report({ notices: [], error: refusalFor(error) });
  }

  /** @internal Reports what was done, here or elsewhere for this page. */
  report(result: ActionResult): void {
    if (result.notices.length === 0 && !result.error) return;
    const sentences = [
      ...result.notices.map(({ message }) => message),
      ...(result.error ? [result.error.message] : []),
    ];
    this.announce(sentences.join(" "));
    this.emit("notice", result);
  }

  /** Says a sentence to those who use a screen reader. */
  announce(sentence: string): void {
    this.#liveRegion.announce(sentence);
  }

  /** Ends what goes on by itself, and announces nothing any more. */
  protected endActions(): void {
    this.#liveRegion.remove();
    void this.session.close();
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
