import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { resolve } from "node:path";
import { pathToFileURL } from "node:url";
import { chromium } from "playwright-core";
import puppeteer from "puppeteer-core";
import { findChromium } from "../../scripts/chromium.mjs";
import { commandHome } from "../support/command";
import { display, press, toFront, until, windowInFront, withBrowsers } from "../support/desktop";
import { expectRows, standsInTable } from "../support/doc-table";
import { FIREFOX } from "../support/firefox";
import { contentInShort, pageInShort } from "../support/in-short";
import { OfficeWindows, type Cell } from "../support/office-window";

const SKETCH = resolve("demo/sketches/tide.png");
const PICTURE = `<img alt="" src="data:image/png;base64,${readFileSync(SKETCH).toString("base64")}">`;
const SENTENCE = '<p>two <b>terns</b> at <a href="https://merrow-spit.example/hut">the hut</a></p>';
const LIST = "<ul><li>Wren</li><li>Robin</li></ul>";
const TABLE = "<table><tr><th>Bird</th><th>Count</th></tr><tr><td>Wren</td><td>12</td></tr></table>";
/** The blocks that are pasted, by what they are called. */
const BLOCKS = {
  "a sentence": "1",
  "a list": "2",
  "a table": "3",
  "two tables": "3 4",
  "a picture": "5",
  "all of these": "1..3 5",
};
const TITLE = "Merrow Spit";
const PAGE = `<title>${TITLE}</title><div id=from>${SENTENCE}${LIST}${TABLE}<p id=line>Seen ${PICTURE} near</p></div>
  <div id=into contenteditable></div>`;
/** What is copied in a browser. */
const PARTS = {
  "a sentence": "#from p",
  "a list": "#from ul",
  "a table": "#from table",
  "a line with a picture": "#line",
};

/** Whether what a place holds is what the guide says. */
type Wanted = (held: string) => boolean;

/** A browser with that page in a window, whichever it is. */
interface BrowserWindow {
  readonly name: string;
  evaluate<Given>(act: (given: Given) => unknown, given: Given): Promise<unknown>;
  close(): Promise<void>;
}

