import type { X11Display } from "./display.js";

/** A program that is not in front and asks within this time, in milliseconds, was told of the new offer and looks at it. */
const LOOKING = 500;
/** When a program has asked for nothing more for this time, in milliseconds, its paste is done. */
const QUIET = 150;

/** Is told of a paste, and when its program asked last, in milliseconds of a clock that is never set. */
export type OnPasted = (askedAt: number) => void;

/**
 * Tells a paste from a look. Programs ask for the names of what is offered whenever they like, and histories take each new
 * content at once; neither is a paste. A paste is content that the program in front has taken, or that another took later
 * than histories do. One paste asks for several targets, several times: it is over when the program asks no more.
 */
export class X11Pastes {
  #timer: NodeJS.Timeout | undefined;
  #sending = 0;
  #askedAt = 0;
  readonly #since = performance.now();

  constructor(
    readonly display: X11Display,
    readonly pasted: OnPasted,
  ) {}

  /** A program has asked for content; `sent` settles when it has all of it. */
  async heard(requestor: number, sent: Promise<void>): Promise<void> {
    const now = performance.now();
    const isEarly = now - this.#since < LOOKING;
    if (isEarly && !(await this.#isFromFront(requestor))) return;
    this.#askedAt = now;
    this.#sending++;
    clearTimeout(this.#timer);
    await sent;
    this.#sending--;
    clearTimeout(this.#timer);
    if (this.#sending === 0) this.#timer = setTimeout(() => this.pasted(this.#askedAt), QUIET);
  }

  /** Ends it; a paste that is going on is not told. */
  end(): void {
    clearTimeout(this.#timer);
    this.#sending = Infinity;
  }

  /** Whether a window is of the program that has the keyboard; some have one connection for windows, one for selections. */
  async #isFromFront(requestor: number): Promise<boolean> {
    const focus = await this.display.focus();
    if (focus === undefined) return false;
    const [asking, front] = await Promise.all([
      this.display.processOf(requestor),
      this.display.processOf(focus),
    ]);
    return asking === front;
  }
}
