import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { resolve } from "node:path";

const hasDesktop = ["Xvfb", "xclip"].every((program) => spawnSync("which", [program]).status === 0);
if (!hasDesktop)
  console.log("Skipped: the tests of a desktop, because Xvfb or xclip is not on this machine.");

/** Tests that need a desktop. Where there is none they are skipped; in CI nothing is. */
export const onDesktop = hasDesktop || process.env["CI"] ? describe : describe.skip;

/** A display for the tests of a group; `DISPLAY` names it while they run. */
export function display(): { stop: () => void } {
  let screen: ChildProcess | undefined;
  beforeAll(async () => {
    // Xvfb finds a free display and says its number when it is ready.
    screen = spawn("Xvfb", ["-displayfd", "3", "-screen", "0", "1024x768x24"], {
      stdio: ["ignore", "ignore", "ignore", "pipe"],
    });
    const number = await new Promise<string>((ready) =>
      screen!.stdio[3]!.once("data", (said) => ready(String(said).trim())),
    );
    process.env["DISPLAY"] = `:${number}`;
  });
  const stop = () => void screen?.kill();
  afterAll(stop);
  return { stop };
}

/** Has `xclip` copy a file, or a text, as a target. */
export function copyWithXclip(target: string, of: { file: string } | { text: string }): void {
  const words = ["-selection", "clipboard", "-t", target, ...("file" in of ? [of.file] : [])];
  spawnSync("xclip", words, {
    stdio: ["pipe", "ignore", "ignore"],
    ...("text" in of && { input: of.text }),
    env: { ...process.env },
  });
}

/** What `xclip` takes from the clipboard as a target. */
export function takenByXclip(target: string): Buffer {
  const words = ["-selection", "clipboard", "-o", "-t", target];
  return spawnSync("xclip", words, { maxBuffer: 1 << 28, env: { ...process.env } }).stdout;
}

/** Starts a program that owns the clipboard as a test wants it; settles once it owns it. */
export async function otherProgram(...words: string[]): Promise<ChildProcess> {
  const child = spawn(process.execPath, [resolve("test/support/other-program.mjs"), ...words], {
    stdio: ["ignore", "pipe", "inherit"],
    env: { ...process.env },
  });
  await new Promise((ready) => child.stdout!.once("data", ready));
  return child;
}
