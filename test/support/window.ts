import { spawn, type ChildProcess } from "node:child_process";
import { resolve } from "node:path";
import type { Browser, BrowserContextOptions, Locator, Page } from "playwright-core";
import { until } from "./desktop";

const main = resolve("dist/bin/main.js");

/** What `drawer open` is as a process: where it serves the window, and what it has said. */
export class OpenedWindow {
  said = "";

  private constructor(
    readonly process: ChildProcess,
    readonly address: string,
  ) {}

  /** Starts `drawer open` in a home. */
  static async open(home: string, ...words: string[]): Promise<OpenedWindow> {
    const child = spawn(process.execPath, [main, "open", "--no-browser", "--json", ...words], {
      // The user's own menus are left alone.
      env: { ...process.env, DRAWER_HOME: home, XDG_DATA_HOME: home, XDG_CONFIG_HOME: home },
    });
    let out = "";
    let err = "";
    child.stdout.setEncoding("utf8").on("data", (text: string) => (out += text));
    child.stderr.setEncoding("utf8").on("data", (text: string) => (err += text));
    await until(
      () => out + err,
      () => out.includes("\n") || child.exitCode !== null,
    );
    if (!out.includes("\n")) throw new Error(`drawer open ended with ${child.exitCode}: ${err}`);
    const window = new OpenedWindow(child, (JSON.parse(out) as { address: string }).address);
    child.stderr.on("data", (text: string) => (window.said += text));
    window.said = err;
    return window;
  }

  get origin(): string {
    return new URL(this.address).origin;
  }

  /** Its page in a browser. */
  async page(browser: Browser, options: BrowserContextOptions = {}): Promise<WindowPage> {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, ...options });
    const page = await context.newPage();
    const own = new WindowPage(page);
    await page.goto(this.address);
    await page.locator("snippet-drawer :is(.list .row, .none)").first().waitFor();
    return own;
  }

  /** Ends it as the user does on a terminal, and settles when it has ended, with its exit code. */
  async end(signal: NodeJS.Signals = "SIGINT"): Promise<number | null> {
    if (this.process.exitCode !== null || this.process.signalCode !== null) return this.process.exitCode;
    let hasEnded = false;
    this.process.once("exit", () => (hasEnded = true));
    this.process.kill(signal);
    // What it has said tells more than that it has not ended.
    await until(
      () => (hasEnded ? "ended" : `It was told to end, and has said: ${this.said}`),
      (state) => state === "ended",
      60_000,
    );
    return this.process.exitCode;
  }
}

/** A page of the window. */
export class WindowPage {
  /** What the browser has complained of. */
  readonly complaints: string[] = [];

  constructor(readonly page: Page) {
    page.on("pageerror", (error) => void this.complaints.push(String(error)));
    page.on("console", (message) => {
      if (message.type() === "error") this.complaints.push(message.text());
    });
  }

  in(selector: string): Locator {
    return this.page.locator(`snippet-drawer ${selector}`);
  }

  button(name: string): Locator {
    return this.in("").getByRole("button", { name, exact: true });
  }

  /** Says what becomes of what is copied. */
  async collects(state: "on" | "latest" | "off"): Promise<void> {
    await this.in(".state select").selectOption(state);
  }

  /** Opens what is behind “more”. */
  async openPanel(name: string): Promise<void> {
    await this.in(".more").click();
    await this.button(name).click();
    await this.in(".aside").waitFor();
  }

  /** Waits until the rows say this. */
  async shows(...rows: string[]): Promise<void> {
    await until(
      () => this.in(".snippet .says").allInnerTexts(),
      (said) => said.join("\n") === rows.join("\n"),
    );
  }

  /** Waits until what was said last is like this. */
  async told(said: RegExp): Promise<void> {
    await until(
      () => this.in(".notice > span").first().innerText(),
      (text) => said.test(text),
    );
  }

  /** Waits until there are so many snippets. */
  async holds(count: number): Promise<void> {
    await until(
      () => this.page.evaluate(async () => document.querySelector("snippet-drawer")!.binding!.drawer.count()),
      (now) => now === count,
    );
  }
}
