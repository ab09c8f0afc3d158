// Makes the pictures in docs/screenshots from the sample data: terminals in a real terminal window, pages in Chromium.
// Needs xvfb, xterm and imagemagick for the terminals, and openbox, xdotool and LibreOffice for the desktop. `node scripts/screenshots.mjs [name…]`
import { spawn, spawnSync } from "node:child_process";
import { copyFileSync, cpSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "playwright-core";
import { preview } from "vite";
import { CHROMIUM_FLAGS, findChromium, findHeadless } from "./chromium.mjs";

const folder = mkdtempSync(join(tmpdir(), "drawer-shots-"));
const picture = (name) => `docs/screenshots/${name}.png`;

/** What each terminal picture shows: a command, or several that are shown as they are typed. */
const terminals = {
  demo: "npm run -s demo",
  finding: [
    "type_ 'drawer collect demo/diary.docx --at p3 --at p4 --at t1'",
    "type_ 'drawer collect demo/letter.html'",
    "type_ 'echo Réti saw a wheatear by the gauge | drawer collect --label Sighting'",
    "type_ 'drawer list --find wheat'",
    "type_ 'drawer list --find reti'",
    "type_ 'drawer list --from diary.docx'",
    "type_ 'drawer place /wheatear/ !4 --as bullets'",
    "type_ 'drawer move 4 --into letters'",
    "type_ 'drawer drawers'",
    "type_ 'drawer export spring.jsonl --overwrite'",
    "type_ 'drawer import spring.jsonl --drawer copy'",
    "rm spring.jsonl",
  ],
  keeping: [
    "type_ 'drawer collect demo/diary.docx --at p3 --at p4 --at p5..p7 --at t1'",
    "type_ 'echo Password: heath-ride-7 | drawer collect'",
    "type_ 'drawer keep 1'",
    "type_ 'drawer rules'",
    "type_ 'drawer rules snippets=4'",
    "type_ 'drawer list'",
    "type_ 'drawer list --gone'",
    "type_ 'drawer undo'",
    "type_ 'drawer empty'",
    "type_ 'drawer log --limit 3'",
  ],
  recipes: [
    "type_ 'drawer collect demo/diary.docx --at p3 --at p4'",
    "type_ 'drawer collect demo/ringing.xlsx --at Spring!A1:E1 --at Spring!A3:E3 --at Spring!A5:E5'",
    "type_ 'drawer merge 3..5 --as rows'",
    "type_ 'drawer show 3'",
    "type_ 'drawer place 1 2 --as quotes --out markdown'",
    "type_ 'drawer place all --cite list --to /tmp/spring.docx --overwrite'",
    "type_ 'drawer split 3'",
    "type_ 'drawer deal 4..5'",
    "type_ 'drawer next'",
    "type_ 'drawer undo'",
  ],
};

/** Commands as a shell is told to show them: each as it is typed, and what it answers. */
const typed = (lines) =>
  [
    'drawer() { node dist/bin/main.js "$@"; }; type_() { printf \'\\033[1m$ %s\\033[0m\\n\' "$1"; eval "$1"; echo; }',
    ...lines,
  ].join("; ");

/** Runs a command in a terminal window of about 1280 by 800 and takes its picture when it is done. */
async function terminal(name, command) {
  const display = `:${90 + Math.floor(Math.random() * 9)}`;
  const screen = spawn("Xvfb", [display, "-screen", "0", "1280x800x24"], { stdio: "ignore" });
  await pause(1000);
  const env = { ...process.env, DISPLAY: display, DRAWER_HOME: join(folder, name), TERM: "xterm-256color" };
  const done = join(folder, `${name}.done`);
  const script = `${command}; touch ${done}; sleep 30`;
  const font = [
    "-fa",
    "DejaVu Sans Mono",
    "-fs",
    "10",
    "-geometry",
    "158x46+0+0",
    "-b",
    "10",
    "-bg",
    "#fcfdfa",
    "-fg",
    "#22302f",
  ];
  const window = spawn("xterm", [...font, "-e", "bash", "-c", script], { env, stdio: "ignore" });
  for (let waited = 0; waited < 60_000 && spawnSync("test", ["-e", done]).status !== 0; waited += 200)
    await pause(200);
  await pause(500);
  const { status, stderr } = spawnSync("import", ["-window", "root", picture(name)], { env });
  window.kill();
  screen.kill();
  if (status !== 0) throw new Error(`No picture of ${name}: ${stderr}`);
}

/** A desktop with Writer in it, for as long as something is done on it. */
class DesktopWithWriter {
  constructor(name) {
    this.name = name;
    const display = `:${90 + Math.floor(Math.random() * 9)}`;
    this.env = {
      ...process.env,
      ...{ DISPLAY: display, DRAWER_HOME: join(folder, name), TERM: "xterm-256color" },
    };
    const screen = ["-noreset", "-screen", "0", "1280x800x24"];
    this.running = [spawn("Xvfb", [display, ...screen], { stdio: "ignore" })];
  }

  begin(program, words) {
    this.running.push(spawn(program, words, { env: this.env, stdio: "ignore" }));
  }

  run(program, ...words) {
    return spawnSync(program, words, { env: this.env, encoding: "utf8" }).stdout?.trim();
  }

  /** Starts the windows' manager, by some rules, and Writer with the diary. */
  async open(rules = "") {
    await pause(1000);
    writeFileSync(
      join(folder, "rc.xml"),
      `<openbox_config xmlns="http://openbox.org/3.4/rc"><applications>${rules}</applications></openbox_config>`,
    );
    this.begin("openbox", ["--config-file", join(folder, "rc.xml")]);
    copyFileSync("demo/diary.odt", join(folder, "diary.odt"));
    const profile = `-env:UserInstallation=file://${folder}/profile-${this.name}`;
    this.begin("soffice", [profile, "--writer", "--norestore", "--nologo", join(folder, "diary.odt")]);
    this.writer = await this.window("diary");
    await pause(4000);
  }

  async window(title) {
    for (let tries = 0; tries < 300; tries++) {
      const found = this.run("xdotool", "search", "--onlyvisible", "--name", title);
      if (found) return found.split("\n")[0];
      await pause(200);
    }
    throw new Error(`No window “${title}”.`);
  }

  async keys(...pressed) {
    for (const key of pressed) {
      this.run("xdotool", "key", "--clearmodifiers", key);
      await pause(300);
    }
  }

  /** Takes the picture, and ends all of it. */
  async close() {
    const { env } = this;
    const { status, stderr } = spawnSync("import", ["-window", "root", picture(this.name)], { env });
    for (const child of this.running.reverse()) {
      const ended = new Promise((done) => child.once("exit", done));
      child.kill();
      await ended;
    }
    if (status !== 0) throw new Error(`No picture of the desktop: ${stderr}`);
  }
}

/** Writer, and a terminal that watches: two paragraphs are copied, and then placed as a list by a key. */
async function watching() {
  const desktop = new DesktopWithWriter("watch");
  desktop.run(
    process.execPath,
    "dist/bin/main.js",
    "keys",
    "Super+F9=place 1 2 --as bullets",
    "Super+F8=collect",
  );
  // Writer fills the screen; the terminal stays above it.
  await desktop.open('<application class="XTerm"><layer>above</layer></application>');
  const looks = ["-fa", "DejaVu Sans Mono", "-fs", "10", "-b", "10", "-bg", "#fcfdfa", "-fg", "#22302f"];
  const script = typed(["type_ 'drawer watch'"]);
  desktop.begin("xterm", [...looks, "-T", "drawer watch", "-geometry", "92x8", "-e", "bash", "-c", script]);
  desktop.run("xdotool", "windowmove", await desktop.window("drawer watch"), "250", "618");
  desktop.run("xdotool", "windowactivate", "--sync", desktop.writer);
  await pause(1000);
  await desktop.keys("ctrl+Home", "Down", "Down", "Home", "shift+End", "super+F8");
  await pause(1000);
  await desktop.keys("Down", "Home", "shift+End", "ctrl+c");
  await pause(1000);
  await desktop.keys("ctrl+End", "Return", "super+F9");
  // The first paste after it was started takes Writer some seconds.
  await pause(9000);
  await desktop.close();
}

/** Starts `drawer open`. Returns the process, and the address of its window. */
async function openWindow(env) {
  const opened = spawn(process.execPath, ["dist/bin/main.js", "open", "--no-browser", "--json"], { env });
  const answer = await new Promise((said) => opened.stdout.once("data", (text) => said(String(text))));
  return { opened, ...JSON.parse(answer) };
}

/** The window as a strip beside Writer: what is copied there stands in it, with rows of a sheet, and goes back as one list. */
async function beside() {
  const desktop = new DesktopWithWriter("window");
  const drawer = (...words) => desktop.run(process.execPath, "dist/bin/main.js", ...words);
  await desktop.open('<application class="Chromium*"><decor>no</decor><layer>above</layer></application>');
  const { opened, address } = await openWindow(desktop.env);
  const place = ["--window-size=440,800", "--window-position=840,0"];
  const profile = `--user-data-dir=${join(folder, "browser")}`;
  desktop.begin(findChromium(), [...CHROMIUM_FLAGS, "--test-type", profile, ...place, `--app=${address}`]);
  const strip = await desktop.window("^Drawer$");
  const wide = ["--remove", "MAXIMIZED_VERT", "--remove", "MAXIMIZED_HORZ"];
  desktop.run("xdotool", "windowstate", ...wide, desktop.writer);
  await pause(500);
  desktop.run("xdotool", "windowsize", desktop.writer, "836", "774");
  desktop.run("xdotool", "windowmove", desktop.writer, "0", "0");
  desktop.run("xdotool", "windowsize", strip, "440", "800");
  desktop.run("xdotool", "windowmove", strip, "840", "0");
  desktop.run("xdotool", "windowactivate", "--sync", desktop.writer);
  await pause(2000);
  await desktop.keys("ctrl+Home", "Down", "Down", "Home", "shift+Down", "shift+End", "ctrl+c");
  await pause(1500);
  await desktop.keys("Down", "Home", "shift+End", "ctrl+c");
  await pause(1500);
  drawer("collect", "demo/ringing.xlsx", "--at", "Spring!A1:E3");
  await pause(2500);
  await desktop.close();
  opened.kill();
}

/** The desk, with a few things collected and some of them placed, by day and by night. */
async function desk() {
  const server = await preview({ root: "examples", preview: { port: 0 }, logLevel: "silent" });
  const browser = await chromium.launch({ executablePath: findHeadless(), args: CHROMIUM_FLAGS });
  for (const colorScheme of ["light", "dark"]) {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme });
    const page = await context.newPage();
    await page.goto(`${server.resolvedUrls.local[0]}bulletin/`);
    await page.waitForSelector("#paper-0 p");
    const copy = async () => {
      await page.keyboard.press("Control+c");
      await page.waitForTimeout(250);
    };
    const select = (selector, nth) =>
      page
        .locator(selector)
        .nth(nth)
        .evaluate((element) => getSelection().selectAllChildren(element));
    await select("#paper-0 > p", 0);
    await copy();
    await page.click("#tab-2");
    await select("#paper-2 > ul", 0);
    await copy();
    await page.click("#tab-1");
    for (const row of [0, 2, 4]) {
      await page.locator("#paper-1 .handle button").nth(row).click();
      await copy();
    }
    await page.locator("snippet-drawer .list").evaluate((list) => (list.scrollTop = 0));
    await page.locator("snippet-drawer .snippet").nth(0).click();
    await page.waitForTimeout(300);
    await page.keyboard.press("Enter");
    for (const nth of [2, 3]) await page.locator("snippet-drawer .position").nth(nth).click();
    await page.locator("snippet-drawer .fold").click();
    await page.locator("snippet-drawer .sentence select").nth(1).selectOption("rows");
    await page.locator("snippet-drawer .sentence select").nth(4).selectOption("list");
    await page.waitForTimeout(400);
    await page.screenshot({ path: picture(colorScheme === "light" ? "bulletin" : "bulletin-night") });
    if (colorScheme === "light") {
      await page.locator("snippet-drawer input[type=search]").fill("wheat");
      await page.locator("snippet-drawer .list .row").first().hover();
      await page.waitForTimeout(400);
      await page.screenshot({ path: picture("bulletin-find") });
    }
    await context.close();
  }
  await browser.close();
  await server.close();
}

