import { answers } from "../messages/en/command-line.js";
import { DrawerError } from "../content/error.js";
import type { Notice } from "../content/notice.js";
import type { ClipboardEvent, Copied, Desktop } from "../desktop/desktop.js";
import { incomingOf } from "../desktop/incoming.js";
import type { Drawer } from "../drawer/drawer.js";
import type { Positioned } from "../drawer/store.js";
import type { Act } from "./acts.js";
import { listed, plain, type CommonOptions } from "./answer.js";
import { Hotkeys } from "./hotkeys.js";
import { unescaped } from "./recipe-options.js";
import { isRefusal, refusalText } from "./refusal.js";
import { print, printJson, remark } from "./terminal.js";

/** What a watch is told by its options. */
export interface WatchOptions extends CommonOptions {
  readonly append?: boolean;
  readonly between?: string;
  readonly notify?: boolean;
}

/** How often what is due in the drawer is done while it is watched, in milliseconds: what is private goes soon. */
const RETENTION = 15_000;

/** One watch: what comes is collected in its turn, and told in a line; the user's keys do what they say. */
export class Watching {
  #count = 0;
  /** The snippet that copies are added to. */
  #target: Positioned | undefined;
  #turn: Promise<void> = Promise.resolve();
  #isNotifying: boolean;

  constructor(
    readonly drawer: Drawer,
    readonly desktop: Desktop,
    readonly options: WatchOptions,
  ) {
    this.#isNotifying = options.notify ?? false;
  }

  /** Goes on until the user ends it, or the desktop is gone. */
  async run(): Promise<void> {
    let end: (isGone: boolean) => void;
    let fail: (error: unknown) => void;
    const ended = new Promise<boolean>((settle, reject) => ([end, fail] = [settle, reject]));
    const inTurn = (act: () => Promise<void>) => {
      this.#turn = this.#turn.then(() => this.#tellingRefusals(act)).catch(fail);
    };
    await this.desktop.watch((event) =>
      event.type === "ended" ? end(true) : inTurn(() => this.#hear(event)),
    );
    const timer = setInterval(() => inTurn(() => this.#retain()), RETENTION);
    const keys = new Hotkeys(this.desktop, (act) => inTurn(() => this.#do(act)));
    inTurn(() => keys.begin(inTurn, (sentence) => this.#say(sentence)));
    for (const signal of ["SIGINT", "SIGTERM"] as const) process.once(signal, () => end(false));
    this.#say(answers.watching(this.drawer.name));
    const isGone = await ended.finally(() => {
      clearInterval(timer);
      keys.end();
    });
    await this.#turn;
    if (isGone) this.#say(answers.displayGone);
    this.#say(answers.watched(this.#count));
    if (isGone) process.exitCode = 1;
  }

  /** What one act is refused for says nothing of the next: it is told. */
  async #tellingRefusals(act: () => Promise<void>): Promise<void> {
    try {
      await act();
    } catch (error) {
      if (!isRefusal(error) || error.code === "damaged") throw error;
      this.#say(`drawer: ${refusalText(error)}`);
      await this.#notify(refusalText(error));
    }
  }

  async #hear(event: Exclude<ClipboardEvent, { type: "ended" }>): Promise<void> {
    if (event.type === "unread") throw event.error;
    await this.#collect(event.copied, false);
  }

  async #do(act: Act): Promise<void> {
    const { drawer, desktop } = this;
    const collect = async (copied: Copied, isAppend: boolean): Promise<readonly Notice[]> => {
      await this.#collect(copied, isAppend);
      return [];
    };
    await this.#tell(await act({ drawer, desktop, collect }), []);
  }

  /** Collects a copy: onto the end of one snippet, where the options say so; or, for a key, onto the end of the latest. */
  async #collect(copied: Copied, isAppend: boolean): Promise<void> {
    const incoming = await incomingOf(copied);
    const { append, between } = this.options;
    const target = append ? await this.#targetNow() : undefined;
    const to = target && { id: target.entry.id };
    const result =
      isAppend || to
        ? await this.drawer.append([incoming], to, unescaped(between))
        : await this.drawer.collect([incoming]);
    this.#target = result.collected[0] ?? this.#target;
    this.#count += result.collected.length;
    await this.#tell(result.notices, result.collected);
  }

  /** Where the snippet that copies are added to stands now; nothing when there is none yet, or it is gone. */
  async #targetNow(): Promise<Positioned | undefined> {
    const [target] = this.#target ? await this.drawer.positioned([this.#target.entry]) : [];
    return target;
  }

  async #retain(): Promise<void> {
    await this.#tell(await this.drawer.applyRetention(), []);
  }

  async #tell(notices: readonly Notice[], collected: readonly Positioned[]): Promise<void> {
    if (notices.length === 0) return;
    if (this.options.json) printJson({ collected: collected.map(listed), notices: plain(notices) });
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
