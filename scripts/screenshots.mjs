// Makes the pictures in docs/screenshots from the sample data: terminals in a real terminal window, pages in Chromium.
// Needs xvfb, xterm and imagemagick for the terminals, and openbox, xdotool and LibreOffice for the desktop. `node scripts/screenshots.mjs [name…]`
import { spawn, spawnSync } from "node:child_process";
import { copyFileSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "playwright-core";
import { preview } from "vite";
import { CHROMIUM_FLAGS, findChromium } from "./chromium.mjs";

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

/** A desktop with Writer, and a terminal that watches: two paragraphs are copied, and then placed as a list by a key. */
async function watching() {
  const display = `:${90 + Math.floor(Math.random() * 9)}`;
  const screen = spawn("Xvfb", [display, "-noreset", "-screen", "0", "1280x800x24"], { stdio: "ignore" });
  await pause(1000);
  const env = {
    ...process.env,
    DISPLAY: display,
    DRAWER_HOME: join(folder, "watch"),
    TERM: "xterm-256color",
  };
  const begin = (program, words) => spawn(program, words, { env, stdio: "ignore" });
  const run = (program, ...words) => spawnSync(program, words, { env, encoding: "utf8" }).stdout?.trim();
  // Writer fills the screen; the terminal stays above it.
  const rules = '<application class="XTerm"><layer>above</layer></application>';
  writeFileSync(
    join(folder, "rc.xml"),
    `<openbox_config xmlns="http://openbox.org/3.4/rc"><applications>${rules}</applications></openbox_config>`,
  );
  const running = [screen, begin("openbox", ["--config-file", join(folder, "rc.xml")])];
  run(process.execPath, "dist/bin/main.js", "keys", "Super+F9=place 1 2 --as bullets", "Super+F8=collect");
  copyFileSync("demo/diary.odt", join(folder, "diary.odt"));
  const profile = `-env:UserInstallation=file://${folder}/profile`;
  running.push(begin("soffice", [profile, "--writer", "--norestore", "--nologo", join(folder, "diary.odt")]));
  const looks = ["-fa", "DejaVu Sans Mono", "-fs", "10", "-b", "10", "-bg", "#fcfdfa", "-fg", "#22302f"];
  const script = typed(["type_ 'drawer watch'"]);
  running.push(
    begin("xterm", [...looks, "-T", "drawer watch", "-geometry", "92x8", "-e", "bash", "-c", script]),
  );
  const window = async (title) => {
    for (let tries = 0; tries < 300; tries++) {
      const found = run("xdotool", "search", "--onlyvisible", "--name", title);
      if (found) return found.split("\n")[0];
      await pause(200);
    }
    throw new Error(`No window “${title}”.`);
  };
  const keys = async (...pressed) => {
    for (const key of pressed) {
      run("xdotool", "key", "--clearmodifiers", key);
      await pause(300);
    }
  };
  const [terminal, writer] = [await window("drawer watch"), await window("diary")];
  await pause(4000);
  run("xdotool", "windowmove", terminal, "250", "618");
  run("xdotool", "windowactivate", "--sync", writer);
  await pause(1000);
  await keys("ctrl+Home", "Down", "Down", "Home", "shift+End", "super+F8");
  await pause(1000);
  await keys("Down", "Home", "shift+End", "ctrl+c");
  await pause(1000);
  await keys("ctrl+End", "Return", "super+F9");
  await pause(3000);
  const { status, stderr } = spawnSync("import", ["-window", "root", picture("watch")], { env });
  for (const child of running.reverse()) child.kill();
  if (status !== 0) throw new Error(`No picture of the desktop: ${stderr}`);
}

/** The desk, with a few things collected and some of them placed, by day and by night. */
async function desk() {
  const server = await preview({ root: "examples", preview: { port: 0 }, logLevel: "silent" });
  const browser = await chromium.launch({ executablePath: findChromium(), args: CHROMIUM_FLAGS });
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
    await page.locator("snippet-drawer .run").evaluate((run) => (run.scrollTop = 0));
    await page.locator("snippet-drawer .snippet").nth(0).click();
    await page.waitForTimeout(300);
    await page.keyboard.press("Enter");
    for (const nth of [2, 3]) await page.locator("snippet-drawer .position").nth(nth).click();
    await page.locator("snippet-drawer .sentence select").nth(1).selectOption("rows");
    await page.locator("snippet-drawer .sentence select").nth(4).selectOption("list");
    await page.waitForTimeout(400);
    await page.screenshot({ path: picture(colorScheme === "light" ? "bulletin" : "bulletin-night") });
    if (colorScheme === "light") {
      await page.locator("snippet-drawer input[type=search]").fill("wheat");
      await page.locator("snippet-drawer .run li").first().hover();
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
  const browser = await chromium.launch({ executablePath: findChromium(), args: CHROMIUM_FLAGS });
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

function pause(ms) {
  return new Promise((done) => setTimeout(done, ms));
}

const wanted = process.argv.slice(2);
const isWanted = (name) => wanted.length === 0 || wanted.includes(name);
for (const [name, command] of Object.entries(terminals))
  if (isWanted(name)) await terminal(name, typeof command === "string" ? command : typed(command));
if (isWanted("watch")) await watching();
if (isWanted("bulletin")) await desk();
if (isWanted("ringing") || isWanted("anywhere")) await forms();
rmSync(folder, { recursive: true, force: true });
process.exit(0);
