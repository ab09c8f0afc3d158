import { commandHome } from "../support/command";
import { copyWithXclip, display, onDesktop, otherProgram } from "../support/desktop";
import { startWatch } from "../support/watch";

const SECRET = ["offer", "UTF8_STRING=terns at low water", "x-kde-passwordManagerHint=secret"];

onDesktop("drawer watch", () => {
  const screen = display();
  const { drawer, all, fresh, home } = commandHome();

  const watch = (...words: string[]) => startWatch(home(), ...words);

  test("each copy is collected and told, and Ctrl-C ends it with a count", async () => {
    fresh();
    const { said, told, ended, child } = await watch();
    copyWithXclip("UTF8_STRING", { text: "the gate was shut" });
    await told(/Collected as 1: “the gate was shut” \(the clipboard\)\./);
    copyWithXclip("text/html", { file: "demo/clipboard/cells-one-blank/clip.html" });
    await told(/blank/);
    const program = await otherProgram(
      "twice",
      "UTF8_STRING=twice for one copy",
      "text/html=<b>twice</b> for one copy",
    );
    await told(/Collected as 2: “twice for one copy”/);
    await new Promise((next) => setTimeout(next, 1200));
    program.kill();
    child.kill("SIGINT");
    expect(await ended).toBe(0);
    expect(said.out.match(/^Collected/gm)).toHaveLength(2);
    expect(said.err).toMatch(/2 copies were collected\.\n$/);
    expect(await all("place 2 --out markdown")).toBe("**twice** for one copy\n");
  });

  test("a drawer has one watch: another is refused, and may begin when the first is gone, however it ended", async () => {
    fresh();
    const first = await watch();
    const { code, err } = await drawer(["watch"]);
    expect([code, err]).toEqual([1, expect.stringContaining("Another program collects already")]);
    const letters = await watch("--drawer", "letters");
    first.child.kill("SIGKILL");
    await first.ended;
    const second = await watch();
    copyWithXclip("UTF8_STRING", { text: "into both drawers" });
    await Promise.all([letters, second].map(({ told }) => told(/Collected as 1/)));
    for (const { child, ended } of [letters, second]) {
      child.kill("SIGINT");
      expect(await ended).toBe(0);
    }
  });

  test("what hangs, ends in the middle, or is a secret does not end the watch", async () => {
    fresh();
    const { said, told, ended, child } = await watch("--json");
    const hangs = await otherProgram("hang");
    await told(/did not give what it offers/, "err");
    hangs.kill();
    await otherProgram("die", "UTF8_STRING=never");
    await told(/did not give what it offers[\s\S]*did not give what it offers/, "err");
    // On a machine that is very busy, a program may be taken for one that hangs; people copy again then.
    let keeper = await otherProgram(...SECRET);
    for (let tries = 0; tries < 3 && !said.out.includes('"private":true'); tries++) {
      await new Promise((next) => setTimeout(next, 3000));
      if (said.out !== "") break;
      keeper.kill();
      keeper = await otherProgram(...SECRET);
    }
    await told(/"private":true/);
    copyWithXclip("UTF8_STRING", { text: "after all that" });
    await told(/after all that/);
    keeper.kill();
    child.kill("SIGINT");
    expect(await ended).toBe(0);
    const values = said.out
      .trim()
      .split("\n")
      .map((line) => JSON.parse(line) as { snippets: unknown[] });
    expect(values.map(({ snippets }) => snippets.length)).toEqual([1, 1]);
    expect(said.out + said.err).not.toContain("terns");
  });

  test("--append gathers copies in one snippet, and undo takes back one", async () => {
    fresh();
    const { told, ended, child } = await watch("--append", "--between", "comma");
    for (const bird of ["wren", "tern", "knot"]) {
      copyWithXclip("UTF8_STRING", { text: bird });
      await told(new RegExp(bird));
    }
    copyWithXclip("text/html", { file: "demo/clipboard/cells-one-blank/clip.html" });
    await told(/nothing/i, "err");
    child.kill("SIGINT");
    expect(await ended).toBe(0);
    expect(await all("place all")).toBe("wren, tern, knot\n");
    expect(await all("undo", "place all")).toBe("wren, tern\n");
  });

  test("the origin names the program, its window and the page that was copied from", async () => {
    fresh();
    const { told, ended, child } = await watch("--json");
    const program = await otherProgram(
      "offer",
      "title=berths.xlsx — Merrow Sheets",
      "UTF8_STRING=Berth 4",
      "chromium/x-source-url=https://merrow-spit.example/berths#4",
    );
    await told(
      /"origin":\{(?=[^}]*"app":"Merrow Sheets")(?=[^}]*"title":"berths.xlsx — Merrow Sheets")[^}]*"address":"https:\/\/merrow-spit.example\/berths#4"/,
    );
    program.kill();
    child.kill("SIGINT");
    await ended;
    expect(await all("list")).toContain("berths.xlsx");
  });

  test("what Drawer offers itself is not collected again", async () => {
    fresh();
    copyWithXclip("UTF8_STRING", { text: "from outside" });
    await all("collect --clipboard");
    const { said, told, ended, child } = await watch();
    await all("place 1 --to clipboard");
    await new Promise((next) => setTimeout(next, 700));
    copyWithXclip("UTF8_STRING", { text: "and another" });
    await told(/another/);
    child.kill("SIGINT");
    await ended;
    expect(said.out).toMatch(/^Collected as 2: “and another” \(the clipboard\)\.\n$/);
  });

  test("a display that goes away is told, and ends the watch", async () => {
    fresh();
    const { said, ended } = await watch();
    screen.stop();
    expect(await ended).toBe(1);
    expect(said.err).toMatch(/display is gone/);
  });
});
