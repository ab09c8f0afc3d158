import pLimit from "p-limit";
import { DrawerError } from "../../content/error.js";
import type { Origin } from "../../content/origin.js";
import { desktopErrors } from "../../messages/en/desktop.js";
import type { ClipboardEvent, Copied, Desktop, Offer, Offered } from "../desktop.js";
import { OWN, copiedOf, Repeats } from "../forms.js";
import { ProgramWindows, type WindowPrograms } from "./program-windows.js";
import type { LineProgram } from "./program.js";

/** What stands on a clipboard: each form by its media type, and where it was copied, as far as the system says. */
export interface Snapshot {
  readonly forms: ReadonlyMap<string, Uint8Array>;
  readonly origin: Origin;
}

/** A clipboard that is reached by running programs of the system. */
export interface ClipboardPrograms {
  /** Whether something on it can be declared a secret. */
  readonly declaresSecrets: boolean;
  /** Whether a watch begins by telling of what stands there already. */
  readonly tellsStanding: boolean;
  /** What stands there, in the forms that Drawer knows; none when it is empty. */
  read(): Promise<Snapshot>;
  /** Starts what tells of each change: with what stands there then, or without. */
  watch(changed: (snapshot?: Snapshot) => void): LineProgram;
  offer(offered: Offered): Promise<void>;
  notify(text: string): Promise<void>;
  /** What is done with windows, on a system whose programs do that. */
  readonly windows?: WindowPrograms;
}

/**
 * The desktop of a system whose clipboard is reached by running programs. The system, or such a program, keeps what is
 * offered; nobody tells when it is pasted, or that another program has copied something since.
 */
export class ProgramDesktop implements Desktop {
  readonly keepsOffers = true;
  readonly tellsPastes = false;
  readonly #watches = new Set<LineProgram>();
  readonly #repeats = new Repeats();

  readonly declaresSecrets: boolean;
  readonly windows?: ProgramWindows;

  constructor(readonly programs: ClipboardPrograms) {
    this.declaresSecrets = programs.declaresSecrets;
    if (programs.windows) this.windows = new ProgramWindows(programs.windows);
  }

  async read(): Promise<Copied> {
    const { forms, origin } = await this.programs.read();
    if (forms.size === 0) throw new DrawerError(desktopErrors, "no-clipboard/empty", {});
    return copiedOf(forms, origin);
  }

  async watch(listener: (event: ClipboardEvent) => void): Promise<() => void> {
    let isEnded = false;
    const inTurn = pLimit(1);
    const tell = async (snapshot: Snapshot | undefined): Promise<void> => {
      try {
        const { forms, origin } = snapshot ?? (await this.programs.read());
        if (isEnded || forms.size === 0 || forms.has(OWN)) return;
        const copied = copiedOf(forms, origin);
        if (!this.#repeats.isRepeat(copied)) listener({ type: "copied", copied });
      } catch (error) {
        if (!(error instanceof DrawerError)) throw error;
        listener({ type: "unread", error });
      }
    };
    if (this.programs.tellsStanding) {
      const { forms, origin } = await this.programs.read();
      if (forms.size > 0) this.#repeats.isRepeat(copiedOf(forms, origin));
    }
    const lines = this.programs.watch((snapshot) => void inTurn(() => tell(snapshot)));
    this.#watches.add(lines);
    void lines.ended.then((error) => {
      if (isEnded) return;
      listener({ type: "unread", error });
      listener({ type: "ended" });
    });
    return () => {
      isEnded = true;
      this.#watches.delete(lines);
      lines.end();
    };
  }

  async offer(offered: Offered): Promise<Offer> {
    if (offered.size > 0 || (await this.programs.read()).forms.has(OWN)) await this.programs.offer(offered);
    return { ended: new Promise(() => undefined) };
  }

  notify(text: string): Promise<void> {
    return this.programs.notify(text);
  }

  close(): void {
    for (const lines of this.#watches) lines.end();
    this.windows?.close();
  }
}
