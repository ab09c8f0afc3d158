import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { chromium, type Browser, type Page } from "playwright-core";
import { findChromium } from "../../scripts/chromium.mjs";
import { commandHome } from "../support/command";
import {
  copyWithXclip,
  display,
  notified,
  otherProgram,
  pause,
  press,
  takenByXclip,
  toFront,
  until,
  withWindows,
} from "../support/desktop";

withWindows("keys in every program", () => {
  display("windows");
  const { drawer, all, snippets, folder, home } = commandHome();
  const running: ChildProcess[] = [];
  let browser: Browser;
  let page: Page;
  let said = "";
  const told = (what: RegExp) =>
    until(
      () => said,
      (text) => what.test(text),
    );
  const begin = () => void (said = "");
  const watch = (...words: string[]) => {
    const child = spawn(process.execPath, [resolve("dist/bin/main.js"), "watch", ...words], {
      env: { ...process.env, DRAWER_HOME: home() },
    });
    for (const stream of [child.stdout, child.stderr])
      stream.setEncoding("utf8").on("data", (text: string) => (said += text));
    running.push(child);
    return child;
  };

  beforeAll(async () => {
    browser = await chromium.launch({
      executablePath: findChromium()!,
      headless: false,
      args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--no-first-run"],
      env: { ...process.env } as Record<string, string>,
    });
    page = await browser.newPage();
    await page.setContent(
      "<title>Tides</title><p id=p>High water <b>11:48</b> at the spit.</p><div id=d contenteditable><br></div><textarea id=t></textarea>",
    );
    // The keyboard is the page's, not the address bar's.
    await toFront("Tides");
    spawnSync("xdotool", ["mousemove", "600", "600", "click", "1"], { env: { ...process.env } });
    for (const key of ["Super+F9=place last", "Super+F8=collect", "Super+F6=append", "Super+F7=send"])
      expect((await drawer(["keys", key])).code).toBe(0);
    watch("--notify");
    await told(/Keys that work in every program: Super\+F9, Super\+F8, Super\+F6, Super\+F7\./);
  }, 60_000);
  afterAll(async () => {
    for (const child of running) child.kill();
    await browser.close();
  });

  test("what is selected in a browser is collected with its look and its page, and placed in another field", async () => {
    running.push(await otherProgram("offer", "text/html=<b>kept</b> as it is", "UTF8_STRING=kept as it is"));
    await told(/kept as it is/);
    begin();
    await page.evaluate(() => getSelection()!.selectAllChildren(document.querySelector("#p")!));
    await toFront("Tides");
    press("super+F8");
    await told(/Collected as 2: “High water 11:48 at the spit.”/);
    await until(
      () => takenByXclip("text/html").toString(),
      (html) => html === "<b>kept</b> as it is",
    );
    expect(takenByXclip("UTF8_STRING").toString()).toBe("kept as it is");
    expect(said).not.toContain("Collected as 3");
    expect(await all("place 2 --out markdown")).toBe("High water **11:48** at the spit.\n");
    copyWithXclip("UTF8_STRING", { text: "on the clipboard" });
    await told(/on the clipboard/);
    await all("move 2 --to-end");
    begin();
    await page.focus("#d");
    press("super+F9");
    await told(/Pasted one snippet into “Tides/);
    expect(await page.locator("#d").innerHTML()).toContain("<strong>11:48</strong>");
    await page.focus("#t");
    begin();
    press("super+F9");
    await told(/Pasted one/);
    expect(await page.locator("#t").inputValue()).toBe("High water 11:48 at the spit.");
    await until(
      () => takenByXclip("UTF8_STRING").toString(),
      (text) => text === "on the clipboard",
    );
    // What was put back is no new copy.
    expect(said).not.toContain("Collected");
  });

  test("appending by a key, and notifications of what was done", async () => {
    begin();
    await page.evaluate(() => getSelection()!.selectAllChildren(document.querySelector("b")!));
    await toFront("Tides");
    press("super+F6");
    await told(/Appended to 3: “11:48”/);
    await until(notified, (shown) => shown.includes("Appended to 3"));
    await all("undo");
  });

  test("nothing selected, nowhere to send to, and a window that is gone are said", async () => {
    begin();
    await page.evaluate(() => getSelection()!.removeAllRanges());
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await toFront("Tides");
    press("super+F8");
    await told(/Nothing is selected in the window “Tides/);
    writeFileSync(
      join(home(), "window.json"),
      JSON.stringify({ display: process.env["DISPLAY"], id: 1, app: "gone", title: "Letters" }),
    );
    await page.evaluate(() => getSelection()!.selectAllChildren(document.querySelector("#p")!));
    begin();
    press("super+F7");
    await told(/The window “Letters” is gone/);
  });

  test("what was on the clipboard and cannot be put back is told", async () => {
    const silent = await otherProgram("hang");
    await told(/did not give what it offers/);
    begin();
    await page.evaluate(() => getSelection()!.selectAllChildren(document.querySelector("#p")!));
    await toFront("Tides");
    press("super+F8");
    await told(/What was on the clipboard before could not be put back whole/);
    silent.kill();
  });

  test("a rule names programs and windows from which nothing is collected, which is told once", async () => {
    await all("rules never-from=Vault,tides");
    const before = (await snippets()).length;
    await page.evaluate(() => getSelection()!.selectAllChildren(document.querySelector("#p")!));
    await toFront("Tides");
    begin();
    press("super+F8");
    await told(/Nothing is collected from “tides”/);
    begin();
    press("ctrl+c");
    press("super+F8");
    await pause(1500);
    expect([said, (await snippets()).length]).toEqual(["", before]);
    await all("rules never-from=none");
  });

  test("a terminal gets text by its own key, and what is selected there is collected from the mouse", async () => {
    const file = join(folder, "typed");
    writeFileSync(file, "");
    running.push(
      spawn("xterm", ["-T", "Terminal of the spit", "-e", `cat > ${file}`], { env: { ...process.env } }),
    );
    await toFront("Terminal of the spit");
    begin();
    press("super+F9");
    await told(/Pasted one snippet into “Terminal of the spit”/);
    press("Return", "ctrl+d");
    await until(
      () => readFileSync(file, "utf8"),
      (text) => text === "High water 11:48 at the spit.\n",
    );
  });

  test("other keys work at once, and a key that another program has taken is named", async () => {
    // A key that is held is pressed once.
    begin();
    spawnSync("xdotool", ["keydown", "super", "keydown", "F8"], { env: { ...process.env } });
    await pause(900);
    spawnSync("xdotool", ["keyup", "F8", "keyup", "super"], { env: { ...process.env } });
    await told(/Not collected again/);
    await pause(1500);
    expect(said.match(/Not collected again/g)).toHaveLength(1);
    begin();
    await drawer(["keys", "Super+F8=", "Super+F11=undo"]);
    await told(/Keys that work in every program: Super\+F9, Super\+F6, Super\+F7, Super\+F11\./);
    const log = () => all("log");
    const before = await log();
    begin();
    press("super+F11");
    await told(/Undone/);
    expect(await log()).not.toBe(before);
    begin();
    watch("--drawer", "second");
    await told(/Another program, or the desktop, has taken “Super\+F9” for itself/);
  });

  test("keys are kept, listed and refused in sentences", async () => {
    expect(JSON.parse(await all("keys --json")).keys).toContainEqual({
      key: "Super+F9",
      command: "place last",
    });
    writeFileSync(join(home(), "keys.json"), "{ my keys");
    expect(await drawer(["keys"])).toMatchObject({
      code: 1,
      err: expect.stringContaining("does not hold keys"),
    });
    writeFileSync(join(home(), "keys.json"), "{}");
    const refused = async (key: string) => (await drawer(["keys", key])).err;
    expect(await refused("a=undo")).toMatch(/People type with “a”/);
    expect(await refused("Hyper+F1=undo")).toMatch(/“Hyper\+F1” is no key/);
    expect(await refused("Super+F1=dance")).toMatch(/“dance” is nothing that a key does.*place PICK/);
    expect(await refused("Super+F1=place 1 --as heap")).toMatch(/heap/);
    expect(await refused("Super+F1")).toMatch(/sets no key/);
    expect(await all("keys")).not.toContain("Super+F1:");
  });
});
