import { readFileSync } from "node:fs";
import type { Page } from "playwright-core";
import { Example, onPages } from "../support/browser";
import type { PlaceDetail } from "drawer/page";

onPages("what one does with a form beside the drawer", () => {
  const record = new Example("ringing", "snippet-drawer h2", {
    permissions: ["clipboard-read", "clipboard-write"],
  });
  let page: Page;
  beforeEach(() => ({ page } = record));

  const field = (name: string) => page.locator(`#record [name=${name}]`);
  const button = (name: string | RegExp) => record.inDrawer("").getByRole("button", { name, exact: true });
  const values = () =>
    page.evaluate(() =>
      Object.fromEntries(
        [...document.querySelectorAll<HTMLInputElement>("form input, form select, form textarea")]
          .map((each) => [each.name, each.type === "checkbox" ? String(each.checked) : each.value] as const)
          .filter(([, value]) => value !== "" && value !== "false"),
      ),
    );
  /** Waits until the fields that hold something are these. */
  async function hold(expected: Record<string, string>): Promise<void> {
    for (const end = Date.now() + 5000; Date.now() < end; await page.waitForTimeout(30))
      if (JSON.stringify(await values()) === JSON.stringify(expected)) return;
    expect(await values()).toEqual(expected);
  }
  const snippets = () =>
    page.evaluate(async () => {
      const held = await document.querySelector("snippet-drawer")!.binding!.drawer.list();
      return held.map(({ entry }) => entry.text);
    });
  const SLATE = {
    ...{ date: "2031-04-08", time: "06:10", ring: "MS 4471", species: "Chiffchaff", ride: "North" },
    ...{ wing: "61", weight: "7.9", remarks: "Fat score 2; released at the hut." },
  };

  test("a table of labels fills the form by its labels: shown first, then filled, and undone as one", async () => {
    await record.copy("#notes table");
    await field("ring").click();
    await button("Fill the form").click();
    await record.inDrawer(".panel.fill").waitFor();
    const shown = await record.inDrawer(".panel.fill li").allInnerTexts();
    expect(shown.map((line) => line.replace(/\s+/g, " ").trim())).toEqual([
      ...["Date 2031-04-08", "Time 06:10", "Ring number MS 4471", "Species Chiffchaff", "Ride North"],
      ...["Wing 61", "Weight 7.9", "Retrap no", "Remarks Fat score 2; released at the hut."],
    ]);
    await hold({});
    await button("Fill 9 fields").click();
    await hold(SLATE);
    await button("Undo").click();
    await record.told("Undone: placing into 9 fields.");
    await hold({});
  });

  test("what a field does not take, and labels without a field, are said before anything is filled", async () => {
    const html = `<table><tr><td>Date</td><td>8 April</td></tr><tr><td>Ring number</td><td>MS 4471 and its mate</td></tr>
      <tr><td>Ringer</td><td>The warden</td></tr><tr><td>Moult</td><td>none</td></tr><tr><td>Ride</td><td>East</td></tr></table>`;
    await page.evaluate(
      (given) => document.querySelector("snippet-drawer")!.binding!.collect({ html: given }),
      html,
    );
    await record.told("Collected");
    await field("species").click();
    await button("Fill the form").click();
    const panel = record.inDrawer(".panel.fill");
    await panel.waitFor();
    expect(await panel.locator("li", { hasText: "which it does not take" }).count()).toBe(3);
    expect(await panel.innerText()).toContain("No field is called “Moult”.");
    await button("Fill one field").click();
    await hold({ ringer: "The warden" });
  });

  test("a deal hands each next snippet to the field that one goes to; undo hands it out again; a field gets one only", async () => {
    for (const nth of [1, 2, 3]) await record.copy(`#notes li:nth-child(${nth})`);
    await field("ringer").click();
    await button("One at a time").click();
    await record.told("Dealing 3 snippets");
    await hold({});
    await field("species").click();
    await hold({ species: "Species: Chiffchaff" });
    await field("remarks").click();
    await record.told("Placed 2 of 3 in “");
    await field("species").click();
    await page.waitForTimeout(300);
    await hold({ species: "Species: Chiffchaff", remarks: "- North ride, net 3" });
    expect(await record.inDrawer(".dealing").innerText()).toContain("3 of 3 is next: Wing 61 mm, 7.9 g");
    await button("Undo").click();
    await record.told("Undone: placing 2 of 3.");
    await hold({ species: "Species: Chiffchaff" });
    // A closed field takes none, and keeps none from the next.
    await field("ring").evaluate((element: HTMLInputElement) => (element.readOnly = true));
    await field("ring").click();
    await record.told("Nothing was placed");
    await field("remarks").click();
    await hold({ species: "Species: Chiffchaff", remarks: "- North ride, net 3" });
    await button("Skip").click();
    await record.told("Passed over 3 of 3.");
    await button("End").click();
    await record.inDrawer(".dealing").waitFor({ state: "detached" });
  });

  test("a selection is sent straight to where the last block went, wherever the caret is", async () => {
    await record.copy("#notes li:nth-child(1)");
    await field("remarks").click();
    await record.inDrawer(".snippet").click();
    await record.told("Placed");
    await field("ringer").click();
    await record.select("#notes li:nth-child(3)");
    await page.evaluate(() => document.querySelector("snippet-drawer")!.binding!.send());
    await hold({ remarks: "- Species: Chiffchaff\n- Wing 61 mm, 7.9 g" });
    expect(await snippets()).toEqual(["Species: Chiffchaff", "Wing 61 mm, 7.9 g"]);
  });

  test("what has come a moment ago, and is not yet shown, is in the block that is placed and in the one that is copied", async () => {
    await record.copy("#notes li:nth-child(1)");
    await field("remarks").click();
    /** Collects words, and presses a button at once. */
    const collectAndPress = (name: string | RegExp, text: string) =>
      button(name).evaluate(async (pressed: HTMLButtonElement, words) => {
        const content = [{ type: "paragraph", runs: [{ type: "text", text: words }] }] as const;
        const incoming = { content, pictures: new Map(), notices: [], origin: {} };
        await document.querySelector("snippet-drawer")!.binding!.drawer.collect([incoming]);
        pressed.click();
      }, text);
    await collectAndPress(/^Place \d/, "Net 2");
    await record.told("Placed 2 snippets in “");
    await hold({ remarks: "- Species: Chiffchaff\nNet 2" });
    await collectAndPress("Copy", "Net 3");
    await record.told("Copied 3 snippets");
    expect(await page.evaluate(() => navigator.clipboard.readText())).toMatch(/Chiffchaff\nNet 2\nNet 3$/);
  });

  test("keys that come faster than the list is drawn, and a list that is older than the drawer, are about the snippets one saw", async () => {
    for (const nth of [1, 2, 3, 4]) await record.copy(`#notes li:nth-child(${nth})`);
    const [, second, third, fourth] = await snippets();
    await record.inDrawer(".snippet").first().focus();
    /** Presses Delete so often at once, when another window has perhaps taken something out that is shown here still. */
    const press = (times: number, goneElsewhere?: string) =>
      page.evaluate(
        async ([count, gone]) => {
          const { renderRoot, binding } = document.querySelector("snippet-drawer")!;
          if (gone) await binding!.drawer.discard(gone);
          for (let at = 0; at < count; at++)
            (renderRoot as ShadowRoot).activeElement!.dispatchEvent(
              new KeyboardEvent("keydown", { key: "Delete", bubbles: true, cancelable: true }),
            );
        },
        [times, goneElsewhere] as const,
      );
    await press(2);
    await record.told(`Discarded 1, “${second}”`);
    expect(await snippets()).toEqual([third, fourth]);
    await record.inDrawer(".snippet:focus").getByText(third!).waitFor();
    await press(1, "1");
    await record.told("That snippet is not in the drawer");
    expect(await snippets()).toEqual([fourth]);
  });

  test("what is copied goes onto the latest when one has said so; with nothing selected the line of the caret is copied", async () => {
    await record.copy("#notes li:nth-child(1)");
    await record.inDrawer(".state select").selectOption("latest");
    await record.copy("#notes li:nth-child(3)", "Appended");
    expect(await snippets()).toEqual([expect.stringMatching(/Chiffchaff[\s\S]*Wing 61 mm/)]);
    await record.inDrawer(".state select").selectOption("on");
    await field("remarks").fill("first line\nsecond line");
    await page.keyboard.press("Control+c");
    await record.told("Collected as 2: “second line”");
    expect(await page.evaluate(() => navigator.clipboard.readText())).toBe("second line");
    await field("remarks").fill("");
    await page.locator("#notes p").click();
    await page.keyboard.press("Control+c");
    await record.told("Collected as 3: “The first round was at 06:10");
  });

  test("a row and the block are copied to the clipboard in all forms, dragged out into the page, and are not collected again", async () => {
    await record.copy("#notes p");
    await record.doWith(0, "Copy");
    await record.told("Copied snippet 1 to the clipboard.");
    const forms = await page.evaluate(async () => {
      const [item] = await navigator.clipboard.read();
      return Promise.all(["text/plain", "text/html"].map(async (type) => (await item!.getType(type)).text()));
    });
    expect(forms[0]).toBe("The first round was at 06:10, two hours after low water.");
    expect(forms[1]).toMatch(/<(b|strong)[^>]*>06:10/);
    await record.inDrawer(".acts").getByText("Copy", { exact: true }).click();
    await record.told("Copied one snippet to the clipboard.");
    expect(await snippets()).toHaveLength(1);
    await record.inDrawer(".snippet").dragTo(field("remarks"));
    await hold({ remarks: "The first round was at 06:10, two hours after low water." });
    expect(await snippets()).toHaveLength(1);
  });

  test("an image that was copied elsewhere comes in as the picture, not as its address", async () => {
    const transfer = await page.evaluateHandle((base64) => {
      const data = new DataTransfer();
      const raw = Uint8Array.from(atob(base64), (sign) => sign.charCodeAt(0));
      data.items.add(new File([raw], "image.png", { type: "image/png" }));
      data.setData("text/html", '<img src="https://merrow-spit.example/tide.png" alt="The tide">');
      return data;
    }, readFileSync("demo/sketches/tide.png").toString("base64"));
    await page.dispatchEvent("snippet-drawer", "drop", { dataTransfer: transfer });
    await record.told(/^Collected as 1/);
    const held = await page.evaluate(async () => {
      const [snippet] = await document.querySelector("snippet-drawer")!.binding!.drawer.snippets("1");
      return [
        snippet!.entry.kind,
        snippet!.pictures.size,
        JSON.stringify(snippet!.content).includes("The tide"),
      ];
    });
    expect(held).toEqual(["picture", 1, true]);
  });

  test("what a program offers as Rich Text Format alone comes in with its look", async () => {
    const transfer = await page.evaluateHandle(() => {
      const data = new DataTransfer();
      data.setData("text/rtf", "{\\rtf1\\ansi First {\\b wheatear} at 3\\'b0C\\par}");
      return data;
    });
    await page.dispatchEvent("snippet-drawer", "drop", { dataTransfer: transfer });
    await record.told(/^Collected as 1/);
    const held = await page.evaluate(async () => {
      const [snippet] = await document.querySelector("snippet-drawer")!.binding!.drawer.snippets("1");
      return [snippet!.entry.text, JSON.stringify(snippet!.content).includes('"bold":true')];
    });
    expect(held).toEqual(["First wheatear at 3°C", true]);
  });

  test("files that are dropped in are read: a document, a sheet, a picture; a row that is dropped on another stands before it", async () => {
    for (const [name, type] of [
      ["diary.docx", "application/vnd.openxmlformats-officedocument.wordprocessingml.document"],
      ["costs.csv", "text/csv"],
      ["sketches/tide.png", "image/png"],
    ] as const) {
      const bytes = readFileSync(`demo/${name}`).toString("base64");
      const transfer = await page.evaluateHandle(
        ([base64, file, media]) => {
          const data = new DataTransfer();
          const raw = Uint8Array.from(atob(base64), (sign) => sign.charCodeAt(0));
          data.items.add(new File([raw], file.split("/").at(-1)!, { type: media }));
          return data;
        },
        [bytes, name, type] as const,
      );
      await page.dispatchEvent("snippet-drawer", "drop", { dataTransfer: transfer });
      // Of what has parts one may choose; here all of it is wanted.
      if (!name.endsWith("png")) await button("Collect all of it as one").click();
      await record.told(new RegExp(`\\(${name.split("/").at(-1)!}|^Collected.*(tide|picture)`));
    }
    const kinds = await page.evaluate(async () =>
      (await document.querySelector("snippet-drawer")!.binding!.drawer.list()).map(({ entry }) => [
        entry.kind,
        entry.origin.document,
      ]),
    );
    expect(kinds).toEqual([
      ["text", "diary.docx"],
      ["table", "costs.csv"],
      ["picture", "tide.png"],
    ]);
    await record
      .inDrawer(".list .row")
      .nth(2)
      .locator(".snippet")
      .dragTo(record.inDrawer(".list .row").first());
    await record.told("Moved");
    const documents = async () =>
      (await record.inDrawer(".list .from").allInnerTexts()).map((text) => text.split(" · ").at(-1));
    for (const end = Date.now() + 4000; Date.now() < end && (await documents()).indexOf("tide.png") > 1;)
      await page.waitForTimeout(20);
    expect((await documents()).indexOf("tide.png")).toBeLessThan(2);
  });

  /** Does something that lets the page load what tells secrets, and waits until that is there. */
  async function toldSecrets(deed: () => Promise<void>): Promise<void> {
    const response = page.waitForResponse(/\/secret-/);
    await deed();
    await page.evaluate((address) => import(address), (await response).url());
  }

  test("a copy just before the page is left is collected by the next one, once, also much later; and none from before a pause", async () => {
    const left = () => page.evaluate(() => Object.keys(localStorage).filter((key) => key.endsWith("copies")));
    /** Copies while what reads copies does not come, and leaves the page for itself. */
    let isHeld = false;
    await page.route(/read-copied/, (route) => (isHeld ? undefined : route.continue()));
    const copyAndLeave = async (selector: string) => {
      isHeld = true;
      await page.reload();
      await page.waitForSelector("#notes li");
      await record.select(selector);
      await toldSecrets(() => page.keyboard.press("Control+c"));
      isHeld = false;
    };
    await copyAndLeave("#notes li:nth-child(1)");
    await page.reload();
    await record.told("Collected as 1");
    expect([await snippets(), await left()]).toEqual([["Species: Chiffchaff"], []]);
    // While collecting is paused, what had been left before is not collected, and does not stay.
    await copyAndLeave("#notes li:nth-child(2)");
    await page.evaluate(() =>
      document.querySelector("snippet-drawer")!.binding!.drawer.setRules({ collecting: false }),
    );
    await page.reload();
    await page.waitForSelector("snippet-drawer .says");
    expect([(await snippets()).length, await left()]).toEqual([1, []]);
    await page.evaluate(() =>
      document.querySelector("snippet-drawer")!.binding!.drawer.setRules({ collecting: true }),
    );
    // Who comes back later finds it collected all the same.
    await copyAndLeave("#notes li:nth-child(2)");
    await page.evaluate(() =>
      addEventListener("pagehide", () => {
        for (const storage of [localStorage, sessionStorage])
          for (const key of Object.keys(storage).filter((each) => each.endsWith("copies")))
            storage.setItem(key, storage.getItem(key)!.replace(/"at":\d+/g, '"at":1'));
      }),
    );
    await page.reload();
    await record.inDrawer(".list .row").nth(1).waitFor();
    expect([(await snippets()).length, await left()]).toEqual([2, []]);
  });

  test.each([
    ["is known to be one", false],
    ["may be one", true],
  ])(
    "a secret that was copied before the page was left stands in no storage of the site when it %s, and that is told",
    async (_, isUnknown) => {
      let isHeld = true;
      await page.route(/read-copied/, (route) => (isHeld ? undefined : route.continue()));
      await page.route(/\/secret-/, (route) => (isHeld && isUnknown ? undefined : route.continue()));
      await page.reload();
      await page.waitForSelector("#notes li");
      await page.evaluate(() => {
        document.querySelector("#notes li")!.textContent = "Password: herring-Gull7";
        addEventListener("pagehide", () => {
          const all = JSON.stringify([{ ...localStorage }, { ...sessionStorage }]);
          document.cookie = `held=${encodeURIComponent(String(all.includes("herring")))}`;
          for (const key of Object.keys(sessionStorage))
            sessionStorage.setItem(key, sessionStorage.getItem(key)!.replace(/"at":\d+/g, '"at":1'));
        });
      });
      await record.select("#notes li");
      const secret = isUnknown ? undefined : page.waitForResponse(/\/secret-/);
      await page.keyboard.press("Control+c");
      await (await secret)?.finished();
      // Until the page has read what came.
      await page.evaluate(() => new Promise((done) => setTimeout(done, 50)));
      isHeld = false;
      await page.reload();
      await record.told(/Copy it again/);
      const all = await page.evaluate(() => [
        JSON.stringify([{ ...localStorage }, { ...sessionStorage }]),
        document.cookie,
      ]);
      expect(all[0]).not.toContain("herring");
      expect(all[1]).toContain(`held=${isUnknown}`);
      expect(await snippets()).toEqual([]);
    },
  );

  test("what is looked at leads nowhere; a link is opened by an act of its own; the sentence says what is shown", async () => {
    await page.evaluate(async () => {
      const { binding } = document.querySelector("snippet-drawer")!;
      await binding!.collect({ html: '<p><a href="https://merrow-spit.example/hut">The hut</a></p>' });
      await binding!.collect({ html: "<p>Wren</p>" });
    });
    await record.inDrawer(".list .row").nth(1).waitFor();
    const link = record.inDrawer(".preview a");
    await link.waitFor();
    expect([await link.getAttribute("href"), await link.getAttribute("title")]).toEqual([
      null,
      "https://merrow-spit.example/hut",
    ]);
    await page.evaluate(() => (window.open = (...words) => ((document.title = words.join(" ")), null)));
    await record.doWith(0, "Open");
    await page.waitForFunction(
      () => document.title === "https://merrow-spit.example/hut _blank noopener,noreferrer",
    );
    const which = () =>
      record
        .inDrawer(".sentence select")
        .first()
        .evaluate((select) => (select as HTMLSelectElement).selectedOptions[0]!.text);
    const all = await which();
    await record.inDrawer(".list .position").nth(1).click();
    await record.inDrawer(".list .picked").waitFor();
    expect(await which()).not.toBe(all);
    await record.inDrawer(".list .position").nth(1).click();
    await record.inDrawer(".list .picked").waitFor({ state: "detached" });
    expect(await which()).toBe(all);
    // A row that was pressed, and a file that is dropped onto another later: the file is what comes.
    await record.inDrawer(".list .row").nth(1).locator(".snippet").dispatchEvent("pointerdown");
    await page.waitForTimeout(300);
    const transfer = await page.evaluateHandle(() => {
      const data = new DataTransfer();
      data.items.add(new File(["Boat,Port\nGannet,West Quay\n"], "boats.csv", { type: "text/csv" }));
      return data;
    });
    await page.dispatchEvent("snippet-drawer .list .row >> nth=0", "drop", { dataTransfer: transfer });
    await button("Collect all of it as one").waitFor();
    expect(await snippets()).toEqual(["The hut", "Wren"]);
  });

  test("a page in German is spoken to in German, with its dates, and says so to a screen reader; a language of its own name stays", async () => {
    await page.addInitScript(() =>
      addEventListener("DOMContentLoaded", () => (document.documentElement.lang = "de-AT")),
    );
    await page.reload();
    await page.waitForSelector("#notes li");
    await record.copy("#notes li:nth-child(1)", "Eingesammelt als 1");
    const spoken = await page.evaluate(() =>
      [document.querySelector("snippet-drawer")!, document.querySelector("[role=status]")!].map((each) => [
        (each as HTMLElement).lang,
        (each as HTMLElement).dir,
      ]),
    );
    expect(spoken).toEqual([
      ["de", "ltr"],
      ["de", "ltr"],
    ]);
    await page.evaluate(() => (document.querySelector("snippet-drawer")!.lang = "de-CH"));
    await record.inDrawer(".state select[title^='Was Sie kopieren']").waitFor();
    expect(await page.evaluate(() => document.querySelector("snippet-drawer")!.lang)).toBe("de-CH");
  });

  test("a page hears of each act before and after, and can keep it from being done", async () => {
    await page.evaluate(() => {
      const heard: unknown[] = ((window as never as Record<string, unknown>)["heard"] = []);
      for (const name of ["collecting", "collected", "placing", "placed"] as const)
        document.addEventListener(`drawer-${name}`, (event) => {
          const { ids, target } = (event as CustomEvent<Partial<PlaceDetail>>).detail;
          heard.push([name, ids?.length, target?.getAttribute("name")]);
          if (document.body.dataset["keep"] === name) event.preventDefault();
        });
    });
    await record.copy("#notes p");
    await field("species").click();
    await record.inDrawer(".snippet").click();
    await record.told("Placed");
    await page.evaluate(() => (document.body.dataset["keep"] = "placing"));
    await record.inDrawer(".snippet").click();
    await page.waitForTimeout(400);
    await page.evaluate(() => (document.body.dataset["keep"] = "collecting"));
    await record.select("#notes li:nth-child(1)");
    await page.keyboard.press("Control+c");
    await page.waitForTimeout(400);
    expect(await page.evaluate(() => (window as never as Record<string, unknown>)["heard"])).toEqual([
      ["collecting", undefined, undefined],
      ["collected", 1, undefined],
      ["placing", 1, "species"],
      ["placed", 1, "species"],
      ["placing", 1, "species"],
      ["collecting", undefined, undefined],
    ]);
    expect(await snippets()).toHaveLength(1);
    await hold({ species: "The first round was at 06:10, two hours after low water." });
  });

  test("labels, merging and splitting, recipes, other drawers and files are there", async () => {
    for (const nth of [1, 2]) await record.copy(`#notes li:nth-child(${nth})`);
    await record.doWith(0, "Label");
    await page.keyboard.type("Species");
    await page.keyboard.press("Enter");
    await record.told("Labelled");
    for (const nth of [0, 1]) await record.inDrawer(".position").nth(nth).click();
    await record.inDrawer(".sentence select").nth(1).selectOption("sentence");
    await record.openPanel("Recipes");
    await record.inDrawer(".panel").getByLabel("Name of the recipe").fill("inline");
    await page.keyboard.press("Enter");
    await record.told("Kept the recipe “inline”.");
    await button("Back to the list").click();
    await button("Merge into one").click();
    await record.told("Merged");
    expect(await snippets()).toEqual(["Species: Chiffchaff and North ride, net 3"]);
    await record.doWith(0, "Split");
    await record.told("Split");
    expect(await snippets()).toHaveLength(2);
    await button("Undo").click();
    await record.told("Undone");
    await button("Do again").click();
    await record.told("Done again");
    const download = page.waitForEvent("download");
    await record.inDrawer(".acts select").selectOption("markdown");
    expect((await download).suggestedFilename()).toBe("main.md");
    expect(readFileSync(await (await download).path(), "utf8")).toContain("North ride, net 3");
    page.on("dialog", (dialog) => void dialog.accept("summer"));
    await record.inDrawer(".drawers").selectOption("");
    await record.told("This is the drawer “summer”.");
    expect(await record.inDrawer(".says").count()).toBe(0);
    await record.copy("#notes p", "Collected as 1");
    await record.inDrawer(".drawers").selectOption("main");
    await record.told("This is the drawer “main”.");
    await page.waitForSelector("snippet-drawer .says >> nth=1");
  });

  test("the whole job by the keyboard alone, from the field to the drawer and back", async () => {
    for (const nth of [1, 2, 3]) await record.copy(`#notes li:nth-child(${nth})`);
    await field("remarks").focus();
    await page.keyboard.type("Seen: ");
    const focused = () =>
      page.evaluate(() => {
        const { activeElement } = document.querySelector("snippet-drawer")!.shadowRoot!;
        return activeElement?.closest<HTMLElement>(".row")?.dataset["position"] ?? activeElement?.className;
      });
    await page.waitForSelector("snippet-drawer .says >> nth=2");
    await page.keyboard.press("Alt+Shift+D");
    await record.inDrawer(".snippet:focus").waitFor();
    expect(await focused()).toBe("3");
    // Two quick moves are two moves.
    await page.keyboard.press("Alt+ArrowUp");
    await page.keyboard.press("Alt+ArrowUp");
    for (const end = Date.now() + 4000; Date.now() < end && (await focused()) !== "1";)
      await page.waitForTimeout(20);
    expect(await snippets()).toEqual(["Wing 61 mm, 7.9 g", "Species: Chiffchaff", "North ride, net 3"]);
    expect(await focused()).toBe("1");
    await page.keyboard.press("p");
    const said = () => page.locator("body > [role=status]").first().innerText();
    await page.waitForFunction(
      () => document.querySelector("body > [role=status]")!.textContent === "Picked snippet 1 as number 1.",
    );
    expect(await said()).toBe("Picked snippet 1 as number 1.");
    await page.keyboard.press("ArrowRight");
    await page.keyboard.press("ArrowRight");
    expect(
      await page.evaluate(() =>
        document.querySelector("snippet-drawer")!.shadowRoot!.activeElement!.getAttribute("aria-label"),
      ),
    ).toBe("Discard: snippet 1");
    // What is picked is let go of first.
    await page.keyboard.press("Escape");
    await record.inDrawer(".picked").waitFor({ state: "detached" });
    await page.keyboard.press("Escape");
    expect(await page.evaluate(() => document.activeElement!.getAttribute("name"))).toBe("remarks");
    await page.keyboard.press("Alt+Shift+D");
    await record.inDrawer(".snippet:focus").waitFor();
    await page.keyboard.press("Enter");
    await record.told("Placed");
    await hold({ remarks: "Seen: \n- Wing 61 mm, 7.9 g" });
    // The last row leaves the focus in the drawer.
    await page.keyboard.press("Alt+Shift+D");
    await record.inDrawer(".snippet:focus").waitFor();
    for (let left = 2; left >= 0; left--) {
      await page.keyboard.press("Delete");
      for (const end = Date.now() + 4000; Date.now() < end && (await snippets()).length > left;)
        await page.waitForTimeout(20);
      await page.waitForTimeout(150);
    }
    expect(await page.evaluate(() => document.activeElement!.localName)).toBe("snippet-drawer");
    // The run is one stop of the Tab key.
    await record.copy("#notes li:nth-child(1)");
    await page.keyboard.press("Alt+Shift+D");
    await record.inDrawer(".snippet:focus").waitFor();
    await page.keyboard.press("Tab");
    expect(
      await page.evaluate(() =>
        document.querySelector("snippet-drawer")!.shadowRoot!.activeElement!.textContent!.trim(),
      ),
    ).toBe("Undo");
  });

  test("a copy is heard where a script stops it, in a shadow tree, and of a picture; a cut too; an excluded part and a password are left alone", async () => {
    await page.evaluate(() => {
      const notes = document.querySelector("#notes")!;
      for (const type of ["copy", "cut"])
        notes.addEventListener(type, (event) => event.stopImmediatePropagation(), { capture: true });
      const host = document.createElement("div");
      host.id = "host";
      host.attachShadow({ mode: "open" }).innerHTML = "<p>In a <b>shadow</b> tree</p>";
      const picture = Object.assign(new Image(), { src: "/sketches/tide.png", alt: "Tide", id: "picture" });
      const sketch = document.createElement("p");
      sketch.id = "sketch";
      sketch.append(picture);
      const password = Object.assign(document.createElement("input"), {
        type: "password",
        value: "heath-ride-7",
        id: "pass",
      });
      document.querySelector("form")!.prepend(host, sketch, password);
    });
    await record.copy("#notes li:nth-child(1)", "Collected as 1");
    await page.evaluate(() => {
      const paragraph = document.querySelector("#host")!.shadowRoot!.querySelector("p")!;
      getSelection()!.setBaseAndExtent(paragraph, 0, paragraph, 3);
    });
    await page.keyboard.press("Control+c");
    await record.told("Collected as 2: “In a shadow tree”");
    await record.copy("#sketch", /^Collected as 3/);
    await page.evaluate(() => ((document.querySelector("#notes") as HTMLElement).contentEditable = "true"));
    await page.locator("#notes p").click();
    await record.select("#notes p");
    await page.keyboard.press("Control+x");
    await record.told("Collected as 4: “The first round was at 06:10");
    await page.locator("#pass").selectText();
    await page.keyboard.press("Control+c");
    await page.waitForTimeout(300);
    const held = await page.evaluate(async () => {
      const drawer = document.querySelector("snippet-drawer")!.binding!.drawer;
      return (await drawer.snippets("all")).map(({ entry, pictures }) => [entry.kind, pictures.size]);
    });
    expect(held).toEqual([
      ["text", 0],
      ["text", 0],
      ["picture", 1],
      ["text", 0],
    ]);
  });

  test("two on one page show the same, and go on when one of them is taken out", async () => {
    await page.evaluate(() => {
      const first = document.querySelector("snippet-drawer")!;
      const second = document.createElement("snippet-drawer");
      second.id = "second";
      second.binding = first.binding;
      first.after(second);
    });
    await record.copy("#notes li:nth-child(1)");
    for (const id of ["#drawer", "#second"]) await page.waitForSelector(`${id} .says`);
    await page.evaluate(() => document.querySelector("#drawer")!.remove());
    await field("species").click();
    await page.click("#second .snippet");
    await hold({ species: "Species: Chiffchaff" });
    await record.select("#notes li:nth-child(3)");
    await page.keyboard.press("Control+c");
    await page.waitForSelector("#second .says >> nth=1");
  });

  test("one that is gone collects nothing any more; put back, it goes on where it was", async () => {
    await record.copy("#notes li:nth-child(1)");
    await page.evaluate(() => {
      const drawer = document.querySelector("snippet-drawer")!;
      Object.assign(window, { away: drawer });
      drawer.remove();
    });
    await page.waitForTimeout(100);
    await record.select("#notes li:nth-child(3)");
    await page.keyboard.press("Control+c");
    await page.waitForTimeout(300);
    await page.evaluate(() => document.body.append((window as never as { away: Element }).away));
    await page.waitForSelector("snippet-drawer .says");
    await record.copy("#notes p", "Collected as 2");
  });

  test("what is copied while the drawer is still being opened is collected, in order, and nothing else is lost", async () => {
    await page.addInitScript(() => {
      const open = IDBFactory.prototype.open;
      const gate = new Promise((done) => Object.assign(window, { openNow: done }));
      // The request answers when the gate is open: its own listeners are held back.
      IDBFactory.prototype.open = function (...given) {
        const request = open.apply(this, given);
        const listen = request.addEventListener.bind(request);
        request.addEventListener = (type: string, heard: EventListener) =>
          listen(type, type === "success" ? (event: Event) => void gate.then(() => heard(event)) : heard);
        return request;
      };
    });
    await page.reload();
    await record.inDrawer(".top").waitFor();
    for (const nth of [1, 3]) {
      await record.select(`#notes li:nth-child(${nth})`);
      await page.keyboard.press("Control+c");
    }
    expect(await record.inDrawer(".says").count()).toBe(0);
    expect(await record.inDrawer(".composer").getAttribute("inert")).toBe("");
    await page.evaluate(() => (window as never as { openNow: () => void }).openNow());
    await record.told("Collected as 2");
    expect(await snippets()).toEqual(["Species: Chiffchaff", expect.stringContaining("Wing")]);
    await record.copy("#notes li:nth-child(2)", "Collected as 3");
  });

  test("what cannot be loaded when it is first needed is said, and done when it can", async () => {
    // The page's own log hears of it too.
    page.removeAllListeners("pageerror");
    await page.route(/read-copied|blocks/, (route) => route.abort());
    await page.reload();
    await page.waitForSelector("#notes li");
    await record.copy(
      "#notes li:nth-child(1)",
      "Nothing was done: a part of the drawer could not be loaded.",
    );
    // The one before the other is let go of: the page loads ahead when it rests.
    await page.route(/blocks/, (route) => route.abort());
    await page.unroute(/read-copied|blocks/);
    await record.copy("#notes li:nth-child(1)", "Collected as 1");
    await record.inDrawer(".preview").getByText("What would land cannot be shown.").waitFor();
    await field("species").click();
    await button("Place 1").click();
    await record.told("Nothing was done: a part of the drawer could not be loaded.");
    await hold({});
    await page.unroute(/blocks/);
    await button("Place 1").click();
    await record.told("Placed one snippet in “");
    await record.inDrawer(".preview").getByText("Chiffchaff").waitFor();
    await hold({ species: "Species: Chiffchaff" });
  });

  test("where the browser keeps nothing, all works in memory, and it is said", async () => {
    await page.addInitScript(() => {
      IDBFactory.prototype.open = () => {
        throw new DOMException("The operation is insecure.", "SecurityError");
      };
    });
    await page.reload();
    await page.waitForSelector("snippet-drawer .kept:has-text('This browser keeps nothing for this page')");
    await record.copy("#notes li:nth-child(1)");
    await field("species").click();
    await record.inDrawer(".snippet").click();
    await hold({ species: "Species: Chiffchaff" });
  });

  test("only the bound part of a page counts, what is too long is refused, the browser is asked to keep it; keys are heard in a frame", async () => {
    await page.addInitScript(() => {
      navigator.storage.persist = () => {
        Object.assign(window, { isAsked: true });
        return Promise.resolve(true);
      };
    });
    await page.reload();
    await record.inDrawer(".top").waitFor();
    expect(await page.evaluate(() => (window as never as { isAsked: boolean }).isAsked)).toBe(true);
    await page.evaluate(async () => {
      const drawer = document.querySelector("snippet-drawer")!;
      const before = drawer.binding!;
      const { Binding } = { Binding: before.constructor as new (...given: unknown[]) => typeof before };
      before.unbind();
      const part = document.querySelector("form")!;
      const frame = document.createElement("iframe");
      frame.srcdoc = "<textarea aria-label='Note'></textarea><p>Words in the frame</p>";
      part.append(frame);
      await new Promise((loaded) => frame.addEventListener("load", loaded, { once: true }));
      const kept = document.createElement("p");
      kept.id = "kept";
      kept.innerHTML = `A sketch <img src="/sketches/tide.png" alt="Tide">`;
      part.prepend(kept);
      drawer.binding = new Binding(before.drawer, { root: part, maxLength: 4000 });
    });
    await record.select("#notes li:nth-child(1)");
    await page.keyboard.press("Control+c");
    await record.copy("#kept", /^Collected as 1: “A sketch/);
    await page.evaluate(() => (document.querySelector("#kept")!.textContent = "Long ".repeat(900)));
    await record.copy("#kept", /^This piece has/);
    expect(await snippets()).toEqual(["A sketch [Tide]"]);

    const frame = page.frameLocator("iframe");
    await frame.getByLabel("Note").click();
    await page.keyboard.press("Alt+Shift+D");
    await record.inDrawer(".snippet:focus").waitFor();
    await page.keyboard.press("Enter");
    await record.told("Placed");
    expect(await frame.getByLabel("Note").inputValue()).toBe("A sketch [Tide]");

    await page.evaluate(() => {
      document.querySelector("#kept")!.innerHTML =
        `Sent with <img src="/sketches/tide.png" alt="its sketch">`;
    });
    await page.click("#kept");
    await record.select("#kept");
    await page.keyboard.press("Alt+Shift+S");
    await record.told("Placed");
    await page.click("#notes p");
    await record.select("#notes p");
    await page.keyboard.press("Alt+Shift+S");
    await record.told("Nothing is selected");
    const pictures = await page.evaluate(async () => {
      const { drawer } = document.querySelector("snippet-drawer")!.binding!;
      return (await drawer.snippets("last"))[0]!.pictures.size;
    });
    expect(pictures).toBe(1);
  });
});

