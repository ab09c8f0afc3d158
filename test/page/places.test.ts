import puppeteer, { type Browser, type ElementHandle, type Page } from "puppeteer-core";
import { CHROMIUM_FLAGS, findHeadless } from "../../scripts/chromium.mjs";
import { some } from "../support/counts";
import { expectRows } from "../support/doc-table";
import { hasFirefox, launchFirefox } from "../support/firefox";
import { site } from "../support/site";

const isThere = { Chromium: findHeadless() !== undefined, Firefox: hasFirefox };
if (!isThere.Chromium)
  console.log("Skipped: the places of a page in Chromium, because it is not on this machine.");

const LAUNCH: Record<string, () => Promise<Browser>> = {
  Chromium: () =>
    puppeteer.launch({ headless: "shell", executablePath: findHeadless()!, args: [...CHROMIUM_FLAGS] }),
  Firefox: launchFirefox,
};

/** What a place is asked: what it gets, its look, and whether its own undo and the drawer's take back exactly that. */
interface Asked {
  /** What the table calls it. */
  readonly title: string;
  /** In what one writes, in the section of that name. */
  readonly selector: string;
  /** What stands there after a placing, where it is not the text at the caret. */
  readonly gets?: string;
  /** What is added at the caret, where it is not the text as it is. */
  readonly adds?: string;
  /** Whether it keeps a look, and links. */
  readonly look?: "rich" | "no links";
}

const TEXT = "First wheatear on the seawall at 05:50.";
/** The same where one sees text alone: with the address of its link. */
const SHOWN = "First wheatear on the seawall at 05:50 (https://merrow-spit.example/log).";
const HTML = `<p>First <b>wheatear</b> on the seawall at <a href="https://merrow-spit.example/log">05:50</a>.</p>`;

const PLACES: Readonly<Record<string, Asked>> = {
  line: { title: "`input`", selector: "input" },
  lines: { title: "`textarea`", selector: "textarea", adds: SHOWN },
  url: { title: "`input type=url`", selector: "input", gets: "https://merrow-spit.example/log" },
  editable: { title: "`contenteditable`", selector: "[contenteditable]", look: "rich" },
  plaintext: { title: "`contenteditable=plaintext-only`", selector: "[contenteditable]", adds: SHOWN },
  prosemirror: { title: "TipTap (ProseMirror)", selector: ".ProseMirror", look: "rich" },
  lexical: { title: "Lexical", selector: "[contenteditable]", look: "no links" },
  codemirror: { title: "CodeMirror 6", selector: ".cm-content", adds: SHOWN },
  quill: { title: "Quill", selector: ".ql-editor", look: "rich" },
  slate: { title: "Slate", selector: "[data-slate-editor]", adds: SHOWN },
  ckeditor: { title: "CKEditor 5", selector: ".ck-editor__editable", look: "rich" },
  react: { title: "a field that React holds", selector: "input" },
  shadow: { title: "a field in an open shadow tree", selector: "input", gets: TEXT },
  frame: { title: "a field in a frame of the same site", selector: "textarea", adds: SHOWN },
};

/** Those in which one writes several lines. */
const EDITORS = [
  "editable",
  "plaintext",
  "prosemirror",
  "lexical",
  "codemirror",
  "quill",
  "slate",
  "ckeditor",
];
/** One place of each kind: a field, text in the page, an editor that keeps a model of it, a grid. */
const KINDS = ["lines", "editable", "prosemirror", "ckeditor", "aggrid", "short"];
const WITHOUT_TABLES = ["prosemirror", "lexical", "slate", "ckeditor"];
const RICH =
  "<p>Dawn by the <b>hide</b></p><table><tr><th>Species</th><th>Caught</th></tr><tr><td>Wren</td><td>12</td></tr><tr><td>Robin</td><td>307</td></tr></table><ul><li>nets</li><li>rings</li></ul><p>Dusk</p>";
const RICH_WORDS = [
  "Dawn",
  "hide",
  "Species",
  "Caught",
  "Wren",
  "12",
  "Robin",
  "307",
  "nets",
  "rings",
  "Dusk",
];

