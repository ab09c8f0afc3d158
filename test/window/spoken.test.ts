import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { mkdirSync, readFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { chromium, type Browser } from "playwright-core";
import { CHROMIUM_FLAGS, findChromium } from "../../scripts/chromium.mjs";
import { commandHome } from "../support/command";
import { copyWithXclip, display, pause, press, toFront, until, withReader } from "../support/desktop";
import { OpenedWindow, type WindowPage } from "../support/window";

const FIND = /^Find in the drawer/;

/** What Debian's screen reader says, read from its log, while the window is worked with by the keyboard of the display alone. */
withReader("what a screen reader says of the window", () => {
  display("windows");
  const { drawer, folder, home } = commandHome();
  const log = join(folder, "spoken.log");
  let reader: ChildProcess[] = [];
  let browser: Browser;
  let opened: OpenedWindow;
  let window: WindowPage;

  const said = () =>
    [...readFileSync(log, "utf8").matchAll(/SPEECH OUTPUT: '(.*?)'\{?/g)].map(([, sentence]) => sentence!);
  /** Presses a key, and waits until something like this is said. */
  const hears = async (does: () => void, sentence: RegExp) => {
    const before = said().length;
    does();
    await until(
      () => said().slice(before),
      (now) => now.some((one) => sentence.test(one)),
    );
  };

  beforeAll(async () => {
    for (const text of ["First wheatear on the seawall", "Wind NW 4, falling", "Two Sandwich terns"])
      await drawer(["collect"], text);
    // The reader keeps its settings, and the bus its socket, in folders of their own.
    const run = join(folder, "run");
    mkdirSync(run, { mode: 0o700 });
    const env = {
      ...process.env,
      HOME: folder,
      XDG_RUNTIME_DIR: run,
      GSETTINGS_BACKEND: "memory",
      PYTHONPATH: resolve("test/support/reader"),
    };
    const begin = (program: string, ...words: string[]) => spawn(program, words, { env, stdio: "ignore" });
    reader = [begin("/usr/libexec/at-spi-bus-launcher", "--launch-immediately", "--a11y=1")];
    reader.push(begin("orca", "--replace", `--debug-file=${log}`));
    await until(
      () => readFileSync(log, { flag: "a+", encoding: "utf8" }),
      (text) => text.includes("Screen reader on."),
    );
    browser = await chromium.launch({
      executablePath: findChromium()!,
      headless: false,
      args: [...CHROMIUM_FLAGS, "--force-renderer-accessibility", "--window-size=900,740"],
      env: { ...env, ACCESSIBILITY_ENABLED: "1" } as Record<string, string>,
    });
    opened = await OpenedWindow.open(home());
    window = await opened.page(browser, { viewport: null });
    await toFront("Drawer ·");
    // The keyboard is the page's, not the address bar's. What has the focus before the reader knows the page is never said.
    const find = window.in(".ways input[type=search]");
    await until(
      async () => {
        spawnSync("xdotool", ["mousemove", "300", "600", "click", "1"], { env: { ...process.env } });
        await find.focus();
        await pause(1000);
        return said();
      },
      (now) => now.some((one) => FIND.test(one)),
      60_000,
    );
  }, 120_000);
  afterAll(async () => {
    await browser.close();
    await opened.end();
    for (const child of reader) child.kill("SIGKILL");
  });

  test("the list is a grid whose keys are the list's; collecting, picking, showing, placing, discarding and undoing are said", async () => {
    await hears(() => press("Tab"), /^More/);
    await hears(() => press("Tab"), /^3, Two Sandwich terns/);
    await hears(() => press("Up"), /^2, Wind NW 4, falling/);
    await hears(() => press("p"), /^Picked snippet 2 as number 1\.$/);
    await hears(() => press("Up"), /^1, First wheatear/);
    await hears(() => press("p"), /^Picked snippet 1 as number 2\.$/);
    await hears(() => press("p"), /^Snippet 1 is not picked any more\.$/);
    await hears(() => press("s"), /^Snippet 1: First wheatear on the seawall$/);
    press("Escape");
    await window.in(".snippet:focus").waitFor();
    await hears(() => press("Return"), /^Copied snippet 1 to the clipboard\.$/);
    await hears(
      () => copyWithXclip("UTF8_STRING", { text: "Order forty poles" }),
      /^Collected as 4: “Order forty poles”/,
    );
    await hears(() => press("Delete"), /^Discarded 1, “First wheatear on the seawall”/);
    await hears(() => press("ctrl+z"), /^Undone: discarding “First wheatear on the seawall”\.$/);
  });
});
