import { spawn, type ChildProcess } from "node:child_process";
import { DrawerError } from "../../content/error.js";
import { LIMITS } from "../../content/limits.js";
import { desktopErrors } from "../../messages/en/desktop.js";

/** A program that reaches a clipboard, and what to do when it is not there. */
export interface Program {
  readonly name: string;
  readonly hint: string;
}

/** How long a program may take, in milliseconds. */
const PATIENCE = 10_000;

/**
 * Runs a program, hands it something on standard input, and gives what it writes.
 *
 * @param isBeginning whether it is a program that goes on in the background, so that its output stays open
 * @throws DrawerError `no-clipboard` when it is not there, fails, or takes too long; `too-large`
 */
export async function runProgram(
  { name, hint }: Program,
  words: readonly string[],
  input: string | Uint8Array = "",
  isBeginning = false,
): Promise<Buffer> {
  const failed = (why: string) =>
    new DrawerError(desktopErrors, "no-clipboard/program", { program: name, why });
  let timer: NodeJS.Timeout | undefined;
  return new Promise<Buffer>((resolve, reject) => {
    const child = spawn(name, words, {
      stdio: ["pipe", isBeginning ? "ignore" : "pipe", isBeginning ? "ignore" : "pipe"],
      env: process.env,
      windowsHide: true,
    });
    timer = setTimeout(() => {
      child.kill();
      reject(failed("it said nothing for ten seconds"));
    }, PATIENCE);
    const chunks: Buffer[] = [];
    const said: Buffer[] = [];
    let length = 0;
    child.stdout?.on("data", (chunk: Buffer) => {
      chunks.push(chunk);
      length += chunk.length;
      // What is handed over as text is a third longer.
      if (length <= LIMITS.bytes * 1.5) return;
      child.kill();
      reject(new DrawerError(desktopErrors, "too-large/clipboard", { most: LIMITS.bytes }));
    });
    child.stderr?.on("data", (chunk: Buffer) => said.push(chunk));
    child.once("error", (error) => reject(notStarted({ name, hint }, error)));
    // A program that ends before it has read everything says why by its exit code.
    child.stdin!.on("error", () => undefined);
    child.once(isBeginning ? "exit" : "close", (code) => {
      const why = Buffer.concat(said).toString("utf8").trim().split("\n")[0];
      if (code === 0) resolve(Buffer.concat(chunks));
      else reject(failed(why || `it ended with ${code}`));
    });
    child.stdin!.end(input);
  }).finally(() => clearTimeout(timer));
}

/** A program that goes on, and says each thing in a line. */
export interface LineProgram {
  /** Settles when it has ended, with why. */
  readonly ended: Promise<DrawerError>;
  end(): void;
}

/** Starts a program that says each thing in a line. */
export function readLines(
  { name, hint }: Program,
  words: readonly string[],
  hear: (line: string) => void,
): LineProgram {
  const child: ChildProcess = spawn(name, words, {
    stdio: ["ignore", "pipe", "ignore"],
    env: process.env,
    windowsHide: true,
  });
  hearLines(child, hear);
  const end = () => void child.kill();
  process.once("exit", end);
  const ended = new Promise<DrawerError>((settle) => {
    const tell = (error: DrawerError) => {
      process.off("exit", end);
      settle(error);
    };
    child.once("error", (error) => tell(notStarted({ name, hint }, error)));
    child.once("close", (code) =>
      tell(
        new DrawerError(desktopErrors, "no-clipboard/program", {
          program: name,
          why: `it ended with ${code}`,
        }),
      ),
    );
  });
  return { ended, end };
}

/** A program that goes on, and answers each thing that it is asked. */
export interface Talk<Asked, Answer> {
  /**
   * Asks it something, in its turn.
   * @throws DrawerError `no-caret` when it fails, or does not answer; `no-clipboard` when it is not there
   */
  ask(asked: Asked): Promise<Answer>;
  end(): void;
}

/** Starts a program that is asked in lines of JSON, and answers each with one: `{answer}`, or `{error}` with a sentence. */
export function talkWith<Asked, Answer>(program: Program, words: readonly string[]): Talk<Asked, Answer> {
  const failed = (why: string) => new DrawerError(desktopErrors, "no-caret", { program: program.name, why });
  const child = spawn(program.name, words, {
    stdio: ["pipe", "pipe", "ignore"],
    env: process.env,
    windowsHide: true,
  });
  const waiting: { settle: (answer: Answer) => void; fail: (error: DrawerError) => void }[] = [];
  let gone: DrawerError | undefined;
  const lose = (error: DrawerError) => {
    gone = error;
    for (const { fail } of waiting.splice(0)) fail(error);
  };
  hearLines(child, (line) => {
    const { answer, error } = JSON.parse(line) as { answer: Answer; error?: string };
    const asked = waiting.shift();
    if (error === undefined) asked?.settle(answer);
    else asked?.fail(failed(error));
  });
  child.once("error", (error) => lose(notStarted(program, error)));
  child.once("close", (code) => lose(failed(`it ended with ${code}`)));
  // A program that has ended says so by its exit code.
  child.stdin.on("error", () => undefined);
  const end = () => void child.kill();
  process.once("exit", end);
  return {
    ask(asked) {
      if (gone) return Promise.reject(gone);
      const { promise, timer } = inTime<Answer>(
        (settle, fail) => {
          waiting.push({ settle, fail });
          child.stdin.write(`${JSON.stringify(asked)}\n`);
        },
        () => failed("it said nothing for ten seconds"),
      );
      return promise.finally(() => clearTimeout(timer));
    },
    end() {
      process.off("exit", end);
      end();
    },
  };
}

/** A promise that fails when it takes too long. */
function inTime<Answer>(
  begin: (settle: (answer: Answer) => void, fail: (error: DrawerError) => void) => void,
  late: () => DrawerError,
): { readonly promise: Promise<Answer>; readonly timer: NodeJS.Timeout } {
  let timer: NodeJS.Timeout;
  const promise = new Promise<Answer>((settle, fail) => {
    timer = setTimeout(() => fail(late()), PATIENCE);
    begin(settle, fail);
  });
  return { promise, timer: timer! };
}

/** Calls `hear` with each line that a program says, but for empty ones. */
function hearLines(child: ChildProcess, hear: (line: string) => void): void {
  let rest = "";
  child.stdout!.setEncoding("utf8").on("data", (text: string) => {
    const lines = (rest + text).split("\n");
    rest = lines.pop()!;
    for (const line of lines.map((each) => each.replace(/\r$/, ""))) if (line !== "") hear(line);
  });
}

/** Why a program was not started. */
function notStarted({ name, hint }: Program, error: NodeJS.ErrnoException): DrawerError {
  return error.code === "ENOENT"
    ? new DrawerError(desktopErrors, "no-clipboard/not-installed", { program: name, hint }, { cause: error })
    : new DrawerError(
        desktopErrors,
        "no-clipboard/program",
        { program: name, why: error.message },
        { cause: error },
      );
}