/** Grids, with the cell that is chosen: the first of the second row. */
const GRIDS: Readonly<Record<string, { title: string; cell: string; isUndoneAtOnce?: boolean }>> = {
  inputs: { title: "a table of fields", cell: "tbody tr:nth-child(2) input" },
  tabulator: { title: "Tabulator", cell: ".tabulator-row:nth-child(2) .tabulator-cell" },
  aggrid: { title: "AG Grid", cell: '[row-index="1"] .ag-cell' },
  handsontable: { title: "Handsontable", cell: ".ht_master tbody tr:nth-child(2) td", isUndoneAtOnce: true },
};

/** Text without its spaces: editors and browsers write those in ways of their own. */
const squeezed = (text: string) => text.replace(/\s/g, "");

/** Places that take nothing, or not this, and what is said then. */
const REFUSED: Readonly<Record<string, RegExp>> = {
  short: /“Short” takes 10 characters, and would have 39/,
  number: /“First wheatear on the seawall at 05:50\.” is not what “Count” takes/,
  mail: /“First wheatear on the seawall at 05:50\.” is not what “Mail” takes/,
  date: /“First wheatear on the seawall at 05:50\.” is not what “Day” takes/,
  password: /“Password”, where you were last, takes no text/,
  closed: /“Closed” cannot be written in now/,
};

