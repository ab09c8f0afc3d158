import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { commandHome } from "../support/command";

const hasDesktop = ["Xvfb", "xclip"].every((program) => spawnSync("which", [program]).status === 0);
if (!hasDesktop)
  console.log("Skipped: the tests of the desktop's clipboard, because Xvfb or xclip is not on this machine.");
const onDesktop = hasDesktop || process.env["CI"] ? describe : describe.skip;

onDesktop("the clipboard of a desktop", () => {
  const { drawer, all, folder, fresh } = commandHome();
  let screen: ChildProcess;
  beforeAll(async () => {
    // Xvfb finds a free display and says its number when it is ready.
    screen = spawn("Xvfb", ["-displayfd", "3", "-screen", "0", "640x480x24"], {
      stdio: ["ignore", "ignore", "ignore", "pipe"],
    });
    const number = await new Promise<string>((ready) =>
      screen.stdio[3]!.once("data", (said) => ready(String(said).trim())),
    );
    process.env["DISPLAY"] = `:${number}`;
  });
  afterAll(() => void screen.kill());

  const put = (target: string, file: string) =>
    spawnSync("xclip", ["-selection", "clipboard", "-t", target, file], {
      stdio: "ignore",
      env: { ...process.env },
    });

  test("collects what was copied, in the flavour that keeps most", async () => {
    expect(await drawer(["collect", "--clipboard"])).toMatchObject({
      code: 1,
      err: "drawer: The clipboard is empty. Copy something first.\n",
    });
    put("text/html", "demo/clipboard/web-sentence/clip.html");
    expect(await all("collect --clipboard")).toMatch(/^Collected as 1: “High water 11:48/);
    put("UTF8_STRING", "demo/clipboard/web-sentence/clip.txt");
    await all("collect --clipboard");
    expect(await all("place 1 --out markdown")).toContain("**11:48**");
    expect(await all("place 2 --out markdown")).not.toContain("**");
    put("text/html", "demo/clipboard/cells-one-blank/clip.html");
    expect(await all("collect --clipboard")).toBe("Nothing collected: the clipboard is blank.\n");
  });

  test("what a program declares to be a secret is private", async () => {
    // xclip can offer one target at a time; a keeper of passwords offers its text and the hint.
    const answers = {
      TARGETS: "UTF8_STRING\nx-kde-passwordManagerHint",
      UTF8_STRING: "terns at low water",
      "x-kde-passwordManagerHint": "secret",
    };
    const cases = Object.entries(answers).map(([target, text]) => `${target}) printf '${text}' ;;`);
    writeFileSync(join(folder, "xclip"), `#!/bin/sh\ncase "$5" in\n${cases.join("\n")}\nesac\n`, {
      mode: 0o755,
    });
    const before = process.env["PATH"];
    process.env["PATH"] = `${folder}:${before}`;
    fresh();
    expect(await all("collect --clipboard")).toMatch(/^Collected as 1, private: it is shown nowhere/);
    process.env["PATH"] = before;
    expect(await all("list")).not.toContain("terns");
  });

  test("without a desktop it says so", async () => {
    const before = process.env["DISPLAY"];
    delete process.env["DISPLAY"];
    const { code, err } = await drawer(["collect", "--clipboard"]);
    process.env["DISPLAY"] = before;
    expect([code, err]).toEqual([1, expect.stringContaining("there is none here")]);
  });
});
