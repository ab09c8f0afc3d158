/** What is used of the package x11, which has no types of its own. */
declare module "x11" {
  import type { EventEmitter } from "node:events";

  export interface Event {
    readonly name: string;
    readonly time: number;
    readonly owner: number;
    readonly requestor: number;
    readonly selection: number;
    readonly target: number;
    readonly property: number;
    readonly wid: number;
    readonly atom: number;
    readonly state: number;
    readonly subtype?: number;
    readonly keycode: number;
    /** The key or the button of a raw event of XInput 2. */
    readonly detail?: number;
    /** What is held: keys in the lower eight bits. */
    readonly buttons: number;
  }

  export interface Property {
    readonly type: number;
    readonly format: number;
    readonly bytesAfter: number;
    readonly data: Buffer;
  }

  type Answer<T> = (error: unknown, answer: T) => void;

  export interface Fixes {
    readonly SelectionEventMask: { readonly SetSelectionOwner: number };
    QueryVersion(major: number, minor: number, answer: Answer<unknown>): void;
    SelectSelectionInput(window: number, selection: number, mask: number): void;
  }

  export interface Input {
    readonly AllMasterDevices: number;
    XISelectEvents(
      window: number,
      masks: { deviceId: number; mask: readonly ("RawKeyPress" | "RawButtonPress")[] },
    ): void;
  }

  export interface Resources {
    readonly ClientIdMask: { readonly LocalClientPID: number };
    QueryClientIds(
      asked: readonly { client: number; mask: number }[],
      answer: Answer<readonly { readonly value: readonly number[] }[]>,
    ): void;
  }

  export interface Test {
    readonly KeyPress: number;
    readonly KeyRelease: number;
    FakeInput(
      type: number,
      code: number,
      ...where: [time: number, window: number, x: number, y: number]
    ): void;
  }

  export interface Client extends EventEmitter {
    AllocID(): number;
    CreateWindow(
      id: number,
      parent: number,
      ...place: [x: number, y: number, width: number, height: number, border: number]
    ): void;
    ChangeWindowAttributes(window: number, values: { eventMask: number }): void;
    InternAtom(onlyIfThere: boolean, name: string, answer: Answer<number>): void;
    GetAtomName(atom: number, answer: Answer<string>): void;
    GetProperty(
      remove: 0 | 1,
      window: number,
      name: number,
      type: number,
      ...range: [offset: number, length: number, answer: Answer<Property>]
    ): void;
    ChangeProperty(
      mode: 0 | 1 | 2,
      window: number,
      name: number,
      type: number,
      units: 8 | 32,
      data: Buffer,
    ): void;
    DeleteProperty(window: number, name: number): void;
    ConvertSelection(window: number, selection: number, target: number, property: number, time: number): void;
    SetSelectionOwner(window: number, selection: number, time: number): void;
    GetSelectionOwner(selection: number, answer: Answer<number>): void;
    SendEvent(window: number, propagate: 0 | 1, mask: number, event: object): void;
    SendClientMessage(to: number, window: number, type: number, format: 32, data: readonly number[]): void;
    GetInputFocus(answer: Answer<{ focus: number }>): void;
    GetKeyboardMapping(first: number, count: number, answer: Answer<number[][]>): void;
    GetModifierMapping(answer: Answer<number[][]>): void;
    GrabKey(
      window: number,
      ownerEvents: 0 | 1,
      modifiers: number,
      code: number,
      ...modes: [pointer: 0 | 1, keyboard: 0 | 1, answer: Answer<unknown>]
    ): void;
    UngrabKey(window: number, code: number, modifiers: number): void;
    UngrabKeyboard(time: number): void;
    QueryKeymap(answer: Answer<Buffer>): void;
    require(extension: "fixes", answer: Answer<Fixes>): void;
    require(extension: "xinput", answer: Answer<Input>): void;
    require(extension: "res", answer: Answer<Resources>): void;
    require(extension: "xtest", answer: Answer<Test>): void;
    terminate(): void;
  }

  export interface Display {
    readonly client: Client;
    readonly min_keycode: number;
    readonly max_keycode: number;
    readonly screen: readonly { readonly root: number }[];
  }

  interface X11 {
    createClient(options: { display: string }, answer: Answer<Display>): Client;
    readonly eventMask: { readonly PropertyChange: number };
    readonly keySyms: Readonly<Record<string, { readonly code: number } | undefined>>;
    readonly eventTypes: { readonly SelectionNotify: number };
  }
  const x11: X11;
  export default x11;
}
