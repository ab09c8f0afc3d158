import pLimit from "p-limit";
import { DrawerError, reasonOf } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import { drawerNotices } from "../messages/en/drawer.js";
import type { Drawer } from "./drawer.js";
import type { Incoming } from "./incoming.js";
import type { SnippetRef } from "./model/pick.js";
import type { Collected } from "./operations/collect.js";
import type { Positioned } from "./store.js";

/** What an action has come to: what was done, or why it could not be. */
export interface ActionResult {
  readonly notices: readonly Notice[];
  readonly error?: DrawerError;
  /** What was collected by it. */
  readonly collected?: readonly Positioned[];
}

/** What a session works with. */
export interface SessionOptions {
  /** The drawer at this moment. */
  readonly drawer: () => Drawer;
  /** Is told what each action has come to. */
  readonly report: (result: ActionResult) => void;
  /** Is told of a fault in what nobody waits for. */
  readonly fail: (error: unknown) => void;
}

/** Where what is collected goes, when it is no snippet of its own. */
export interface AppendTarget {
  /** The snippet that it is added to; the latest when it is left out, and a new one where there is none. */
  readonly to?: SnippetRef | undefined;
  /** What stands between; `newline`. */
  readonly between?: string | undefined;
}

/** How often what is due by the rules is done while a session is open, in milliseconds: what is private goes soon. */
const RETENTION_INTERVAL = 15_000;

/**
 * A time in which a program works with a drawer: a page, the window, a watch. Its actions are done one after another, each
 * is reported, and what is due by the drawer's rules is done now and then.
 */
export class CollectingSession {
  readonly #inTurn = pLimit(1);
  readonly #timer: ReturnType<typeof setInterval>;

  constructor(readonly options: SessionOptions) {
    this.#timer = setInterval(() => this.retain(), RETENTION_INTERVAL);
  }

  /**
   * Does something when all that was asked for before is done, and reports it, or its refusal. Settles then.
   * @throws what is no refusal but a fault
   */
  act(action: () => Promise<readonly Notice[] | ActionResult>): Promise<void> {
    return this.#inTurn(async () => {
      try {
        const result = await action();
        this.#report("notices" in result ? result : { notices: result });
      } catch (error) {
        if (!(error instanceof DrawerError) || error.code === "damaged") throw error;
        this.#report({ notices: [], error });
      }
    });
  }

  /**
   * Collects what is read: as snippets of its own, or onto one that is there.
   * @param append whether, and where, it is added to a snippet
   * @throws DrawerError as `collect` and `append`
   */
  async collect(incoming: readonly Incoming[], append?: AppendTarget): Promise<Collected> {
    const drawer = this.options.drawer();
    const isFirst = append !== undefined && append.to === undefined && (await drawer.count()) === 0;
    return append === undefined || isFirst
      ? drawer.collect(incoming)
      : drawer.append(incoming, append.to, append.between);
  }

  /** Does what is due by the rules, in its turn. */
  retain(): void {
    this.act(() => retainDue(this.options.drawer())).catch(this.options.fail);
  }

  #report(result: ActionResult): void {
    if (result.notices.length > 0 || result.error) this.options.report(result);
  }

  /** Ends it. Settles when what was asked for is done. */
  async close(): Promise<void> {
    clearInterval(this.#timer);
    await this.#inTurn(() => undefined);
  }
}

/**
 * Does what is due by a drawer's rules. Should that fail, whatever the reason, it is told and tried again next time: it
 * never keeps the user from what they came for.
 * @throws DrawerError `damaged`
 */
export async function retainDue(drawer: Drawer): Promise<readonly Notice[]> {
  if (drawer.store.isReadOnly) return [];
  try {
    return await drawer.applyRetention();
  } catch (error) {
    if (error instanceof DrawerError && error.code === "damaged") throw error;
    return [notice(drawerNotices, "waits", { why: reasonOf(error) })];
  }
}
