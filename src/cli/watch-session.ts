import { DrawerError } from "../content/error.js";
import type { Notice } from "../content/notice.js";
import type { ClipboardEvent, Copied, Desktop } from "../desktop/desktop.js";
import { NeverFrom } from "../desktop/never-from.js";
import { incomingOf } from "../desktop/to-incoming.js";
import { CollectingSession, type ActionResult, type AppendTarget } from "../drawer/collecting-session.js";
import type { Drawer } from "../drawer/drawer.js";
import type { Collected } from "../drawer/operations/collect.js";
import type { Positioned } from "../drawer/store.js";
import { answers } from "../messages/en/cli-answers.js";
import { listed, plain, type CommonOptions } from "./answer.js";
import { takeKeys } from "./hotkeys.js";
import { unescaped } from "./recipe-options.js";
import { refusalText } from "./refusal.js";
import { print, printJson, remark } from "./terminal.js";

/** What a watch is told by its options. */
export interface WatchOptions extends CommonOptions {
  readonly append?: boolean;
  readonly between?: string;
  readonly notify?: boolean;
}

/** One watch: what comes is collected in its turn, and told in a line; the user's keys do what they say. */
export class WatchSession {
  readonly #session: CollectingSession;
  readonly #neverFrom = new NeverFrom();
  #count = 0;
  /** The snippet that copies are added to. */
  #target: Positioned | undefined;
  #isNotifying: boolean;
  #fail: (error: unknown) => void = () => undefined;

  constructor(
    readonly drawer: Drawer,
    readonly desktop: Desktop,
    readonly options: WatchOptions,
  ) {
    this.#isNotifying = options.notify ?? false;
    this.#session = new CollectingSession({
      drawer: () => drawer,
      report: (result) => void this.#report(result).catch((error: unknown) => this.#fail(error)),
      fail: (error) => this.#fail(error),
    });
  }

  /** Goes on until the user ends it, or the desktop is gone. */
  async run(): Promise<void> {
    let end: (isGone: boolean) => void;
    const ended = new Promise<boolean>((settle, reject) => ([end, this.#fail] = [settle, reject]));
    const act = (action: () => Promise<readonly Notice[] | ActionResult>) =>
      void this.#session.act(action).catch((error: unknown) => this.#fail(error));
    await this.desktop.watch((event) => {
      if (event.type === "ended") end(true);
      else act(() => this.#hear(event));
    });
    const { drawer, desktop } = this;
    const collect = (copied: Copied, isAppend: boolean) => this.#collect(copied, isAppend ? {} : undefined);
    const giveKeysBack = takeKeys(
      { drawer: () => drawer, desktop, act, collect },
      {
        works: (keys) => this.#say(answers.keysWork(keys)),
        refused: (error) => this.#say(`drawer: ${refusalText(error)}`),
      },
    );
    for (const signal of ["SIGINT", "SIGTERM"] as const) process.once(signal, () => end(false));
    this.#say(answers.watching(drawer.name));
    const isGone = await ended.finally(giveKeysBack);
    await this.#session.close();
    if (isGone) this.#say(answers.displayGone);
    this.#say(answers.watched(this.#count));
    if (isGone) process.exitCode = 1;
  }

  async #hear(event: Exclude<ClipboardEvent, { type: "ended" }>): Promise<ActionResult> {
    if (event.type === "unread") throw event.error;
    const { append, between } = this.options;
    const target = append ? await this.#targetNow() : undefined;
    const to = target && { id: target.entry.id };
    return this.#collect(event.copied, to && { to, between: unescaped(between) });
  }

  /** Collects a copy: as a snippet of its own, or onto the end of one. */
  async #collect(copied: Copied, append: AppendTarget | undefined): Promise<Collected> {
    const refused = await this.#neverFrom.refusal(this.drawer, copied);
    if (refused) return { collected: [], notices: refused };
    const result = await this.#session.collect([await incomingOf(copied)], append);
    this.#target = result.collected[0] ?? this.#target;
    this.#count += result.collected.length;
    return result;
  }

  /** Where the snippet that copies are added to stands now; nothing when there is none yet, or it is gone. */
  async #targetNow(): Promise<Positioned | undefined> {
    const [target] = this.#target ? await this.drawer.positioned([this.#target.entry]) : [];
    return target;
  }

  /** Tells what an action has come to. What one is refused for says nothing of the next. */
  async #report({ notices, error, collected = [] }: ActionResult): Promise<void> {
    if (error) {
      this.#say(`drawer: ${refusalText(error)}`);
      return this.#notify(refusalText(error));
    }
    if (this.options.json)
      printJson({ snippets: await listed(this.drawer, collected), notices: plain(notices) });
    else for (const { message } of notices) print(`${message}\n`);
    await this.#notify(notices.map(({ message }) => message).join("\n"));
  }

  /** Shows a sentence by the desktop's notifications. Where there are none, that is said once. */
  async #notify(text: string): Promise<void> {
    if (!this.#isNotifying) return;
    try {
      await this.desktop.notify(text);
    } catch (error) {
      if (!(error instanceof DrawerError)) throw error;
      this.#isNotifying = false;
      this.#say(`drawer: ${refusalText(error)}`);
    }
  }

  /** Says something of the watch itself, which is no answer. */
  #say(text: string): void {
    if (text !== "") remark(`${text}\n`);
  }
}
