import { SingleBar } from "cli-progress";

/** After how many milliseconds a work is long enough for people to want to see it go on. */
const LONG = 1000;

/** A bar that shows how far a work is. */
export interface Progress {
  readonly show: (done: number, of: number) => void;
  readonly end: () => void;
}

/** A bar on standard error, there once a work has taken over a second; only on a terminal. */
export function progressBar(doing: string, shown = "{value} of {total}"): Progress {
  const since = Date.now();
  let bar: SingleBar | undefined;
  return {
    show(done, of) {
      if (!process.stderr.isTTY || Date.now() - since < LONG) return;
      if (!bar) {
        bar = new SingleBar({
          format: `${doing} {bar} ${shown}`,
          stream: process.stderr,
          clearOnComplete: true,
          hideCursor: true,
        });
        bar.start(of, done);
      }
      bar.update(done);
    },
    end() {
      bar?.stop();
      bar = undefined;
    },
  };
}
