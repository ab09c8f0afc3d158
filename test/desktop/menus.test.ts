import { spawnSync } from "node:child_process";
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { delimiter, join } from "node:path";
import { commandHome } from "../support/command";
import { addToMenu, isInMenu, removeFromMenu } from "drawer/desktop";

const folder = mkdtempSync(join(tmpdir(), "drawer-menus-"));
const before = { ...process.env };
beforeAll(() => {
  for (const name of ["HOME", "XDG_DATA_HOME", "XDG_CONFIG_HOME", "APPDATA"])
    process.env[name] = join(folder, name);
});
afterAll(() => {
  process.env = before;
  rmSync(folder, { recursive: true, force: true });
});

/** A program that writes down its words, at a path that every system has to quote. */
const odd = join(folder, `it's 100% "odd" $HOME \\ here`);
const heard = join(folder, "heard");
const program = {
  name: "Drawer",
  about: "Collect snippets & place them",
  command: [odd, "open", "--drawer", `spring "one"`],
  icon: "<svg/>",
};
beforeAll(() => {
  writeFileSync(odd, `#!/bin/sh\nprintf '%s\\n' "$@" > '${heard}'\n`);
  chmodSync(odd, 0o755);
});

/** The words of Exec as a menu reads them (Desktop Entry 1.5): the escapes of any text first, then those of the quotes. */
function wordsOf(exec: string): string[] {
  const text = exec.replace(/\\(.)/g, "$1");
  return [...text.matchAll(/"((?:[^"\\]|\\.)*)"/g)].map(([, word]) =>
    word!.replace(/\\(.)/g, "$1").replaceAll("%%", "%"),
  );
}

test("on freedesktop's menus an entry starts just that program, with an icon; taken out, nothing stays", async () => {
  for (const place of ["menu", "login"] as const) {
    const file = await addToMenu(place, program, "linux");
    expect(isInMenu(place, "linux")).toBe(true);
    const [, exec] = /^Exec=(.*)$/m.exec(readFileSync(file, "utf8"))!;
    const [run, ...words] = wordsOf(exec!);
    expect([run, ...words]).toEqual(program.command);
    spawnSync(run!, words);
    expect(readFileSync(heard, "utf8")).toBe(`open\n--drawer\nspring "one"\n`);
  }
  const icon = join(process.env["XDG_DATA_HOME"]!, "icons/hicolor/scalable/apps/drawer-window.svg");
  expect(readFileSync(icon, "utf8")).toBe("<svg/>");
  expect(existsSync(await removeFromMenu("menu", "linux"))).toBe(false);
  expect([isInMenu("menu", "linux"), isInMenu("login", "linux")]).toEqual([false, true]);
  // The entries share it.
  expect(existsSync(icon)).toBe(true);
  expect(existsSync(await removeFromMenu("login", "linux"))).toBe(false);
  expect(existsSync(icon)).toBe(false);
  // What is not there can be taken out all the same.
  await removeFromMenu("menu", "linux");
});

test("on macOS it is an application that starts the program, and an agent", async () => {
  const application = await addToMenu("menu", program, "darwin");
  const script = join(application, "Contents/MacOS/drawer-window");
  expect(statSync(script).mode & 0o111).not.toBe(0);
  rmSync(heard);
  spawnSync(script);
  expect(readFileSync(heard, "utf8")).toBe(`open\n--drawer\nspring "one"\n`);
  const agent = await addToMenu("login", program, "darwin");
  expect(readFileSync(agent, "utf8")).toContain("<key>RunAtLoad</key><true/>");
  for (const place of ["menu", "login"] as const)
    expect(existsSync(await removeFromMenu(place, "darwin"))).toBe(false);
});

test("on Windows it is a link that the system itself makes; what it refuses is told", async () => {
  const shell = join(folder, "powershell.exe");
  writeFileSync(shell, `#!/bin/sh\nprintf '%s|%s' "$DRAWER_PROGRAM" "$DRAWER_WORDS" > "$DRAWER_LINK"\n`);
  chmodSync(shell, 0o755);
  process.env["PATH"] = folder + delimiter + before["PATH"];
  const link = await addToMenu("menu", { ...program, command: ["node.exe", "main.js", "open"] }, "win32");
  expect(readFileSync(link, "utf8")).toBe(`node.exe|"main.js" "open"`);
  writeFileSync(shell, "#!/bin/sh\nexit 3\n");
  await expect(addToMenu("login", program, "win32")).rejects.toThrow("could not be written");
  await expect(addToMenu("menu", program, "aix")).rejects.toThrow("(aix) is not known");
  expect(existsSync(await removeFromMenu("menu", "win32"))).toBe(false);
});

describe("by the command", () => {
  const { drawer } = commandHome();
  test("it is put there and taken out, and says where", async () => {
    const { out } = await drawer(["open", "--add-to-menu", "--at-login"]);
    expect(out).toMatch(
      /^The window is in the system's menu \(.*\)\.\nThe window starts quietly when you log in \(.*\)\.\n$/,
    );
    const login = readFileSync(/log in \((.*)\)/.exec(out)![1]!, "utf8");
    const [run, main, ...words] = wordsOf(/^Exec=(.*)$/m.exec(login)![1]!);
    expect([run, words]).toEqual([process.execPath, ["open", "--quiet"]]);
    expect(spawnSync(run!, [main!, "--version"], { encoding: "utf8" }).stdout).toMatch(/^\d/);
    expect((await drawer(["open", "--add-to-menu", "--at-login", "--remove"])).out).toMatch(
      /^Taken out of the system's menu: .*\nIt does not start when you log in any more: /,
    );
  });
});
