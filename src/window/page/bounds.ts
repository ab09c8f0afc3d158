import { VALUES, readValue } from "../../drawer/model/values.js";
import { Conflict, type Store } from "../../drawer/store.js";

/** Where a window stands and how large it is, in pixels of the screen. */
interface Bounds {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** How often it is looked whether the user has moved the window, in milliseconds: a browser tells of no move. */
const LOOKING = 1000;

/** The bounds of this window now. */
function boundsNow(): Bounds {
  return { left: screenX, top: screenY, width: outerWidth, height: outerHeight };
}

/** Whether this is a window of its own, which may be moved; a tab of a browser is not. */
function isOwnWindow(): boolean {
  return !matchMedia("(display-mode: browser)").matches;
}

/** Puts the window where the user had it last, as far as that is on the screen, and keeps where they put it. */
export async function keepBounds(store: Store, failed: (error: unknown) => void): Promise<void> {
  if (!isOwnWindow()) return;
  const kept = readValue<Bounds>(await store.value("", VALUES.bounds), isBounds);
  if (kept) {
    const { availWidth, availHeight } = screen;
    const [width, height] = [Math.min(kept.width, availWidth), Math.min(kept.height, availHeight)];
    resizeTo(width, height);
    const { availLeft = 0, availTop = 0 } = screen as Screen & { availLeft?: number; availTop?: number };
    moveTo(
      within(kept.left, availLeft, availLeft + availWidth - width),
      within(kept.top, availTop, availTop + availHeight - height),
    );
  }
  let last = JSON.stringify(boundsNow());
  setInterval(() => {
    const now = JSON.stringify(boundsNow());
    if (now === last) return;
    last = now;
    write(store, now).catch(failed);
  }, LOOKING);
}

function within(value: number, least: number, most: number): number {
  return Math.max(least, Math.min(value, most));
}

function isBounds(value: unknown): boolean {
  const { left, top, width, height } = value as Bounds;
  return [left, top, width, height].every(Number.isFinite);
}

async function write(store: Store, bounds: string): Promise<void> {
  try {
    await store.setValue("", VALUES.bounds, await store.value("", VALUES.bounds), bounds);
  } catch (error) {
    // Another window has kept its own between; this one is kept when it is moved again.
    if (!(error instanceof Conflict)) throw error;
  }
}
