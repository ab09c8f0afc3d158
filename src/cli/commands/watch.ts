import type { Command } from "commander";
import { answers } from "../../messages/en/command-line.js";
import { commands } from "../../messages/en/commands.js";
import type { Notice } from "../../content/notice.js";
import { openDesktop, type ClipboardEvent, type Copied, type Desktop } from "../../desktop/desktop.js";
import type { Drawer } from "../../drawer/drawer.js";
import type { Positioned } from "../../drawer/store.js";
import { listed, plain, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { incomingOf } from "../gather.js";
import { withDrawer } from "../home.js";
import { unescaped } from "../recipe-options.js";
import { isRefusal, refusalText } from "../refusal.js";
import { print, printJson, remark } from "../terminal.js";

interface WatchOptions extends CommonOptions {
  readonly append?: boolean;
  readonly between?: string;
}

/** How often what is due in the drawer is done while it is watched, in milliseconds: what is private goes soon. */
const RETENTION = 15_000;

/** `drawer watch`: collects each copy that is made on the desktop, until it is ended. */
export function add(program: Command): void {
  const says = commands.watch;
  begin(program, "watch")
    .option("--append", says.append)
    .option("--between <text>", says.between)
    .action(async (options: WatchOptions) => {
      const desktop = await openDesktop();
      try {
        await withDrawer(options.drawer, (drawer) => new Watching(drawer, options).run(desktop));
      } finally {
        desktop.close();
      }
    });
}

/** One watch: what comes is collected in its turn, and told in a line. */
class Watching {
  #count = 0;
  /** The snippet that copies are added to. */
  #target: Positioned | undefined;

  constructor(
    readonly drawer: Drawer,
    readonly options: WatchOptions,
  ) {}

  async run(desktop: Desktop): Promise<void> {
    let turn: Promise<void> = Promise.resolve();
    let end: (isGone: boolean) => void;
    const ended = new Promise<boolean>((settle) => (end = settle));
    const failed = new Promise<never>((_, reject) => {
      const inTurn = (act: () => Promise<void>) => void (turn = turn.then(act).catch(reject));
      const hear = (event: ClipboardEvent) =>
        event.type === "ended" ? end(true) : inTurn(() => this.#hear(event));
      desktop.watch(hear).catch(reject);
      const timer = setInterval(() => inTurn(() => this.#retain()), RETENTION);
      void ended.then(() => clearInterval(timer));
    });
    for (const signal of ["SIGINT", "SIGTERM"] as const) process.once(signal, () => end(false));
    this.#say(answers.watching(this.drawer.name));
    const isGone = await Promise.race([ended, failed]);
    await turn;
    if (isGone) this.#say(answers.displayGone);
    this.#say(answers.watched(this.#count));
    if (isGone) process.exitCode = 1;
  }

  async #hear(event: Exclude<ClipboardEvent, { type: "ended" }>): Promise<void> {
    if (event.type === "unread") return remark(`drawer: ${refusalText(event.error)}\n`);
    try {
      const { collected, notices } = await this.#collect(event.copied);
      this.#count += collected.length;
      this.#tell(notices, collected);
    } catch (error) {
      // What one copy is refused for says nothing of the next.
      if (!isRefusal(error) || error.code === "damaged") throw error;
      remark(`drawer: ${refusalText(error)}\n`);
    }
  }

  async #collect(copied: Copied): Promise<{ collected: readonly Positioned[]; notices: readonly Notice[] }> {
    const incoming = await incomingOf(copied);
    const { append, between } = this.options;
    const [target] = append && this.#target ? await this.drawer.positioned([this.#target.entry]) : [];
    const result = target
      ? await this.drawer.append(
          [incoming],
          { position: target.position },
          between === undefined ? undefined : unescaped(between),
        )
      : await this.drawer.collect([incoming]);
    this.#target = result.collected[0] ?? this.#target;
    return result;
  }

  async #retain(): Promise<void> {
    this.#tell(await this.drawer.applyRetention(), []);
  }

  #tell(notices: readonly Notice[], collected: readonly Positioned[]): void {
    if (notices.length === 0) return;
    if (this.options.json) printJson({ collected: collected.map(listed), notices: plain(notices) });
    else for (const { message } of notices) print(`${message}\n`);
  }

  /** Says something of the watch itself, which is no answer. */
  #say(text: string): void {
    remark(`${text}\n`);
  }
}
