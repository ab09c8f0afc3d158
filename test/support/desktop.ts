import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { jest } from "@jest/globals";

const isThere = (program: string) => spawnSync("which", [program]).status === 0;

// Programs that share a busy machine now and then lose a key or a paste that no test could have waited for. What fails is
// tried once more and printed; what fails twice has failed.
jest.retryTimes(1, { logErrorsBeforeRetry: true });

/** Tests that need programs. Where one of them is missing they are skipped, and it is said; in CI nothing is. */
function needing(what: string, programs: readonly string[]): typeof describe | typeof describe.skip {
  const missing = programs.filter((program) => !isThere(program));
  if (missing.length > 0)
    console.log(
      `Skipped: the tests of ${what}, because of what is not on this machine: ${missing.join(", ")}.`,
    );
  return missing.length === 0 || process.env["CI"] ? describe : describe.skip;
}

/** Tests on an X11 display. */
export const onDesktop = needing("a desktop", ["Xvfb", "xclip", "xsel"]);
/** Tests on an X11 display with windows, keys and notifications. */
const WINDOWS = ["Xvfb", "xclip", "openbox", "xdotool", "xterm", "dunst", "dbus-daemon", "soffice"];
export const withWindows = needing("windows and keys", WINDOWS);
/** The same, with a screen reader. */
export const withReader = needing("a screen reader", [...WINDOWS, "orca"]);
/** The same, with two browsers. */
export const withBrowsers = needing("windows and browsers", [...WINDOWS, "chromium", "firefox-esr"]);
/** Tests on a Wayland compositor. */
export const onWayland = needing("Wayland", ["sway", "wl-copy"]);

/** Settles when something holds; fails when it does not within a time, with what there was instead. */
export async function until<Value>(
  look: () => Value | Promise<Value>,
  holds: (value: Value) => boolean,
  within = 20_000,
): Promise<Value> {
  const end = performance.now() + within;
  for (;;) {
    const value = await look();
    if (holds(value)) return value;
    if (performance.now() > end)
      throw new Error(`It did not come to it. There was: ${JSON.stringify(value)}`);
    await pause(50);
  }
}

/** Waits so many milliseconds. */
export const pause = (milliseconds: number) => new Promise<void>((next) => setTimeout(next, milliseconds));

/**
 * A display for the tests of a group; `DISPLAY` names it while they run.
 * @param windows whether it has a window manager, and notifications
 */
export function display(windows: "windows" | "bare" = "bare"): { stop: () => void } {
  const running: ChildProcess[] = [];
  const begin = (program: string, words: readonly string[]) => {
    const child = spawn(program, words, {
      stdio: ["ignore", "ignore", "ignore", "pipe"],
      env: { ...process.env },
    });
    running.push(child);
    return child;
  };
  const saidOn3 = (child: ChildProcess) =>
    new Promise<string>((ready) => child.stdio[3]!.once("data", (said) => ready(String(said).trim())));
  beforeAll(async () => {
    // Xvfb finds a free display and says its number when it is ready.
    const screen = begin("Xvfb", ["-displayfd", "3", "-noreset", "-screen", "0", "1280x800x24"]);
    process.env["DISPLAY"] = `:${await saidOn3(screen)}`;
    if (windows === "bare") return;
    begin("openbox", []);
    const bus = begin("dbus-daemon", ["--session", "--nofork", "--print-address=3"]);
    process.env["DBUS_SESSION_BUS_ADDRESS"] = await saidOn3(bus);
    begin("dunst", []);
    await until(
      () => spawnSync("xdotool", ["get_num_desktops"], { env: { ...process.env } }).status,
      (status) => status === 0,
    );
  });
  const stop = () => {
    for (const child of running.splice(0).reverse()) child.kill("SIGKILL");
  };
  afterAll(() => {
    stop();
    delete process.env["DBUS_SESSION_BUS_ADDRESS"];
  });
  return { stop };
}

