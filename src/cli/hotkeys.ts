import { unwatchFile, watchFile } from "node:fs";
import { DrawerError } from "../content/error.js";
import { parseChord } from "../desktop/chord.js";
import { cliErrors } from "../messages/en/cli.js";
import type { KeyedDesktop } from "../window/window-desktop.js";
import { keysFile } from "./home-folder.js";
import { readKeys, type Keys } from "./keys.js";
import { isRefusal, type Refusal } from "./refusal.js";

/** How often it is looked whether the user has set other keys, in milliseconds. */
const LOOKING = 1000;

/** What is told of keys that were taken. */
interface HotkeyListener {
  /** These work now. */
  works(keys: readonly string[]): void;
  /** One does not. */
  refused(error: Refusal): void;
}

/**
 * Takes the user's keys in every program of a desktop, and those that the user sets later in place of them. Returns what gives them
 * back.
 */
export function takeKeys(keyed: KeyedDesktop, listener: HotkeyListener): () => void {
  const keys = new Hotkeys(keyed, listener);
  const take = () => keyed.act(async () => (await keys.take(readKeys()), []));
  watchFile(keysFile(), { interval: LOOKING }, take);
  take();
  return () => {
    unwatchFile(keysFile(), take);
    keys.giveBack();
  };
}

/** Keys that were taken. */
class Hotkeys {
  #taken: (() => void)[] = [];

  constructor(
    readonly keyed: KeyedDesktop,
    readonly listener: HotkeyListener,
  ) {}

  giveBack(): void {
    for (const giveBack of this.#taken.splice(0)) giveBack();
  }

  /** Takes these keys in place of those before. */
  async take(keys: Keys): Promise<void> {
    this.giveBack();
    const { desktop, drawer, act, collect } = this.keyed;
    const { windows } = desktop;
    if (Object.keys(keys).length === 0) return;
    if (!windows?.take) return this.listener.refused(new DrawerError(cliErrors, "no-windows", {}));
    const { parseAction } = await import("./desktop-actions.js");
    const taken: string[] = [];
    for (const [key, text] of Object.entries(keys)) {
      try {
        const action = parseAction(text);
        const pressed = () => act(() => action({ drawer: drawer(), desktop, collect }));
        this.#taken.push(await windows.take(parseChord(key), pressed));
        taken.push(key);
      } catch (error) {
        if (!isRefusal(error)) throw error;
        this.listener.refused(error);
      }
    }
    if (taken.length > 0) this.listener.works(taken);
  }
}
