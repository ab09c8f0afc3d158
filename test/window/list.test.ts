import { writeFileSync } from "node:fs";
import { join } from "node:path";
import type { Browser } from "playwright-core";
import { launch } from "../support/browser";
import { commandHome } from "../support/command";
import { display, onDesktop, until } from "../support/desktop";
import { drawerFileOf } from "../support/pieces";
import { OpenedWindow, type WindowPage } from "../support/window";

/** Eighteen texts of notes, some longer than a line. */
const NOTES = Array.from(
  { length: 18 },
  (_, at) =>
    `Note ${at + 1}: ${["terns over the bar", "wind north-west, falling, the sea calm from noon on, and nobody at the hut until the tide had turned"][at % 2]}`,
);

onDesktop("the list has the room", () => {
  display();
  const { drawer, all, fresh, home, folder } = commandHome();
  let browser: Browser;
  let opened: OpenedWindow;
  let window: WindowPage;
  beforeAll(async () => {
    browser = await launch();
  });
  afterAll(() => browser.close());
  beforeEach(() => fresh());
  afterEach(async () => {
    await Promise.all(browser.contexts().map((context) => context.close()));
    await opened.end();
  });

  const open = async () => {
    opened = await OpenedWindow.open(home());
    window = await opened.page(browser);
    await window.in(".list .row").first().waitFor();
  };
  /** A drawer file with so many snippets, brought in. */
  async function importMany(count: number): Promise<void> {
    const file = join(folder, "many.drawer");
    const entries = Array.from({ length: count }, (_, at) => `entry ${at + 1}`);
    writeFileSync(file, drawerFileOf(entries).join("\n"));
    await drawer(["rules", "snippets=any"]);
    const { code, err } = await drawer(["import", file]);
    if (code !== 0) throw new Error(err);
  }
  /** Eighteen texts, two tables, one of two rows, a picture and a link. */
  const twentyTwo = async () => {
    const texts = [...NOTES, "https://merrow-spit.example/tides"].map((text, at) => {
      const file = join(folder, `note-${at}.txt`);
      writeFileSync(file, text);
      return file;
    });
    const low = join(folder, "rides.csv");
    writeFileSync(low, "Ride,New\nNorth,14\n");
    const tables = `demo/costs.csv ${low} demo/sketches/tide.png`;
    await all(`collect ${texts.slice(0, -1).join(" ")} ${tables} ${texts.at(-1)}`);
  };
  /** The positions of the rows whose whole box lies in the list and in the viewport, and which say all that a row says. */
  const inSight = () =>
    window.page.evaluate(() => {
      const root = document.querySelector("snippet-drawer")!.shadowRoot!;
      const list = root.querySelector(".list")!.getBoundingClientRect();
      const isSeen = (element: Element | null) =>
        element !== null && element.getBoundingClientRect().width > 0;
      return [...root.querySelectorAll<HTMLElement>(".list .row")]
        .filter((row) => {
          const { top, bottom } = row.getBoundingClientRect();
          const says = [".position", ".kind", ".says", ".when"].every((part) =>
            isSeen(row.querySelector(part)),
          );
          return says && top >= list.top - 1 && bottom <= Math.min(list.bottom, innerHeight) + 1;
        })
        .map((row) => Number(row.dataset["position"]));
    });
  /** The boxes of what is in sight, but for the words in the bar. */
  const boxes = () =>
    window.page.evaluate(() => {
      const root = document.querySelector("snippet-drawer")!.shadowRoot!;
      const list = root.querySelector(".list")!.getBoundingClientRect();
      const all = root.querySelectorAll(".top, .list, .list .row, .snippet, .says, .notice, .go, .composer");
      return [...all].flatMap((element) => {
        const { x, y, width, height, top, bottom } = element.getBoundingClientRect();
        // Rows that are drawn beyond are others by and by.
        if (element.closest(".row") && (bottom < list.top || top > list.bottom)) return [];
        return [element.className.replace(/ ?(picked|current|new)/g, ""), x, y, width, height].join(" ");
      });
    });

  /** The boxes that have moved since by a pixel or more: half a one is a size in letters that is none in pixels. */
  const moved = (before: readonly string[], now: readonly string[]) => {
    const sizes = (all: readonly string[]) => all.flatMap((box) => box.match(/-?[\d.]+/g)!.map(Number));
    const [was, is] = [sizes(before), sizes(now)];
    if (was.length !== is.length) return now;
    return was.filter((size, at) => Math.abs(size - is[at]!) >= 1);
  };

  /** What is said beside the words of the row that is pointed at and is covered in part: neither all nor none of its height. */
  const halfCovered = () =>
    window.in(".list .row:hover").evaluate((row) => {
      const actions = row.querySelector(".actions")!.getBoundingClientRect();
      return [...row.querySelectorAll(".from, .when, .day")].flatMap((line) => {
        const { top, bottom, right } = line.getBoundingClientRect();
        const covered = Math.min(bottom, actions.bottom) - Math.max(top, actions.top);
        const isWhole = right <= actions.left || covered <= 2 || covered >= bottom - top - 2;
        return isWhole ? [] : [`${line.className}: ${covered} of ${bottom - top}`];
      });
    });

  test("of twenty-two snippets most are in sight at every size, the newest among them, and nothing moves as one picks or points", async () => {
    await twentyTwo();
    await open();
    const { page } = window;
    for (const [width, height, least] of [
      [1280, 800, 14],
      [1000, 700, 11],
      [700, 800, 12],
      [420, 800, 12],
      [360, 640, 8],
      [340, 520, 5],
    ] as const) {
      await page.setViewportSize({ width, height });
      await window.in(".list").evaluate((list) => (list.scrollTop = list.scrollHeight));
      await until(inSight, (seen) => seen.includes(22));
      const seen = await inSight();
      expect({ width, seen: seen.length >= least ? "enough" : seen }).toEqual({ width, seen: "enough" });
      await page.mouse.move(1, 1);
      const before = await boxes();
      const row = window.in(`.list .row[data-position="18"]`);
      await row.hover();
      expect(moved(before, await boxes())).toEqual([]);
      for (const position of seen) {
        await window.in(`.list .row[data-position="${position}"]`).hover();
        expect([width, position, await halfCovered()]).toEqual([width, position, []]);
      }
      await row.locator(".position").click();
      await window.in(".picked").waitFor();
      expect(moved(before, await boxes())).toEqual([]);
      await row.locator(".position").click();
      await window.in(".picked").waitFor({ state: "detached" });
      if (width > 720) continue;
      // Neither where one has unfolded what will be placed: a sentence, a table and all need more and less room there.
      await window.in(".fold").click();
      await window.in(".preview").waitFor();
      await window.in(".list").evaluate((list) => (list.scrollTop = list.scrollHeight));
      const unfolded = await boxes();
      // All of it is in sight: only the list, the sentence and the preview are scrolled.
      const low = await window.in(".sides").evaluate((sides) => {
        const { host } = sides.getRootNode() as ShadowRoot;
        return host.scrollHeight - host.clientHeight;
      });
      expect({ height, low }).toEqual({ height, low: 0 });
      // One that is not in sight is scrolled to.
      const there = await inSight();
      expect(there).toContain(22);
      for (const position of [20, 22, 21].filter((each) => there.includes(each))) {
        await window.in(`.list .row[data-position="${position}"] .position`).click();
        await window.in(`.list .row[data-position="${position}"].picked`).waitFor();
        expect(moved(unfolded, await boxes())).toEqual([]);
      }
      await page.keyboard.press("Escape");
      await window.in(".picked").first().waitFor({ state: "detached" });
      expect(moved(unfolded, await boxes())).toEqual([]);
      await window.in(".fold").click();
    }
  });

  test("what draws the bar below it may come late, and nothing moves; that it cannot be had is said", async () => {
    await twentyTwo();
    await open();
    const { page } = window;
    const ofList = async () => (await boxes()).filter((box) => !box.startsWith("go"));
    for (const [width, height] of [
      [1280, 800],
      [420, 800],
    ] as const) {
      await page.setViewportSize({ width, height });
      let letCome: () => void = () => undefined;
      const isHeld = new Promise<void>((come) => (letCome = come));
      await page.route(/composer-view/, async (route) => (await isHeld, route.continue()));
      await page.reload();
      await window.in(".list .row").first().waitFor();
      await until(inSight, (seen) => seen.includes(22));
      const before = await ofList();
      expect(await window.in(".go").count()).toBe(0);
      letCome();
      await window.in(".go").waitFor();
      expect({ width, moved: moved(before, await ofList()) }).toEqual({ width, moved: [] });
      await page.unroute(/composer-view/);
    }
    await page.route(/composer-view/, (route) => route.abort());
    await page.reload();
    await window.in(".composer").getByText("a part of the drawer could not be loaded").waitFor();
    await page.unroute(/composer-view/);
    await page.reload();
    await window.in(".go").waitFor();
  });

  test("days part it; kinds have marks; a range is picked by Shift, all and none by keys; one is shown whole beside it", async () => {
    await twentyTwo();
    await open();
    const { page } = window;
    await window.in(".list").evaluate((list) => (list.scrollTop = 0));
    await window.in(".day").first().waitFor();
    expect([await window.in(".day").allInnerTexts(), await window.in(".kind").count()]).toEqual([
      ["Today"],
      22,
    ]);
    const picked = async () => (await window.in(".box").allInnerTexts()).filter(Boolean).join(" ");
    const becomes = (turns: string) => until(picked, (now) => now === turns);
    await window.in(".position").nth(4).click();
    await window
      .in(".position")
      .nth(2)
      .click({ modifiers: ["Shift"] });
    await becomes("3 2 1");
    await window.in(".sentence").getByText("the 3 picked").first().waitFor({ state: "attached" });
    expect(await window.in(".go").innerText()).toBe("Copy 3");
    await page.keyboard.press("Escape");
    await becomes("");
    await window.in(".snippet").nth(1).focus();
    await page.keyboard.press("p");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Shift+P");
    await becomes("1 2 3");
    await page.keyboard.press("Control+a");
    await becomes(
      NOTES.concat("", "", "", "")
        .map((_, at) => at + 1)
        .join(" "),
    );
    await page.keyboard.press("Escape");
    await becomes("");
    // What is private is picked by its own box alone.
    await all("hide 7");
    await window.in(`.list .row[data-position="7"] .from`).getByText("private").waitFor();
    await page.keyboard.press("Control+a");
    await window.told(/private/);
    await until(picked, (turns) => turns.split(" ").length === 21);
    await page.keyboard.press("Escape");
    await becomes("");
    await window.in(".position").nth(5).click();
    await window
      .in(".position")
      .nth(7)
      .click({ modifiers: ["Shift"] });
    await becomes("1 2");
    await window.in(".position").nth(6).click();
    await becomes("1 3 2");
    await window.in(".snippet").nth(3).focus();
    await page.keyboard.press("Escape");
    await becomes("");
    await page.keyboard.press("s");
    await window.in(".panel.whole").getByText("Note 4").waitFor();
    // The list stays beside it, and has the focus again after it.
    expect(await window.in(".list .row").nth(3).isVisible()).toBe(true);
    await page.keyboard.press("Escape");
    await window.in(".panel").waitFor({ state: "detached" });
    await page.setViewportSize({ width: 420, height: 800 });
    await window.openPanel("Rules");
    expect(await window.in(".list").isVisible()).toBe(false);
    await window.in(".back button").click();
    await window.in(".list").waitFor();
  });

  test("of ten thousand, wherever one scrolls, each row follows the one before; what comes is followed at the end, and told elsewhere", async () => {
    await importMany(10_000);
    await open();
    const { page } = window;
    const positions = async () => {
      const seen = await inSight();
      return seen.length > 0 && seen.every((position, at) => at === 0 || position === seen[at - 1]! + 1)
        ? seen
        : [];
    };
    await until(positions, (seen) => seen.includes(10_000));
    // A table in the middle is higher than it was taken for: what one looks at stays where it is.
    await drawer(["collect"], "a\tb\n1\t2\n3\t4");
    await until(positions, (seen) => seen.includes(10_001));
    expect(await window.in(".row.new").count()).toBe(1);
    for (const part of [0.5, 0.1, 0.93, 0]) {
      await window.in(".list").evaluate((list, at) => (list.scrollTop = at * list.scrollHeight), part);
      await until(positions, (seen) => seen.some((position) => Math.abs(position - part * 10_000) < 60));
    }
    const before = await positions();
    await drawer(["collect"], "one more");
    await drawer(["collect"], "and another");
    await window.in(".unseen").getByText("2 new").waitFor();
    expect(await positions()).toEqual(before);
    await window.in(".unseen").click();
    await until(positions, (seen) => seen.includes(10_003));
    await window.in(".unseen").waitFor({ state: "detached" });
    // By keys up and down again, across rows that are not drawn yet.
    await window.in(".snippet").last().focus();
    await page.keyboard.press("Home");
    await until(positions, (seen) => seen.includes(1));
    for (let step = 0; step < 40; step++) await page.keyboard.press("ArrowDown");
    await until(
      () => window.in(".row:focus-within").getAttribute("data-position"),
      (position) => position === "41",
    );
  });

  test("keys may come faster than anything is drawn: each is about the row that those before it lead to", async () => {
    await importMany(300);
    await open();
    const press = (...keys: string[]) =>
      window.page.evaluate((written) => {
        const root = document.querySelector("snippet-drawer")!.shadowRoot!;
        for (const each of written) {
          const [key, ...held] = each.split("+").reverse() as [string, ...string[]];
          const pressed = { key, shiftKey: held.includes("Shift"), altKey: held.includes("Alt") };
          const init = { ...pressed, bubbles: true, composed: true, cancelable: true };
          root.activeElement!.dispatchEvent(new KeyboardEvent("keydown", init));
        }
      }, keys);
    const focused = () =>
      window.in(".row:focus-within").evaluateAll(([row]) => (row as HTMLElement)?.dataset["position"]);
    const turns = async () => (await window.in(".box").allInnerTexts()).filter(Boolean).join(" ");
    await window.in(".snippet").last().focus();
    // The first rows are not drawn.
    await press("p", "Home", "ArrowDown", "p", "ArrowDown", "ArrowDown", "Shift+P");
    await until(turns, (now) => now === "2 3 4");
    expect(await focused()).toBe("4");
    await press("Delete", "Delete", "ArrowUp", "c");
    await until(
      async () => (await window.in(".list .says").allInnerTexts()).slice(0, 4).join(),
      (texts) => texts === "entry 1,entry 2,entry 3,entry 6",
    );
    expect(await focused()).toBe("3");
    // One that is moved keeps the focus while it is: it is never nowhere for the next key.
    const kept = await window.page.evaluate(() => {
      const root = document.querySelector("snippet-drawer")!.shadowRoot!;
      const row = root.activeElement!.closest(".row")!;
      let resolve: (kept: boolean) => void;
      const promise = new Promise<boolean>((done) => (resolve = done));
      new MutationObserver(() => {
        if (row.getAttribute("data-position") === "2") resolve(row.contains(root.activeElement));
      }).observe(root.querySelector(".list")!, { subtree: true, childList: true, attributes: true });
      const init = { key: "ArrowUp", altKey: true, bubbles: true, composed: true, cancelable: true };
      root.activeElement!.dispatchEvent(new KeyboardEvent("keydown", init));
      return promise;
    });
    expect(kept).toBe(true);
  });

  test("how it is arranged is kept: the next window, at another port, is so", async () => {
    await twentyTwo();
    await open();
    const beside = () =>
      window.in(".composer").evaluate((element) => Math.round(element.getBoundingClientRect().width));
    const [first, list] = [await beside(), window.in(".divider")];
    await list.focus();
    for (let step = 0; step < 4; step++) await window.page.keyboard.press("ArrowLeft");
    await until(beside, (width) => width > first + 80);
    const box = (await list.boundingBox())!;
    await window.page.mouse.move(box.x + 4, 400);
    await window.page.mouse.down();
    await window.page.mouse.move(box.x - 100, 400, { steps: 4 });
    await window.page.mouse.up();
    await until(beside, (width) => width > first + 180);
    await window.page.setViewportSize({ width: 420, height: 800 });
    expect(await window.in(".preview").isVisible()).toBe(false);
    await window.in(".fold").click();
    await window.in(".preview").waitFor();
    await window.page.setViewportSize({ width: 1280, height: 800 });
    const last = await beside();
    await until(
      () =>
        window.page.evaluate(() =>
          document.querySelector("snippet-drawer")!.binding!.drawer.store.value("", "arranged"),
        ),
      (kept) => kept?.includes("unfolded") ?? false,
    );
    await opened.end();
    await open();
    await until(beside, (width) => Math.abs(width - last) <= 2);
    await window.page.setViewportSize({ width: 420, height: 800 });
    await window.in(".preview").waitFor();
    // In a strip that opens unfolded the newest is in sight too.
    await window.page.reload();
    await window.in(".preview").waitFor();
    await until(inSight, (seen) => seen.includes(22));
  });

  test("a key changes the words of a snippet, and one takes what the pieces ask for; both are undone", async () => {
    await twentyTwo();
    await open();
    const { page } = window;
    await page.setViewportSize({ width: 1280, height: 800 });
    await window.in(".snippet").first().focus();
    await page.keyboard.press("Home");
    await page.keyboard.press("e");
    const field = window.in(".edited");
    await field.waitFor();
    const before = await field.innerText();
    await page.keyboard.press("Control+Home");
    await page.keyboard.type("Heard: ");
    await page.keyboard.press("Control+Enter");
    await window.told(/^Snippet 1 says now: “Heard: /);
    await page.keyboard.press("Control+z");
    await window.told(/^Undone: changing the words of/);
    await page.keyboard.press("s");
    await window.in(".panel.whole").getByText(before.trim(), { exact: true }).waitFor();
    // What was typed is not left without a question.
    await window.button("Change the words").click();
    await field.waitFor();
    await page.keyboard.type("x");
    page.once("dialog", (dialog) => void dialog.accept());
    await window.button("Leave it").click();
    await field.waitFor({ state: "detached" });
    await page.keyboard.press("Escape");

    // What is picked while the list is being read stays picked.
    const lost = await page.evaluate(async () => {
      const element = document.querySelector("snippet-drawer")!;
      for (let turn = 0; turn < 30; turn++) {
        const reading = element.read();
        for (let wait = 0; wait < turn % 6; wait++) await element.binding!.drawer.count();
        await element.pick(turn % 2 === 0 ? "1 2" : "3");
        await reading;
        if (element.picked.length !== (turn % 2 === 0 ? 2 : 1)) return turn;
      }
    });
    expect(lost).toBeUndefined();
    await page.evaluate(() => document.querySelector("snippet-drawer")!.pick("1 1"));
    await window.in(".suggested").getByText("Each once").waitFor();
    await drawer(["collect"], "Tides");
    await drawer(["collect"], "https://merrow-spit.example/tides");
    await page.evaluate(() => document.querySelector("snippet-drawer")!.pick("last-1 last"));
    await window.in(".suggested").getByText("As a link").waitFor();
    const go = await window.in(".going").boundingBox();
    await window.in(".snippet").first().focus();
    await page.keyboard.press("a");
    await window.in(".composer .preview a").getByText("Tides").waitFor();
    await window.in(".suggested").waitFor({ state: "detached" });
    expect(await window.in(".going").boundingBox()).toEqual(go);
  });
});
