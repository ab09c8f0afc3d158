import x11, {
  type Client,
  type Display,
  type Event,
  type Fixes,
  type Input,
  type Property,
  type Resources,
  type Test,
} from "x11";
import { DrawerError } from "../../../content/error.js";
import { Listeners } from "../../../messages/core/listeners.js";
import { desktopErrors } from "../../../messages/en/desktop.js";

/** How much of a property is asked for at a time, in units of four bytes. */
const STEP = 65_536;
/** The bits by which a client's own identifiers are told apart; those above are the client's. */
const OWN_BITS = 0x1fffff;

/** A connection to an X11 display, with a window of its own, never shown, that events come to. */
export class X11Display {
  readonly window: number;
  readonly root: number;
  /** Settles when the display is gone, or the connection was closed. */
  readonly gone: Promise<void>;
  readonly #client: Client;
  readonly #codes: { readonly first: number; readonly last: number };
  readonly #atoms = new Map<string, Promise<number>>();
  readonly #names = new Map<number, Promise<string>>();
  #isGone = false;
  /** What gives up when the display is gone. */
  readonly #waiting = new Set<() => void>();
  readonly #listeners = new Listeners<[event: Event]>();

  private constructor(client: Client, display: Display) {
    this.#client = client;
    this.#codes = { first: display.min_keycode, last: display.max_keycode };
    this.root = display.screen[0]!.root;
    this.gone = new Promise((settle) => {
      client.on("end", settle);
      client.on("close", settle);
    });
    void this.gone.then(() => {
      this.#isGone = true;
      for (const giveUp of [...this.#waiting]) giveUp();
    });
    // Windows of other programs may be gone before what is asked of them arrives: that is no fault of anyone's.
    client.on("error", () => undefined);
    client.on("event", (event: Event) => this.#listeners.call(event));
    this.window = client.AllocID();
    client.CreateWindow(this.window, this.root, 0, 0, 1, 1, 0);
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
        reject(new DrawerError(desktopErrors, "no-clipboard/display", { display }, { cause: error }));
      const client = x11.createClient({ display }, (error, opened) => {
        if (error) fail(error);
        else resolve(new X11Display(opened.client, opened));
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
    return this.#listeners.add(listener);
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
    return remembered(this.#atoms, name, () =>
      this.#ask<number>((answer) => this.#client.InternAtom(false, name, answer)),
    );
  }

  /** The name of a number. */
  atomName(atom: number): Promise<string> {
    return remembered(this.#names, atom, () =>
      this.#ask<string>((answer) => this.#client.GetAtomName(atom, answer)),
    );
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

  disown(selection: number): void {
    this.#client.SetSelectionOwner(0, selection, 0);
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

  /** The window that has the keyboard; nothing when none has, or the one under the pointer. */
  async focus(): Promise<number | undefined> {
    const { focus } = await this.#ask<{ focus: number }>((answer) => this.#client.GetInputFocus(answer));
    return focus > 1 ? focus : undefined;
  }

  /** What tells the program that a window is of: its process, or its connection where that is not known (X-Resource). */
  async processOf(window: number): Promise<string> {
    const connection = `connection ${(window & ~OWN_BITS) >>> 0}`;
    try {
      const resources = await this.#ask<Resources>((answer) => this.#client.require("res", answer));
      const [found] = await this.#ask<readonly { readonly value: readonly number[] }[]>((answer) =>
        resources.QueryClientIds([{ client: window, mask: resources.ClientIdMask.LocalClientPID }], answer),
      );
      const process = found?.value[0];
      return process === undefined ? connection : `process ${process}`;
    } catch (error) {
      if (error instanceof DrawerError) throw error;
      // The server has no such extension, or the window is gone.
      return connection;
    }
  }

  /** Says something of a window to the window manager (EWMH). */
  message(window: number, type: number, data: readonly number[]): void {
    this.#client.SendClientMessage(this.root, window, type, 32, data);
  }

  /** The keyboard: the symbols of each key code, from the first, and the codes that hold, for each of the eight bits. */
  async keyboard(): Promise<{ first: number; symbols: number[][]; held: number[][] }> {
    const { first, last } = this.#codes;
    const [symbols, held] = await Promise.all([
      this.#ask<number[][]>((answer) => this.#client.GetKeyboardMapping(first, last - first + 1, answer)),
      this.#ask<number[][]>((answer) => this.#client.GetModifierMapping(answer)),
    ]);
    return { first, symbols, held };
  }

  /** Takes a key with what is held, in every program; fails when another has taken it. */
  async grabKey(code: number, bits: number): Promise<void> {
    await this.#ask((answer) => this.#client.GrabKey(this.root, 0, bits, code, 1, 1, answer));
  }

  ungrabKey(code: number, bits: number): void {
    this.#client.UngrabKey(this.root, code, bits);
  }

  /** Gives the keyboard back that a taken key has led here. */
  ungrabKeyboard(): void {
    this.#client.UngrabKeyboard(0);
  }

  /** The codes of the keys that are down. */
  async pressedKeys(): Promise<number[]> {
    const bits = await this.#ask<Buffer>((answer) => this.#client.QueryKeymap(answer));
    return Array.from({ length: 256 }, (_, code) => code).filter(
      (code) => (bits[code >> 3]! >> (code & 7)) & 1,
    );
  }

  /** What presses keys, and lets go of them, as if a user did (XTEST). */
  async fakeKeys(): Promise<(code: number, isDown: boolean) => void> {
    const test = await this.#ask<Test>((answer) => this.#client.require("xtest", answer));
    return (code, isDown) =>
      test.FakeInput(isDown ? test.KeyPress : test.KeyRelease, code, 0, this.root, 0, 0);
  }

  /** Asks that changes of a selection's owner come as events (XFIXES). */
  async hearOwners(selection: number): Promise<void> {
    const fixes = await this.#ask<Fixes>((answer) => this.#client.require("fixes", answer));
    await this.#ask((answer) => fixes.QueryVersion(5, 0, answer));
    fixes.SelectSelectionInput(this.window, selection, fixes.SelectionEventMask.SetSelectionOwner);
  }

  /** Asks that keys and mouse buttons that are pressed anywhere come as events (XInput 2, raw events). */
  async hearInput(): Promise<void> {
    const input = await this.#ask<Input>((answer) => this.#client.require("xinput", answer));
    input.XISelectEvents(this.root, {
      deviceId: input.AllMasterDevices,
      mask: ["RawKeyPress", "RawButtonPress"],
    });
  }

  #ask<T>(request: (answer: (error: unknown, answer: T) => void) => void): Promise<T> {
    return new Promise((resolve, reject) => {
      const giveUp = () => reject(new DrawerError(desktopErrors, "no-clipboard/gone", {}));
      // Nobody answers any more.
      if (this.#isGone) return giveUp();
      this.#waiting.add(giveUp);
      request((error, answer) => {
        this.#waiting.delete(giveUp);
        if (error) reject(error instanceof Error ? error : new Error("The display refused a request."));
        else resolve(answer);
      });
    });
  }
}

/** What was asked before is not asked again. */
function remembered<Key, Value>(known: Map<Key, Value>, key: Key, ask: () => Value): Value {
  let value = known.get(key);
  if (value === undefined) known.set(key, (value = ask()));
  return value;
}
