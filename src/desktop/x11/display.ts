import x11, { type Client, type Event, type Fixes, type Property } from "x11";
import { DrawerError } from "../../content/error.js";

/** How much of a property is asked for at a time, in units of four bytes. */
const STEP = 65_536;

/** A connection to an X11 display, with a window of its own, never shown, that events come to. */
export class X11Display {
  readonly window: number;
  readonly root: number;
  /** Settles when the display is gone, or the connection was closed. */
  readonly gone: Promise<void>;
  readonly #client: Client;
  readonly #atoms = new Map<string, Promise<number>>();
  readonly #names = new Map<number, Promise<string>>();
  /** What gives up when the display is gone. */
  readonly #waiting = new Set<() => void>();
  readonly #listeners = new Set<(event: Event) => void>();

  private constructor(client: Client, root: number) {
    this.#client = client;
    this.root = root;
    this.gone = new Promise((settle) => {
      client.on("end", settle);
      client.on("close", settle);
    });
    void this.gone.then(() => {
      for (const giveUp of [...this.#waiting]) giveUp();
    });
    // Windows of other programs may be gone before what is asked of them arrives: that is no fault of anyone's.
    client.on("error", () => undefined);
    client.on("event", (event: Event) => {
      for (const listener of [...this.#listeners]) listener(event);
    });
    this.window = client.AllocID();
    client.CreateWindow(this.window, root, 0, 0, 1, 1, 0);
    this.hearProperties(this.window);
  }

  /**
   * Connects to the display that the environment names.
   * @throws DrawerError `no-clipboard` when there is none, or it lets nobody in
   */
  static async open(): Promise<X11Display> {
    const display = process.env["DISPLAY"] ?? "";
    return new Promise((resolve, reject) => {
      const fail = (error: unknown) =>
        reject(new DrawerError("no-clipboard/display", { display }, { cause: error }));
      const client = x11.createClient({ display }, (error, opened) => {
        if (error) fail(error);
        else resolve(new X11Display(opened.client, opened.screen[0]!.root));
      });
      client.once("error", fail);
    });
  }

  /** Lets go of the display. */
  close(): void {
    this.#client.terminate();
  }

  /** Calls a function with each event. Returns an unsubscribe function. */
  on(listener: (event: Event) => void): () => void {
    this.#listeners.add(listener);
    return () => void this.#listeners.delete(listener);
  }

  /**
   * The next event that passes.
   * @param within milliseconds; then, and when the display is gone, there is none
   */
  next(test: (event: Event) => boolean, within: number): Promise<Event | undefined> {
    return new Promise((resolve) => {
      const end = (event?: Event) => {
        clearTimeout(timer);
        off();
        this.#waiting.delete(giveUp);
        resolve(event);
      };
      const giveUp = () => end();
      const off = this.on((event) => test(event) && end(event));
      const timer = setTimeout(giveUp, within);
      this.#waiting.add(giveUp);
    });
  }

  /** The number of a name. */
  atom(name: string): Promise<number> {
    let atom = this.#atoms.get(name);
    if (!atom) {
      atom = this.#ask<number>((answer) => this.#client.InternAtom(false, name, answer));
      this.#atoms.set(name, atom);
    }
    return atom;
  }

  /** The name of a number. */
  atomName(atom: number): Promise<string> {
    let name = this.#names.get(atom);
    if (!name) {
      name = this.#ask<string>((answer) => this.#client.GetAtomName(atom, answer));
      this.#names.set(atom, name);
    }
    return name;
  }

  /** A property of a window, whole; nothing when it does not have it, or the window is gone. */
  async property(window: number, name: number): Promise<Property | undefined> {
    const chunks: Buffer[] = [];
    let offset = 0;
    for (;;) {
      let part: Property;
      try {
        part = await this.#ask<Property>((answer) =>
          this.#client.GetProperty(0, window, name, 0, offset, STEP, answer),
        );
      } catch {
        // The window is gone.
        return undefined;
      }
      if (part.type === 0) return undefined;
      chunks.push(part.data);
      offset += part.data.length / 4;
      if (part.bytesAfter === 0) return { ...part, data: Buffer.concat(chunks) };
    }
  }

  /** Replaces a property of a window. */
  setProperty(window: number, name: number, type: number, units: 8 | 32, data: Buffer): void {
    this.#client.ChangeProperty(0, window, name, type, units, data);
  }

  deleteProperty(window: number, name: number): void {
    this.#client.DeleteProperty(window, name);
  }

  /** Asks that changes of a window's properties come as events. */
  hearProperties(window: number): void {
    this.#client.ChangeWindowAttributes(window, { eventMask: x11.eventMask.PropertyChange });
  }

  /** The server's time now, which requests about selections carry (ICCCM 2.1). */
  async now(): Promise<number> {
    const name = await this.atom("DRAWER_TIME");
    const changed = this.next((event) => event.name === "PropertyNotify" && event.atom === name, 2000);
    this.#client.ChangeProperty(2, this.window, name, name, 8, Buffer.alloc(0));
    return (await changed)?.time ?? 0;
  }

  /** The window that owns a selection; 0 when none does. */
  owner(selection: number): Promise<number> {
    return this.#ask((answer) => this.#client.GetSelectionOwner(selection, answer));
  }

  own(selection: number, time: number): void {
    this.#client.SetSelectionOwner(this.window, selection, time);
  }

  convert(selection: number, target: number, property: number, time: number): void {
    this.#client.ConvertSelection(this.window, selection, target, property, time);
  }

  /** Answers who asked for a selection (ICCCM 2.2). */
  answer(request: Event, property: number): void {
    const { requestor, selection, target, time } = request;
    this.#client.SendEvent(requestor, 0, 0, {
      type: x11.eventTypes.SelectionNotify,
      name: "SelectionNotify",
      seq: 0,
      ...{ requestor, selection, target, time, property },
    });
  }

  /** Asks that changes of a selection's owner come as events (XFIXES). */
  async hearOwners(selection: number): Promise<void> {
    const fixes = await this.#ask<Fixes>((answer) => this.#client.require("fixes", answer));
    await this.#ask((answer) => fixes.QueryVersion(5, 0, answer));
    fixes.SelectSelectionInput(this.window, selection, fixes.SelectionEventMask.SetSelectionOwner);
  }

  #ask<T>(request: (answer: (error: unknown, answer: T) => void) => void): Promise<T> {
    return new Promise((resolve, reject) => {
      const giveUp = () => reject(new DrawerError("no-clipboard/gone", {}));
      this.#waiting.add(giveUp);
      request((error, answer) => {
        this.#waiting.delete(giveUp);
        if (error) reject(error instanceof Error ? error : new Error("The display refused a request."));
        else resolve(answer);
      });
    });
  }
}