/** The form, as it is shown before it is filled; and all the places, with a table in a grid. */
async function forms() {
  const server = await preview({ root: "examples", preview: { port: 0 }, logLevel: "silent" });
  const browser = await chromium.launch({ executablePath: findHeadless(), args: CHROMIUM_FLAGS });
  const open = async (example) => {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${server.resolvedUrls.local[0]}${example}/`);
    await page.waitForFunction(() => document.querySelector("snippet-drawer")?.binding !== undefined);
    return page;
  };
  const record = await open("ringing");
  for (const selector of ["#notes li:nth-child(4)", "#notes table"]) {
    await record.evaluate((css) => getSelection().selectAllChildren(document.querySelector(css)), selector);
    await record.keyboard.press("Control+c");
    await record.waitForTimeout(300);
  }
  await record.click("#record [name=remarks]");
  await record.locator("snippet-drawer .position").nth(1).click();
  await record.locator("snippet-drawer .fold").click();
  await record.click("snippet-drawer >> text=Fill the form");
  await record.waitForTimeout(400);
  await record.screenshot({ path: picture("ringing") });
  const places = await open("anywhere");
  await places.waitForSelector("body[data-ready]");
  const html =
    "<table><tr><td>Wryneck</td><td>South</td><td>1</td></tr><tr><td>Wren</td><td>Middle</td><td>3</td></tr></table>";
  await places.evaluate(
    (given) => document.querySelector("snippet-drawer").binding.collect({ html: given }),
    html,
  );
  await places.locator("#handsontable").scrollIntoViewIfNeeded();
  await places.waitForTimeout(500);
  await places.locator("#aggrid [row-index='3'] .ag-cell").first().click();
  await places.waitForTimeout(300);
  await places.locator("#aggrid").evaluate((grid) => grid.scrollIntoView({ block: "center" }));
  await places.screenshot({ path: picture("anywhere") });
  await browser.close();
  await server.close();
}

/** The window with a document and a sheet that are looked into, and with a PDF. */
async function lookedInto() {
  const display = `:${90 + Math.floor(Math.random() * 9)}`;
  const screen = spawn("Xvfb", [display, "-noreset"], { stdio: "ignore" });
  await pause(1000);
  // In a folder of the user's own, whose name is seen.
  const bulletin = join("/tmp", "bulletin");
  cpSync("demo", bulletin, { recursive: true });
  const env = { ...process.env, DRAWER_HOME: join(folder, "looked"), HOME: bulletin, DISPLAY: display };
  const { opened, address } = await openWindow(env);
  const browser = await chromium.launch({ executablePath: findHeadless(), args: CHROMIUM_FLAGS });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(address);
  await page.locator("snippet-drawer :is(.list .row, .none)").first().waitFor();
  const drawer = (...words) => spawnSync(process.execPath, ["dist/bin/main.js", ...words], { env });
  drawer("collect", join(bulletin, "letter.html"), "--at", "p3");
  drawer("collect", join(bulletin, "sketches/tide.png"));
  await page
    .locator("snippet-drawer input[type=file]")
    .setInputFiles([join(bulletin, "ringing.xlsx"), join(bulletin, "diary.docx")]);
  const cell = (row, column) =>
    page.locator(`snippet-drawer drawer-cell-grid td[data-row="${row}"][data-column="${column}"]`);
  await cell(2, 0).waitFor();
  await cell(2, 0).click();
  await page.keyboard.press("Shift+ArrowRight");
  for (const key of ["Shift+ArrowRight", "Shift+ArrowDown", "Enter", "ArrowDown", "ArrowDown", "Home"])
    await page.keyboard.press(key);
  for (const key of ["Shift+ArrowRight", "Shift+ArrowRight", "Shift+ArrowDown"])
    await page.keyboard.press(key);
  await page.locator("snippet-drawer .panel").evaluate((panel) => (panel.scrollTop = 0));
  await page.waitForTimeout(300);
  await page.screenshot({ path: picture("window-file") });
  await page.locator("snippet-drawer .parts").getByRole("button", { name: "Leave it" }).click();
  await page.locator("snippet-drawer input[type=file]").setInputFiles([join(bulletin, "diary.pdf")]);
  for (const words of ["Net round 1 began", "Species | New"])
    await page.locator("snippet-drawer .parts li").filter({ hasText: words }).locator("input").check();
  await page.mouse.move(0, 0);
  await page.waitForTimeout(300);
  await page.screenshot({ path: picture("window-pdf") });
  await browser.close();
  rmSync(bulletin, { recursive: true, force: true });
  opened.kill();
  screen.kill();
}

/** One person's three devices, in step through a hub: the windows of two computers, and a telephone. */
async function devices() {
  const homes = ["desk", "laptop"].map((name) => ({ ...process.env, DRAWER_HOME: join(folder, name) }));
  const drawer = (env, input, ...words) =>
    spawnSync(process.execPath, ["dist/bin/main.js", ...words], { env, input, encoding: "utf8" }).stdout;
  const served = ["hub", "--json", "--quiet", "--port", "0", "--data", join(folder, "hub")];
  const hub = spawn(process.execPath, ["dist/bin/main.js", ...served]);
  const { address } = JSON.parse(
    String(await new Promise((said) => hub.stdout.once("data", (text) => said(text)))),
  );
  const [desk, laptop] = homes;
  drawer(desk, "", "collect", "demo/diary.docx", "--at", "p3", "--at", "p5..p7", "--at", "t1");
  drawer(desk, "", "collect", "demo/ringing.xlsx", "--at", "Spring!A1:D4");
  drawer(desk, "", "collect", "demo/sketches/tide.png");
  const first = ["--hub", address, "--name", "Desk"];
  const invite = (...words) => JSON.parse(drawer(desk, "", "devices", "invite", "--json", ...words));
  drawer(laptop, invite(...first).invitation, "devices", "join", "--name", "Laptop");
  drawer(laptop, "Ring AB12345 was read again at the hide, 9 April", "collect");
  const browser = await chromium.launch({ executablePath: findHeadless(), args: CHROMIUM_FLAGS });
  const opened = [];
  const pages = [];
  for (const env of homes) {
    const window = await openWindow(env);
    opened.push(window.opened);
    const page = await browser.newPage({ viewport: { width: 450, height: 760 } });
    await page.goto(window.address);
    pages.push(page);
  }
  const size = { width: 340, height: 760 };
  const phone = await browser.newPage({ viewport: size, hasTouch: true, isMobile: true });
  await phone.goto(invite().link);
  await phone.getByRole("button", { name: "Join" }).tap();
  await phone.locator("snippet-drawer .row").first().waitFor();
  await phone.getByLabel("Write or paste here").fill("Boat shed: the key hangs at 4 Tern Lane");
  await phone.getByRole("button", { name: "Collect" }).tap();
  for (const page of [...pages, phone])
    await page.locator("snippet-drawer .row", { hasText: "Boat shed" }).waitFor();
  await pause(3000);
  const seen = await Promise.all(
    [...pages, phone].map(async (page) => (await page.screenshot()).toString("base64")),
  );
  const sheet = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await sheet.setContent(
    `<style>body { margin: 0; display: flex; gap: 10px; padding: 20px 10px; background: #8a9a97 }</style>` +
      seen.map((data) => `<img src="data:image/png;base64,${data}">`).join(""),
  );
  await sheet.screenshot({ path: picture("devices") });
  await browser.close();
  for (const each of [...opened, hub]) each.kill();
}

function pause(ms) {
  return new Promise((done) => setTimeout(done, ms));
}

const wanted = process.argv.slice(2);
const isWanted = (name) => wanted.length === 0 || wanted.includes(name);
for (const [name, command] of Object.entries(terminals))
  if (isWanted(name)) await terminal(name, typeof command === "string" ? command : typed(command));
if (isWanted("watch")) await watching();
if (isWanted("window")) await beside();
if (isWanted("window-file")) await lookedInto();
if (isWanted("devices")) await devices();
if (isWanted("bulletin")) await desk();
if (isWanted("ringing") || isWanted("anywhere")) await forms();
// A browser takes a moment to let go of its folder.
rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 200 });
process.exit(0);