onPages("what one does with cells", () => {
  const places = new Example("anywhere", "body[data-ready]");

  test("snippets go one to each cell, down or across from the chosen one, and are taken back as one", async () => {
    const { page } = places;
    for (const text of ["wren", "two\nlines", "tern"])
      await page.evaluate(
        (given) => document.querySelector("snippet-drawer")!.binding!.collect({ text: given }),
        text,
      );
    await page.waitForSelector("snippet-drawer .says >> nth=2");
    const cells = () =>
      page
        .locator("#inputs td input")
        .evaluateAll((inputs) => inputs.map((each) => (each as HTMLInputElement).value));
    const before = await cells();
    const act = (name: string) => places.inDrawer(".acts").getByText(name, { exact: true }).click();
    const undo = async () => {
      await places.inDrawer(".notice button").first().click();
      await places.told("Undone: placing 3 snippets.");
      expect(await cells()).toEqual(before);
    };
    await page.locator("#inputs td input").nth(4).click();
    await act("Down the cells");
    await places.told("Placed 3 snippets in “");
    expect(await cells()).toEqual(
      before.map((text, at) => ({ 4: "wren", 7: "two lines", 10: "tern" })[at] ?? text),
    );
    await undo();
    await page.locator("#inputs td input").nth(3).click();
    await act("Across the cells");
    await places.told("Placed 3 snippets in “");
    expect(await cells()).toEqual(
      before.map((text, at) => ({ 3: "wren", 4: "two lines", 5: "tern" })[at] ?? text),
    );
    await undo();
    await page.locator("#inputs td input").nth(4).click();
    await act("Across the cells");
    await places.told("Nothing was placed: from “ride 2” on there are not enough cells.");
    expect(await cells()).toEqual(before);
  });
});
