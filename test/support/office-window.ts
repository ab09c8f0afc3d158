import { spawn, type ChildProcess } from "node:child_process";
import { createInterface } from "node:readline";
import { PYTHON } from "../../scripts/office.mjs";
import { press, toFront, until, windowInFront } from "./desktop";

/** A paragraph or a table of Writer's document. */
export interface Part {
  readonly text?: string;
  /** Whether it stands in a list. */
  readonly list?: boolean;
  readonly bold?: boolean;
  readonly table?: readonly (readonly string[])[];
}

/** A cell of Calc: what it shows, what it holds and of which kind, and the bits of its number format's type. */
export interface Cell {
  readonly shown: string;
  readonly kind: "empty" | "text" | "value" | "formula";
  readonly value: number;
  readonly format: number;
}

/** Bits of com.sun.star.util.NumberFormat. */
export const FORMAT = { date: 2, percent: 128 };

/** LibreOffice in windows on the display of the tests, told what to do over its own Python bridge. */
export class OfficeWindows {
  readonly #answers: ((answer: unknown) => void)[] = [];
  readonly #failed: Promise<never>;

  private constructor(readonly process: ChildProcess) {
    this.#failed = new Promise((_, fail) =>
      process.once("close", (code) => fail(new Error(`LibreOffice's window ended with ${code}.`))),
    );
    this.#failed.catch(() => undefined);
    createInterface({ input: process.stdout! }).on("line", (line) =>
      this.#answers.shift()?.(JSON.parse(line)),
    );
  }

  /** Starts it; its profile stands in a folder. */
  static async open(folder: string): Promise<OfficeWindows> {
    const office = new OfficeWindows(
      spawn(PYTHON, ["test/support/office-window.py", folder], {
        stdio: ["pipe", "pipe", "inherit"],
        env: { ...process.env },
      }),
    );
    await Promise.race([new Promise((ready) => office.#answers.push(ready)), office.#failed]);
    return office;
  }

  /** Has it do something: a function of `office-window.py` by its name, and what it needs. */
  async do<Answer = void>(name: string, ...words: readonly unknown[]): Promise<Answer> {
    const answer = new Promise((done) => this.#answers.push(done));
    this.process.stdin!.write(`${JSON.stringify([name, ...words])}\n`);
    return (await Promise.race([answer, this.#failed])) as Answer;
  }

  /** Pastes at a cell of Calc as a user does; fails when Calc asks something, or nothing comes of it. */
  async pasteInCalc(cell: string): Promise<void> {
    const shown = () => this.do<Cell[][]>("read_cells", cell);
    const before = JSON.stringify(await shown());
    await this.do("select_cells", cell);
    await toFront("Calc");
    press("ctrl+v");
    await until(
      async () => ({ cells: JSON.stringify(await shown()), window: windowInFront() }),
      ({ cells, window }) => {
        if (!window.includes("Calc")) throw new Error(`Calc asks something: “${window}”.`);
        return cells !== before;
      },
    );
  }

  close(): void {
    this.process.stdin!.end();
    this.process.kill();
  }
}
