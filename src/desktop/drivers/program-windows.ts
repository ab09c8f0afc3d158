import type { Chord } from "../chord.js";
import type { DesktopWindow, Offered, Pasted, Windows } from "../desktop.js";
import type { LineProgram, Talk } from "./program.js";

/** What a program of the system tells of its windows and of the user. */
export type WindowEvent = { readonly front: DesktopWindow | null } | { readonly input: "key" | "button" };

/** What is asked of a program of the system: each is answered by a line. */
export type WindowAct =
  | { readonly act: "front" }
  | { readonly act: "describe"; readonly id: number }
  | { readonly act: "raise"; readonly id: number }
  /** How often the clipboard has changed. */
  | { readonly act: "count" }
  | { readonly act: "press"; readonly key: unknown };

/** Windows that are reached by running programs of the system. */
export interface WindowPrograms {
  /** Starts what does what it is asked. */
  talk(): Talk<WindowAct, unknown>;
  /** Starts what tells which window is in front, now and whenever that changes, and of what the user presses. */
  follow(hear: (event: WindowEvent) => void): LineProgram;
  /** A key as the program is told it. */
  keyOf(chord: Chord): unknown;
  /** The key that pastes there. */
  readonly paste: Chord;
  offer(offered: Offered): Promise<void>;
  /** Reads all that stands on the clipboard. */
  everything(): Promise<StandingClipboard>;
}

/** What stood on a clipboard. */
export interface StandingClipboard {
  /** Whether nothing of it was left out. */
  readonly isWhole: boolean;
  /** Puts it there again. */
  putBack(): Promise<void>;
}

/** How long a program is given to take what was pasted, in milliseconds: these systems do not tell when it has. */
const TAKING = 500;
/** How long the system may take to bring a window to the front, in milliseconds. */
const RAISING = 2000;
/** For how long after a key was pressed here a key is believed to be that one, in milliseconds. */
const OWN_KEY = 200;

const pause = (milliseconds: number) => new Promise<void>((next) => setTimeout(next, milliseconds));

/** The windows of a system that are reached by running its programs. It does not tell what was taken: that is only believed. */
export class ProgramWindows implements Windows {
  #talk: Talk<WindowAct, unknown> | undefined;
  #following: LineProgram | undefined;
  #before: StandingClipboard | undefined;
  /** How often the clipboard had changed when the last piece was offered here. */
  #offeredAt: unknown;
  #pressedAt = 0;
  readonly #fronts = new Set<(front: DesktopWindow | undefined) => void>();
  readonly #inputs = new Set<(what: "key" | "button") => void>();

  constructor(readonly programs: WindowPrograms) {}

  #ask(act: WindowAct): Promise<unknown> {
    return (this.#talk ??= this.programs.talk()).ask(act);
  }

  async front(): Promise<DesktopWindow | undefined> {
    return ((await this.#ask({ act: "front" })) as DesktopWindow | null) ?? undefined;
  }

  async describe({ id, app }: DesktopWindow): Promise<DesktopWindow | undefined> {
    const now = (await this.#ask({ act: "describe", id })) as DesktopWindow | null;
    // The number of a window that is gone may be that of another by now.
    return now?.app === app ? (now ?? undefined) : undefined;
  }

  async raise(window: DesktopWindow): Promise<boolean> {
    if (!(await this.describe(window))) return false;
    const isActive = async () => (await this.front())?.id === window.id;
    if (await isActive()) return true;
    await this.#ask({ act: "raise", id: window.id });
    for (const until = performance.now() + RAISING; performance.now() < until; await pause(50))
      if (await isActive()) return true;
    return false;
  }

  async paste(series: readonly Offered[], between?: Chord): Promise<Pasted> {
    if (!(await this.#isOwn())) this.#before = undefined;
    this.#before ??= await this.programs.everything();
    const { id } = (await this.front()) ?? { id: 0 };
    const isThere = async () => (await this.front())?.id === id;
    let hasPressed = false;
    const off = await this.followInput(() => (hasPressed = true));
    try {
      for (const [taken, offered] of series.entries()) {
        if (taken > 0) {
          if (hasPressed) return { taken, stopped: "key", isUnsure: true };
          if (!(await isThere())) return { taken, stopped: "window", isUnsure: true };
          if (between) await this.press(between);
        }
        await this.programs.offer(offered);
        this.#offeredAt = await this.#ask({ act: "count" });
        // Who has gone elsewhere meanwhile gets nothing pasted there: it stays, to be pasted by hand.
        if (!(await isThere())) {
          this.#before = undefined;
          return { taken, stopped: taken === 0 ? "not-taken" : "window", isUnsure: true };
        }
        await this.press(this.programs.paste);
        await pause(TAKING);
      }
      return { taken: series.length, isUnsure: true };
    } finally {
      off();
    }
  }

  async putBack(): Promise<boolean> {
    const before = this.#before;
    this.#before = undefined;
    // What the user has copied since then stays.
    if (!before || !(await this.#isOwn())) return true;
    await before.putBack();
    return before.isWhole;
  }

  /** Whether the piece that was offered here last still stands on the clipboard. */
  async #isOwn(): Promise<boolean> {
    return (await this.#ask({ act: "count" })) === this.#offeredAt;
  }

  async press(chord: Chord): Promise<void> {
    this.#pressedAt = performance.now();
    await this.#ask({ act: "press", key: this.programs.keyOf(chord) });
    this.#pressedAt = performance.now();
  }

  async follow(listener: (front: DesktopWindow | undefined) => void): Promise<() => void> {
    this.#fronts.add(listener);
    listener(await this.front());
    return this.#hear(() => this.#fronts.delete(listener));
  }

  async followInput(listener: (what: "key" | "button") => void): Promise<() => void> {
    this.#inputs.add(listener);
    return this.#hear(() => this.#inputs.delete(listener));
  }

  /** Hears of windows and keys for as long as anybody listens. Returns an unsubscribe function. */
  #hear(unsubscribe: () => void): () => void {
    this.#following ??= this.programs.follow((event) => {
      if ("front" in event) for (const listener of this.#fronts) listener(event.front ?? undefined);
      else if (event.input === "button" || performance.now() - this.#pressedAt > OWN_KEY)
        for (const listener of this.#inputs) listener(event.input);
    });
    return () => {
      unsubscribe();
      if (this.#fronts.size + this.#inputs.size === 0) this.#endFollowing();
    };
  }

  #endFollowing(): void {
    this.#following?.end();
    this.#following = undefined;
  }

  /** Ends the programs. */
  close(): void {
    this.#endFollowing();
    this.#talk?.end();
    this.#talk = undefined;
  }
}