describe.each(Object.keys(LAUNCH))("the places of a page, in %s", (name) => {
  const placeTest = isThere[name as keyof typeof isThere] || process.env["CI"] ? test : test.skip;
  let browser: Browser | undefined;
  let served: Awaited<ReturnType<typeof site>> | undefined;
  let page: Page;
  beforeAll(async () => {
    if (!isThere[name as keyof typeof isThere]) return;
    served = await site("anywhere");
    browser = await LAUNCH[name]!();
  }, 120_000);
  afterAll(async () => {
    await browser?.close();
    served?.close();
  });

  /** Opens the page anew, with one of its places. */
  async function open(section: string): Promise<void> {
    const context = await browser!.createBrowserContext();
    page = await context.newPage();
    await page.setViewport({ width: 1280, height: 900 });
    await page.goto(`${served!.address}?only=${section}`);
    await page.waitForSelector("body[data-ready]");
  }
  const close = () => page.browserContext().close();

  async function placeIn(section: string, selector: string): Promise<ElementHandle<HTMLInputElement>> {
    const holder = (await page.$(`#${section}`))!;
    const frame = await holder.$("iframe");
    const root = frame ? await frame.contentFrame() : undefined;
    const inTree = (section: Element, css: string) =>
      section.querySelector(css) ?? section.querySelector("div")!.shadowRoot!.querySelector(css);
    const found = root ? await root.waitForSelector(selector) : await holder.evaluateHandle(inTree, selector);
    return found as ElementHandle<HTMLInputElement>;
  }
  const reading = (place: ElementHandle<HTMLInputElement>) =>
    place.evaluate((element) => (element.value ?? element.innerText).replace(/\s+/g, " ").trim());
  const inDrawer = (selector: string) =>
    page.evaluate(
      (css) =>
        document.querySelector("snippet-drawer")!.shadowRoot!.querySelector(css)?.textContent?.trim() ?? "",
      selector,
    );
  const click = (selector: string) =>
    page.evaluate(
      (css) => document.querySelector("snippet-drawer")!.shadowRoot!.querySelector<HTMLElement>(css)!.click(),
      selector,
    );
  async function becomes<Value>(
    look: () => Promise<Value>,
    holds: (value: Value) => boolean,
  ): Promise<Value> {
    for (const end = Date.now() + 20_000; ; await new Promise((next) => setTimeout(next, 50))) {
      const value = await look();
      if (holds(value) || Date.now() > end) return value;
    }
  }
  const press = async (key: "End" | "a" | "c" | "x" | "z") => {
    await page.keyboard.down("Control");
    await page.keyboard.press(key);
    await page.keyboard.up("Control");
  };

  /** The main flow: the caret is somewhere, words elsewhere are selected and copied, and what is copied is placed. */
  async function place(section: string, selector: string) {
    await open(section);
    const target = await placeIn(section, selector);
    await target.evaluate((element) => element.scrollIntoView({ block: "center" }));
    await target.click();
    await press("End");
    await new Promise((next) => setTimeout(next, 150));
    const before = await reading(target);
    await page.evaluate(() => getSelection()!.selectAllChildren(document.querySelector("#source")!));
    await page.evaluate(
      (html) => document.querySelector("snippet-drawer")!.binding!.collect({ html, text: "" }),
      HTML,
    );
    await becomes(
      () => inDrawer(".says"),
      (text) => text !== "",
    );
    const lands = await inDrawer(".lands");
    await click(".snippet");
    return { target, before, lands };
  }

  /** What the drawer holds: of each snippet its text, and whether something in it is bold. */
  const held = () =>
    page.evaluate(async () => {
      const snippets = await document.querySelector("snippet-drawer")!.binding!.drawer.snippets("all");
      return snippets.map(({ entry, content }) => ({
        text: entry.text,
        isBold: JSON.stringify(content).includes('"bold":true'),
      }));
    });
  const changes = (section: string) =>
    page.evaluate(
      (id) => Number(document.querySelector<HTMLElement>(`#${id}`)!.dataset["changes"] ?? 0),
      section,
    );

  const rows: string[] = [];
  const gridRows: string[] = [];
  // What differs between browsers shows in one place of each kind.
  const isEnough = (section: string) => name === "Chromium" || KINDS.includes(section);
  for (const [section, asked] of some(Object.entries(PLACES), ([each]) => isEnough(each))) {
    const { title, selector, gets, adds = TEXT, look } = asked;
    placeTest(
      `${title}: at the caret, in its look, and taken back by its own undo and by the drawer's`,
      async () => {
        const { target, before, lands } = await place(section, selector);
        const wanted = gets ?? `${before} ${adds}`;
        const isWanted = (text: string) => squeezed(text) === squeezed(wanted);
        expect(squeezed(await becomes(() => reading(target), isWanted))).toBe(squeezed(wanted));
        expect(
          await becomes(
            () => inDrawer(".notice span"),
            (text) => text.startsWith("Placed"),
          ),
        ).toMatch(/^Placed snippet 1 in “.+?”\.( |$)/);
        expect(lands).toMatch(/^Lands in “/);
        const html = await target.evaluate((element) => element.innerHTML);
        expect(/<(b|strong)\b/.test(html)).toBe(look !== undefined);
        expect(/href="https:\/\/merrow-spit/.test(html)).toBe(look === "rich");
        // The place's own undo takes back exactly this.
        await target.focus();
        await press("z");
        expect(
          await becomes(
            () => reading(target),
            (text) => text === before,
          ),
        ).toBe(before);
        // A person is not there again in the same moment; the caret is where the undo has left it by then.
        await new Promise((next) => setTimeout(next, 200));
        // So does the drawer's, and then nothing else is taken back by it.
        await click(".snippet");
        expect(squeezed(await becomes(() => reading(target), isWanted))).toBe(squeezed(wanted));
        await becomes(
          () => inDrawer(".notice span"),
          (text) => text.startsWith("Placed"),
        );
        await click(".notice button");
        expect(
          await becomes(
            () => reading(target),
            (text) => text === before,
          ),
        ).toBe(before);
        expect(
          await becomes(
            () => inDrawer(".notice span"),
            (text) => !text.startsWith("Placed"),
          ),
        ).toMatch(/^Took back|^Undone/);
        expect(await inDrawer(".says")).toContain("First wheatear");
        // In place of what is selected; and its own events have told of it.
        const [changed, told] = [await changes(section), squeezed(gets ?? adds)];
        const selectAll = async () => {
          await press("a");
          // Editors follow the selection a moment later.
          await new Promise((next) => setTimeout(next, 150));
        };
        await target.click();
        await selectAll();
        await click(".snippet");
        const isAll = (text: string) => squeezed(text) === told;
        expect(squeezed(await becomes(() => reading(target), isAll))).toBe(told);
        expect(
          await becomes(
            () => changes(section),
            (count) => count > changed,
          ),
        ).toBeGreaterThan(changed);
        await becomes(
          () => inDrawer(".notice span"),
          (text) => text.startsWith("Placed"),
        );
        // What is copied and cut there comes in, with its look.
        await target.click();
        for (const [key, count, typed] of [
          ["c", 2, "1"],
          ["x", 3, "2"],
        ] as const) {
          await press("End");
          await new Promise((next) => setTimeout(next, 150));
          await page.keyboard.type(typed);
          await selectAll();
          await press(key);
          const all = await becomes(held, (snippets) => snippets.length === count);
          expect(all).toHaveLength(count);
          expect(squeezed(all.at(-1)!.text)).toContain(told.slice(0, 20));
          expect(all.at(-1)!.isBold).toBe(look !== undefined);
        }
        expect(
          await becomes(
            () => reading(target),
            (text) => text === "",
          ),
        ).toBe("");
        const lookOf = look === "rich" ? "yes" : look === undefined ? "text" : "yes, without links";
        rows.push(`| ${title} | yes | yes | ${lookOf} | yes | yes | yes | yes | yes |`);
        await close();
      },
      60_000,
    );
  }

  for (const section of some(EDITORS, isEnough)) {
    const { title, selector } = PLACES[section]!;
    placeTest(
      `${title}: what has several lines and a table lands whole in mid-sentence, or as lines, which is told; and is taken back`,
      async () => {
        await open(section);
        const target = await placeIn(section, selector);
        await target.evaluate((element) => element.scrollIntoView({ block: "center" }));
        await target.click();
        await press("End");
        await page.keyboard.type(" before after");
        for (let at = 0; at < "after".length; at++) await page.keyboard.press("ArrowLeft");
        // An editor takes what is written within a second for one step of its undo.
        await new Promise((next) => setTimeout(next, 1200));
        const before = await reading(target);
        await page.evaluate(
          (html) => document.querySelector("snippet-drawer")!.binding!.collect({ html }),
          RICH,
        );
        await becomes(
          () => inDrawer(".says"),
          (text) => text !== "",
        );
        await click(".snippet");
        const told = await becomes(
          () => inDrawer(".notice"),
          (text) => text.includes("Placed"),
        );
        const words = (await reading(target)).split(" ");
        expect(RICH_WORDS.filter((word) => !words.some((each) => each.includes(word)))).toEqual([]);
        const around = [...RICH_WORDS, "before", "after"];
        const glued = words.filter((word) => around.filter((each) => word.includes(each)).length > 1);
        expect([section, glued]).toEqual([section, []]);
        const { blank, isInCell } = await target.evaluate((element) => ({
          blank: [...element.querySelectorAll("p")].filter((line) => line.textContent!.trim() === "").length,
          isInCell: getSelection()!.focusNode!.parentElement!.closest("td, th") !== null,
        }));
        expect([section, blank, isInCell]).toEqual([section, 0, false]);
        expect([told, told.includes("as lines with tabs")]).toEqual([told, WITHOUT_TABLES.includes(section)]);
        await click(".notice button");
        expect(
          await becomes(
            () => reading(target),
            (text) => text === before,
          ),
        ).toBe(before);
        await close();
      },
      60_000,
    );
  }

  for (const [section, { title, cell, isUndoneAtOnce }] of some(Object.entries(GRIDS), ([each]) =>
    isEnough(each),
  )) {
    placeTest(
      `${title}: a table goes into the cells from the chosen one on, and is taken back; a copied cell comes in`,
      async () => {
        await open(section);
        const collect = (html: string) =>
          page.evaluate(
            (given) => document.querySelector("snippet-drawer")!.binding!.collect({ html: given }),
            html,
          );
        await collect(
          "<table><tr><td>Wryneck</td><td>South</td></tr><tr><td>Wren</td><td>Hut</td></tr></table>",
        );
        await becomes(held, ({ length }) => length === 1);
        const shown = () =>
          page.evaluate((id) => {
            const place = document.querySelector(`#${id}`)!;
            const cells = place.querySelectorAll<HTMLElement>(
              ".ag-cell, .tabulator-cell, .ht_master tbody td, td input",
            );
            return [...cells].map((each) => (each as HTMLInputElement).value ?? each.innerText.trim());
          }, section);
        const holder = (await page.$(`#${section}`))!;
        await holder.evaluate((element) => element.scrollIntoView({ block: "center" }));
        // A grid draws its rows anew when it comes into sight.
        await new Promise((next) => setTimeout(next, 400));
        const choose = async () => (await holder.$(cell))!.click();
        await choose();
        // A click may open the cell's editor, whose field then holds what the cell did.
        const before = (await shown()).map((text, at) => (at === 3 ? "Willow warbler" : text));
        const after = before.map(
          (text, at) => ({ 3: "Wryneck", 4: "South", 6: "Wren", 7: "Hut" })[at] ?? text,
        );
        const isAfter = (texts: string[]) => texts.join() === after.join();
        const named = /Lands in .*pecies/;
        const lands = await becomes(
          () => inDrawer(".lands"),
          (said) => named.test(said),
        );
        expect(lands).toMatch(named);
        const changed = await changes(section);
        await click(".snippet");
        expect(await becomes(shown, isAfter)).toEqual(after);
        await becomes(
          () => inDrawer(".notice span"),
          (text) => text.startsWith("Placed"),
        );
        expect(
          await becomes(
            () => changes(section),
            (count) => count > changed,
          ),
        ).toBeGreaterThan(changed);
        const isBefore = (texts: string[]) => texts.join() === before.join();
        if (isUndoneAtOnce) {
          // Two clicks at once would open the editor of the cell.
          await new Promise((next) => setTimeout(next, 700));
          await choose();
          await press("z");
          expect(await becomes(shown, isBefore)).toEqual(before);
          await click(".snippet");
          expect(await becomes(shown, isAfter)).toEqual(after);
          await becomes(
            () => inDrawer(".notice span"),
            (text) => text.startsWith("Placed"),
          );
        }
        await click(".notice button");
        expect(await becomes(shown, isBefore)).toEqual(before);
        // Where there are not cells enough, nothing is changed.
        await collect(`<table>${"<tr><td>a</td><td>b</td></tr>".repeat(9)}</table>`);
        await becomes(held, ({ length }) => length === 2);
        await choose();
        await page.evaluate(() => document.querySelector("snippet-drawer")!.binding!.placePick("last"));
        expect(
          await becomes(
            () => inDrawer(".notice span"),
            (text) => text.startsWith("Nothing was placed"),
          ),
        ).toMatch(/there are not enough cells/);
        expect(await becomes(shown, isBefore)).toEqual(before);
        // The cell that is chosen is copied, as nothing else is selected.
        await choose();
        if (section === "tabulator") await page.keyboard.press("Escape");
        if (section === "inputs") await press("a");
        await press("c");
        const copied = await becomes(held, ({ length }) => length === 3);
        if (section !== "tabulator") expect(copied.at(-1)!.text).toBe("Willow warbler");
        const copies = section === "tabulator" ? "with its clipboard on" : "yes";
        gridRows.push(
          `| ${title} | from the chosen cell on | yes | text | ${isUndoneAtOnce ? "yes" : "–"} | yes | yes | ${copies} | – |`,
        );
        await close();
      },
      60_000,
    );
  }

  placeTest(
    "what cannot be placed is said, by the name of the place, and nothing has changed",
    async () => {
      for (const [section, sentence] of some(Object.entries(REFUSED), ([each]) => isEnough(each))) {
        const { target, before } = await place(section, "input");
        expect(
          await becomes(
            () => inDrawer(".notice span"),
            (text) => sentence.test(text),
          ),
        ).toMatch(sentence);
        expect(await reading(target)).toBe(before);
        await close();
      }
    },
    120_000,
  );

  placeTest("the table of places in docs/embedding.md is as it is here", () => {
    expectRows("docs/embedding.md", "places", [...rows, ...gridRows]);
  });
});