withBrowsers("what is copied in other programs, and what they hold after a paste", () => {
  display("windows");
  const { drawer, all, snippets, folder } = commandHome();
  let office: OfficeWindows;
  const browsers: BrowserWindow[] = [];

  beforeAll(async () => {
    for (const html of [SENTENCE, LIST, TABLE, TABLE.replace("Bird", "Boat")])
      await drawer(["collect", "--type", "html"], html);
    await all(`collect ${SKETCH}`);
    office = await OfficeWindows.open(folder);
    await office.do("new", "calc");
    await office.do("new", "writer");
    const env = { ...process.env } as Record<string, string>;
    const args = ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--no-first-run"];
    const chrome = await chromium.launch({ executablePath: findChromium()!, headless: false, args, env });
    const page = await chrome.newPage();
    await page.setContent(PAGE);
    browsers.push({
      name: "Chromium",
      evaluate: (act, given) => page.evaluate(act as never, given),
      close: () => chrome.close(),
    });
    const fox = await puppeteer.launch({
      ...{ browser: "firefox", executablePath: FIREFOX, headless: false, env },
    });
    const [tab] = await fox.pages();
    await tab!.setContent(PAGE);
    browsers.push({
      name: "Firefox",
      evaluate: (act, given) => tab!.evaluate(act as never, given),
      close: () => fox.close(),
    });
  }, 120_000);
  afterAll(async () => {
    office?.close();
    for (const browser of browsers) await browser.close();
  });

  /** Copies what is selected in the window in front, collects it, and gives what came in. */
  async function comesIn(): Promise<string> {
    press("ctrl+c");
    const before = (await snippets()).length;
    await until(
      async () => (await drawer(["collect", "--clipboard"])).code,
      (code) => code === 0,
    );
    expect((await snippets()).length).toBe(before + 1);
    return contentInShort(JSON.parse(await all("show last --json")).snippets[0].content);
  }

  /**
   * Settles with what a place holds once it is as the guide says, or has changed and stays so; fails when the program asks
   * something instead.
   */
  async function holds(read: () => Promise<string>, before: string, isWanted: Wanted): Promise<string> {
    let last = before;
    let since = Date.now();
    return until(read, (now) => {
      const window = windowInFront();
      if (!/Writer|Calc|Merrow/.test(window)) throw new Error(`Something is asked: “${window}”.`);
      if (now !== last) since = Date.now();
      last = now;
      const stays = Date.now() - since;
      return now !== before && stays > (isWanted(now) ? 100 : 5000);
    });
  }

  /** Brings a browser to the front; its page has the keyboard, not its address bar. */
  async function browserToFront(browser: BrowserWindow): Promise<void> {
    await toFront(`${TITLE}.*${browser.name}`);
    spawnSync("xdotool", ["mousemove", "700", "700", "click", "1"], { env: { ...process.env } });
  }

  const inWriter = (place: string) => async (isWanted: Wanted) => {
    await office.do("type_at", place);
    await toFront("Writer");
    const read = () => office.do<string>("read_writer");
    const before = await read();
    press("ctrl+v");
    return holds(read, before, isWanted);
  };
  const inCalc = (typed: boolean) => async (isWanted: Wanted) => {
    await office.do("clear_cells");
    await office.do("select_cells", "A1");
    await toFront("Calc");
    const read = async () => {
      const rows = await office.do<Cell[][]>("read_cells", "A1:B9");
      const shown = rows.map((row) =>
        row
          .map((cell) => cell.shown)
          .join(" | ")
          .replace(/ \| $/, ""),
      );
      const pictures = await office.do<number>("count_pictures");
      return [...shown, ...(pictures > 0 ? ["(picture)"] : [])].filter((row) => row !== "").join(" / ");
    };
    if (typed) press("S", "e", "e", "n", "space");
    press("ctrl+v");
    if (!typed) return holds(read, "", isWanted);
    press("Return");
    return holds(read, "Seen ", isWanted);
  };
  const inBrowser = (browser: BrowserWindow) => async (isWanted: Wanted) => {
    await browserToFront(browser);
    await browser.evaluate(() => {
      const into = document.querySelector<HTMLElement>("#into")!;
      into.innerHTML = "<p>Seen near the hut.</p>";
      into.focus();
      getSelection()!.collapse(into.firstChild!.firstChild, "Seen ".length);
    }, undefined);
    const read = async () => (await browser.evaluate(pageInShort, "#into")) as string;
    const before = await read();
    press("ctrl+v");
    return holds(read, before, isWanted);
  };

  /** A row of a table in the guide. */
  const row = (...cells: string[]) =>
    `| ${cells.map((cell) => cell.replaceAll("|", "\\|").replaceAll("\n", "↵")).join(" | ")} |`;

  test("what is copied in Writer comes in with its look, its lists, tables and pictures", async () => {
    await all("place 1..3 --to clipboard");
    await inWriter("empty")((held) => held.includes("Count") && held.endsWith("After"));
    const copy = async (what: string, ...act: [string, ...unknown[]]) => {
      await office.do(...act);
      await toFront("Writer");
      return row("Writer", what, await comesIn());
    };
    const rows = [
      await copy("a sentence", "select_paragraphs", 1, 1),
      await copy("a list", "select_paragraphs", 2, 3),
      await copy("a table", "select_table", 0),
    ];
    await office.do("type_at", "words");
    rows.push(await copy("a line with a picture", "put_picture_in_line", pathToFileURL(SKETCH).href));
    expectRows("docs/desktop.md", "copied", rows);
  });

  test("what is copied in Calc comes in with its values", async () => {
    await office.do("clear_cells");
    await office.do("put_cells", [
      ["Date", "Share"],
      ["2031-04-08", "25%"],
    ]);
    const rows: string[] = [];
    for (const [what, area] of [
      ["cells", "A1:B2"],
      ["one cell", "A2"],
    ] as const) {
      await office.do("select_cells", area);
      await toFront("Calc");
      rows.push(row("Calc", what, await comesIn()));
    }
    expectRows("docs/desktop.md", "copied", rows);
  });

  test("what is copied in browsers comes in with its look, its lists, tables and pictures", async () => {
    for (const browser of browsers) {
      await browserToFront(browser);
      const rows: string[] = [];
      for (const [what, selector] of Object.entries(PARTS)) {
        await browser.evaluate(
          (given) => getSelection()!.selectAllChildren(document.querySelector(given)!),
          selector,
        );
        rows.push(row(browser.name, what, await comesIn()));
      }
      expectRows("docs/desktop.md", "copied", rows);
    }
  });

  for (const [block, pick] of Object.entries(BLOCKS))
    test(`${block} lands as it is, wherever it is pasted`, async () => {
      await all(`place ${pick} --to clipboard`);
      const places = {
        "Writer, in mid-sentence": inWriter("words"),
        "Writer, an empty paragraph": inWriter("empty"),
        "Writer, in a list": inWriter("list"),
        "Writer, in a table": inWriter("table"),
        "Calc, a cell": inCalc(false),
        "Calc, a cell that is written in": inCalc(true),
        ...Object.fromEntries(browsers.map((each) => [`${each.name}, in mid-sentence`, inBrowser(each)])),
      };
      const rows: string[] = [];
      for (const [place, paste] of Object.entries(places)) {
        const isWanted = (held: string) =>
          standsInTable("docs/desktop.md", "pasted", row(block, place, held));
        rows.push(row(block, place, await paste(isWanted)));
      }
      expectRows("docs/desktop.md", "pasted", rows);
    });
});
