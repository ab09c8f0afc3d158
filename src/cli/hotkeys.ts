import { unwatchFile, watchFile } from "node:fs";
import { DrawerError } from "../content/error.js";
import { parseChord } from "../desktop/chord.js";
import type { Desktop } from "../desktop/desktop.js";
import { answers } from "../messages/en/cli-answers.js";
import { cliErrors } from "../messages/en/cli.js";
import { parseAction, type DesktopAction } from "./desktop-actions.js";
import { keysFile } from "./home-folder.js";
import { readKeys, type Keys } from "./keys.js";
import { isRefusal, refusalText } from "./refusal.js";
/** How often it is looked whether the user has set other keys, in milliseconds. */
const LOOKING = 1000;

/** The user's keys, taken in every program of a desktop. */
export class Hotkeys {
  #taken: (() => void)[] = [];

  /** @param does is called with what a key is to do, each time it is pressed */
  constructor(
    readonly desktop: Desktop,
    readonly does: (action: DesktopAction) => void,
  ) {}

  /** Takes the keys, and those that the user sets later in place of them. */
  begin(inTurn: (action: () => Promise<void>) => void, say: (sentence: string) => void): void {
    const take = async () => {
      for (const sentence of await this.#take(readKeys())) say(sentence);
    };
    watchFile(keysFile(), { interval: LOOKING }, () => inTurn(take));
    inTurn(take);
  }

  /** Gives the keys back. */
  end(): void {
    unwatchFile(keysFile());
    for (const giveBack of this.#taken.splice(0)) giveBack();
  }

  /** Takes these keys in place of those before. Returns what is said of it. */
  async #take(keys: Keys): Promise<string[]> {
    for (const giveBack of this.#taken.splice(0)) giveBack();
    const names = Object.keys(keys);
    const { windows } = this.desktop;
    if (names.length === 0) return [];
    if (!windows) return [`drawer: ${new DrawerError(cliErrors, "no-windows", {}).message}`];
    const said: string[] = [];
    const taken: string[] = [];
    for (const [key, text] of Object.entries(keys)) {
      try {
        const action = parseAction(text);
        this.#taken.push(await windows.take(parseChord(key), () => this.does(action)));
        taken.push(key);
      } catch (error) {
        if (!isRefusal(error)) throw error;
        said.push(`drawer: ${refusalText(error)}`);
      }
    }
    return taken.length === 0 ? said : [...said, answers.keysWork(taken)];
  }
}