/** A Wayland compositor for the tests of a group; `WAYLAND_DISPLAY` names it, and there is no X11, while they run. */
export function compositor(): void {
  let sway: ChildProcess | undefined;
  let folder = "";
  const before = { ...process.env };
  beforeAll(async () => {
    folder = mkdtempSync(join(tmpdir(), "drawer-wayland-"));
    // It does not run as root.
    const isRoot = process.getuid?.() === 0;
    if (isRoot) spawnSync("chown", ["nobody", folder]);
    const user = isRoot ? ["setpriv", "--reuid=nobody", "--regid=nogroup", "--clear-groups"] : [];
    const [program, ...words] = [...user, "sway", "-c", "/dev/null"];
    const env: NodeJS.ProcessEnv = {
      ...process.env,
      ...{ HOME: folder, XDG_RUNTIME_DIR: folder, WLR_BACKENDS: "headless" },
      ...{ WLR_LIBINPUT_NO_DEVICES: "1", WLR_RENDERER: "pixman" },
    };
    delete env["DISPLAY"];
    sway = spawn(program!, words, { stdio: "ignore", env });
    delete process.env["DISPLAY"];
    process.env["XDG_RUNTIME_DIR"] = folder;
    process.env["WAYLAND_DISPLAY"] = "wayland-1";
    await until(
      () => spawnSync("wl-copy", ["--clear"], { env: { ...process.env }, stdio: "ignore" }).status,
      (status) => status === 0,
    );
  });
  afterAll(() => {
    sway?.kill();
    process.env = before;
    rmSync(folder, { recursive: true, force: true });
  });
}

/** Has `xclip` copy a file, or a text, as a target. */
export function copyWithXclip(target: string, of: { file: string } | { text: string | Uint8Array }): void {
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
  return spawnSync("xclip", words, { maxBuffer: 1 << 28, timeout: 20_000, env: { ...process.env } }).stdout;
}

/** The same while this process answers, as one that offers something itself must. */
export function takenMeanwhile(target: string): Promise<Buffer> {
  const words = ["-selection", "clipboard", "-o", "-t", target];
  const child = spawn("xclip", words, {
    stdio: ["ignore", "pipe", "ignore"],
    env: { ...process.env },
    // It waits for ever for a program that ends before it answers.
    timeout: 20_000,
  });
  const chunks: Buffer[] = [];
  child.stdout.on("data", (chunk: Buffer) => chunks.push(chunk));
  return new Promise((done) => child.once("close", () => done(Buffer.concat(chunks))));
}

/** Presses keys in the window in front, as a user does, with `xdotool`. */
export function press(...keys: string[]): void {
  for (const key of keys) {
    spawnSync("xdotool", ["key", "--clearmodifiers", key], { env: { ...process.env } });
    spawnSync("sleep", ["0.05"]);
  }
}

/** Brings the window to the front whose title holds some words; settles when it is there. */
export async function toFront(title: string): Promise<void> {
  const run = (...words: string[]) =>
    spawnSync("xdotool", words, { encoding: "utf8", env: { ...process.env } }).stdout.trim();
  const window = await until(
    () => run("search", "--onlyvisible", "--name", title).split("\n")[0]!,
    (found) => found !== "",
    60_000,
  );
  await until(
    () => {
      run("windowactivate", window);
      return run("getactivewindow");
    },
    (active) => active === window,
  );
  await pause(300);
}

/** The title of the window in front. */
export function windowInFront(): string {
  const words = ["getactivewindow", "getwindowname"];
  return spawnSync("xdotool", words, { encoding: "utf8", env: { ...process.env } }).stdout.trim();
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

/** What the programs in the background that Drawer has begun on this display are: `holder` and `dealer`. */
export function inBackground(): string[] {
  const { stdout } = spawnSync("ps", ["-eo", "pid=,args="], { encoding: "utf8" });
  const here = `DISPLAY=${process.env["DISPLAY"]}`;
  return stdout.split("\n").flatMap((line) => {
    const [, pid, name] = /^\s*(\d+) .*dist\/bin\/(holder|dealer)\.js/.exec(line) ?? [];
    if (pid === undefined) return [];
    const { stdout: environment } = spawnSync("cat", [`/proc/${pid}/environ`], { encoding: "utf8" });
    return environment.split("\0").includes(here) ? [name!] : [];
  });
}

/** What the desktop's notifications have shown. */
export function notified(): string {
  spawnSync("dunstctl", ["close-all"], { env: { ...process.env } });
  return spawnSync("dunstctl", ["history"], { encoding: "utf8", env: { ...process.env } }).stdout;
}
