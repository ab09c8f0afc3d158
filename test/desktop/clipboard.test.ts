import { commandHome } from "../support/command";
import { copyWithXclip, display, onDesktop, otherProgram } from "../support/desktop";

onDesktop("the clipboard of a desktop", () => {
  display();
  const { drawer, all, fresh } = commandHome();

  test("collects what was copied, in the flavour that keeps most", async () => {
    expect(await drawer(["collect", "--clipboard"])).toMatchObject({
      code: 1,
      err: "drawer: The clipboard is empty. Copy something first.\n",
    });
    copyWithXclip("text/html", { file: "demo/clipboard/web-sentence/clip.html" });
    expect(await all("collect --clipboard")).toMatch(/^Collected as 1: “High water 11:48/);
    copyWithXclip("UTF8_STRING", { file: "demo/clipboard/web-sentence/clip.txt" });
    await all("collect --clipboard");
    expect(await all("place 1 --out markdown")).toContain("**11:48**");
    expect(await all("place 2 --out markdown")).not.toContain("**");
    copyWithXclip("text/html", { file: "demo/clipboard/cells-one-blank/clip.html" });
    expect(await all("collect --clipboard")).toBe("Nothing collected: the clipboard is blank.\n");
  });

  test("what a program declares to be a secret is private", async () => {
    fresh();
    const keeper = await otherProgram(
      "offer",
      "UTF8_STRING=terns at low water",
      "x-kde-passwordManagerHint=secret",
    );
    expect(await all("collect --clipboard")).toMatch(/^Collected as 1, private: it is shown nowhere/);
    keeper.kill();
    expect(await all("list")).not.toContain("terns");
  });

  test("without a desktop it says so", async () => {
    const before = process.env["DISPLAY"];
    delete process.env["DISPLAY"];
    const { code, err } = await drawer(["collect", "--clipboard"]);
    process.env["DISPLAY"] = before;
    expect([code, err]).toEqual([1, expect.stringContaining("There is no desktop here")]);
  });
});
