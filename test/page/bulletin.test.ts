import type { Page } from "playwright-core";
import { CONDITIONS, faultsOf } from "../support/axe";
import { doWithRow, Example, onPages } from "../support/browser";
import { some } from "../support/counts";

onPages("the secretary's desk", () => {
  const desk = new Example("bulletin", "#paper-0 p");
  let page: Page;
  let address: string;
  beforeEach(() => ({ page, address } = desk));

  /** What stands in the run; a table as its cells. */
  const run = async () =>
    (await page.locator("snippet-drawer .says").allInnerTexts()).map((text) => text.replaceAll("\t", " | "));
  const editor = () => page.locator(".tiptap");
  /** Waits until the bulletin holds these words. */
  const lands = (words: string) =>
    page.waitForFunction(
      (text) => document.querySelector<HTMLElement>(".tiptap")!.innerText.includes(text),
      words,
    );
  /** What was said aloud, once something has been. */
  const told = async () => {
    await page.waitForFunction(() => document.querySelector("[role=status]")!.textContent !== "");
    return page.locator("[role=status]").innerText();
  };

  /** Waits until the run reads so. */
  async function becomes(...beginnings: string[]): Promise<void> {
    for (const end = Date.now() + 5000; Date.now() < end; await page.waitForTimeout(20)) {
      if (JSON.stringify((await run()).map((text) => text.slice(0, 5))) === JSON.stringify(beginnings))
        return;
    }
    expect((await run()).map((text) => text.slice(0, 5))).toEqual(beginnings);
  }

  /** Selects the whole of an element, and copies it as a person does. */
  async function copy(selector: string, nth = 0): Promise<void> {
    const before = (await run()).length;
    await page
      .locator(selector)
      .nth(nth)
      .evaluate((element) => getSelection()!.selectAllChildren(element));
    await page.keyboard.press("Control+c");
    await page.waitForFunction(
      (count) =>
        document.querySelector("snippet-drawer")!.shadowRoot!.querySelectorAll(".says").length > count,
      before,
    );
  }

  /** Copies two rows of the ringing sheet under its header, by the handles before them. */
  async function copyRows(...rows: number[]): Promise<void> {
    await page.click("#tab-1");
    for (const row of rows) {
      await page.locator("#paper-1 .handle button").nth(row).click();
      const before = (await run()).length;
      await page.keyboard.press("Control+c");
      await page.waitForFunction(
        (count) =>
          document.querySelector("snippet-drawer")!.shadowRoot!.querySelectorAll(".says").length > count,
        before,
      );
    }
  }

  test("copying collects in order and is said aloud; a chosen one lands at the caret in its own look; reload keeps all", async () => {
    await copy("#paper-0 p");
    expect(await told()).toMatch(/^Collected as 1: “First wheatear.*\(diary\.docx\)\.$/);
    await copy("#paper-0 ul li", 2);
    await copyRows(0, 2);
    await page.locator("snippet-drawer .snippet").first().click();
    await lands("First wheatear");
    await expect(editor().innerHTML()).resolves.toMatch(
      /First <strong>wheatear<\/strong> on the seawall at <span style="color: rgb\(176, 48, 32\);?">05:50/,
    );
    await page.reload();
    await page.waitForSelector("snippet-drawer .list .row >> nth=3");
    expect((await run()).map((text) => text.slice(0, 10))).toEqual([
      "First whea",
      "South ride",
      "Date | Rid",
      "2031-04-08",
    ]);
    await expect(editor().innerText()).resolves.toContain("First wheatear on the seawall");
  });

  test("undo beside a placing takes back the placing alone, in the editor and in a field", async () => {
    await copy("#paper-0 p");
    await editor().click();
    await page.keyboard.type("Typed. ");
    // The editor takes what comes within half a second for one step.
    await page.waitForTimeout(700);
    await page.click("snippet-drawer .go");
    await lands("First wheatear");
    await page.click("snippet-drawer .notice button");
    await page.waitForFunction(
      () => !document.querySelector<HTMLElement>(".tiptap")!.innerText.includes("First wheatear"),
    );
    expect(await editor().innerText()).toContain("Typed.");
    expect((await run()).length).toBe(1);
    await page.evaluate(() =>
      document.body.insertAdjacentHTML(
        "beforeend",
        "<textarea id=field style='position: fixed; left: 0; top: 0'>begun </textarea>",
      ),
    );
    await page.locator("#field").focus();
    await page.keyboard.press("Control+End");
    await page.keyboard.type("by hand ");
    await page.click("snippet-drawer .go");
    await page.waitForFunction(() =>
      document.querySelector<HTMLTextAreaElement>("#field")!.value.includes("wheatear"),
    );
    await page.click("snippet-drawer .notice button");
    await page.waitForFunction(
      () => document.querySelector<HTMLTextAreaElement>("#field")!.value === "begun by hand ",
    );
    expect((await run()).length).toBe(1);
  });

  test("in a narrow window one pane is shown at a time, and placing shows where it landed; tables are drawn small", async () => {
    await copyRows(0);
    await page.setViewportSize({ width: 400, height: 800 });
    const panes = () =>
      page.locator("#desk, #bulletin, #drawer").evaluateAll((all) => all.map((one) => one.checkVisibility()));
    expect(await panes()).toEqual([true, false, false]);
    await page.click("#panes >> text=Drawer");
    expect([await panes(), await page.locator("snippet-drawer .grid .head").count()]).toEqual([
      [false, false, true],
      4,
    ]);
    await page.click("snippet-drawer .go");
    await lands("Species");
    expect(await panes()).toEqual([false, true, false]);
  });

  test("rules are sentences with choices; one that would throw out more than a few asks", async () => {
    await copy("#paper-0 p");
    for (const nth of [0, 1, 2]) await copy("#paper-0 ol li", nth);
    await copy("#paper-0 blockquote");
    await desk.openPanel("Rules");
    const asked: string[] = [];
    page.on("dialog", (dialog) => {
      asked.push(dialog.message());
      void dialog.dismiss();
    });
    await page.waitForSelector("snippet-drawer .rule");
    const sentences = await page.locator("snippet-drawer .rule").allInnerTexts();
    expect(sentences.map((text) => text.split(" ")[0]).join(" ")).toBe(
      "What What When The They Text, Pictures What Secrets What",
    );
    await page.evaluate(() => {
      const { drawer } = document.querySelector("snippet-drawer")!.binding!;
      drawer.wouldLeave = async () => (await drawer.list()).map(({ entry }) => entry);
    });
    await page.getByLabel("The drawer holds").selectOption("at most 100 snippets");
    await page.waitForTimeout(200);
    expect(asked).toEqual([expect.stringContaining("This takes 5 snippets out: “First wheatear")]);
    await page.waitForSelector("snippet-drawer .notice:has-text('Nothing was changed.')");
    expect(await page.getByLabel("The drawer holds").evaluate(chosen)).toBe("at most 1,000 snippets");
  });

  test("placing all in sequence gives each its structure, what was shown is what lands, and the editor's undo takes it back", async () => {
    await copy("#paper-0 p");
    await copyRows(0, 4);
    await page.click("#tab-2");
    await copy("#paper-2 ul");
    const before = await editor().innerHTML();
    await editor().click();
    await page.click("snippet-drawer .go");
    await lands("eleven wheatears");
    expect(await editor().locator("table tr").count()).toBe(2);
    expect(await editor().locator("table tr").last().locator("td").allInnerTexts()).toEqual([
      "2031-04-09",
      "South",
      "Wryneck",
      "1",
      "0",
      "88.0",
      "\n",
    ]);
    expect(await editor().locator("ul ul li").innerText()).toContain("on the path by the ringing hut");
    const shown = await page.locator("snippet-drawer .preview").innerText();
    for (const line of shown.split("\n").filter((each) => each.trim()))
      expect(await editor().innerText()).toContain(line.split("\t")[0]!.trim());
    await editor().focus();
    await page.keyboard.press("Control+z");
    await expect(editor().innerHTML()).resolves.toBe(before);
  });

  test("rows become one table by a word of the sentence", async () => {
    await copyRows(0, 2, 4);
    await page.locator("snippet-drawer .sentence select").nth(1).selectOption("rows");
    await page.click("snippet-drawer .go");
    await lands("Wryneck");
    expect(await editor().locator("table").count()).toBe(1);
    expect(await editor().locator("th").count()).toBe(7);
    expect(await editor().locator("tr").count()).toBe(3);
  });

  test("the keyboard alone moves, discards, brings back and places", async () => {
    for (const nth of [0, 1]) await copy("#paper-0 > p", nth);
    await copy("#paper-0 h1");
    await page.locator("snippet-drawer .snippet").first().focus();
    await page.keyboard.press("Alt+ArrowDown");
    await becomes("Net r", "First", "Field");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Delete");
    await becomes("Net r", "First");
    await page.keyboard.press("Control+z");
    await becomes("Net r", "First", "Field");
    await page.keyboard.press("Enter");
    await lands("First wheatear");
  });

  test("snippets are picked in an order that is seen, by clicking and by keys, and land in that order, as the sentence says", async () => {
    for (const nth of [0, 1]) await copy("#paper-0 > p", nth);
    await copy("#paper-0 h1");
    await page.locator("snippet-drawer .position").nth(2).click();
    await page.locator("snippet-drawer .snippet").first().focus();
    await page.keyboard.press("p");
    await page.waitForSelector("snippet-drawer .row.picked >> nth=1");
    expect(await page.locator("snippet-drawer .box").allInnerTexts()).toEqual(["2", "", "1"]);
    expect(await page.locator("snippet-drawer .row.picked").count()).toBe(2);
    const sentence = page.locator("snippet-drawer .sentence select");
    expect(
      await sentence.first().evaluate((select: HTMLSelectElement) => select.selectedOptions[0]!.text),
    ).toBe("the 2 picked");
    await sentence.nth(1).selectOption("bullets");
    await sentence.nth(2).selectOption("bare");
    await sentence.nth(4).selectOption("inline");
    const landing = page.locator("snippet-drawer .preview");
    await page.waitForFunction(() =>
      document
        .querySelector("snippet-drawer")!
        .shadowRoot!.querySelector(".preview")!
        .textContent!.includes("(diary.docx)"),
    );
    const shown = await landing.locator("li").allInnerTexts();
    expect(shown.map((line) => line.slice(0, 11))).toEqual(["Field diary", "First wheat"]);
    expect(await landing.locator("strong").count()).toBe(0);
    await page.click("snippet-drawer .go");
    await lands("Field diary, Merrow Spit (diary.docx)");
    expect(await editor().locator("li").allInnerTexts()).toEqual(shown);
  });

  test("paused, nothing is collected, and the drawer says so", async () => {
    await page.selectOption("snippet-drawer .state select", "off");
    await page.waitForSelector("snippet-drawer .state.off");
    await page
      .locator("#paper-0 p")
      .first()
      .evaluate((element) => getSelection()!.selectAllChildren(element));
    await page.keyboard.press("Control+c");
    await page.waitForTimeout(200);
    expect(await run()).toEqual([]);
  });

  const deed = (nth: number, name: string) =>
    doWithRow(page.locator("snippet-drawer .list .row").nth(nth), name);

  test("what is private is masked in the run, the block and the find; revealed on demand; placed in full", async () => {
    await copy("#paper-0 h1");
    await page.evaluate(() =>
      document.querySelector("snippet-drawer")!.binding!.collect({ text: "Card 4111 1111 1111 1111" }),
    );
    await becomes("Field", "••••••".slice(0, 5));
    expect(await told()).toMatch(/^Collected as 2, private: it looks like a card number/);
    const preview = page.locator("snippet-drawer .preview");
    await preview.getByText("One private snippet is left out. Pick it by its number to place it.").waitFor();
    await page.click("snippet-drawer .go");
    await lands("Field diary");
    expect(await page.locator("#desk").innerText()).not.toContain("4111");
    await page.locator("snippet-drawer .position").nth(1).click();
    await preview.getByText("••••••").waitFor();
    expect(
      await page.locator("snippet-drawer").evaluate((drawer) => drawer.shadowRoot!.textContent),
    ).not.toContain("4111");
    await deed(1, "Reveal");
    await becomes("Field", "Card ");
    await deed(1, "Mask");
    await page.click("snippet-drawer .go");
    await lands("Card 4111 1111 1111 1111");
    await deed(1, "Unhide");
    await becomes("Field", "Card ");
    // A field says itself that it holds a secret.
    await page.evaluate(() => {
      document.querySelector("#desk")!.innerHTML =
        '<input id="code" autocomplete="one-time-code" value="terns">';
      document.querySelector<HTMLInputElement>("#code")!.select();
    });
    await page.keyboard.press("Control+c");
    await becomes("Field", "Card ", "•••••");
  });

  test("finding as one types shows where the words stand, and what is found can be kept and placed", async () => {
    for (const nth of [0, 1]) await copy("#paper-0 > p", nth);
    await page.locator("snippet-drawer input[type=search]").pressSequentially("WHÉAT");
    await page.waitForSelector("snippet-drawer mark");
    expect(await page.locator("snippet-drawer mark").allInnerTexts()).toEqual(["wheat"]);
    expect(await page.locator("snippet-drawer .found").innerText()).toBe("One snippet holds “WHÉAT”.");
    await deed(0, "Keep");
    await page.waitForSelector("snippet-drawer .from:has-text('kept')");
    await page.locator("snippet-drawer .snippet").first().click();
    await lands("First wheatear");
    await page.locator("snippet-drawer input[type=search]").fill("");
    await becomes("First", "Net r");
  });

  test("what was found is a choice of the sentence: placed in the order of the run, and gone with the words", async () => {
    for (const nth of [0, 1]) await copy("#paper-0 > p", nth);
    await copy("#paper-0 h1");
    await page.locator("snippet-drawer input[type=search]").fill("n");
    const which = page.locator("snippet-drawer .sentence select").first();
    await which.selectOption("found");
    const found = await page.locator("snippet-drawer .snippet").count();
    expect(await which.evaluate(chosen)).toBe(found === 1 ? "the one found" : `the ${found} found`);
    await page.locator("snippet-drawer input[type=search]").fill("net");
    await page.waitForFunction(() => {
      const drawer = document.querySelector("snippet-drawer")!.shadowRoot!;
      return (
        drawer.querySelectorAll(".snippet").length === 1 &&
        !/wheatear/.test(drawer.querySelector(".preview")!.textContent!)
      );
    });
    expect(await which.evaluate(chosen)).toBe("the one found");
    await page.locator("snippet-drawer input[type=search]").fill("");
    await page.waitForFunction(() =>
      /wheatear/.test(
        document.querySelector("snippet-drawer")!.shadowRoot!.querySelector(".preview")!.textContent!,
      ),
    );
    expect(await which.evaluate(chosen)).toBe("all 3 snippets");
  });

  /** What a choice says now. */
  const chosen = (select: Element) => (select as HTMLSelectElement).selectedOptions[0]!.text;

  test("rules are sentences one can change; what leaves by them is named, and comes back", async () => {
    await copy("#paper-0 h1");
    await desk.openPanel("Rules");
    const rules = page.locator("snippet-drawer .panel");
    expect(await rules.getByLabel("The drawer holds").evaluate(chosen)).toBe("at most 1,000 snippets");
    await rules.getByLabel("What looks like a secret").selectOption("is kept like the rest");
    await page.waitForSelector(
      "snippet-drawer .notice:has-text('Nothing is made private unless you say so')",
    );
    await page.evaluate(() =>
      document.querySelector("snippet-drawer")!.binding!.drawer.setRules({ snippets: 1 }),
    );
    await page.getByRole("button", { name: "Back to the list" }).click();
    await page
      .locator("#paper-0 > p")
      .first()
      .evaluate((element) => getSelection()!.selectAllChildren(element));
    await page.keyboard.press("Control+c");
    await becomes("First");
    await page.waitForSelector(
      "snippet-drawer .notice:has-text('Made room: “Field diary, Merrow Spit” left')",
    );
    await desk.openPanel("Taken out");
    await page.getByRole("button", { name: "Bring back" }).click();
    await page.getByRole("button", { name: "Back to the list" }).click();
    await becomes("Field");
    page.once("dialog", (dialog) => void dialog.accept());
    await desk.openPanel("Taken out");
    await page.getByRole("button", { name: "forget it for good" }).click();
    await page.waitForSelector(
      "snippet-drawer .panel:has-text('Nothing has left that could be brought back.')",
    );
    expect(await told()).toContain("Forgot for good: 2 snippets");
  });

  test("two windows show one drawer", async () => {
    const second = await page.context().newPage();
    await second.goto(address);
    await second.waitForSelector("snippet-drawer .none");
    await page.bringToFront();
    await copy("#paper-0 p");
    await second.waitForSelector("snippet-drawer .says");
  });

  test("axe finds nothing, by day and by night, in forced colours, narrow, and in each panel", async () => {
    await copy("#paper-0 p");
    await copy("#paper-0 table");
    const panels = ["Taken out", "What was done", "Recipes", "Rules", "Keys"];
    for (const [name, { media, width, height, looksOnly }] of Object.entries(CONDITIONS)) {
      await page.setViewportSize({ width, height });
      await page.emulateMedia({ colorScheme: "light", forcedColors: "none", ...media });
      const narrow = page.locator("#panes >> text=Drawer");
      if (await narrow.isVisible()) await narrow.click();
      expect([name, await faultsOf(page, looksOnly)]).toEqual([name, []]);
      // Names and order are the same in each; how they look is seen in one.
      for (const panel of some(panels, (each) => each === "Rules" || !looksOnly)) {
        await desk.openPanel(panel);
        await page.locator("snippet-drawer .panel").waitFor();
        expect([name, panel, await faultsOf(page, looksOnly)]).toEqual([name, panel, []]);
        await page.getByRole("button", { name: "Back to the list" }).click();
      }
    }
  });
});
